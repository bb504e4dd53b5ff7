import { execFile } from 'node:child_process';
import { copyFile, mkdtemp, open, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { navigationOf } from '../core/disc/reading/lit-buttons';
import { openPlayer } from '../core/disc/reading/disc-player';
import { readDisc } from '../core/disc/reading/structures';
import { openSectors } from '../server/disc/image-sectors';
import { discCommand } from './disc-command';
import { UsageError } from './usage-error';

const asked = promisify(execFile);
let folder: string;
let out = '';
let told = '';
async function run(...args: string[]): Promise<number> {
  out = '';
  told = '';
  return discCommand(args, { folder, out: (text) => void (out += text), tell: (text) => void (told += text) });
}
const at = (name: string) => path.join(folder, name);
const said = () => JSON.parse(out) as Record<string, number & string & string[]>;
/** What the readers of Debian say of an image. */
const listed = async (image: string) => (await asked('lsdvd', ['-c', '-x', at(image)])).stdout;

/** A saved show of so many pictures that stand for a moment each. */
async function saved(name: string, count: number, frame = { widthPx: 1280, heightPx: 720 }): Promise<void> {
  await writeFile(
    at(name),
    JSON.stringify({
      ...{ format: 'tanager-show', version: 7, id: 'x', title: `${count} “pictures” & more`, defaultLengthMs: 1200 },
      ...{ cues: [], methods: {}, files: { one: 'one.jpg', two: 'two.jpg' } },
      frame: { ...frame, rate: { frames: 25, seconds: 1 } },
      slides: Array.from({ length: count }, (_, index) => ({
        ...{ id: `s${index}`, lengthMs: 1200, transition: { kind: 'cut' }, backing: { kind: 'automatic' }, sounds: [] },
        layers: [{ kind: 'picture', id: `p${index}`, assetId: index % 2 ? 'two' : 'one', move: { kind: 'still' } }],
        ...(index % 2 === 0 && { chapter: `Part ${index / 2 + 1}` }),
      })),
    }),
  );
}

beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-disc-'));
  await copyFile(path.resolve('demo/files/PE_0412.jpg'), at('one.jpg'));
  await copyFile(path.resolve('demo/files/PE_0423.jpg'), at('two.jpg'));
  await saved('twenty.json', 20);
  await saved('few.json', 4, { widthPx: 960, heightPx: 720 });
  await saved('others.json', 6, { widthPx: 960, heightPx: 720 });
});
afterAll(async () => {
  await rm(folder, { recursive: true, force: true });
});

describe('tanager disc', () => {
  it('makes the image of a PAL disc of twenty pictures that other readers read, and every button of which leads where it should', async () => {
    expect(
      await run('twenty.json', '--out', 'twenty.iso', '--chapters', 'slides', '--menu-seconds', '6', '--json'),
    ).toBe(0);
    expect(said()).toMatchObject({ titles: 1, chapters: 20, pages: 5, label: '20_PICTURES_MORE', problems: [] });
    expect(said().presses).toBeGreaterThan(400);
    const listing = await listed('twenty.iso');
    expect(listing).toMatch(/Length: 00:00:24\.0\d\d Chapters: 20, Cells: 20/);
    expect(listing).toMatch(/Chapter: 07, Length: 00:00:01\.200/);
    expect(listing).toMatch(/Format: PAL, Aspect ratio: 16\/9, Width: 720, Height: 576/);
    const { stdout } = await asked('isoinfo', ['-l', '-i', at('twenty.iso')]);
    for (const file of ['VIDEO_TS.IFO', 'VIDEO_TS.BUP', 'VTS_01_0.IFO', 'VTS_01_0.VOB', 'VTS_01_1.VOB'])
      expect(stdout).toContain(file);

    // What a player decodes: no group of pictures longer than the standard lets it be, sound beside them.
    const { stdout: streams } = await asked('isoinfo', ['-i', at('twenty.iso'), '-x', '/VIDEO_TS/VTS_01_1.VOB;1'], {
      encoding: 'buffer',
      maxBuffer: 1e9,
    });
    await writeFile(at('film.vob'), streams);
    const probed = await asked('ffprobe', [
      ...['-v', 'error', '-select_streams', 'v:0', '-show_entries', 'frame=pict_type', '-of', 'csv=p=0'],
      at('film.vob'),
    ]);
    const kinds = probed.stdout
      .split('\n')
      .map((line) => line.replace(',', '').trim())
      .filter(Boolean);
    expect(kinds).toHaveLength(600);
    const whole = kinds.flatMap((kind, index) => (kind === 'I' ? [index] : []));
    expect(Math.max(...whole.slice(1).map((index, before) => index - whole[before]!))).toBeLessThanOrEqual(15);
    for (let chapter = 0; chapter < 20; chapter += 1) expect(whole).toContain(chapter * 30);
  }, 240_000);

  it('makes an NTSC disc of several films that plays all, or one, and goes on again', async () => {
    const args = [
      'few.json',
      'others.json',
      '--standard',
      'ntsc',
      '--shape',
      '4:3',
      '--begins',
      'film',
      '--afterwards',
      'again',
      '--menu-seconds',
      '6',
      '--title',
      'Zwei Füchse',
    ];
    expect(await run(...args, '--out', 'two.iso', '--json')).toBe(0);
    expect(said()).toMatchObject({ titles: 2, chapters: 5, label: 'ZWEI_FUCHSE' });
    expect(await listed('two.iso')).toMatch(/Format: NTSC, Aspect ratio: 4\/3, Width: 720, Height: 480/);
    const sectors = await openSectors(at('two.iso'));
    const disc = await readDisc(sectors.read);
    const player = await openPlayer(disc, sectors.read);
    expect(player.place()).toMatchObject({ in: 'title', title: 1, chapter: 1 });
    expect(await player.press('ends')).toMatchObject({ in: 'title', title: 2 });
    expect(await player.press('ends')).toMatchObject({ in: 'title', title: 1 });
    expect(await player.press('menu')).toEqual({ in: 'menu', set: 1, chain: 1, button: 1 });
    await player.press('down');
    expect(await player.press('press')).toMatchObject({ title: 1, chapter: 1 });
    expect(await player.press('ends')).toMatchObject({ title: 1 });
    const [menu] = disc.sets[0]!.menus;
    expect((await navigationOf(sectors.read, disc.sets[0]!.menuSector, menu!.cells[0]!)).groups).toHaveLength(1);
    await sectors.close();
  }, 240_000);

  it('notices an image that is damaged', async () => {
    const image = await readFile(at('two.iso'));
    const second = image.lastIndexOf('DVDVIDEO-VTS');
    const handle = await open(at('two.iso'), 'r+');
    await handle.write(Buffer.from([image[second + 20]! ^ 1]), 0, 1, second + 20);
    await handle.close();
    const sectors = await openSectors(at('two.iso'));
    await expect(readDisc(sectors.read)).rejects.toThrow(/second copy of VTS_01_0 differs/);
    await sectors.close();
  });

  it('says what is wrong before it begins, and what is missing', async () => {
    await expect(run('twenty.json')).rejects.toThrow(UsageError);
    await expect(run('--out', 'a.iso')).rejects.toThrow('Name one saved show');
    await expect(run('twenty.json', '--out', 'a.iso', '--standard', 'secam')).rejects.toThrow(
      /--standard must be one of pal, ntsc/,
    );
    await expect(run('twenty.json', '--out', 'a.iso', '--mount', 'nothing')).rejects.toThrow(/--mount knows .*low-sun/);
    process.env.TANAGER_SPUMUX = '/nowhere/spumux';
    await expect(run('few.json', '--out', 'a.iso')).rejects.toThrow(
      'spumux is not installed on the server: it lays what is lit into the pages of a menu. On Debian: apt-get install dvdauthor',
    );
    delete process.env.TANAGER_SPUMUX;
  });
});

import { execFile } from 'node:child_process';
import { mkdtemp, rm, stat, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Show } from '../src/core/show/show';
import { type App, ask, openApp, sending } from './app';

let app: App;
let folder: string;
let token: string;
const demo = (name: string) => path.resolve('demo/files', name);

/** The command as a person types it, elsewhere. */
function tanager(...args: string[]): Promise<{ readonly code: number; readonly out: string; readonly told: string }> {
  return new Promise((resolve) => {
    execFile(
      process.execPath,
      ['scripts/tanager.mjs', ...args],
      {
        env: { ...process.env, NODE_OPTIONS: '', INIT_CWD: folder, TANAGER_SERVER: app.address, TANAGER_TOKEN: token },
      },
      (error, out, told) => resolve({ code: error ? Number(error.code) : 0, out: out.trim(), told }),
    );
  });
}
const json = async <Told>(...args: string[]): Promise<Told> => {
  const { code, out, told } = await tanager(...args, '--json');
  if (code !== 0) throw new Error(told);
  return JSON.parse(out) as Told;
};

beforeAll(async () => {
  app = await openApp();
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-remote-'));
  const made = await ask(
    `${app.address}/api/v1/tokens`,
    sending('POST', { name: 'A script', scopes: ['shows', 'films'] }),
  );
  token = ((await made.json()) as { word: string }).word;
});
afterAll(async () => {
  await app.close();
  await rm(folder, { recursive: true, force: true });
});

describe('the command asks a server', () => {
  it('from a title to a film and its link, each step seen there', async () => {
    const { out: id } = await tanager('new', 'An evening by command');
    await writeFile(path.join(folder, 'broken.jpg'), 'no picture');
    const added = await json<{ files: number; problems: { file: string }[] }>(
      'add',
      id,
      demo('PE_0419.jpg'),
      demo('PE_0412.jpg'),
      'broken.jpg',
    );
    expect([added.files, added.problems.map(({ file }) => file)]).toEqual([3, ['broken.jpg']]);
    expect(await json('arrange', 'an evening by command', '--by', 'name', '--seconds', '1')).toMatchObject({
      slides: 2,
    });
    expect((await tanager('arrange', id)).out).toBe('Everything is in the order already.');
    await json('words', id, '--slide', '1', '--title', 'Dusk');
    await json('music', id, demo('harbour-reel.mp3'));
    const { show } = (await (await ask(`${app.address}/api/v1/shows/${id}`)).json()) as { show: Show };
    expect(show.slides.map(({ lengthMs }) => lengthMs)).toEqual([1000, 1000]);
    expect(show.slides[0]!.layers.find(({ kind }) => kind === 'words')).toMatchObject({ title: 'Dusk' });
    expect(show.cues).toHaveLength(1);
    await json('plumage', id, 'heron');
    const dressed = (await (await ask(`${app.address}/api/v1/shows/${id}`)).json()) as { show: Show };
    expect(dressed.show.plumage?.is.id).toBe('heron');
    const { file, bytes } = await json<{ file: string; bytes: number }>(
      'film',
      id,
      '--purpose',
      'web',
      '--out',
      'evening.mp4',
    );
    expect((await stat(file)).size).toBe(bytes);
    const { out: link } = await tanager('screen', id);
    expect((await fetch(link)).status).toBe(200);
    const { shows } = await json<{ shows: { id: string; title: string }[] }>('shows');
    expect(shows.map(({ title }) => title)).toContain('An evening by command');
  });
  it.each<[string, string[], number, RegExp]>([
    ['a show that is not there', ['arrange', 'Nobody'], 1, /There is no show “Nobody”/],
    [
      'a slide that is not there',
      ['words', 'An evening by command', '--slide', '99', '--title', 'x'],
      2,
      /--slide is a number from 1 to/,
    ],
    ['nothing to say', ['new'], 2, /new takes a title/],
    ['a token nobody knows', ['shows', '--token', 'tanager_none'], 1, /does not know this token/],
    ['a server that is not there', ['shows', '--server', 'http://127.0.0.1:9'], 1, /cannot be reached/],
    ['a file that is not there', ['add', 'An evening by command', 'none.jpg'], 1, /there is no such file/],
  ])('and says why not, of %s', async (_, args, code, says) => {
    const answer = await tanager(...args);
    expect([answer.code, answer.told]).toEqual([code, expect.stringMatching(says)]);
  });
});

describe('commands for saved shows do the same for shows of a server', () => {
  it('look one over, lay a voice on a slide, save it as one file and take that in again', async () => {
    const { out: id } = await tanager('new', 'A rope across the bay');
    await json('add', id, demo('PE_0412.jpg'), demo('PE_0423.jpg'));
    await json('arrange', id, '--by', 'name', '--seconds', '2');
    const there = ['--server', app.address];
    const looked = await json<{ snags: { kind: string }[] }>('check', id, ...there);
    expect(Array.isArray(looked.snags)).toBe(true);
    const spoken = await json<{ take: string; voiceMs: number }>(
      ...['voice', id, '--slide', '2', '--take', demo('opening-words.flac'), '--script', 'It began at dusk.', ...there],
    );
    expect(spoken.take).toBe('Take 1');
    const { show } = (await (await ask(`${app.address}/api/v1/shows/${id}`)).json()) as { show: Show };
    expect(show.slides[1]).toMatchObject({ script: 'It began at dusk.', sounds: [{ kind: 'voice', name: 'Take 1' }] });
    expect(show.slides[1]!.lengthMs).toBeGreaterThanOrEqual(spoken.voiceMs);
    expect(show.slides[0]!.lengthMs).toBe(2000);

    const { file } = await json<{ file: string }>('bundle', id, '--out', 'rope.show.zip', ...there);
    expect((await stat(file)).size).toBeGreaterThan(100_000);
    const again = await json<{ show: string; bad: unknown[] }>('import', file, ...there);
    expect(again.bad).toEqual([]);
    const came = (await (await ask(`${app.address}/api/v1/shows/${again.show}`)).json()) as { show: Show };
    expect(came.show.slides.map(({ lengthMs }) => lengthMs)).toEqual(show.slides.map(({ lengthMs }) => lengthMs));
    const unknown = await tanager('check', 'no such show', ...there);
    expect([unknown.code, unknown.told]).toEqual([1, expect.stringContaining('There is no show “no such show”')]);
  });
  it('make a disc of it, and fetch the image', async () => {
    const { out: id } = await tanager('new', 'A short disc');
    await json('add', id, demo('PE_0412.jpg'));
    await json('arrange', id, '--seconds', '2');
    const made = await json<{ image: string; bytes: number; pressCount: number }>(
      ...['disc', id, '--out', 'short.iso', '--menu-seconds', '6', '--standard', 'ntsc', '--server', app.address],
    );
    expect((await stat(made.image)).size).toBe(made.bytes);
    expect(made.pressCount).toBeGreaterThan(5);
  });
});

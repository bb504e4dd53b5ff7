import { copyFile, mkdir, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Show } from '../core/show/show';
import { timelineCommand } from './timeline-command';
import { UsageError } from './usage-error';

let folder: string;
let out = '';
let told = '';
async function run(...args: string[]): Promise<number> {
  out = '';
  told = '';
  return timelineCommand(args, { folder, out: (text) => void (out += text), tell: (text) => void (told += text) });
}
const text = (name: string) => readFile(path.join(folder, name), 'utf8');

beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-timeline-'));
  await mkdir(path.join(folder, 'media'));
  await copyFile(path.resolve('demo/files/PE_0412.jpg'), path.join(folder, 'media/a boat.jpg'));
  const slide = (id: string, more: object) => ({
    ...{
      id,
      lengthMs: 2000,
      transition: { kind: 'cut' },
      backing: { kind: 'automatic' },
      sounds: [],
      chapter: `Part ${id}`,
    },
    layers: [{ kind: 'picture', id: `p-${id}`, assetId: 'boat', move: { kind: 'automatic' } }],
    ...more,
  });
  await writeFile(
    path.join(folder, 'show.json'),
    JSON.stringify({
      ...{ format: 'tanager-show', version: 7, id: 'x', title: 'Boats', defaultLengthMs: 2000, cues: [], methods: {} },
      frame: { widthPx: 1920, heightPx: 1080, rate: { frames: 25, seconds: 1 } },
      files: { boat: 'media/a boat.jpg' },
      slides: [slide('a', {}), slide('b', { transition: { kind: 'dissolve', lengthMs: 800 } })],
    }),
  );
});
afterAll(async () => {
  await rm(folder, { recursive: true, force: true });
});

describe('tanager timeline', () => {
  it('writes a saved show as a timeline, and makes the same show of it', async () => {
    expect(await run('show.json', '--out', 'film.otio')).toBe(0);
    expect(JSON.parse(await text('film.otio'))).toMatchObject({ OTIO_SCHEMA: 'Timeline.1', name: 'Boats' });
    expect(await text('film.otio')).toContain('/media/a%20boat.jpg');
    expect(await run('film.otio', '--out', 'again.json', '--files', 'media', '--json')).toBe(0);
    expect(JSON.parse(out)).toMatchObject({ slides: 2, told: [], missing: [] });
    expect(await run('again.json', '--out', 'again.otio')).toBe(0);
    expect(await text('again.otio')).toBe(await text('film.otio'));
  });
  it('makes a show of a timeline written by hand, and tells which files are not there', async () => {
    const time = (value: number) => ({ OTIO_SCHEMA: 'RationalTime.1', rate: 25, value });
    const clip = (name: string) => ({
      ...{ OTIO_SCHEMA: 'Clip.1', name },
      source_range: { OTIO_SCHEMA: 'TimeRange.1', start_time: time(0), duration: time(75) },
      media_reference: { OTIO_SCHEMA: 'ExternalReference.1', target_url: `/elsewhere/${name}` },
    });
    const track = { OTIO_SCHEMA: 'Track.1', kind: 'Video', children: [clip('a%20boat.jpg'), clip('gone.jpg')] };
    const document = {
      OTIO_SCHEMA: 'Timeline.1',
      name: 'By hand',
      tracks: { OTIO_SCHEMA: 'Stack.1', children: [track] },
    };
    await writeFile(path.join(folder, 'hand.otio'), JSON.stringify(document));
    expect(await run('hand.otio', '--out', 'hand.json', '--files', 'media')).toBe(3);
    expect(told).toBe('gone.jpg: it is not there, its slide is blank.\n');
    const show = JSON.parse(await text('hand.json')) as Show & { files: Record<string, string> };
    expect(show.slides.map(({ lengthMs, layers }) => [lengthMs, layers.length])).toEqual([
      [3000, 1],
      [3000, 0],
    ]);
    expect(Object.values(show.files)).toEqual(['media/a boat.jpg']);
  });
  it('writes the order as a table and the chapters for ffmpeg', async () => {
    await run('show.json', '--out', 'order.csv');
    expect((await text('order.csv')).split('\r\n').slice(0, 2)).toEqual([
      '\uFEFFslide,number,seconds,title,subtitle,script,chapter,files',
      'a,1,2,,,,Part a,a boat.jpg',
    ]);
    await run('show.json', '--out', 'film.ffmetadata', '--json');
    expect(await text('film.ffmetadata')).toBe(
      ';FFMETADATA1\ntitle=Boats\n[CHAPTER]\nTIMEBASE=1/1000\nSTART=0\nEND=2000\ntitle=Part a\n[CHAPTER]\nTIMEBASE=1/1000\nSTART=2000\nEND=4000\ntitle=Part b\n',
    );
    expect(JSON.parse(out)).toEqual({ file: path.join(folder, 'film.ffmetadata'), bytes: 140 });
  });
  it.each<[string, string[], RegExp]>([
    ['nothing', ['--out', 'x.otio'], /Name one saved show/],
    ['no place', ['show.json'], /--out FILE/],
    ['an ending nobody knows', ['show.json', '--out', 'x.doc'], /ends in \.otio, \.csv or \.ffmetadata/],
    ['a timeline that is to become a picture', ['film.otio', '--out', 'x.png'], /saved as \.json/],
  ])('with %s is refused', async (_, args, says) => {
    await expect(run(...args)).rejects.toThrow(UsageError);
    await expect(run(...args)).rejects.toThrow(says);
  });
  it('says what is no timeline', async () => {
    await writeFile(path.join(folder, 'torn.otio'), '{');
    await expect(run('torn.otio', '--out', 'x.json')).rejects.toThrow(/is not JSON/);
    await writeFile(path.join(folder, 'other.otio'), '{}');
    await expect(run('other.otio', '--out', 'x.json')).rejects.toThrow(/no timeline in OpenTimelineIO/);
  });
});

import { copyFile, mkdir, mkdtemp, readdir, readFile, rm, stat, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { seriesCommand } from './series-command';
import { UsageError } from './usage-error';

const demo = (name: string) => path.resolve('demo/files', name);
let folder: string;
let out = '';
let told = '';
const surroundings = () => ({
  folder,
  out: (text: string) => void (out += text),
  tell: (text: string) => void (told += text),
});
async function run(...args: string[]): Promise<number> {
  out = '';
  told = '';
  return seriesCommand(args, surroundings());
}
const table = (text: string) => writeFile(path.join(folder, 'rows.csv'), text);
interface Told {
  readonly rows: { row: number; film: string | null; state: string; problem: string | null; told: string[] }[];
}
const rows = () => (JSON.parse(out) as Told).rows;

beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-series-command-'));
  const slide = (id: string, words: object[]) => ({
    ...{ id, lengthMs: 1000, transition: { kind: 'cut' }, backing: { kind: 'automatic' }, sounds: [] },
    layers: [{ kind: 'picture', id: `p-${id}`, assetId: id, move: { kind: 'still' } }, ...words],
  });
  await writeFile(
    path.join(folder, 'pattern.json'),
    JSON.stringify({
      ...{ format: 'tanager-show', version: 7, id: 'x', title: 'House', defaultLengthMs: 1000, cues: [], methods: {} },
      frame: { widthPx: 320, heightPx: 180, rate: { frames: 10, seconds: 1 } },
      files: { a: demo('PE_0412.jpg'), b: demo('PE_0415.jpg') },
      slides: [
        slide('a', [{ kind: 'words', id: 'w', title: 'House', subtitle: '{Town}', place: 'top' }]),
        slide('b', []),
      ],
    }),
  );
  for (const [house, names] of [
    ['mill', ['PE_0419.jpg', 'PE_0423.jpg']],
    ['quay', ['PE_0426.jpg']],
  ] as const) {
    await mkdir(path.join(folder, house), { recursive: true });
    for (const name of names) await copyFile(demo(name), path.join(folder, house, name));
  }
  // As a spreadsheet of another country saves it.
  await table(
    '\uFEFFTown;Album;House\r\nSaltmere;mill;"The ""Old"" Mill"\r\nAldwick;quay;Quay House\r\nAldwick;barn;The Barn\r\n',
  );
});
afterAll(async () => {
  await rm(folder, { recursive: true, force: true });
});

describe('tanager series', () => {
  it('tells with --check what fills what and which rows cannot be made, and makes nothing', async () => {
    expect(await run('pattern.json', 'rows.csv', '--check')).toBe(3);
    expect(out).toBe(
      'title: House\nslide 1 picture: folder\nslide 1 title: House\nslide 1 subtitle: Town\nslide 2 picture: folder\n',
    );
    expect(told).toBe('Row 3: There is no folder “barn”.\n');
    expect(await readdir(folder)).not.toContain('films');
  });
  it('makes a film of each row that can be made, and of those that changed again', async () => {
    expect(await run('pattern.json', 'rows.csv', '--out', 'films', '--json')).toBe(3);
    expect(rows().map(({ film, state, problem }) => [film, state, problem])).toEqual([
      ['001 The Old Mill.mp4', 'made', null],
      ['002 Quay House.mp4', 'made', null],
      [null, 'not made', 'There is no folder “barn”.'],
    ]);
    expect(rows()[1]!.told).toEqual(['Its folder has fewer pictures than the pattern: 1 slide left out.']);
    const made = await stat(path.join(folder, 'films/001 The Old Mill.mp4'));
    await table('House,Town,Album\nThe Old Mill,Saltmere,mill\nThe Quay,Aldwick,quay\n');
    expect(await run('pattern.json', 'rows.csv', '--out', 'films', '--json')).toBe(0);
    expect(rows().map(({ film, state }) => [film, state])).toEqual([
      ['001 The Old Mill.mp4', 'made'],
      ['002 The Quay.mp4', 'made'],
    ]);
    // Its title had other quotes; what is drawn of it was kept.
    expect((await stat(path.join(folder, 'films/001 The Old Mill.mp4'))).mtimeMs).toBeGreaterThan(made.mtimeMs);
    expect(await run('pattern.json', 'rows.csv', '--out', 'films', '--json')).toBe(0);
    expect(rows().map(({ state }) => state)).toEqual(['made before', 'made before']);
    expect((await readdir(path.join(folder, 'films'))).filter((name) => name.endsWith('.mp4')).sort()).toEqual([
      '001 The Old Mill.mp4',
      '002 Quay House.mp4',
      '002 The Quay.mp4',
    ]);
    // Rows that were carried take their films along.
    await table('House,Town,Album\nThe Quay,Aldwick,quay\nThe Old Mill,Saltmere,mill\n');
    expect(await run('pattern.json', 'rows.csv', '--out', 'films', '--json')).toBe(0);
    expect(rows().map(({ film, state }) => [film, state])).toEqual([
      ['001 The Quay.mp4', 'made before'],
      ['002 The Old Mill.mp4', 'made before'],
    ]);
    await table('House,Town,Album\nThe Old Mill,Saltmere,mill\nThe Quay,Aldwick,quay\n');
    await run('pattern.json', 'rows.csv', '--out', 'films', '--json');
    await rm(path.join(folder, 'films/002 The Quay.mp4'));
    await run('pattern.json', 'rows.csv', '--out', 'films', '--json', '--row', '2');
    expect(rows().map(({ row, state }) => [row, state])).toEqual([[2, 'made']]);
  });
  it('is matched by hand where the heads do not say it', async () => {
    await table('What,Where\nA,mill\n');
    await run(
      'pattern.json',
      'rows.csv',
      '--check',
      '--json',
      '--folder',
      'where',
      '--match',
      'slide 1 title=What',
      '--match',
      'slide 2 picture=pattern',
      '--match',
      'slide 1 subtitle=Where',
    );
    const { fills, faults } = JSON.parse(out) as { fills: { place: string; fill: string }[]; faults: unknown[] };
    expect(fills.map(({ place, fill }) => `${place}: ${fill}`)).toEqual([
      ...[
        'title: What',
        'slide 1 picture: folder',
        'slide 1 title: What',
        'slide 1 subtitle: Where',
        'slide 2 picture: pattern',
      ],
    ]);
    expect(faults).toEqual([]);
  });
  it.each<[string, string[], RegExp]>([
    ['one name', ['pattern.json', '--out', 'x'], /one saved show, the pattern, and one table/],
    ['no place for films', ['pattern.json', 'rows.csv'], /--out FOLDER/],
    [
      'a purpose nobody knows',
      ['pattern.json', 'rows.csv', '--out', 'x', '--purpose', 'cinema'],
      /--purpose must be one of/,
    ],
    [
      'a place the pattern has not',
      ['pattern.json', 'rows.csv', '--check', '--match', 'slide 9 title=What'],
      /no place “slide 9 title”/,
    ],
    [
      'a column the table has not',
      ['pattern.json', 'rows.csv', '--check', '--match', 'title=Name'],
      /no column “Name”/,
    ],
    ['a row that is no number', ['pattern.json', 'rows.csv', '--out', 'x', '--row', 'two'], /--row is the number/],
  ])('with %s is refused', async (_, args, says) => {
    await expect(run(...args)).rejects.toThrow(UsageError);
    await expect(run(...args)).rejects.toThrow(says);
  });
  it('says what is no table', async () => {
    await writeFile(path.join(folder, 'rows.xlsx'), 'PK\u0003\u0004');
    await expect(run('pattern.json', 'rows.xlsx', '--check')).rejects.toThrow(/spreadsheet’s own file/);
    await expect(run('pattern.json', 'none.csv', '--check')).rejects.toThrow(/no such file/);
    expect(await readFile(path.join(folder, 'pattern.json'), 'utf8')).toContain('House');
  });
});

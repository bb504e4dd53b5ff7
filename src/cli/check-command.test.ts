import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { checkCommand } from './check-command';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-check-'));
});
afterAll(async () => {
  await rm(folder, { recursive: true, force: true });
});

const slide = (id: string, picture: string, words?: object) => ({
  id,
  lengthMs: 4000,
  transition: { kind: 'dissolve', lengthMs: 1000 },
  backing: { kind: 'automatic' },
  layers: [
    { kind: 'picture', id: 'p', assetId: picture, move: { kind: 'automatic' } },
    ...(words ? [{ kind: 'words', id: 'w', title: '', subtitle: '', place: 'bottom', ...words }] : []),
  ],
  sounds: [],
});
const saved = async (name: string, slides: readonly unknown[], more: object = {}) => {
  const show = {
    format: 'tanager-show',
    version: 9,
    id: 'x',
    title: 'x',
    frame: { widthPx: 1280, heightPx: 720, rate: { frames: 30, seconds: 1 } },
    defaultLengthMs: 4000,
    cues: [],
    methods: {},
    files: {
      dusk: path.resolve('demo/files/PE_0412.jpg'),
      pies: path.resolve('demo/files/PE_0426.jpg'),
      gone: 'gone.jpg',
    },
    slides,
    ...more,
  };
  await writeFile(path.join(folder, name), JSON.stringify(show));
  return name;
};

async function check(...args: string[]): Promise<{ code: number; out: string }> {
  let out = '';
  const code = await checkCommand(args, {
    folder,
    out: (text) => {
      out += text;
    },
    tell: () => {},
  });
  return { code, out };
}

describe('tanager check', () => {
  it('finds nothing in a show with nothing wrong, and ends with 0', async () => {
    const file = await saved('fine.json', [slide('a', 'dusk', { title: 'At dusk' }), slide('b', 'pies')]);
    expect(await check(file)).toEqual({ code: 0, out: 'No snags.\n' });
  });
  it('tells what will embarrass, the grave first, and ends with 3', async () => {
    const file = await saved('bad.json', [
      slide('a', 'dusk', { title: 'At dusk', style: { colour: '#6a4a58', shadow: 'none' }, place: 'centre' }),
      slide('b', 'gone'),
      { ...slide('c', 'pies'), transition: { kind: 'dissolve', lengthMs: 3500 } },
    ]);
    const { code, out } = await check(file, '--json');
    expect(code).toBe(3);
    const { snags } = JSON.parse(out) as { snags: { kind: string; grave: boolean; slide: number; sentence: string }[] };
    expect(snags.map(({ kind, slide: number }) => [kind, number])).toEqual(
      expect.arrayContaining([
        ['missing-file', 2],
        ['faint-words', 1],
        ['transition-cut-short', 3],
      ]),
    );
    expect(snags.findIndex(({ grave }) => !grave)).toBeGreaterThan(snags.findLastIndex(({ grave }) => grave) - 1);
  });
  it('leaves out what a person left as it is', async () => {
    const letBe = { 'transition-cut-short c': 'meant so' };
    const slides = [slide('a', 'dusk'), { ...slide('c', 'pies'), transition: { kind: 'dissolve', lengthMs: 3500 } }];
    expect((await check(await saved('before.json', slides))).out).toMatch(
      /^1 snag, 0 grave\n {2}0:03 slide 2: The transition is to take 3.5 s/,
    );
    expect(await check(await saved('left.json', slides, { letBe }))).toEqual({ code: 0, out: 'No snags.\n' });
  });
  it.each([
    [[], /Name one saved show/],
    [['fine.json', '--shape', 'wide'], /--shape must be two numbers/],
  ])('refuses %j with a sentence', async (args, sentence) => {
    await expect(check(...(args as string[]))).rejects.toThrow(sentence);
  });
});

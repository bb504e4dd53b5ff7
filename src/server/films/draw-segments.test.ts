import { mkdir, mkdtemp, readdir, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { FilmSegment } from '../../core/film/plan-film';
import { showId } from '../../core/show/ids';
import { emptyShow } from '../../core/show/show';
import { drawSegments } from './draw-segments';
import { FilmFailedError } from './film-failed-error';
import { AS_DRAWN } from './encodings';

/** Stands in for the program that draws: it does what a file beside it says for each segment, once, and then what it should. */
const STAND_IN = `
import { readFileSync, renameSync, writeFileSync } from 'node:fs';
process.on('disconnect', () => process.exit(0));
process.on('message', (message) => {
  if ('work' in message) return;
  const { segment, outFile } = message;
  writeFileSync(outFile + '.part', 'frames');
  const [how, ...rest] = JSON.parse(readFileSync('PLAN' + segment.index, 'utf8'));
  writeFileSync('PLAN' + segment.index, JSON.stringify(rest));
  process.send({ kind: 'frames', done: 3 });
  if (how === 'dies') return process.exit(9);
  if (how === 'waits') return;
  if (how === 'full') return process.send({ kind: 'failed', message: 'No space left', details: '', diskFull: true });
  if (how === 'fails') return process.send({ kind: 'failed', message: 'The picture bites.', details: 'said so', diskFull: false });
  renameSync(outFile + '.part', outFile);
  const drawn = { drawMs: 1, readMs: 0, encodeMs: 1, stillFrames: 0 };
  process.send({ kind: 'frames', done: 7 });
  process.send({ kind: 'segment', drawn, problems: [] });
});
`;

let home: string;
const before = process.env.TANAGER_HOME;
const plan = async (of: Readonly<Record<number, readonly string[]>>) => {
  for (const { index } of segments) await writeFile(path.join(home, `plan${index}`), JSON.stringify(of[index] ?? []));
};
const segments: FilmSegment[] = [0, 1, 2, 3].map((index) => ({
  index,
  firstFrame: index * 10,
  endFrame: index * 10 + 10,
  followedBy: 0,
  follows: 0,
}));
let frames = 0;
let drawn: number[] = [];
const draw = (signal?: AbortSignal, workerCount = 2) =>
  drawSegments({
    work: {
      show: emptyShow(showId('s'), ''),
      facts: new Map(),
      files: new Map(),
      widthPx: 64,
      heightPx: 36,
      encoding: AS_DRAWN,
    },
    segments,
    fileOf: ({ index }) => path.join(home, 'out', `${index}.mp4`),
    workerCount,
    signal,
    onFrames: (count) => {
      frames += count;
    },
    onDrawn: ({ index }) => Promise.resolve(void drawn.push(index)),
  });

beforeAll(async () => {
  home = await mkdtemp(path.join(tmpdir(), 'tanager-drawing-'));
  await mkdir(path.join(home, 'dist'));
  await writeFile(path.join(home, 'dist', 'film-worker.mjs'), STAND_IN.replaceAll('PLAN', path.join(home, 'plan')));
  process.env.TANAGER_HOME = home;
});
beforeEach(async () => {
  [frames, drawn] = [0, []];
  await rm(path.join(home, 'out'), { recursive: true, force: true });
  await mkdir(path.join(home, 'out'));
});
afterAll(async () => {
  if (before === undefined) delete process.env.TANAGER_HOME;
  else process.env.TANAGER_HOME = before;
  await rm(home, { recursive: true, force: true });
});

describe('drawing segments', () => {
  it('draws each of them once, by as many workers as there may be', async () => {
    await plan({});
    await draw();
    expect(drawn.toSorted()).toEqual([0, 1, 2, 3]);
    expect(frames).toBe(40);
  });
  it('draws one again by a new worker when its worker ends or fails, and counts its frames once', async () => {
    await plan({ 1: ['dies'], 2: ['fails', 'dies'] });
    await draw();
    expect(drawn.toSorted()).toEqual([0, 1, 2, 3]);
    expect(frames).toBe(40);
    expect((await readdir(path.join(home, 'out'))).toSorted()).toEqual(['0.mp4', '1.mp4', '2.mp4', '3.mp4']);
  });
  it('gives up after three tries with what was said, keeps what is whole and leaves nothing half', async () => {
    await plan({ 3: ['fails', 'fails', 'fails', 'fails'] });
    const failed = await draw(undefined, 1).catch((error: unknown) => error);
    expect(failed).toBeInstanceOf(FilmFailedError);
    expect(failed).toMatchObject({ message: 'The picture bites.', details: 'said so' });
    expect(drawn.toSorted()).toEqual([0, 1, 2]);
    expect((await readdir(path.join(home, 'out'))).filter((name) => name.endsWith('.part'))).toEqual([]);
  });
  it('does not try again on a full disk', async () => {
    await plan({ 0: ['full'] });
    await expect(draw(undefined, 1)).rejects.toMatchObject({ code: 'ENOSPC' });
    expect(drawn).toEqual([]);
  });
  it('stops when it is told to, in the middle of segments, and leaves nothing half', async () => {
    await plan({ 0: ['waits'], 3: ['waits'] });
    const controller = new AbortController();
    const running = draw(controller.signal);
    await new Promise((resolve) => {
      setTimeout(resolve, 700);
    });
    controller.abort(new Error('enough'));
    await expect(running).rejects.toThrow('enough');
    expect((await readdir(path.join(home, 'out'))).filter((name) => name.endsWith('.part'))).toEqual([]);
  });
});

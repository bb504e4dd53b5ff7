import { mkdtemp, readdir, readFile, rm, truncate, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { GENTLE, THOROUGH } from '../../core/sound/voice/cleaning';
import { spoken, SPOKEN_RATE } from '../../core/sound/voice/spoken.testing';
import { showId } from '../../core/show/ids';
import { emptyShow } from '../../core/show/show';
import { eachSample } from '../listening/each-sample';
import { openServer, type RunningServer } from '../running-server';

let folder: string;
let server: RunningServer;
const SHOW = showId('booth');
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-booth-'));
  process.env.TANAGER_DATA = folder;
  server = await openServer();
  await server.shows.put(emptyShow(SHOW, 'Booth'));
  server.runner.start();
}, 60_000);
afterAll(async () => {
  await server.close();
  delete process.env.TANAGER_DATA;
  await rm(folder, { recursive: true, force: true });
});

const { samples } = spoken({ texts: ['We set out at dusk.', 'The band played on.'], leadMs: 800 });
// As a microphone of 16 bits gives them.
const heard = samples.map((value) => Math.round(value * 32767) / 32768);
const bytesOf = (from: number, to: number) => new Uint8Array(heard.slice(from, to).buffer);
const begun = (name = 'Take 1') => server.recording.begin(SHOW, { slideId: 's1', name, rate: SPOKEN_RATE });

async function keptSamples(asset: string): Promise<Float32Array> {
  const parts: Float32Array[] = [];
  await eachSample(await server.blobs.localFile(asset as never), 1, SPOKEN_RATE, (some) => parts.push(some));
  const all = new Float32Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    all.set(part, at);
    at += part.length;
  }
  return all;
}

describe('a recording', () => {
  it('keeps every sample as it came, whatever was sent twice, and takes none that leaves a gap', async () => {
    const take = await begun();
    expect(await server.recording.add(SHOW, take, 0, bytesOf(0, 30_000))).toBe(30_000);
    expect(await server.recording.add(SHOW, take, 0, bytesOf(0, 30_000))).toBe(30_000);
    expect(await server.recording.add(SHOW, take, 20_000, bytesOf(20_000, 50_000))).toBe(50_000);
    await expect(server.recording.add(SHOW, take, 60_000, bytesOf(60_000, 61_000))).rejects.toThrow(
      'the next is number 50000',
    );
    await Promise.all([
      server.recording.add(SHOW, take, 50_000, bytesOf(50_000, 90_000)),
      server.recording.add(SHOW, take, 90_000, bytesOf(90_000, heard.length)),
    ]);
    const { entry, cleaned } = await server.recording.keep(SHOW, take, { how: null });
    expect([entry.fileName, entry.made, cleaned]).toEqual(['Take 1.flac', 'take', null]);
    const kept = await keptSamples(entry.assetId);
    expect(kept.length).toBe(heard.length);
    expect(kept.findIndex((value, at) => value !== heard[at])).toBe(-1);
  }, 60_000);
  it('that was broken off in the middle of a sample is offered, goes on, and is let go', async () => {
    const take = await begun('Broken off');
    await server.recording.add(SHOW, take, 0, bytesOf(0, 48_000));
    await truncate(path.join(folder, 'takes', `${take}.f32`), 4 * 24_000 + 2);
    const there = (await server.recording.unkept(SHOW)).find(({ id }) => id === take)!;
    expect(there).toMatchObject({ name: 'Broken off', slideId: 's1', lengthMs: 500 });
    expect(await server.recording.add(SHOW, take, 24_000, bytesOf(24_000, 48_000))).toBe(48_000);
    expect(new Float32Array((await readFile(path.join(folder, 'takes', `${take}.f32`))).slice().buffer)[30_000]).toBe(
      heard[30_000],
    );
    await server.recording.letGo(SHOW, take);
    expect((await server.recording.unkept(SHOW)).some(({ id }) => id === take)).toBe(false);
    await expect(server.recording.add(SHOW, take, 0, bytesOf(0, 10))).rejects.toThrow('There is no such recording.');
  });
  it('is cleaned beside the recording, as long as it and in step with it, and says where it is worth hearing', async () => {
    const take = await begun('Cleaned');
    await server.recording.add(SHOW, take, 0, bytesOf(0, heard.length));
    const { entry, cleaned } = await server.recording.keep(SHOW, take, { how: GENTLE });
    expect(cleaned!.entry.made).toBe('cleaned');
    expect(cleaned!.entry.assetId).not.toBe(entry.assetId);
    expect((await keptSamples(cleaned!.entry.assetId)).length).toBe(heard.length);
    expect(Math.abs(cleaned!.trim!.fromMs - 650)).toBeLessThan(80);
    const again = await server.recording.clean(SHOW, entry.assetId, { lowCut: true });
    expect(again.entry.fileName).toBe('Take 1, cleaned.flac');
  }, 60_000);
  it('stops being cleaned when nobody waits for it, and leaves neither a file nor an entry of that', async () => {
    const take = await begun('Long');
    const minute = new Float32Array(48_000 * 60).map((_, at) => heard[at % heard.length]! * 0.9);
    await server.recording.add(SHOW, take, 0, new Uint8Array(minute.buffer));
    const { entry } = await server.recording.keep(SHOW, take, { how: null });
    const names = async () => (await server.sheet.entries(SHOW)).map(({ fileName }) => fileName).sort();
    const before = await names();
    const waiting = new AbortController();
    const cleaning = server.recording.clean(SHOW, entry.assetId, THOROUGH, waiting.signal);
    const refused = expect(cleaning).rejects.toThrow('Cleaning was stopped; the recording is as it was.');
    // It is at work: what is mended lies there already.
    while (!(await readdir(path.join(folder, 'takes'))).some((name) => name.endsWith('.mended')))
      await new Promise((resolve) => setTimeout(resolve, 20));
    waiting.abort();
    await refused;
    expect((await readdir(path.join(folder, 'takes'))).filter((name) => /flac|mended/.test(name))).toEqual([]);
    expect(await names()).toEqual(before);
    // Another is cleaned all the same.
    expect((await server.recording.clean(SHOW, entry.assetId, { lowCut: true })).entry.fileName).toMatch(/cleaned/);
  }, 60_000);
  it('is kept without what was said again', async () => {
    const take = await begun('Said again');
    await server.recording.add(SHOW, take, 0, bytesOf(0, heard.length));
    const { entry } = await server.recording.keep(SHOW, take, { how: null, leftOut: [{ fromMs: 1000, toMs: 1500 }] });
    const kept = await keptSamples(entry.assetId);
    expect(kept.length).toBe(heard.length - 24_000);
    expect([kept[40_000], kept[60_000]]).toEqual([heard[40_000], heard[84_000]]);
  }, 60_000);
  it('leaves nothing behind that belongs to none, and keeps what waits', async () => {
    const take = await begun('Waits');
    await server.recording.add(SHOW, take, 0, bytesOf(0, 48_000));
    await writeFile(path.join(folder, 'takes', 'nobodys.f32'), 'x');
    await server.recording.tidy();
    const there = await readdir(path.join(folder, 'takes'));
    expect([there.includes(`${take}.f32`), there.includes('nobodys.f32')]).toEqual([true, false]);
  });
  it('of nothing is not kept, and one of another show is not there', async () => {
    const take = await begun();
    await expect(server.recording.keep(SHOW, take, { how: null })).rejects.toThrow('Nothing was recorded');
    await server.shows.put(emptyShow(showId('other'), 'Other'));
    await expect(server.recording.keep(showId('other'), take, { how: null })).rejects.toThrow(
      'There is no such recording.',
    );
  });
});

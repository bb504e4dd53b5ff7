import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { assetId, cueId, showId } from '../../core/show/ids';
import type { AssetFacts, SoundFacts } from '../../core/show/asset-facts';
import { blankSlide } from '../../core/show/new-slide';
import { songAfter } from '../../core/show/placed-sound';
import { emptyShow, type Show } from '../../core/show/show';
import { MIX_SAMPLE_RATE } from '../../core/sound/mix-plan';
import { planMix } from '../../core/sound/plan-mix';
import { UnusableFileError } from '../assets/unusable-file-error';
import { runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { lookAndFind } from '../focus/look-and-find';
import { writeMix } from '../mixing/write-mix';

const SECONDS = 24;
const SONG = assetId('5'.repeat(64));
let folder: string;
let plain: SoundFacts;
const at = (name: string) => path.join(folder, name);
const made = async (name: string, ...how: string[]) => {
  await runFfmpeg(['-y', ...how, at(name)]);
  return at(name);
};
/** The demo's song as another kind of file. */
const song = (name: string, ...how: string[]) =>
  made(name, '-t', String(SECONDS), '-i', 'demo/files/harbour-reel.mp3', ...how);
const heardIn = async (file: string): Promise<SoundFacts> => {
  const found: AssetFacts = await lookAndFind(file);
  if (found.kind !== 'sound') throw new Error(`${file} was taken for a ${found.kind}`);
  return found;
};

/** How loud the film of a slide with such a song under it is, in the middle: root mean square, full scale is 1. */
async function inTheMix(file: string, facts: SoundFacts): Promise<number> {
  const show: Show = {
    ...emptyShow(showId('odd'), 'Odd'),
    slides: [blankSlide(4000, '#000000', () => 'one')],
    cues: [songAfter(cueId('song'), SONG, 0)],
  };
  const outFile = at('mix.f32');
  const plan = planMix(show, new Map([[SONG, facts]]));
  await writeMix(plan, { fileOf: () => file, outFile, sampleCount: 4 * MIX_SAMPLE_RATE });
  const bytes = await readFile(outFile);
  const samples = new Float32Array(bytes.buffer, bytes.byteOffset, bytes.length / 4);
  expect(samples.every(Number.isFinite)).toBe(true);
  const middle = samples.subarray(2 * MIX_SAMPLE_RATE, 4 * MIX_SAMPLE_RATE);
  return Math.sqrt(middle.reduce((sum, value) => sum + value * value, 0) / middle.length);
}

beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-odd-'));
  plain = await heardIn(await song('plain.wav'));
}, 60_000);
afterAll(() => rm(folder, { recursive: true }));

describe('a song of an unusual kind', () => {
  it.each([
    ['mono', 'mono.flac', ['-ac', '1'], 3.5],
    ['of 8 bits', 'eight.wav', ['-c:a', 'pcm_u8'], 0.5],
    ['at 192 kHz', 'fine.flac', ['-ar', '192000'], 0.5],
    ['at 8 kHz', 'coarse.wav', ['-ar', '8000'], 3],
    ['in 5.1', 'around.flac', ['-af', 'pan=5.1|FL=FL|FR=FR|FC=0.5*FL+0.5*FR|BL=0.3*FL|BR=0.3*FR|LFE=0*FL'], 6.5],
    ['as ADPCM', 'packed.wav', ['-c:a', 'adpcm_ms'], 0.5],
    ['of 64 bits', 'wide.wav', ['-c:a', 'pcm_f64le'], 0.5],
  ] as const)(
    '%s is as long, as fast and about as loud as the usual one, and is heard in the film',
    async (_kind, name, how, apartLu) => {
      const file = await song(name, ...how);
      const found = await heardIn(file);
      expect(Math.abs(found.lengthMs - plain.lengthMs)).toBeLessThan(60);
      const [own, usual] = [found.listening!, plain.listening!];
      expect(Math.abs(own.beats!.tempoBpm / usual.beats!.tempoBpm - 1)).toBeLessThan(0.015);
      expect(Math.abs(own.loudness.integratedLufs! - usual.loudness.integratedLufs!)).toBeLessThan(apartLu);
      // What is packed more quietly is as loud in the film.
      const [inMix, usually] = [await inTheMix(file, found), await inTheMix(at('plain.wav'), plain)];
      expect(Math.abs(20 * Math.log10(inMix / usually))).toBeLessThan(1.5);
    },
    60_000,
  );
  it('named as what it is not is read for what it is', async () => {
    await song('real.mp3');
    await writeFile(at('named.wav'), await readFile(at('real.mp3')));
    const found = await heardIn(at('named.wav'));
    expect(Math.abs(found.lengthMs - plain.lengthMs)).toBeLessThan(100);
    expect(found.listening!.beats!.beatsMs.length).toBeGreaterThan(20);
  }, 60_000);
  it.each([
    ['flac', []],
    ['mp3', ['-b:a', '128k']],
    ['wav', []],
  ] as const)(
    'cut short as %s is heard as far as it goes, without a word that is not true',
    async (kind, how) => {
      const whole = await song(`whole.${kind}`, ...how);
      const bytes = await readFile(whole);
      const file = at(`cut.${kind}`);
      await writeFile(file, bytes.subarray(0, Math.floor(0.6 * bytes.length)));
      const found = await heardIn(file);
      // Some kinds say in their head how long they were.
      expect(found.lengthMs).toBeLessThanOrEqual(1000 * SECONDS + 100);
      const { heardToMs, beats } = found.listening!;
      expect(heardToMs).toBeLessThan(0.75 * 1000 * SECONDS);
      expect(beats!.beatsMs.at(-1)!).toBeLessThan(0.75 * 1000 * SECONDS);
      expect(await inTheMix(file, found)).toBeGreaterThan(0.02);
    },
    60_000,
  );
  it('silent has no beats and no loudness, and is no reason to stop', async () => {
    const file = await made('silent.wav', '-f', 'lavfi', '-i', 'anullsrc=r=44100:cl=stereo', '-t', '6');
    const found = await heardIn(file);
    expect([Math.round(found.lengthMs / 100), found.listening!.beats]).toEqual([60, null]);
    expect(await inTheMix(file, found)).toBe(0);
  }, 60_000);
  it('of a fifth of a second is that long, and heard', async () => {
    const file = await made('short.wav', '-f', 'lavfi', '-i', 'sine=frequency=600:duration=0.2');
    const found = await heardIn(file);
    expect([found.lengthMs, found.listening!.beats]).toEqual([200, null]);
    expect(await inTheMix(file, found)).toBe(0);
  }, 60_000);
  it.each([
    [
      'noise that says it is a song',
      'noise.mp3',
      () => Buffer.from(Array.from({ length: 9000 }, (_, n) => (n * 7919) % 251)),
    ],
    ['nothing at all', 'nothing.wav', () => Buffer.alloc(0)],
    [
      'a head without a song',
      'head.wav',
      () =>
        Buffer.from(
          'RIFF\x24\0\0\0WAVEfmt \x10\0\0\0\x01\0\x02\0\x44\xac\0\0\x10\xb1\x02\0\x04\0\x10\0data\0\0\0\0',
          'latin1',
        ),
    ],
  ] as const)(
    '%s is refused with one plain line',
    async (_kind, name, bytes) => {
      await writeFile(at(name), bytes());
      const refused = await lookAndFind(at(name)).then(
        () => null,
        (error: unknown) => error,
      );
      expect(refused).toBeInstanceOf(UnusableFileError);
      expect((refused as Error).message).toMatch(/^\p{Lu}[^\n]{10,}\.$/u);
    },
    60_000,
  );
});

import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import * as esbuild from 'esbuild';
import type { Browser } from 'puppeteer-core';
import type { AssetFacts } from '../src/core/show/asset-facts';
import { assetId, cueId, showId, slideId, type AssetId } from '../src/core/show/ids';
import { songAfter, voiceHere } from '../src/core/show/placed-sound';
import { emptyShow, type Show } from '../src/core/show/show';
import { LIMITER_DELAY } from '../src/core/sound/limiter';
import { MIX_SAMPLE_RATE, type MixPlan } from '../src/core/sound/mix-plan';
import { planMix } from '../src/core/sound/plan-mix';
import { runFfmpeg } from '../src/server/ffmpeg/run-ffmpeg';
import { writeMix } from '../src/server/mixing/write-mix';
import { openApp, openBrowser, openPage, type App } from './app';

let app: App;
let browser: Browser;
let folder: string;
const ONE = assetId('1'.repeat(64));
const TWO = assetId('2'.repeat(64));
const VOICE = assetId('3'.repeat(64));
const LENGTHS = new Map<AssetId, number>([
  [ONE, 9],
  [TWO, 12],
  [VOICE, 3],
]);

beforeAll(async () => {
  app = await openApp();
  browser = await openBrowser();
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-sound-'));
});
afterAll(async () => {
  await browser.close();
  await app.close();
  await rm(folder, { recursive: true, force: true });
});

/** Chords and strokes, as floats in a file that loses nothing. */
async function soundFile(id: AssetId, seconds: number): Promise<{ file: string; samples: Float32Array }> {
  const samples = new Float32Array(2 * seconds * MIX_SAMPLE_RATE);
  const hz = 110 * Number(id[0]);
  for (let at = 0; at < samples.length / 2; at += 1) {
    const t = at / MIX_SAMPLE_RATE;
    const stroke = Math.exp(-8 * (t % 0.5));
    samples[2 * at] = 0.5 * Math.sin(2 * Math.PI * hz * t) * (0.4 + stroke);
    samples[2 * at + 1] = 0.5 * Math.sin(2 * Math.PI * 1.5 * hz * t) * (0.4 + stroke);
  }
  const raw = path.join(folder, `${id[0]}.f32`);
  const file = path.join(folder, `${id[0]}.wav`);
  await writeFile(raw, new Uint8Array(samples.buffer));
  await runFfmpeg(['-f', 'f32le', '-ar', '48000', '-ac', '2', '-i', raw, '-c:a', 'pcm_f32le', '-y', file]);
  return { file, samples };
}

/** A mix as the film has it and as the viewer performs it: its largest sample, and how far the two are apart, in decibels below the film’s. */
async function compared(
  plan: MixPlan,
  sounds: ReadonlyMap<AssetId, { file: string; samples: Float32Array }>,
): Promise<{ largest: number; apartDb: number }> {
  const outFile = path.join(folder, 'mix.f32');
  const sampleCount = Math.round((plan.lengthMs * MIX_SAMPLE_RATE) / 1000);
  await writeMix(plan, { fileOf: (id) => sounds.get(id)!.file, outFile, sampleCount });
  const film = new Float32Array(Uint8Array.from(await readFile(outFile)).buffer);

  const { outputFiles } = await esbuild.build({
    entryPoints: ['e2e/same-sound-page.ts'],
    bundle: true,
    format: 'iife',
    write: false,
  });
  const page = await openPage(browser);
  await page.setBypassCSP(true);
  await page.goto(app.address);
  await page.addScriptTag({ content: outputFiles[0]!.text });
  const texts = Object.fromEntries(
    [...sounds].map(([id, { samples }]) => [id, Buffer.from(samples.buffer).toString('base64')]),
  );
  const text = await page.evaluate(
    (planned, of) =>
      (globalThis as unknown as { renderMix(plan: unknown, sounds: unknown): Promise<string> }).renderMix(planned, of),
    plan,
    texts,
  );
  await page.close();
  const seen = new Float32Array(Uint8Array.from(Buffer.from(text, 'base64')).buffer);
  // What the browser gives is late by the limiter; the film has that taken out.
  const count = 2 * (sampleCount - LIMITER_DELAY);
  let [difference, power, largest] = [0, 0, 0];
  for (let at = 0; at < count; at += 1) {
    difference += (seen[at + 2 * LIMITER_DELAY]! - film[at]!) ** 2;
    power += film[at]! ** 2;
    largest = Math.max(largest, Math.abs(film[at]!));
  }
  return { largest, apartDb: 10 * Math.log10(difference / power) };
}

describe('the sound of the viewer', () => {
  it('is that of the film: songs that cross over, loop, fade and go down, loud enough for the limiter', async () => {
    const sounds = new Map<AssetId, { file: string; samples: Float32Array }>();
    for (const [id, seconds] of LENGTHS) sounds.set(id, await soundFile(id, seconds));
    const facts = new Map(
      [...LENGTHS].map(([id, seconds]): [AssetId, AssetFacts] => [
        id,
        {
          kind: 'sound',
          lengthMs: seconds * 1000,
          title: null,
          artist: null,
          listening: {
            // As if it were quiet, so that the mix comes out loud.
            loudness: { integratedLufs: -24, truePeakDb: -1, curve: Array.from({ length: 2 * seconds }, () => -240) },
            heardFromMs: 0,
            heardToMs: seconds * 1000,
            beats: null,
            sections: [],
            energy: [],
            accentsMs: [],
          },
        },
      ]),
    );
    const show: Show = {
      ...emptyShow(showId('sound'), ''),
      slides: [
        {
          id: slideId('a'),
          lengthMs: 26_000,
          transition: { kind: 'cut' },
          backing: { kind: 'automatic' },
          layers: [],
          sounds: [voiceHere(cueId('v'), VOICE, 4000)],
        },
      ],
      cues: [
        { ...songAfter(cueId('q'), ONE, 2000), fadeInMs: 1500, fadeInCurve: 'gentle' },
        {
          ...songAfter(cueId('r'), TWO, 3000),
          starts: { at: 'after', overlapMs: 2500 },
          loops: true,
          trimEndMs: 8000,
          levels: [
            { from: 'start', offsetMs: 5000, gainDb: 0 },
            { from: 'end', offsetMs: 4000, gainDb: -9 },
          ],
        },
      ],
    };
    const plan = planMix(show, facts);
    expect(plan.masterGain).toBeGreaterThan(1.5);
    const { largest, apartDb } = await compared(plan, sounds);
    expect([largest > 0.8, largest < 0.87]).toEqual([true, true]);
    expect(apartDb).toBeLessThan(-50);
  });
  it('is that of the film where clips run slower and faster than filmed, from their middle, and to their very end', async () => {
    const sounds = new Map([[TWO, await soundFile(TWO, 12)]]);
    const gains = [{ atMs: 0, gain: 0.5 }];
    const part = { kind: 'clip', assetId: TWO, gains } as const;
    const plan: MixPlan = {
      lengthMs: 14_000,
      masterGain: 1,
      parts: [
        { ...part, startMs: 0, lengthMs: 4000, fromMs: 1000, tempo: 0.5 },
        { ...part, startMs: 4200, lengthMs: 3000, fromMs: 2345, tempo: 1.25 },
        // To the file's end.
        { ...part, startMs: 8000, lengthMs: 5500, fromMs: 1000, tempo: 2 },
      ],
    };
    const { largest, apartDb } = await compared(plan, sounds);
    expect(largest).toBeGreaterThan(0.1);
    expect(apartDb).toBeLessThan(-50);
  });
  it('is that of the film where a song is tailored: joined, and a little faster than recorded', async () => {
    const sounds = new Map([[TWO, await soundFile(TWO, 12)]]);
    const places = Array.from({ length: 24 }, (_, beat) => beat * 500);
    const known: AssetFacts = {
      kind: 'sound',
      lengthMs: 12_000,
      title: null,
      artist: null,
      listening: {
        loudness: { integratedLufs: -14, truePeakDb: -1, curve: Array.from({ length: 24 }, () => -140) },
        heardFromMs: 0,
        heardToMs: 12_000,
        beats: null,
        sections: [],
        energy: [],
        accentsMs: [],
        joints: {
          atMs: places,
          aBar: 4,
          to: places.map((_, from) =>
            places.flatMap((__, to) => (to !== from && to % 4 === from % 4 ? [to, 20, 15] : [])),
          ),
        },
      },
    };
    const show: Show = {
      ...emptyShow(showId('tailored'), ''),
      mix: { loudness: 'as-it-is' },
      slides: [
        {
          id: slideId('a'),
          lengthMs: 15_900,
          transition: { kind: 'cut' },
          backing: { kind: 'automatic' },
          layers: [],
          sounds: [],
        },
      ],
      cues: [{ ...songAfter(cueId('q'), TWO, 0), ends: { at: 'show-end', beforeMs: 0 }, gainDb: -6, tailored: {} }],
    };
    const plan = planMix(show, new Map([[TWO, known]]));
    expect(plan.parts.length).toBeGreaterThan(1);
    expect(plan.parts[0]!.speed).toBeCloseTo(16 / 15.9, 2);
    // Two ways of playing between samples are half a sample apart.
    expect((await compared(plan, sounds)).apartDb).toBeLessThan(-30);
  });
});

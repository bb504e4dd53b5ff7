// What cleaning does to spoilt speech, how well captions and prompter find the sentences, and how fast it goes. Needs espeak-ng: three voices read one text.
import { spawnSync } from 'node:child_process';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import FFT from 'fft.js';
import { sentenceTimes } from '../src/core/captions/align';
import { createPrompter } from '../src/core/captions/prompter';
import { loudnessMeter } from '../src/core/sound/loudness';
import { GENTLE, THOROUGH, type Cleaning } from '../src/core/sound/voice/cleaning';
import { voiceCleaning } from '../src/core/sound/voice/clean-voice';
import { phrasesOf } from '../src/core/sound/voice/phrases';
import { dice, fan } from '../src/core/sound/voice/spoken.testing';
import { joined } from '../src/core/sound/voice/stage';
import { levelMeter } from '../src/core/sound/voice/voice-levels';

const RATE = 48_000;
const TEXTS = [
  'We set out at dusk, when the harbour was already quiet.',
  'Every boat carried lanterns made by the children of the lower school.',
  'The brass band played on the quay.',
  'Nobody had expected so many people to come.',
  'Then the rain began, and for a while we thought it was over.',
  'But it stopped in time.',
  'The first boat rounded the buoy at nine, and everyone cheered.',
];
const UNEVEN_DB = [0, -12, -4, -9, 0, -12, -6];
const VOICES = [
  ['en-gb', '150', '50'],
  ['en-us+f3', '165', '60'],
  ['en-gb+m3', '140', '35'],
] as const;
const LEAD = 1.5 * RATE;

interface Reading {
  readonly samples: Float32Array;
  readonly sentences: readonly { readonly from: number; readonly to: number }[];
}

const folder = await mkdtemp(path.join(tmpdir(), 'tanager-bench-'));
const say = (line: string) => process.stdout.write(`${line}\n`);
const power = (samples: Float32Array) => samples.reduce((sum, value) => sum + value * value, 0) / samples.length;

async function sentence(text: string, [voice, speed, pitch]: (typeof VOICES)[number]): Promise<Float32Array> {
  const [spoken, raw] = [path.join(folder, 's.wav'), path.join(folder, 's.f32')];
  spawnSync('espeak-ng', ['-v', voice, '-s', speed, '-p', pitch, '-w', spoken, text]);
  spawnSync('ffmpeg', ['-v', 'error', '-y', '-i', spoken, '-ar', String(RATE), '-ac', '1', '-f', 'f32le', raw]);
  const samples = new Float32Array((await readFile(raw)).slice().buffer);
  const heard = samples.findIndex((value) => Math.abs(value) > 0.004);
  const last = samples.findLastIndex((value) => Math.abs(value) > 0.004);
  const own = samples.slice(heard, last + 1);
  const gain = 0.08 / Math.sqrt(power(own));
  return own.map((value) => value * gain);
}

async function reading(voice: (typeof VOICES)[number], seed: number): Promise<Reading> {
  const roll = dice(seed);
  const parts: Float32Array[] = [new Float32Array(LEAD)];
  const sentences: { from: number; to: number }[] = [];
  let at = LEAD;
  for (const text of TEXTS) {
    const own = await sentence(text, voice);
    sentences.push({ from: at, to: at + own.length });
    const pause = new Float32Array(Math.round((0.4 + 0.5 * roll()) * RATE));
    parts.push(own, pause);
    at += own.length + pause.length;
  }
  return { samples: joined(...parts, new Float32Array(RATE)), sentences };
}

/** A fan 15 dB below the speech, hum, clicks, and a level that is uneven by 12 dB. */
function spoilt({ samples, sentences }: Reading, seed: number): Float32Array {
  const roll = dice(seed);
  const out = Float32Array.from(samples);
  sentences.forEach(({ from, to }, index) => {
    const gain = 10 ** (UNEVEN_DB[index]! / 20);
    for (let at = from; at < to; at += 1) out[at] = out[at]! * gain;
  });
  const speech = sentences.reduce((sum, { from, to }) => sum + power(out.subarray(from, to)) * (to - from), 0);
  const length = sentences.reduce((sum, { from, to }) => sum + to - from, 0);
  const noise = fan(out.length, Math.sqrt(speech / length / 10 ** 1.5), seed);
  for (let at = 0; at < out.length; at += 1) {
    const turn = (2 * Math.PI * at) / RATE;
    out[at] = out[at]! + noise[at]! + 0.004 * Math.sin(50 * turn) + 0.002 * Math.sin(150 * turn);
  }
  for (let click = 0; click < 25; click += 1) {
    const at = LEAD + Math.floor(roll() * (out.length - 2 * LEAD));
    for (let off = 0; off < 4; off += 1) out[at + off] = out[at + off]! + ((roll() < 0.5 ? -0.4 : 0.4) * (4 - off)) / 4;
  }
  return out.map((value) => Math.max(-1, Math.min(1, value)));
}

function cleaned(samples: Float32Array, how: Cleaning): Float32Array {
  const cleaning = voiceCleaning(RATE, { ...how, room: { fromMs: 100, toMs: 1400 } });
  cleaning.learn(samples);
  const stage = cleaning.mend();
  const mended = joined(stage.push(samples), stage.finish());
  return cleaning.level()(mended);
}

function speechOverPauses(samples: Float32Array, { sentences }: Reading): number {
  const speech = sentences.map(({ from, to }) => power(samples.subarray(from, to)));
  const pauses = sentences
    .slice(0, -1)
    .map(({ to }, index) => power(samples.subarray(to + 0.15 * RATE, sentences[index + 1]!.from - 0.1 * RATE)));
  const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
  return 10 * Math.log10(mean(speech) / mean(pauses));
}

function loudnessSpread(samples: Float32Array, { sentences }: Reading): number {
  const all = sentences.map(({ from, to }) => {
    const part = samples.subarray(from, to);
    const meter = loudnessMeter(RATE);
    meter.add(Float32Array.from({ length: 2 * part.length }, (_, at) => part[at >> 1]!));
    return meter.finish().integratedLufs!;
  });
  return Math.max(...all) - Math.min(...all);
}

/** Mean distance in voiced frames over bins within 40 dB of the clean frame’s peak, each sentence brought to the clean one’s level. */
function spectralDistance(samples: Float32Array, clean: Reading, only: (index: number) => boolean): number {
  const size = 1024;
  const fft = new FFT(size);
  const window = Float64Array.from({ length: size }, (_, at) => 0.5 - 0.5 * Math.cos((2 * Math.PI * at) / size));
  const spectrum = (of: Float32Array, from: number): Float64Array => {
    const out = new Float64Array(2 * size);
    fft.realTransform(
      out,
      Float64Array.from({ length: size }, (_, at) => of[from + at]! * window[at]!),
    );
    return Float64Array.from(
      { length: size / 2 + 1 },
      (_, bin) => 20 * Math.log10(Math.hypot(out[2 * bin]!, out[2 * bin + 1]!) + 1e-9),
    );
  };
  const distances: number[] = [];
  clean.sentences.forEach(({ from, to }, index) => {
    if (!only(index)) return;
    const frames: { own: Float64Array; other: Float64Array; level: number; low: number }[] = [];
    for (let at = from; at + size <= to; at += size / 2) {
      const own = spectrum(clean.samples, at);
      const energy = own.reduce((sum, db) => sum + 10 ** (db / 10), 0);
      const low = own.subarray(2, 64).reduce((sum, db) => sum + 10 ** (db / 10), 0) / energy;
      frames.push({ own, other: spectrum(samples, at), level: 10 * Math.log10(energy), low });
    }
    const loudest = Math.max(...frames.map(({ level }) => level));
    const voiced = frames.filter(({ level, low }) => level > loudest - 20 && low > 0.6);
    const off = voiced.map(({ own, other }) => {
      const peak = Math.max(...own);
      return [...own].flatMap((db, bin) => (db > peak - 40 ? [db - other[bin]!] : []));
    });
    const sorted = off.flat().toSorted((a, b) => a - b);
    const middle = sorted[sorted.length >> 1]!;
    for (const frame of off)
      distances.push(Math.sqrt(frame.reduce((sum, db) => sum + (db - middle) ** 2, 0) / frame.length));
  });
  return distances.reduce((sum, value) => sum + value, 0) / distances.length;
}

function finding(samples: Float32Array, { sentences }: Reading): { meanMs: number; worstMs: number; lit: number } {
  const meter = levelMeter(RATE);
  meter.push(samples);
  const { rmsDb } = meter.finish();
  const times = sentenceTimes(TEXTS, phrasesOf(rmsDb))!;
  const errors = times.flatMap(({ fromMs, toMs }, index) => [
    Math.abs(fromMs - (1000 * sentences[index]!.from) / RATE),
    Math.abs(toMs - (1000 * sentences[index]!.to) / RATE),
  ]);
  const prompter = createPrompter(TEXTS, Math.max(-75, rmsDb.slice(20, 140).toSorted()[60]!));
  let [right, all] = [0, 0];
  rmsDb.forEach((level, at) => {
    prompter.hear(level);
    const now = sentences.findIndex(({ from, to }) => at * 480 >= from && at * 480 < to);
    if (now < 0) return;
    all += 1;
    if (prompter.now() === now) right += 1;
  });
  return {
    meanMs: errors.reduce((sum, error) => sum + error, 0) / errors.length,
    worstMs: Math.max(...errors),
    lit: right / all,
  };
}

for (const [index, voice] of VOICES.entries()) {
  const clean = await reading(voice, index + 1);
  const noisy = spoilt(clean, index + 7);
  const seconds = clean.samples.length / RATE;
  say(`${voice[0]}, ${seconds.toFixed(0)} s of speech spoilt by a fan, hum, clicks and uneven level`);
  const loud = (at: number) => UNEVEN_DB[at] === 0;
  const line = (name: string, samples: Float32Array, speed: string) =>
    say(
      `  ${name.padEnd(18)} speech over pauses ${speechOverPauses(samples, clean).toFixed(1)} dB · sentences within ${loudnessSpread(samples, clean).toFixed(1)} LU · log-spectral distance ${spectralDistance(samples, clean, () => true).toFixed(2)} dB, of those said loudly ${spectralDistance(samples, clean, loud).toFixed(2)} dB${speed}`,
    );
  line('as recorded', noisy, '');
  for (const [name, how] of [
    ['cleaned gently', GENTLE],
    ['cleaned thoroughly', THOROUGH],
  ] as const) {
    const startedMs = performance.now();
    const out = cleaned(noisy, how);
    line(name, out, ` · ${((1000 * seconds) / (performance.now() - startedMs)).toFixed(0)} × as fast as it plays`);
  }
  for (const [name, samples] of [
    ['clean', clean.samples],
    ['spoilt', noisy],
  ] as const) {
    const { meanMs, worstMs, lit } = finding(samples, clean);
    say(
      `  ${name.padEnd(18)} captions off by ${meanMs.toFixed(0)} ms (at most ${worstMs.toFixed(0)}) · the prompter’s sentence right ${(100 * lit).toFixed(1)} % of the time`,
    );
  }
}
await rm(folder, { recursive: true, force: true });

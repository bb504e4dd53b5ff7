import { describe, expect, it } from '@jest/globals';
import { loudnessMeter } from '../loudness';
import { GENTLE, THOROUGH, type Cleaning } from './cleaning';
import { voiceCleaning, type CleanedVoice } from './clean-voice';
import { mendClicks } from './mend-clicks';
import { expint } from './reduce-noise';
import { dice, fan, rms, spoken, SPOKEN_RATE, type Spoken } from './spoken.testing';
import { joined } from './stage';

const TEXTS = [
  'We set out at dusk, when the harbour was already quiet.',
  'Every boat carried lanterns made by the children.',
  'The brass band played on the quay.',
  'Nobody had expected so many people to come.',
  'Then the rain began.',
];
const ROOM = { fromMs: 100, toMs: 1400 };
const UNEVEN_DB = [0, -12, -4, -9, -12];

const voice = spoken({ texts: TEXTS });

function uneven({ samples, sentences }: Spoken): Float32Array {
  const out = Float32Array.from(samples);
  sentences.forEach(({ fromMs, toMs }, index) => {
    const gain = 10 ** (UNEVEN_DB[index]! / 20);
    for (let at = Math.round(fromMs * 48); at < Math.round(toMs * 48); at += 1) out[at] = out[at]! * gain;
  });
  return out;
}

function added(...parts: readonly Float32Array[]): Float32Array {
  return Float32Array.from(parts[0]!, (_, at) => parts.reduce((sum, part) => sum + part[at]!, 0));
}

function cleaned(samples: Float32Array, how: Cleaning, block = 4800): { out: Float32Array; outcome: CleanedVoice } {
  const cleaning = voiceCleaning(SPOKEN_RATE, how);
  const blocks: Float32Array[] = [];
  for (let from = 0; from < samples.length; from += block) blocks.push(samples.slice(from, from + block));
  for (const one of blocks) cleaning.learn(one);
  const stage = cleaning.mend();
  const mended = [...blocks.map((one) => stage.push(one)), stage.finish()];
  const level = cleaning.level();
  return { out: joined(...mended.map(level)), outcome: cleaning.outcome() };
}

/** How far speech lies above what is heard between sentences. */
function speechOverPauses(samples: Float32Array, { sentences }: Spoken): number {
  const speech = sentences.map(({ fromMs, toMs }) => rms(samples, fromMs, toMs) ** 2);
  const pauses = sentences
    .slice(0, -1)
    .map(({ toMs }, index) => rms(samples, toMs + 150, sentences[index + 1]!.fromMs - 100) ** 2);
  const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
  return 10 * Math.log10(mean(speech) / mean(pauses));
}

function loudness(samples: Float32Array, fromMs: number, toMs: number): number {
  const part = samples.slice(Math.round(fromMs * 48), Math.round(toMs * 48));
  const meter = loudnessMeter(SPOKEN_RATE);
  meter.add(Float32Array.from({ length: 2 * part.length }, (_, at) => part[at >> 1]!));
  return meter.finish().integratedLufs!;
}

const largest = (samples: Float32Array) => samples.reduce((most, value) => Math.max(most, Math.abs(value)), 0);

describe('cleaning a voice', () => {
  const noise = fan(voice.samples.length, rms(uneven(voice), 1500) / 10 ** (15 / 20));
  const noisy = added(uneven(voice), noise);

  it('takes 12 dB or more of a fan away from between the sentences, gently, and more when it is to be thorough', () => {
    const before = speechOverPauses(noisy, voice);
    const gentle = speechOverPauses(cleaned(noisy, { ...GENTLE, room: ROOM }).out, voice);
    const thorough = speechOverPauses(cleaned(noisy, { ...THOROUGH, room: ROOM }).out, voice);
    expect(gentle - before).toBeGreaterThan(12);
    expect(thorough).toBeGreaterThan(gentle + 3);
  });
  it('finds out by itself how the room sounds when nobody says where it is heard alone', () => {
    expect(speechOverPauses(cleaned(noisy, GENTLE).out, voice) - speechOverPauses(noisy, voice)).toBeGreaterThan(10);
  });
  it('makes sentences that are uneven by 12 dB equally loud, within 1 LU', () => {
    const { out } = cleaned(noisy, { ...GENTLE, room: ROOM });
    const all = voice.sentences.map(({ fromMs, toMs }) => loudness(out, fromMs, toMs));
    expect(Math.max(...all) - Math.min(...all)).toBeLessThan(1);
    expect(Math.abs(all[0]! + 19)).toBeLessThan(1.5);
  });
  it('keeps every sample in its place, whatever pieces it comes in', () => {
    const how = { clicks: true, noise: 0.6, even: true, press: 0.3, room: ROOM } as const;
    const one = cleaned(noisy, how).out;
    const other = cleaned(noisy, how, 1711).out;
    expect([one.length, other.length]).toEqual([noisy.length, noisy.length]);
    expect(largest(one.map((value, at) => value - other[at]!))).toBeLessThan(1e-5);
    // Against the voice itself: the best shift is none.
    const part = voice.samples.subarray(80_000, 160_000);
    const match = (shift: number) => part.reduce((sum, value, at) => sum + value * one[80_000 + at + shift]!, 0);
    const shifts = Array.from({ length: 41 }, (_, at) => at - 20);
    expect(shifts.reduce((best, shift) => (match(shift) > match(best) ? shift : best))).toBe(0);
  });
  it('changes nothing when nothing is to be done', () => {
    expect(Buffer.from(cleaned(noisy, {}).out.buffer).equals(Buffer.from(Float32Array.from(noisy).buffer))).toBe(true);
  });
  it('mends clicks, and leaves everything else as it was', () => {
    const roll = dice(5);
    const places = Array.from({ length: 20 }, () => 80_000 + Math.floor(roll() * (noisy.length - 160_000)));
    const clicked = Float32Array.from(noisy);
    for (const place of places)
      for (let at = 0; at < 3; at += 1)
        clicked[place + at] = clicked[place + at]! + (roll() < 0.5 ? -0.6 : 0.6) / (at + 1);
    const stage = mendClicks(SPOKEN_RATE);
    const out = joined(stage.push(clicked), stage.finish());
    const near = new Set(places.flatMap((place) => Array.from({ length: 12 }, (_, at) => place + at - 4)));
    const error = (samples: Float32Array, place: number) =>
      Math.hypot(...Array.from({ length: 12 }, (_, at) => samples[place + at - 4]! - noisy[place + at - 4]!));
    const better = places.filter((place) => error(out, place) < error(clicked, place) / 6);
    // One lies in a hiss that is nearly as large.
    expect(better.length).toBeGreaterThanOrEqual(19);
    const touched = out.reduce((count, value, at) => count + (!near.has(at) && value !== clicked[at] ? 1 : 0), 0);
    expect(touched / out.length).toBeLessThan(0.002);
  });
  it('softens breaths between sentences and not the sentences', () => {
    const breath = Float32Array.from(voice.samples);
    const { toMs } = voice.sentences[1]!;
    const roll = dice(8);
    for (let at = Math.round((toMs + 200) * 48); at < (toMs + 450) * 48; at += 1) breath[at] = 0.012 * (roll() - 0.5);
    const [without, softened] = [{}, { breaths: 1 }].map((how) => cleaned(breath, how).out);
    const drop = (fromMs: number, until: number) =>
      20 * Math.log10(rms(softened!, fromMs, until) / rms(without!, fromMs, until));
    expect(drop(toMs + 250, toMs + 420)).toBeLessThan(-12);
    expect(Math.abs(drop(voice.sentences[2]!.fromMs, voice.sentences[2]!.toMs))).toBeLessThan(0.3);
  });
  it('says where a recording is worth hearing, and that silence is not', () => {
    const { trim, phrases } = cleaned(noisy, { ...GENTLE, room: ROOM }).outcome;
    expect(phrases.length).toBeGreaterThanOrEqual(TEXTS.length);
    expect(Math.abs(trim!.fromMs - (1500 - 150))).toBeLessThan(60);
    expect(Math.abs(trim!.toMs - (voice.sentences.at(-1)!.toMs + 300))).toBeLessThan(80);
    expect(cleaned(new Float32Array(96_000), GENTLE).outcome).toEqual({ trim: null, phrases: [] });
  });
  it('never lets a sample reach full scale, however far a soft sentence with one shout is turned up', () => {
    const loud = Float32Array.from(voice.samples, (value) => value * 0.05);
    for (let at = 100_000; at < 100_400; at += 1) loud[at] = 0.7 * Math.sin(at / 5);
    expect(largest(cleaned(loud, GENTLE).out)).toBeLessThan(1);
  });
});

describe('the exponential integral', () => {
  it('is as in the tables of Abramowitz and Stegun', () => {
    expect(expint(0.1)).toBeCloseTo(1.8229239584, 5);
    expect(expint(1)).toBeCloseTo(0.2193839344, 5);
    expect(expint(5)).toBeCloseTo(0.0011482956, 7);
  });
});

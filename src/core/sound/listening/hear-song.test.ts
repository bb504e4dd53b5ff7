import { beforeAll, describe, expect, it } from '@jest/globals';
import type { Loudness } from '../loudness';
import { songHearing } from './hear-song';
import type { ListeningFacts } from './listening-facts';
import { LISTENING_RATE } from './spectrogram';

// A band in a box, made here: kick on the first and third beat, snare on the second and fourth, a hat on every half, chords that change with the bar.

interface Strokes {
  /** Beats, in seconds. */
  readonly beats: readonly number[];
  readonly beatsABar: number;
  /** 0…1 at a moment. */
  level(seconds: number): number;
}

const ROOTS = [220, 174.61, 261.63, 196];

function played({ beats, beatsABar, level }: Strokes, lengthS: number): Float32Array {
  const samples = new Float32Array(Math.round(lengthS * LISTENING_RATE));
  const { sin, exp, imul, min, PI } = Math;
  let noise = 1;
  const add = (atS: number, lastsS: number, voice: (t: number) => number) => {
    const from = Math.round(atS * LISTENING_RATE);
    const gain = level(atS);
    for (let at = 0; at < lastsS * LISTENING_RATE && from + at < samples.length; at += 1)
      samples[from + at] = samples[from + at]! + gain * voice(at / LISTENING_RATE);
  };
  const hiss = () => {
    noise = (imul(noise, 1_103_515_245) + 12_345) & 0x7fffffff;
    return noise / 0x40000000 - 1;
  };
  beats.forEach((atS, beat) => {
    const gap = (beats[beat + 1] ?? atS + 0.5) - atS;
    const place = beat % beatsABar;
    if (place % 2 === 0) add(atS, 0.25, (t) => 0.7 * sin(2 * PI * (50 + 70 * exp(-40 * t)) * t) * exp(-12 * t));
    else add(atS, 0.15, (t) => 0.35 * hiss() * exp(-25 * t));
    for (const half of [0, 0.5]) add(atS + half * gap, 0.04, (t) => 0.1 * hiss() * exp(-90 * t));
    if (place === 0) {
      const root = ROOTS[Math.floor(beat / beatsABar) % ROOTS.length]!;
      for (const step of [1, 1.25, 1.5])
        add(atS, gap * beatsABar, (t) => 0.08 * sin(2 * PI * root * step * t) * min(1, 200 * t));
    }
  });
  return samples;
}

/** Beats whose tempo is told for each moment. */
function beatsAt(bpmOf: (seconds: number) => number, fromS: number, toS: number): number[] {
  const beats: number[] = [];
  for (let atS = fromS; atS < toS; atS += 60 / bpmOf(atS)) beats.push(atS);
  return beats;
}

function heard(samples: Float32Array, pieceSeconds?: number): ListeningFacts {
  const hearing = songHearing(true, pieceSeconds);
  for (let at = 0; at < samples.length; at += 40_000) hearing.add(samples.subarray(at, at + 40_000));
  return hearing.finish(loudnessOf(samples));
}

/** Of half seconds, roughly: as much as energy and ends need. */
function loudnessOf(samples: Float32Array): Loudness {
  const half = LISTENING_RATE / 2;
  const curve = Array.from({ length: Math.ceil(samples.length / half) }, (_, at) => {
    const part = samples.subarray(at * half, (at + 1) * half);
    const power = part.reduce((sum, value) => sum + value * value, 0) / Math.max(1, part.length);
    return Math.max(-1200, Math.round(100 * Math.log10(power + 1e-13)));
  });
  return { integratedLufs: -14, truePeakDb: -1, curve };
}

/** The share of true beats after the first five seconds that were found within 70 ms, and of found ones that are true. */
function hits(truth: readonly number[], foundMs: readonly number[]): number {
  const near = (one: readonly number[], other: readonly number[]) => {
    const after = one.filter((atS) => atS > 5);
    return after.filter((atS) => other.some((candidate) => Math.abs(candidate - atS) < 0.07)).length / after.length;
  };
  const found = foundMs.map((atMs) => atMs / 1000);
  return Math.min(near(truth, found), near(found, truth));
}

describe('the beats of a song', () => {
  it.each([
    [84, 4],
    [118, 4],
    [164, 4],
    [104, 3],
  ])('are found at %i a minute, and bars of %i', (bpm, beatsABar) => {
    const beats = beatsAt(() => bpm, 0.31, 33);
    const { beats: grid } = heard(played({ beats, beatsABar, level: () => 1 }, 34));
    expect(hits(beats, grid!.beatsMs)).toBeGreaterThan(0.95);
    expect(Math.abs(grid!.tempoBpm - bpm)).toBeLessThan(0.02 * bpm);
    expect(grid!.confidence).toBeGreaterThan(0.5);
    expect(grid!.beatsABar).toBe(beatsABar);
    const downbeats = beats.filter((_, beat) => beat % beatsABar === 0);
    expect(
      hits(
        downbeats,
        grid!.firsts.map((beat) => grid!.beatsMs[beat]!),
      ),
    ).toBeGreaterThan(0.9);
  });
  it('are followed as the tempo rises and falls', () => {
    const beats = beatsAt((seconds) => 112 + 14 * Math.sin(seconds / 6), 0.2, 43);
    const { beats: grid } = heard(played({ beats, beatsABar: 4, level: () => 1 }, 44));
    expect(hits(beats, grid!.beatsMs)).toBeGreaterThan(0.9);
  });
  it('go on without a gap or a double where a long song is heard in pieces', () => {
    const beats = beatsAt(() => 100, 0.5, 99);
    const { beats: grid } = heard(played({ beats, beatsABar: 4, level: () => 1 }, 100), 50);
    expect(hits(beats, grid!.beatsMs)).toBeGreaterThan(0.97);
    const gaps = grid!.beatsMs.slice(1).map((atMs, beat) => atMs - grid!.beatsMs[beat]!);
    expect([Math.min(...gaps) > 500, Math.max(...gaps) < 700]).toEqual([true, true]);
  });
  it.each([
    ['silence', () => 0],
    ['a steady tone', (at: number) => 0.3 * Math.sin((2 * Math.PI * 440 * at) / LISTENING_RATE)],
  ])('are none in %s', (_name, value) => {
    const samples = Float32Array.from({ length: 20 * LISTENING_RATE }, (_, at) => value(at));
    expect(heard(samples).beats).toBeNull();
  });
  it('are none in a sound too short for them, and nothing breaks', () => {
    for (const seconds of [0, 0.2, 3]) expect(heard(new Float32Array(seconds * LISTENING_RATE)).beats).toBeNull();
  });
});

describe('the shape of a song', () => {
  let facts: ListeningFacts;
  beforeAll(() => {
    // Quiet for sixteen bars, loud for sixteen, quiet again; two seconds of silence at either end.
    const beats = beatsAt(() => 120, 2, 98);
    const level = (seconds: number) => (seconds > 34 && seconds < 66 ? 1 : 0.12);
    facts = heard(played({ beats, beatsABar: 4, level }, 100));
  });
  it('is heard from where it really begins to where it really ends', () => {
    expect(Math.abs(facts.heardFromMs - 2000)).toBeLessThanOrEqual(500);
    expect(Math.abs(facts.heardToMs - 98_000)).toBeLessThanOrEqual(1500);
  });
  it('has its sections where it changes, the loud one with more energy', () => {
    const borders = facts.sections.slice(1).map(({ startMs }) => startMs);
    for (const change of [34_000, 66_000])
      expect(borders.some((border) => Math.abs(border - change) < 2200)).toBe(true);
    const at = (moment: number) => facts.sections.find(({ startMs, endMs }) => startMs <= moment && moment < endMs)!;
    expect(at(50_000).energy).toBeGreaterThan(at(20_000).energy + 0.3);
    expect(facts.energy[100]!).toBeGreaterThan(facts.energy[40]! + 30);
    expect([facts.sections[0]!.startMs, facts.sections.at(-1)!.endMs]).toEqual([0, 100_000]);
  });
});

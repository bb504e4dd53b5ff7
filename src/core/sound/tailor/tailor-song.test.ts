import { describe, expect, it } from '@jest/globals';
import type { AssetFacts } from '../../show/asset-facts';
import { assetId, cueId, showId, slideId } from '../../show/ids';
import { songAfter } from '../../show/placed-sound';
import { emptyShow, type Show } from '../../show/show';
import { songHearing } from '../listening/hear-song';
import type { Joints } from '../listening/joints';
import { LISTENING_RATE } from '../listening/spectrogram';
import { gainAt } from '../mix-plan';
import { planMix } from '../plan-mix';
import { musicOf } from '../show-beats';
import { pieceRuns, showMomentOf } from '../song-runs';
import { soundSpans } from '../sound-spans';
import { movedJoin, tailorSong } from './tailor-song';

const BEAT_MS = 500;
const BARS = ['intro', 'A', 'B', 'A', 'C', 'A', 'B', 'A', 'end'].flatMap((part) => [part, part, part, part]);
const BEATS = 4 * BARS.length;
const SONG_MS = BEATS * BEAT_MS;

/** A song of parts of four bars; where two beats are of the same place in the same part it goes on alike. */
const joints: Joints = {
  atMs: Array.from({ length: BEATS }, (_, beat) => beat * BEAT_MS),
  aBar: 4,
  to: Array.from({ length: BEATS }, (_, from) =>
    Array.from({ length: BEATS }, (_, place) => place).flatMap((place) => {
      if (place === from) return [];
      const isAlike = place % 16 === from % 16 && BARS[place >> 2] === BARS[from >> 2];
      if (isAlike) return [place, 20, 15];
      return place % 4 === from % 4 ? [place, 90, 15] : place % 2 === from % 2 ? [place, 160, 15] : [place, 200, 15];
    }),
  ),
};
const whole = { fromMs: 0, toMs: SONG_MS };
const lengthOf = (song: NonNullable<ReturnType<typeof tailorSong>>) =>
  song.pieces.reduce((sum, piece) => sum + piece.toMs - piece.fromMs, 0) / song.speed;

describe('tailoring a song', () => {
  it.each([0.4, 0.5, 0.62, 0.8, 0.97, 1.3, 1.77, 2, 2.5])(
    'makes it %s times as long to the millisecond, with its real beginning and ending, four bars or more between joins',
    (share) => {
      const song = tailorSong(joints, whole, share * SONG_MS)!;
      expect(lengthOf(song)).toBeCloseTo(share * SONG_MS, 3);
      expect(Math.abs(song.speed - 1)).toBeLessThanOrEqual(share * SONG_MS < 40_000 ? 0.03 : 0.01);
      expect([song.pieces[0]!.fromMs, song.pieces.at(-1)!.toMs]).toEqual([0, SONG_MS]);
      for (const piece of song.pieces) expect(piece.toMs - piece.fromMs).toBeGreaterThanOrEqual(16 * BEAT_MS - 40);
      for (const join of song.joins) expect(join.toMs % BEAT_MS).toBeCloseTo((join.fromMs % BEAT_MS) + 1.5);
    },
  );
  it('joins where it goes on alike rather than anywhere', () => {
    const song = tailorSong(joints, whole, (5 / 9) * SONG_MS)!;
    expect(song.joins.length).toBeGreaterThan(0);
    expect(song.joins.every(({ quality }) => quality > 0.8)).toBe(true);
  });
  it('takes another way when a join is refused, and leaves out what is not to be heard', () => {
    const first = tailorSong(joints, whole, 0.8 * SONG_MS)!;
    const other = tailorSong(joints, whole, 0.8 * SONG_MS, { avoid: first.joins })!;
    expect(other.joins).not.toEqual(first.joins);
    const without = { fromMs: 16 * 4 * BEAT_MS, toMs: 20 * 4 * BEAT_MS };
    for (const share of [0.45, 0.6, 0.8, 1, 1.4, 1.9, 2.4]) {
      const left = tailorSong(joints, whole, share * SONG_MS, { without: [without] })!;
      for (const piece of left.pieces) {
        const heardMs = Math.min(piece.toMs, without.toMs) - Math.max(piece.fromMs, without.fromMs);
        expect(heardMs).toBeLessThan(100);
      }
    }
  });
  it('always makes the joins that are kept, in their order, at every length at which it can; and says where it cannot', () => {
    const usual = tailorSong(joints, whole, 0.8 * SONG_MS)!;
    expect(usual.joins.every(({ kept }) => kept === undefined)).toBe(true);
    const jump = (from: number, to: number) => ({ fromMs: from * BEAT_MS - 32, toMs: to * BEAT_MS - 30.5 });
    const [back, on] = [jump(64, 48), jump(96, 112)];
    for (const share of [0.8, 1, 1.3, 1.77]) {
      for (const keep of [[back], [back, on]]) {
        const song = tailorSong(joints, whole, share * SONG_MS, { keep })!;
        expect(lengthOf(song)).toBeCloseTo(share * SONG_MS, 3);
        expect(song.withoutKept).toBeUndefined();
        const kept = song.joins.filter((join) => join.kept);
        expect(kept.map(({ fromMs, toMs }) => [Math.round(fromMs), Math.round(toMs)])).toEqual(
          keep.map(({ fromMs, toMs }) => [Math.round(fromMs), Math.round(toMs)]),
        );
        song.pieces.slice(1).forEach((piece, index) => {
          expect(piece.fromMs).toBe(song.joins[index]!.toMs);
          expect(song.pieces[index]!.toMs).toBe(song.joins[index]!.fromMs);
        });
      }
    }
    // Where the second goes on is not to be heard.
    const without = [{ fromMs: 112 * BEAT_MS, toMs: 128 * BEAT_MS }];
    const other = tailorSong(joints, whole, 0.8 * SONG_MS, { keep: [back, on], without })!;
    expect([other.withoutKept, other.joins.some(({ kept }) => kept)]).toEqual([true, false]);
    expect(lengthOf(other)).toBeCloseTo(0.8 * SONG_MS, 3);
    // A join where the song does not go on.
    expect(tailorSong(joints, whole, 0.8 * SONG_MS, { keep: [jump(3, 3)] })).toMatchObject({ withoutKept: true });
  });
  it('moves a join to where the song goes on alike as well, and knows where it does not', () => {
    const join = { fromMs: 64 * BEAT_MS - 32, toMs: 48 * BEAT_MS - 30.5 };
    expect(movedJoin(joints, join, 4)).toEqual({ fromMs: 68 * BEAT_MS - 32, toMs: Math.round(52 * BEAT_MS - 30.5) });
    expect(movedJoin(joints, join, -1)).toEqual({ fromMs: 63 * BEAT_MS - 32, toMs: Math.round(47 * BEAT_MS - 30.5) });
    expect(movedJoin(joints, join, 200)).toBeNull();
    const sparse = { ...joints, to: joints.to.map((flat, at) => (at === 68 ? [] : flat)) };
    expect(movedJoin(sparse, join, 4)).toBeNull();
  });
  it('has no way to less than 0.4 or more than 2.5 times, nor where nothing is alike', () => {
    expect([tailorSong(joints, whole, 0.39 * SONG_MS), tailorSong(joints, whole, 2.51 * SONG_MS)]).toEqual([
      null,
      null,
    ]);
    expect(tailorSong({ ...joints, to: joints.to.map(() => []) }, whole, 0.5 * SONG_MS)).toBeNull();
    expect(tailorSong(joints, whole, SONG_MS)).toEqual({ pieces: [whole], joins: [], speed: 1 });
  });
});

const SONG = assetId('1'.repeat(64));
const facts = new Map<typeof SONG, AssetFacts>([
  [
    SONG,
    {
      kind: 'sound',
      lengthMs: SONG_MS,
      title: null,
      artist: null,
      listening: {
        loudness: { integratedLufs: -14, truePeakDb: -1, curve: Array.from({ length: SONG_MS / 500 }, () => -140) },
        heardFromMs: 0,
        heardToMs: SONG_MS,
        beats: {
          tempoBpm: 120,
          beatsMs: joints.atMs,
          beatsABar: 4,
          firsts: joints.atMs.flatMap((_, beat) => (beat % 4 === 0 ? [beat] : [])),
          confidence: 1,
        },
        sections: [],
        energy: [],
        accentsMs: [],
        joints,
      },
    },
  ],
]);
const showOf = (lengthMs: number, ends: 'show-end' | 'own-end' = 'show-end'): Show => ({
  ...emptyShow(showId('t'), ''),
  cues: [
    {
      ...songAfter(cueId('q'), SONG, 0),
      ends: ends === 'show-end' ? { at: 'show-end', beforeMs: 0 } : { at: 'own-end' },
      tailored: {},
    },
  ],
  slides: [
    {
      id: slideId('s'),
      lengthMs,
      transition: { kind: 'cut' },
      backing: { kind: 'automatic' },
      layers: [],
      sounds: [],
    },
  ],
});

describe('a tailored song in a show', () => {
  it('ends with the show whatever its length, and keeps its beats, at whole beats across its joins', () => {
    for (const lengthMs of [41_234, 60_000, 99_999]) {
      const show = showOf(lengthMs);
      const [span] = soundSpans(show, facts);
      expect([span!.startMs, span!.endMs]).toEqual([0, lengthMs]);
      const runs = pieceRuns(span!, facts);
      expect(showMomentOf(runs.at(-1)!, SONG_MS)).toBeCloseTo(lengthMs, 3);
      const { beats } = musicOf(show, facts, false);
      const gaps = beats.slice(1).map((beat, index) => beat.atMs - beats[index]!.atMs);
      for (const gap of gaps) expect(Math.abs(gap - BEAT_MS)).toBeLessThan(20);
    }
  });
  it('is mixed as pieces that cross over before the beat and add up to one', () => {
    const { parts } = planMix(showOf(60_000), facts);
    expect(parts.length).toBeGreaterThan(1);
    parts.slice(1).forEach((part, index) => {
      const before = parts[index]!;
      for (const share of [0.1, 0.5, 0.9]) {
        const atMs = part.startMs + 24 * share;
        expect(gainAt(before.gains, atMs) + gainAt(part.gains, atMs)).toBeCloseTo(1, 1);
      }
    });
  });
  it('plays as it is where it ends by itself, or where there is no way to that length', () => {
    expect(soundSpans(showOf(60_000, 'own-end'), facts)[0]!.endMs).toBe(60_000);
    expect(pieceRuns(soundSpans(showOf(60_000, 'own-end'), facts)[0]!, facts).length).toBe(1);
    expect(soundSpans(showOf(3 * SONG_MS), facts)[0]!.endMs).toBeLessThanOrEqual(2.5 * SONG_MS);
  });
});

describe('where a song can be joined', () => {
  it('is heard: parts that come again lead to each other, at the same place in the bar and in phase', () => {
    // Two parts of chords and drum strokes, A B A B, eight bars each, at 120 beats a minute.
    const chords = {
      A: [
        [220, 277, 330],
        [294, 370, 440],
      ],
      B: [
        [196, 247, 294],
        [165, 208, 247],
      ],
    };
    const order = (['A', 'B', 'A', 'B'] as const).flatMap((part) =>
      Array.from({ length: 8 }, (_, bar) => chords[part][bar % 2]!),
    );
    const samples = new Float32Array(order.length * 2 * LISTENING_RATE);
    let noise = 1;
    const { sin, exp, PI } = Math;
    order.forEach((chord, bar) => {
      for (let beat = 0; beat < 4; beat += 1) {
        const from = (2 * bar + beat / 2) * LISTENING_RATE;
        for (let at = 0; at < LISTENING_RATE / 2; at += 1) {
          noise = (Math.imul(noise, 1664525) + 1013904223) >>> 0;
          const stroke = exp(-at / 700) * (noise / 4294967296 - 0.5) * (beat === 0 ? 0.8 : 0.35);
          let tone = 0;
          for (const hz of chord) tone += 0.08 * sin((2 * PI * hz * at) / LISTENING_RATE) * exp(-at / 9000);
          samples[from + at] =
            tone + stroke + (beat === 0 ? 0.4 * sin((2 * PI * 60 * at) / LISTENING_RATE) * exp(-at / 2500) : 0);
        }
      }
    });
    const hearing = songHearing(true);
    hearing.add(samples);
    const { joints: found, beats } = hearing.finish({
      integratedLufs: -14,
      truePeakDb: -1,
      curve: Array.from({ length: 128 }, () => -140),
    });
    expect(found!.atMs).toEqual(beats!.beatsMs);
    const from = found!.atMs.findIndex((ms) => Math.abs(ms - 16_000) < 60);
    const best = found!.to[from]!.slice(0, 2);
    // The second B begins 32 s after the first.
    expect(Math.abs(found!.atMs[best[0]!]! - found!.atMs[from]! - 32_000)).toBeLessThan(40);
    expect(best[1]!).toBeLessThan(60);
    const song = tailorSong(found!, { fromMs: 0, toMs: 64_000 }, 32_000)!;
    expect(song.joins.length).toBeGreaterThan(0);
    for (const { quality } of song.joins) expect(quality).toBeGreaterThan(0.5);
  });
});

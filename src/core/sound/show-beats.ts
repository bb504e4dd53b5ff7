import type { FactsById } from '../show/asset-facts';
import type { AssetId } from '../show/ids';
import type { Show } from '../show/show';
import { beatsThatCount } from './listening/beats-said';
import type { Section } from './listening/sections';
import { isDoubtful, type BeatGrid } from './listening/listening-facts';
import { soundSpans, type SoundSpan } from './sound-spans';
import { fileMomentOf, pieceRuns, showMomentOf } from './song-runs';

/** A beat of the music, in the time of the show. */
export interface ShowBeat {
  readonly atMs: number;
  /** What begins with it, the largest; nothing, where no beats are known and a seam may lie as well as anywhere. */
  readonly begins: 'nothing' | 'beat' | 'bar' | 'section';
  /** Bars and beats of its song are counted from 1. */
  readonly bar: number;
  readonly beat: number;
}

/** What the music does along the show. */
export interface ShowMusic {
  /** Rising. */
  readonly beats: readonly ShowBeat[];
  /** Where the music ends by itself, if the show went on. */
  readonly endMs: number;
  /** Its strongest strokes, rising. */
  readonly accentsMs: readonly number[];
  /** In the time of the show. */
  readonly sections: readonly Section[];
  /** 0…1 at a moment; 0.5 where nothing is known. */
  energyAt(momentMs: number): number;
  /** Songs whose beats nobody is sure of. */
  readonly doubtful: readonly AssetId[];
  /** Songs that nothing is known of yet. */
  readonly unheard: readonly AssetId[];
}

/** The beats of a song that count: as found, put right by a person. */
export function beatsOfSong(show: Show, facts: FactsById, id: AssetId): BeatGrid | null {
  const known = facts.get(id);
  if (known?.kind !== 'sound') return null;
  return beatsThatCount(known.listening?.beats ?? null, show.beats?.[id], known.lengthMs);
}

/** @param unbounded songs are heard to their own ends, past that of the show */
export function musicOf(show: Show, facts: FactsById, unbounded: boolean): ShowMusic {
  const songs = soundSpans(show, facts, unbounded).filter(({ sound }) => sound.kind === 'song');
  const ids = [...new Set(songs.map(({ sound }) => sound.assetId))];
  const grids = new Map(ids.map((id) => [id, beatsOfSong(show, facts, id)]));
  const beats = songs.flatMap((span) => beatsOfSpan(span, grids.get(span.sound.assetId) ?? null, facts));
  return {
    beats: withoutCrowds(beats.sort((a, b) => a.atMs - b.atMs)),
    endMs: songs.reduce((latest, { endMs }) => Math.max(latest, endMs), 0),
    accentsMs: songs.flatMap((span) => accentsOfSpan(span, facts)).sort((a, b) => a - b),
    sections: songs.flatMap((span) => sectionsOfSpan(span, facts)),
    energyAt: energyCurve(songs, facts),
    doubtful: ids.filter((id) => {
      const grid = grids.get(id);
      return grid !== null && grid !== undefined && isDoubtful(grid);
    }),
    unheard: ids.filter((id) => {
      const known = facts.get(id);
      return known?.kind === 'sound' && known.listening === undefined;
    }),
  };
}

function beatsOfSpan(span: SoundSpan, grid: BeatGrid | null, facts: FactsById): ShowBeat[] {
  if (!grid) return [];
  const known = facts.get(span.sound.assetId);
  const sections = known?.kind === 'sound' ? (known.listening?.sections ?? []) : [];
  const placed = placesInBars(grid);
  const begun = new Set(sections.map(({ startMs }) => nearestBeat(grid, startMs)));
  return pieceRuns(span, facts).flatMap((run) =>
    grid.beatsMs.flatMap((songMs, index) => {
      if (songMs < run.fromMs || songMs >= run.toMs) return [];
      const { bar, beat } = placed[index]!;
      const begins = begun.has(index) ? 'section' : beat === 1 ? 'bar' : 'beat';
      return [{ atMs: showMomentOf(run, songMs), begins, bar, beat } as const];
    }),
  );
}

function accentsOfSpan(span: SoundSpan, facts: FactsById): number[] {
  const known = facts.get(span.sound.assetId);
  const accents = known?.kind === 'sound' ? (known.listening?.accentsMs ?? []) : [];
  return pieceRuns(span, facts).flatMap((run) =>
    accents.flatMap((atMs) => (atMs >= run.fromMs && atMs < run.toMs ? [showMomentOf(run, atMs)] : [])),
  );
}

function sectionsOfSpan(span: SoundSpan, facts: FactsById): Section[] {
  const known = facts.get(span.sound.assetId);
  const sections = known?.kind === 'sound' ? (known.listening?.sections ?? []) : [];
  return pieceRuns(span, facts).flatMap((run) =>
    sections.flatMap((section) => {
      const [fromMs, toMs] = [Math.max(section.startMs, run.fromMs), Math.min(section.endMs, run.toMs)];
      if (toMs - fromMs < 500) return [];
      return [{ ...section, startMs: showMomentOf(run, fromMs), endMs: showMomentOf(run, toMs) }];
    }),
  );
}

/** Between two beats so far apart there is music of which no beats are known. */
const UNKNOWN_MS = 2500;
const PLACES_MS = 250;

/** The beats that somebody is sure of, with places where a seam may lie in the stretches without any. */
export function placesForSeams(show: Show, facts: FactsById, { beats, endMs, doubtful }: ShowMusic): ShowBeat[] {
  const unsure = soundSpans(show, facts, true).filter(({ sound }) => doubtful.includes(sound.assetId));
  const sure = beats.filter(({ atMs }) => !unsure.some(({ startMs, endMs: toMs }) => atMs >= startMs && atMs < toMs));
  if (sure.length === 0) return [];
  const places: ShowBeat[] = [];
  let fromMs = 0;
  for (const next of [...sure, null]) {
    const toMs = next?.atMs ?? endMs;
    if (toMs - fromMs > UNKNOWN_MS)
      for (let atMs = fromMs + PLACES_MS; atMs < toMs - PLACES_MS / 2; atMs += PLACES_MS)
        places.push({ atMs, begins: 'nothing', bar: 0, beat: 0 });
    if (next) places.push(next);
    fromMs = toMs;
  }
  return places;
}

/** The bar and the beat in it of each beat, counted from 1; beats before the first bar are of bar 1 too, at its end. */
function placesInBars({ beatsMs, firsts, beatsABar }: BeatGrid): { bar: number; beat: number }[] {
  const isFirst = new Set(firsts);
  const upbeats = firsts[0] ?? 0;
  let bar = upbeats > 0 ? 1 : 0;
  let beat = upbeats > 0 ? Math.max(0, beatsABar - upbeats) : 0;
  return beatsMs.map((_, index) => {
    if (isFirst.has(index)) {
      bar += 1;
      beat = 0;
    }
    beat += 1;
    return { bar, beat };
  });
}

function nearestBeat({ beatsMs }: BeatGrid, songMs: number): number {
  let best = 0;
  beatsMs.forEach((atMs, index) => {
    if (Math.abs(atMs - songMs) < Math.abs(beatsMs[best]! - songMs)) best = index;
  });
  return best;
}

/** Where two songs cross over, beats of both would crowd; those of the first are kept. */
const CROWD_MS = 120;

function withoutCrowds(beats: readonly ShowBeat[]): ShowBeat[] {
  const kept: ShowBeat[] = [];
  for (const beat of beats) if (kept.length === 0 || beat.atMs - kept.at(-1)!.atMs >= CROWD_MS) kept.push(beat);
  return kept;
}

const ENERGY_STEP_MS = 500;

/** Worked out once for every half second, when it is first asked for. */
function energyCurve(songs: readonly SoundSpan[], facts: FactsById): (momentMs: number) => number {
  let known: Float32Array | null = null;
  return (momentMs) => {
    if (!known) {
      const endMs = songs.reduce((latest, span) => Math.max(latest, span.endMs), 0);
      known = Float32Array.from({ length: Math.ceil(endMs / ENERGY_STEP_MS) }, (_, step) =>
        energyAt(songs, facts, (step + 0.5) * ENERGY_STEP_MS),
      );
    }
    return known[Math.floor(momentMs / ENERGY_STEP_MS)] ?? 0.5;
  };
}

function energyAt(songs: readonly SoundSpan[], facts: FactsById, momentMs: number): number {
  const span = songs.findLast(({ startMs, endMs }) => momentMs >= startMs && momentMs < endMs);
  if (!span) return 0.5;
  const known = facts.get(span.sound.assetId);
  const energy = known?.kind === 'sound' ? known.listening?.energy : undefined;
  const run = pieceRuns(span, facts).findLast(({ startMs }) => startMs <= momentMs);
  if (!energy || energy.length === 0 || !run) return 0.5;
  const at = fileMomentOf(run, momentMs) / 500;
  const index = Math.max(0, Math.min(energy.length - 1, Math.floor(at)));
  const next = energy[Math.min(energy.length - 1, index + 1)]!;
  return (energy[index]! + (next - energy[index]!) * Math.min(1, Math.max(0, at - index))) / 100;
}

/** Those of rising beats that lie in `[fromMs, toMs)`. */
export function beatsWithin(beats: readonly ShowBeat[], fromMs: number, toMs: number): readonly ShowBeat[] {
  return beats.slice(firstFrom(beats, fromMs), firstFrom(beats, toMs));
}

function firstFrom(beats: readonly ShowBeat[], momentMs: number): number {
  let low = 0;
  let high = beats.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (beats[middle]!.atMs < momentMs) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** The beat nearest to a moment; null when none lies within reach. */
export function beatNear(beats: readonly ShowBeat[], momentMs: number, reachMs: number): ShowBeat | null {
  const after = firstFrom(beats, momentMs);
  const near = [beats[after - 1], beats[after]].filter((beat) => beat !== undefined);
  const best = near.reduce<ShowBeat | null>(
    (nearest, beat) =>
      nearest === null || Math.abs(beat.atMs - momentMs) < Math.abs(nearest.atMs - momentMs) ? beat : nearest,
    null,
  );
  return best && Math.abs(best.atMs - momentMs) <= reachMs ? best : null;
}

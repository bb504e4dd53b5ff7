import type { FilmSegment } from '../../core/film/plan-film';
import type { AssetFacts } from '../../core/show/asset-facts';
import type { AssetId } from '../../core/show/ids';
import type { DrawnSegment, FilmWork, UnreadFile } from '../films/film-work';

/** A segment that waits for somebody to draw it. Plain data; what all segments of a film have in common lies in the kept files. */
export interface SegmentJob {
  /** Of one going at a film: what is stopped is stopped by this. */
  readonly run: string;
  /** Kept file that says what is drawn. */
  readonly work: string;
  readonly segment: FilmSegment;
  /** Where it is kept when it is whole, and where when files are missing from it: that is good for this going only. */
  readonly whole: string;
  readonly lacking: string;
  /** Files of the slides that are on meanwhile. */
  readonly assets: readonly AssetId[];
}

/** What came of it. */
export interface SegmentDone {
  /** The name it was kept under. */
  readonly kept: string;
  /** Null when somebody had drawn it before. */
  readonly drawn: DrawnSegment | null;
  readonly problems: readonly UnreadFile[];
}

export interface SegmentProgress {
  /** Made of this segment. */
  readonly frames: number;
  /** JPEG in base64, now and then. */
  readonly glimpse?: string;
}

/** Machines with another build, other fonts or another ffmpeg draw other frames: each kind has a queue of its own. */
export const farmQueue = (version: string): string => `tanager-segments-${version.slice(0, 16)}`;
export const stoppedKey = (run: string): string => `tanager:stopped:${run}`;

/** How queue and workers look after each other: a worker that is gone is noticed after `lockMs` at most. */
export const LOCK_MS = 15_000;
export const LOOK_FOR_LOST_MS = 5_000;
/** So often a worker may be lost over a segment. */
export const MOST_LOST = 5;

/** What is drawn, without where files lie: that is another place on each machine. */
export function workAsText({ files: _files, facts, ...work }: FilmWork): string {
  return JSON.stringify({ ...work, facts: [...facts] });
}

export function workFromText(text: string): FilmWork {
  // Written by ourselves.
  const { facts, ...work } = JSON.parse(text) as Omit<FilmWork, 'facts' | 'files'> & { facts: [AssetId, AssetFacts][] };
  return { ...work, facts: new Map(facts), files: new Map() };
}

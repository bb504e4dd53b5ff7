import type { FoundFace } from '../focus/focus-facts';
import { differenceOf } from '../light/likeness';
import type { PictureFacts } from '../show/asset-facts';

/** A picture of the sheet, as far as choosing looks at it. */
export interface Candidate<Id> {
  readonly id: Id;
  readonly facts: PictureFacts;
  /** Its camera’s clock put right: local time, ISO 8601 without zone; null when it does not say. */
  readonly takenAt: string | null;
}

/** Pictures of one moment, or nearly alike, the best in front. */
export type Stack<Id> = readonly Candidate<Id>[];

/**
 * Of 256 signs so many may differ for two to be of one burst, by how far apart they were taken; between strangers about 128 do. In a second or two one camera
 * takes one scene, however much it was moved.
 */
const ALIKE: readonly { readonly withinMs: number; readonly signs: number; readonly ofOneCamera?: true }[] = [
  { withinMs: 1000, signs: 104, ofOneCamera: true },
  { withinMs: 2000, signs: 96, ofOneCamera: true },
  { withinMs: 3000, signs: 84 },
  { withinMs: 60_000, signs: 44 },
  { withinMs: Infinity, signs: 18 },
];
/** Compared with the last of a stack, since people and light go on. */
const LAST = 6;
/** Stacks a picture may join: those that were added to last. */
const OPEN = 24;

/**
 * Bursts and near-twins as stacks: each picture, in the order in which they were taken, joins the stack of one just before it that it resembles. Others are stacks
 * of one.
 *
 * @returns in order of time; in each the best first, see `quality`
 */
export function stacksOf<Id>(pictures: readonly Candidate<Id>[]): readonly Stack<Id>[] {
  const stacks: Candidate<Id>[][] = [];
  /** The stacks added to last come first. */
  const open: Candidate<Id>[][] = [];
  for (const picture of inTime(pictures)) {
    const joined = open.find((stack) => stack.slice(-LAST).some((other) => isAlikeTo(picture, other)));
    if (joined) joined.push(picture);
    const stack = joined ?? [picture];
    if (!joined) stacks.push(stack);
    const at = open.indexOf(stack);
    if (at >= 0) open.splice(at, 1);
    open.unshift(stack);
    open.length = Math.min(open.length, OPEN);
  }
  return stacks.map(bestFirst);
}

/** Those that say when they were taken, then the others as they came. */
export function inTime<Id>(pictures: readonly Candidate<Id>[]): readonly Candidate<Id>[] {
  return [...pictures].sort((a, b) => compare(a.takenAt ?? '9999', b.takenAt ?? '9999'));
}

const compare = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);

function isAlikeTo<Id>(one: Candidate<Id>, other: Candidate<Id>): boolean {
  if (!one.facts.likeness || !other.facts.likeness) return false;
  const apartMs = Math.abs(msOf(one.takenAt) - msOf(other.takenAt));
  const isOneCamera = one.facts.camera === other.facts.camera;
  const most = Number.isNaN(apartMs)
    ? ALIKE.at(-1)!
    : ALIKE.find(({ withinMs, ofOneCamera }) => apartMs <= withinMs && (!ofOneCamera || isOneCamera))!;
  return differenceOf(one.facts.likeness, other.facts.likeness) <= most.signs;
}

/** NaN when it does not say. */
export const msOf = (takenAt: string | null) =>
  takenAt === null ? Number.NaN : Date.parse(`${takenAt.slice(0, 19)}Z`);

function bestFirst<Id>(stack: readonly Candidate<Id>[]): Stack<Id> {
  const mostFaces = Math.max(0, ...stack.map(({ facts }) => facts.focus?.faces.length ?? 0));
  return [...stack].sort((a, b) => quality(b.facts, mostFaces) - quality(a.facts, mostFaces));
}

/** What a face whose eyes are shut loses of its sharpness. */
const SHUT_COSTS = 0.6;
/** How far lids of eyes that are surely shut, and surely open, are apart; measured on a hundred faces whose eyes were shut by hand. */
const LIDS_SHUT = 0.17;
const LIDS_OPEN = 0.25;

/** How surely a face's eyes are shut, 0…1; 0 where that cannot be told. */
function shutness({ eyes }: FoundFace): number {
  return eyes === undefined ? 0 : Math.min(1, Math.max(0, (LIDS_OPEN - eyes) / (LIDS_OPEN - LIDS_SHUT)));
}

/** Whether somebody blinks in it: the eyes of one of its larger faces are shut. */
export function blinks({ focus }: PictureFacts): boolean {
  return focus?.faces.some((face) => shutness(face) > 0.6) ?? false;
}

/**
 * How good a picture is beside others of its scene, 0…1: sharp at its faces where it has any, with nobody turned away or blinking; else sharp. Pictures far too dark or too
 * bright lose by it.
 *
 * @param mostFaces found in any picture of the scene
 */
export function quality({ focus, brightness }: PictureFacts, mostFaces = focus?.faces.length ?? 0): number {
  const sharpness = focus?.sharpness ?? 0.5;
  const faces = focus?.faces ?? [];
  const ofFaces =
    faces.reduce((sum, face) => sum + face.sharpness * (1 - SHUT_COSTS * shutness(face)), 0) /
    Math.max(1, faces.length);
  const own = mostFaces === 0 ? sharpness : 0.5 * ofFaces + 0.3 * (faces.length / mostFaces) + 0.2 * sharpness;
  const exposed = brightness < 0.08 || brightness > 0.94 ? 0.6 : 1;
  return own * exposed;
}

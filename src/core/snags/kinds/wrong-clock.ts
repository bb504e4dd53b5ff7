import { differenceOf } from '../../light/likeness';
import { cameraName, cameraOf, LARGEST_SHIFT_MS, shiftOf, takenAt } from '../../show/camera-clock';
import type { SlideId } from '../../show/ids';
import { msOf } from '../../choosing/stacks';
import { mainLayerOf } from '../../show/show';
import { allOf, slidesOf } from '../helpers';
import type { SnagKind, SnagLook } from '../snag';

/** No camera that writes its time into files is older. */
const EARLIEST = Date.UTC(1995, 0, 1);
/** Two cameras at one event are not so far apart. */
const APART_MS = 200 * 86_400_000;
const DAY_MS = 86_400_000;
const FEWEST = 2;
/** Of 256 signs so many may differ for two cameras to have seen the same at about the same time; between strangers about 128 do. */
const SAME_SCENE = 44;
/** People who stand side by side press a little apart. */
const LEAST_SHIFT_MS = 8 * 60_000;
const AGREE_MS = 3 * 60_000;
/** Of each camera, so that large shows are looked over as quickly. */
const MOST_COMPARED = 600;

interface CameraSeen {
  /** Rising. */
  times: number[];
  /** With what each looks like. */
  looks: { readonly atMs: number; readonly likeness: string }[];
  readonly first: ReturnType<typeof allOf> & { readonly slideId: SlideId };
}

/** When the pictures of each camera in the show were taken, and the first slide that shows one. */
function cameras({ prepared }: SnagLook): Map<string, CameraSeen> {
  const found = new Map<string, CameraSeen>();
  for (const place of slidesOf(prepared)) {
    const main = mainLayerOf(place.slide);
    const known = main && prepared.facts.get(main.assetId);
    if (!known || known.kind === 'sound') continue;
    const atMs = msOf(takenAt(known, prepared.show.clocks));
    if (Number.isNaN(atMs)) continue;
    const camera = cameraOf(known);
    const entry = found.get(camera) ?? { times: [], looks: [], first: { ...allOf(place), slideId: place.slide.id } };
    entry.times.push(atMs);
    if (known.kind === 'picture' && known.likeness) entry.looks.push({ atMs, likeness: known.likeness });
    found.set(camera, entry);
  }
  for (const { times } of found.values()) times.sort((a, b) => a - b);
  return found;
}

/** The camera with most pictures beside one that has fewer; null when it has the most itself. */
function mainBeside(camera: string, all: ReturnType<typeof cameras>): string | null {
  const own = all.get(camera)!.times.length;
  const [most] = [...all]
    .filter(([name, { times }]) => name !== camera && times.length > own)
    .sort((a, b) => b[1].times.length - a[1].times.length);
  return most?.[0] ?? null;
}

/**
 * By how much a clock must be put right for pictures of two cameras that show the same to have been taken together; null when they were, or when there are too
 * few of them, or they do not agree.
 */
function shiftByLooks(own: CameraSeen, main: CameraSeen): number | null {
  const shifts: number[] = [];
  for (const one of own.looks.slice(0, MOST_COMPARED)) {
    // Of those it is like, the one it is most like.
    let best: { readonly signs: number; readonly shiftMs: number } | null = null;
    for (const other of main.looks.slice(0, MOST_COMPARED)) {
      const signs = differenceOf(one.likeness, other.likeness);
      if (signs <= SAME_SCENE && signs < (best?.signs ?? Infinity)) best = { signs, shiftMs: other.atMs - one.atMs };
    }
    if (best) shifts.push(best.shiftMs);
  }
  shifts.sort((a, b) => a - b);
  const middle = shifts[Math.floor(shifts.length / 2)];
  if (middle === undefined || Math.abs(middle) < LEAST_SHIFT_MS) return null;
  const agreeing = shifts.filter((shift) => Math.abs(shift - middle) <= AGREE_MS);
  return agreeing.length >= FEWEST && agreeing.length > shifts.length / 2 ? middle : null;
}

/** Why a camera's clock must be wrong, as the end of a sentence, and what puts it right; null when it may be right. */
function whyWrong(
  look: SnagLook,
  camera: string,
  all: ReturnType<typeof cameras>,
): { readonly why: string; readonly shiftMs: number | null } | null {
  const own = all.get(camera)!;
  const { times } = own;
  const main = mainBeside(camera, all);
  const usual = main === null ? null : all.get(main)!;
  const toBegin = usual && usual.times[0]! - times[0]!;
  if (times[0]! < EARLIEST) return { why: 'says that its pictures are older than such cameras are', shiftMs: toBegin };
  if (times.at(-1)! > msOf(look.now) + DAY_MS)
    return { why: 'says that its pictures are of a day to come', shiftMs: toBegin };
  if (!usual || main === null) return null;
  const byLooks = shiftByLooks(own, usual);
  if (byLooks !== null)
    return {
      why: `is ${spoken(Math.abs(byLooks))} ${byLooks > 0 ? 'behind' : 'ahead of'} ${cameraName(main)}: both show the same scenes`,
      shiftMs: byLooks,
    };
  if (times.length < FEWEST) return null;
  const apart = Math.max(usual.times[0]! - times.at(-1)!, times[0]! - usual.times.at(-1)!);
  return apart > APART_MS
    ? { why: `is ${Math.round(apart / DAY_MS)} days away from ${cameraName(main)}`, shiftMs: toBegin }
    : null;
}

function spoken(ms: number): string {
  const minutes = Math.round(ms / 60_000);
  if (minutes >= 3 * 24 * 60) return `${Math.round(minutes / (24 * 60))} days`;
  const [hours, rest] = [Math.floor(minutes / 60), minutes % 60];
  if (hours === 0) return `${rest} min`;
  return rest === 0 ? `${hours} h` : `${hours} h ${rest} min`;
}

export const wrongClock: SnagKind = {
  title: 'Wrong camera clocks',
  advice: 'Set the camera’s clock right in Gather, from one picture whose time is known.',
  place: 'gather',
  *find(look) {
    const all = cameras(look);
    for (const [camera, { first }] of all) {
      const wrong = whyWrong(look, camera, all);
      if (wrong)
        yield {
          grave: false,
          ...first,
          of: camera.slice(0, 80),
          sentence: `The clock of ${cameraName(camera)} ${wrong.why}.`,
        };
    }
  },
  fixes(look, { of: camera = '' }) {
    const all = cameras(look);
    const name = [...all.keys()].find((one) => one.slice(0, 80) === camera);
    const wrong = name === undefined ? null : whyWrong(look, name, all);
    if (name === undefined || !wrong || wrong.shiftMs === null) return [];
    const main = mainBeside(name, all)!;
    const shiftMs = shiftOf(look.prepared.show.clocks, name) + wrong.shiftMs;
    if (Math.abs(shiftMs) > LARGEST_SHIFT_MS) return [];
    return [
      { name: `Set it by ${cameraName(main)}`, edit: { kind: 'set-clocks', clocks: [{ camera: name, shiftMs }] } },
    ];
  },
};

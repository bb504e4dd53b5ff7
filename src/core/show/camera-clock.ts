import { record, text, whole, type Schema } from '../schema/schema';
import type { ClipFacts, PictureFacts } from './asset-facts';
import { MOST_CAMERAS } from './limits';

/** By how much the clocks of cameras are put right, by `cameraOf`; one that is right is not named. Positive: it was slow, and its pictures were taken later than they say. */
export type CameraClocks = Readonly<Record<string, number>>;

const LONGEST_CAMERA = 200;
/** Cameras forget the year, too. */
export const LARGEST_SHIFT_MS = 50 * 366 * 24 * 3_600_000;

export const CAMERA = text(LONGEST_CAMERA, 1);
export const SHIFT: Schema = whole(-LARGEST_SHIFT_MS, LARGEST_SHIFT_MS);
export const CLOCKS: Schema = record(CAMERA, SHIFT, MOST_CAMERAS, 1);

/** What stands for files that do not name a camera. */
const CLIPS = '(clips)';
const NAMELESS = '(no camera)';

/** Whose clock a file’s time comes from. What lens was on it does not matter. */
export function cameraOf(facts: PictureFacts | ClipFacts): string {
  if (facts.kind === 'clip') return CLIPS;
  return facts.camera?.replace(/, \d+ mm$/, '') || NAMELESS;
}

/** A camera as people call it. */
export function cameraName(camera: string): string {
  if (camera === CLIPS) return 'clips';
  return camera === NAMELESS ? 'pictures that name no camera' : camera;
}

/** By how much a camera’s clock is put right; 0 when it is not named. Cameras can be called anything, also what every object has. */
export function shiftOf(clocks: CameraClocks | undefined, camera: string): number {
  return clocks && Object.hasOwn(clocks, camera) ? clocks[camera]! : 0;
}

/** When a file was taken, its camera’s clock put right: local time, ISO 8601 without zone; null when it does not say. */
export function takenAt(facts: PictureFacts | ClipFacts, clocks: CameraClocks | undefined): string | null {
  const shiftMs = shiftOf(clocks, cameraOf(facts));
  return facts.takenAt === null || shiftMs === 0 ? facts.takenAt : shifted(facts.takenAt, shiftMs);
}

/** A local time so much later. @param time ISO 8601 without zone */
export function shifted(time: string, byMs: number): string {
  const atMs = Date.parse(`${time.slice(0, 19)}Z`);
  return Number.isNaN(atMs) ? time : new Date(atMs + byMs).toISOString().slice(0, 19);
}

/** By how much a clock must be put right for a file that says one time to have been taken at another; null when either is no time. */
export function shiftBetween(says: string, really: string): number | null {
  const shiftMs = Date.parse(`${really.slice(0, 19)}Z`) - Date.parse(`${says.slice(0, 19)}Z`);
  return Number.isFinite(shiftMs) && Math.abs(shiftMs) <= LARGEST_SHIFT_MS ? shiftMs : null;
}

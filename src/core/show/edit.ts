import { recordOf, type ShowEdit } from './edits/edit-records';
import { faultOfShow } from './faults';
import type { Show } from './show';

export type { ShowEdit } from './edits/edit-records';

export type EditRefusal =
  | 'slide-not-found'
  | 'layer-not-found'
  | 'slide-already-there'
  | 'layer-already-there'
  | 'sound-not-found'
  | 'sound-already-there'
  | 'too-many-keys'
  | 'file-not-used'
  | 'clip-has-no-automatic-move'
  /** What came out would not be a sound show; the sentence says why. */
  | 'unsound';

/** `inverse` applied to `show` gives back the show as it was. */
export type EditResult =
  | { readonly ok: true; readonly show: Show; readonly inverse: ShowEdit }
  | { readonly ok: false; readonly reason: EditRefusal; /** For the person. */ readonly sentence: string };

/**
 * Applies one edit. Slides it does not touch keep their identity. What names several slides or layers is done to those that are still there
 * (others may have been removed in another tab) and refused only when none is. What comes out is sound: see `faultOfShow`.
 */
export function applyEdit(show: Show, edit: ShowEdit): EditResult {
  const result = applyUnchecked(show, edit);
  if (!result.ok) return result;
  const fault = faultOfShow(result.show, show);
  return fault === null ? result : unsound(fault);
}

/** Edits within a step may leave the show unsound for a moment; only the step's outcome counts. */
function applyUnchecked(show: Show, edit: ShowEdit): EditResult {
  const record = recordOf(edit);
  const fault = record.fault?.(edit) ?? null;
  return fault === null ? record.apply(show, edit, applyUnchecked) : unsound(fault);
}

function unsound(fault: string): EditResult {
  return { ok: false, reason: 'unsound', sentence: `That cannot be done: ${fault}.` };
}

import type { Place } from './edits/edit-record';
import { recordOf, type ShowEdit } from './edits/edit-records';

/** The places an edit writes to. What is added is a place of its own: only what replaces or removes all that holds it meets it. */
export function touched(edit: ShowEdit): Place[] {
  return recordOf(edit).touched(edit, touched);
}

/** Whether two sets of edits, made without knowing of each other, wrote to the same place, so that one has overwritten the other. */
export function collide(ours: readonly ShowEdit[], theirs: readonly ShowEdit[]): boolean {
  const there = new Set(theirs.flatMap(touched));
  const prefixesThere = new Set([...there].flatMap(prefixesOf));
  return ours
    .flatMap(touched)
    .some((place) => prefixesThere.has(place) || prefixesOf(place).some((prefix) => there.has(prefix)));
}

/** The place itself and every place that holds it: those that end with a slash, and the whole show. */
function prefixesOf(place: Place): Place[] {
  const prefixes = ['', place];
  for (let at = place.indexOf('/'); at >= 0; at = place.indexOf('/', at + 1)) prefixes.push(place.slice(0, at + 1));
  return prefixes;
}

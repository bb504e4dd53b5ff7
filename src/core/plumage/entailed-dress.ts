import { applyEdit, type ShowEdit } from '../show/edit';
import { editSentence } from '../show/edit-sentence';
import type { Show } from '../show/show';
import { withDressed } from './dress';

/** An edit, and what it entails where the show wears a plumage: slides that come with it are dressed, within the same step. */
export function withItsPlumage(show: Show, edit: ShowEdit): ShowEdit {
  if (!show.plumage || !mayAddSlides(edit)) return edit;
  const result = applyEdit(show, edit);
  if (!result.ok || result.show.plumage !== show.plumage) return edit;
  const there = new Set(show.slides.map(({ id }) => id));
  const fresh = new Set(result.show.slides.flatMap(({ id }) => (there.has(id) ? [] : [id])));
  if (fresh.size === 0) return edit;
  const dressed = withDressed(result.show, fresh);
  const changed = dressed.slides.filter((slide, index) => slide !== result.show.slides[index]);
  if (changed.length === 0) return edit;
  return { kind: 'together', name: editSentence(edit), edits: [edit, { kind: 'put-slides', slides: changed }] };
}

function mayAddSlides(edit: ShowEdit): boolean {
  return edit.kind === 'add-slides' || (edit.kind === 'together' && edit.edits.some(mayAddSlides));
}

import type { ShowEdit } from './edit';
import type { SlideId } from './ids';
import type { PlacedSlides } from './order';
import type { Show, Slide } from './show';

/**
 * What leads from a show to another whose kept slides stand in the same order: slides added, removed and changed, its music, its plumage and its temperament.
 * Nothing else of the two is looked at.
 *
 * @returns null when nothing differs
 */
export function editBetween(from: Show, to: Show, name: string): ShowEdit | null {
  const before = new Map(from.slides.map((slide) => [slide.id, slide]));
  const after = new Set(to.slides.map(({ id }) => id));
  const edits: ShowEdit[] = [];
  const runs = addedRuns(to.slides, before);
  if (runs.length > 0) edits.push({ kind: 'add-slides', runs });
  const gone = from.slides.filter(({ id }) => !after.has(id));
  if (gone.length > 0) edits.push({ kind: 'remove-slides', slideIds: gone.map(({ id }) => id) });
  // Songs that were tied to what went were tied to something else by that.
  if (gone.length > 0 || !isSame(from.cues, to.cues)) edits.push({ kind: 'set-cues', cues: to.cues });
  const changed = to.slides.filter((slide) => {
    const was = before.get(slide.id);
    return was !== undefined && was !== slide && !isSame(was, slide);
  });
  if (changed.length > 0) edits.push({ kind: 'put-slides', slides: changed });
  if (from.temperament !== to.temperament) edits.push({ kind: 'set-temperament', temperament: to.temperament ?? null });
  if (!isSame(from.plumage, to.plumage)) edits.push({ kind: 'set-plumage', plumage: to.plumage ?? null });
  return edits.length > 0 ? { kind: 'together', name, edits } : null;
}

function addedRuns(slides: readonly Slide[], before: ReadonlyMap<SlideId, Slide>): PlacedSlides[] {
  const runs: { afterId: SlideId | null; slides: Slide[] }[] = [];
  let last: SlideId | null = null;
  let isOpen = false;
  for (const slide of slides) {
    if (before.has(slide.id)) {
      last = slide.id;
      isOpen = false;
      continue;
    }
    if (!isOpen) runs.push({ afterId: last, slides: [] });
    isOpen = true;
    runs.at(-1)!.slides.push(slide);
  }
  return runs;
}

function isSame(one: unknown, other: unknown): boolean {
  return JSON.stringify(one) === JSON.stringify(other);
}

import type { ShowEdit } from '../../core/show/edit';
import type { LayerId, SlideId } from '../../core/show/ids';
import { fixesOf, kindOf, lookAfter, lookOver } from '../../core/snags/look-over';
import type { Snag, SnagFix, SnagLook } from '../../core/snags/snag';
import type { SnagKindName } from '../../core/snags/snag-kinds';
import { placesAndColours } from '../../core/snags/words-fixes';
import { seeSlide, type Checking } from './checking';

/** What a fix of words, or of flashes, may bring about instead. */
const BESIDE: readonly SnagKindName[] = [
  'faint-words',
  'words-over-face',
  'words-off-frame',
  'words-shrunk',
  'hasty-words',
  'flashing',
];
const MOST = 5;

/** The fixes that help, each tried by drawing the slide as it would be; the first few. */
export async function fixesThatHelp(checking: Checking, look: SnagLook, snag: Snag): Promise<SnagFix[]> {
  const fixes = fixesOf(look, snag);
  if (!kindOf(snag.kind).measured) return fixes.slice(0, MOST);
  const before = new Set(keysOn(look, snag.slideId));
  const helping: SnagFix[] = [];
  for (const fix of fixes) {
    if (helping.length >= MOST) break;
    if (helping.some(({ name }) => name === fix.name)) continue;
    const after = await seenAfter(checking, look, fix.edit, snag.slideId);
    if (!after) continue;
    const keys = keysOn(after, snag.slideId);
    if (!keys.includes(snag.key) && keys.every((key) => before.has(key))) helping.push(fix);
  }
  return helping;
}

const keysOn = (look: SnagLook, slideId: SlideId | null): string[] =>
  lookOver(look, BESIDE)
    .filter((snag) => snag.slideId === slideId)
    .map(({ key }) => key);

/** The show after an edit, with the slides that it changes measured anew; null when it is refused. */
async function seenAfter(
  checking: Checking,
  look: SnagLook,
  edit: ShowEdit,
  slideId: SlideId | null,
): Promise<SnagLook | null> {
  const after = lookAfter(look, edit);
  if (!after) return null;
  const before = new Set(look.prepared.show.slides);
  const seen = new Map(look.seen);
  for (const [index, slide] of after.prepared.show.slides.entries())
    if (slide.id === slideId || !before.has(slide)) seen.set(slide.id, await seeSlide(checking, after.prepared, index));
  return { ...after, seen };
}

/** Where and how words of a slide read best: the edit, and how clear they become; null when nothing reads better than what is there. */
export async function whatReadsBest(
  checking: Checking,
  look: SnagLook,
  slideId: SlideId,
  layerId: LayerId,
): Promise<SnagFix | null> {
  const clearOf = (of: SnagLook): number => {
    const words = of.seen.get(slideId)?.words.find((one) => one.layerId === layerId);
    if (!words?.worst) return 0;
    const face = words.face?.share ?? 0;
    const { left = 1, top = 1, right = 1, bottom = 1 } = words.margins ?? {};
    const off = Math.min(left, top, right, bottom) < 0.035 ? 2 : 0;
    return Math.min(12, words.worst.legibility.clear) - 12 * face - off;
  };
  const index = look.prepared.show.slides.findIndex((slide) => slide.id === slideId);
  if (index < 0) return null;
  const seen = new Map(look.seen).set(slideId, await seeSlide(checking, look.prepared, index));
  const own = clearOf({ ...look, seen });
  let best: { readonly fix: SnagFix; readonly clear: number } | null = null;
  for (const fix of placesAndColours({ ...look, seen }, slideId, layerId)) {
    const after = await seenAfter(checking, look, fix.edit, slideId);
    const clear = after ? clearOf(after) : 0;
    // Staying where they are is worth a little.
    if (clear > own + 0.3 && clear > (best?.clear ?? 0) + (fix.stays ? -0.6 : 0.3)) best = { fix, clear };
  }
  return best?.fix ?? null;
}

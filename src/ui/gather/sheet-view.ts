import type { AssetFacts, ClipFacts, PictureFacts } from '../../core/show/asset-facts';
import { takenAt, type CameraClocks } from '../../core/show/camera-clock';
import { assetIdsOfLayer, everyLayer } from '../../core/show/layer';
import { isKept, type Mark } from '../../core/show/mark';
import { rawTwins } from '../../core/show/raw-twins';
import type { Slide } from '../../core/show/show';
import type { SheetEntry } from '../../server/assets/contact-sheet';

export type SheetOrder = 'taken' | 'name' | 'size' | 'arrived';

export const SHEET_ORDERS: readonly SheetOrder[] = ['taken', 'name', 'size', 'arrived'];
export const isSheetOrder = (value: unknown): value is SheetOrder =>
  (SHEET_ORDERS as readonly unknown[]).includes(value);

export interface SheetFilter {
  readonly kind: 'all' | 'picture' | 'clip';
  readonly shape: 'any' | 'wide' | 'tall' | 'square';
  readonly use: 'any' | 'used' | 'unused';
  readonly mark: 'any' | 'kept' | 'linger' | 'leave-out' | 'unmarked';
}

export const EVERYTHING: SheetFilter = { kind: 'all', shape: 'any', use: 'any', mark: 'any' };

type Marks = Readonly<Record<string, Mark>>;

const natural = new Intl.Collator('en', { numeric: true });

/**
 * The prints that can be seen, in an order; what is not a picture or a clip, or is not ready, is not among them, and a RAW file is not beside the finished picture
 * of the same press.
 */
export function prints(entries: readonly SheetEntry[], order: SheetOrder, clocks?: CameraClocks): SheetEntry[] {
  const compare = { taken: byTime(clocks), name: byName, size: bySize, arrived: byArrival }[order];
  const twins = rawTwins(entries);
  return (
    entries
      // What the studio lent is no print of the show's.
      .filter(({ facts, made }) => (facts?.kind === 'picture' || facts?.kind === 'clip') && made !== 'studio')
      .filter((entry) => !twins.has(entry))
      .sort(compare)
  );
}

/** Those of the prints that a filter lets through. */
export function filtered(
  sheet: readonly SheetEntry[],
  filter: SheetFilter,
  used: ReadonlyMap<string, unknown>,
  marks: Marks,
): SheetEntry[] {
  return sheet.filter((entry) => {
    const facts = entry.facts!;
    const mark = marks[entry.assetId];
    return (
      (filter.kind === 'all' || facts.kind === filter.kind) &&
      (filter.shape === 'any' || shapeOf(facts) === filter.shape) &&
      (filter.use === 'any' || used.has(entry.assetId) === (filter.use === 'used')) &&
      (filter.mark === 'any' ||
        (filter.mark === 'kept'
          ? isKept(mark)
          : filter.mark === 'unmarked'
            ? mark === undefined
            : mark === filter.mark))
    );
  });
}

/** Nearly square counts as square: nobody sees a difference of a few percent. */
export function shapeOf(facts: AssetFacts): 'wide' | 'tall' | 'square' | null {
  if (facts.kind === 'sound') return null;
  const aspect = facts.widthPx / facts.heightPx;
  return aspect > 1.08 ? 'wide' : aspect < 0.92 ? 'tall' : 'square';
}

/**
 * What would be laid into the order: what is chosen; else what is kept and not in it yet; and while nothing is marked, all that is not in it.
 */
export function toLayIn(
  sheet: readonly SheetEntry[],
  chosen: ReadonlySet<string>,
  used: ReadonlyMap<string, unknown>,
  marks: Marks,
): { readonly entries: readonly SheetEntry[]; readonly why: 'chosen' | 'kept' | 'unused' } {
  const picked = sheet.filter((entry) => chosen.has(entry.id));
  if (picked.length > 0) return { entries: picked, why: 'chosen' };
  const free = sheet.filter((entry) => !used.has(entry.assetId));
  const anyKept = sheet.some((entry) => isKept(marks[entry.assetId]));
  return anyKept
    ? { entries: free.filter((entry) => isKept(marks[entry.assetId])), why: 'kept' }
    : { entries: free.filter((entry) => marks[entry.assetId] !== 'leave-out'), why: 'unused' };
}

/** The numbers of the slides each file is used on. */
export function slidesByAsset(slides: readonly Slide[]): ReadonlyMap<string, readonly number[]> {
  const found = new Map<string, number[]>();
  slides.forEach((slide, index) => {
    for (const asset of assetsOf(slide)) {
      const numbers = found.get(asset);
      if (numbers) numbers.push(index + 1);
      else found.set(asset, [index + 1]);
    }
  });
  return found;
}

/** Slides that nothing changes keep their identity, and so what was found of them. */
const assetsFound = new WeakMap<Slide, readonly string[]>();

function assetsOf(slide: Slide): readonly string[] {
  const known = assetsFound.get(slide);
  if (known) return known;
  const found = [...new Set([...everyLayer(slide.layers)].flatMap(assetIdsOfLayer))];
  assetsFound.set(slide, found);
  return found;
}

/** In the order in which they were taken. */
export function inTimeOrder(entries: readonly SheetEntry[], clocks: CameraClocks | undefined): SheetEntry[] {
  return prints(entries, 'taken', clocks);
}

/** What is known of a file that can be seen; null for others. */
export function seenFacts({ facts }: SheetEntry): PictureFacts | ClipFacts | null {
  return facts && facts.kind !== 'sound' ? facts : null;
}

function byTime(clocks: CameraClocks | undefined): (a: SheetEntry, b: SheetEntry) => number {
  return (a, b) => compare(timeOf(a, clocks), timeOf(b, clocks)) || byName(a, b);
}

/** Files that do not say when they were taken come after those that do. */
function timeOf(entry: SheetEntry, clocks: CameraClocks | undefined): string {
  const facts = seenFacts(entry);
  return (facts && takenAt(facts, clocks)) || '9999';
}

function byName(a: SheetEntry, b: SheetEntry): number {
  return natural.compare(a.fileName, b.fileName);
}

/** Largest first. */
function bySize(a: SheetEntry, b: SheetEntry): number {
  const pixels = ({ facts }: SheetEntry) => (facts && facts.kind !== 'sound' ? facts.widthPx * facts.heightPx : 0);
  return pixels(b) - pixels(a) || byName(a, b);
}

/** Latest first. */
function byArrival(a: SheetEntry, b: SheetEntry): number {
  return b.addedAt - a.addedAt || byName(a, b);
}

function compare(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}

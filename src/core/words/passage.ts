import type { PassagePlan, WordsPassagePlan } from '../frame/frame-plan';
import { curveOf } from '../keys/easing';
import type { WordsLayer } from '../show/layer';
import type { WordsPassage, WordsUnit } from '../show/words';
import type { SlideSpan } from '../timing/slide-span';

/** Words come in once the picture has arrived and is looked at. */
const WAIT_MS = 300;
const FADE_MS = 600;
/** How far one unit goes before the next sets out, where it is not said. */
const STAGGER = 0.6;

/** Where a layer's words are on their way at an offset from the slide's start. */
export function planPassage(layer: WordsLayer, span: SlideSpan, offsetMs: number): WordsPassagePlan {
  const lengthMs = span.endMs - span.startMs;
  const entrance = entranceOf(layer, span);
  const exit = layer.come?.exit ?? null;
  const shareOf = (fromMs: number, overMs: number) =>
    overMs <= 0 ? Number(offsetMs >= fromMs) : Math.min(1, Math.max(0, (offsetMs - fromMs) / overMs));
  return {
    entrance: {
      way: entrance.way,
      by: entrance.by,
      ...paceOf(entrance),
      share: entrance.way === 'none' ? Number(offsetMs >= entrance.atMs) : shareOf(entrance.atMs, entrance.lengthMs),
    },
    exit: exit
      ? {
          way: exit.way,
          by: exit.by,
          ...paceOf(exit),
          share:
            exit.way === 'none'
              ? Number(offsetMs >= lengthMs - exit.atMs)
              : shareOf(lengthMs - exit.atMs - exit.lengthMs, exit.lengthMs),
        }
      : { way: 'none', by: 'all', share: 0 },
    travel: layer.travel
      ? {
          kind: layer.travel.kind,
          share: shareOf(
            layer.travel.fromMs,
            layer.travel.lengthMs ?? span.leavesMs - span.startMs - layer.travel.fromMs,
          ),
        }
      : null,
  };
}

/** When words can be read, from the slide’s start: while they stand, and the slide they are on has come in. */
export function readableSpan(layer: WordsLayer, span: SlideSpan): { readonly startMs: number; readonly endMs: number } {
  const { startMs, endMs } = standingSpan(layer, span);
  return { startMs: layer.travel ? startMs : Math.max(startMs, span.transitionMs), endMs };
}

/**
 * When words stand, from the slide’s start: from when all of them are there until they begin to go; while they travel, all the way.
 * `endMs` comes before `startMs` where they go before they have come.
 */
export function standingSpan(layer: WordsLayer, span: SlideSpan): { readonly startMs: number; readonly endMs: number } {
  const lengthMs = span.endMs - span.startMs;
  if (layer.travel) {
    const { fromMs } = layer.travel;
    return { startMs: fromMs, endMs: fromMs + (layer.travel.lengthMs ?? span.leavesMs - span.startMs - fromMs) };
  }
  const entrance = entranceOf(layer, span);
  const exit = layer.come?.exit ?? null;
  const come = entrance.way === 'none' ? 0 : entrance.lengthMs;
  const go = exit && exit.way !== 'none' ? exit.lengthMs : 0;
  return { startMs: entrance.atMs + come, endMs: exit ? lengthMs - exit.atMs - go : lengthMs };
}

/** What is said of how its units follow each other. */
function paceOf({ easing, stagger }: WordsPassage): Pick<PassagePlan, 'easing' | 'stagger'> {
  return { ...(easing && { easing }), ...(stagger !== undefined && { stagger }) };
}

/** The entrance a layer has, or the one that words have of which nobody said anything. */
function entranceOf(layer: WordsLayer, span: SlideSpan): WordsPassage {
  if (layer.come) return layer.come.entrance;
  if (layer.travel) return { way: 'none', by: 'all', atMs: 0, lengthMs: 0 };
  const lengthMs = span.endMs - span.startMs;
  return {
    way: 'fade',
    by: 'all',
    atMs: Math.min(span.transitionMs / 2 + WAIT_MS, lengthMs / 4),
    lengthMs: FADE_MS,
  };
}

/** The smaller of two units, so that pieces drawn by it can come and go by either. */
export function finerUnit(a: WordsUnit, b: WordsUnit): WordsUnit {
  const order: readonly WordsUnit[] = ['all', 'line', 'word', 'letter'];
  return order[Math.max(order.indexOf(a), order.indexOf(b))]!;
}

/** How one piece stands while it comes or goes. `shown` is a share of its width, from where reading begins; lengths are shares of the letters' size. */
export interface PieceState {
  readonly opacity: number;
  readonly down: number;
  readonly shown: number;
  readonly blur: number;
}

const HERE: PieceState = { opacity: 1, down: 0, shown: 1, blur: 0 };

/**
 * A piece's state.
 *
 * @param entering which unit of the entrance the piece belongs to, and of how many; `leaving` likewise for the exit
 */
export function pieceState(
  plan: WordsPassagePlan,
  entering: { readonly index: number; readonly count: number },
  leaving: { readonly index: number; readonly count: number },
): PieceState {
  const coming = stateAt(plan.entrance, unitShare(plan.entrance, entering));
  const going = stateAt(plan.exit, 1 - unitShare(plan.exit, leaving));
  return {
    opacity: coming.opacity * going.opacity,
    down: coming.down - going.down,
    shown: Math.min(coming.shown, going.shown),
    blur: Math.max(coming.blur, going.blur),
  };
}

function unitShare(
  { way, share, stagger = STAGGER }: PassagePlan,
  { index, count }: { readonly index: number; readonly count: number },
): number {
  if (count <= 1 || share >= 1) return share;
  // Typing has an even beat from the first letter to the last.
  if (way === 'type') return share >= 1 || share * count > index ? 1 : 0;
  // Of the whole passage, what one unit takes; one after the other they share it evenly.
  const own = Math.max(1 / count, 1 - stagger);
  const starts = ((1 - own) * index) / (count - 1);
  return Math.min(1, Math.max(0, (share - starts) / own));
}

/** @param share how much of the way it is there: 0…1 */
function stateAt({ way, easing }: PassagePlan, share: number): PieceState {
  if (share >= 1) return HERE;
  if (share <= 0) return { opacity: 0, down: 0, shown: way === 'wipe' ? 0 : 1, blur: 0 };
  const curve = easing && curveOf(easing)(share);
  const eased = curve ?? 1 - (1 - share) ** 3;
  const shown = Math.min(1, Math.max(0, curve ?? share));
  switch (way) {
    case 'none':
      return HERE;
    case 'type':
      return HERE;
    case 'fade':
      return { ...HERE, opacity: shown };
    case 'rise':
      return { ...HERE, opacity: Math.min(1, eased), down: 0.6 * (1 - eased) };
    case 'wipe':
      return { ...HERE, shown };
    case 'blur':
      return { ...HERE, opacity: Math.min(1, eased), blur: 0.35 * Math.max(0, 1 - eased) };
  }
}

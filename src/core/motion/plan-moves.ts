import { unreachable } from '../unreachable';
import type { AssetFacts, FactsById } from '../show/asset-facts';
import type { LayerId, SlideId } from '../show/ids';
import type { FrameShape, Show, Slide } from '../show/show';
import { valueAt } from '../keys/channel';
import { everyLayer, type ClipLayer, type PictureLayer, type SetMove } from '../show/layer';
import type { SlideSpan } from '../timing/slide-span';
import { focusInUse } from '../focus/focus-in-use';
import type { Focus } from '../focus/focus-facts';
import { factsInUse } from './crop';
import {
  automaticMove,
  LARGEST_ENLARGEMENT,
  standingFraming,
  type Temperament,
  type MoveName,
  type MoveSubject,
  type PlannedMove,
} from './automatic-move';

/** Clips are seen moving and are forgiven more softness than a print. */
const CLIP_ENLARGEMENT = 3;

/** The moves of a slide's pictures and clips. Layers whose facts are unknown have none. */
export type SlideMoves = ReadonlyMap<LayerId, PlannedMove>;
export type Moves = ReadonlyMap<SlideId, SlideMoves>;
export const NO_MOVES: SlideMoves = new Map();

/** The move of every picture and clip in the show, by slide and layer. A slide that is as it was keeps its moves, the very same ones. */
export function planMoves(show: Show, facts: FactsById, spans: readonly SlideSpan[]): Moves {
  const moves = new Map<SlideId, SlideMoves>();
  let before: MoveName | null = null;
  show.slides.forEach((slide, index) => {
    const { leavesMs, startMs } = spans[index]!;
    const found = movesOfSlide(slide, facts, {
      frame: show.frame,
      seenMs: leavesMs - startMs,
      before,
      temperament: show.temperament ?? 'even',
      rings: show.focus,
    });
    moves.set(slide.id, found);
    before = [...found.values()].at(-1)?.name ?? before;
  });
  return moves;
}

/** What the moves of a slide depend on beside itself and its pictures. */
interface Around {
  readonly frame: FrameShape;
  readonly seenMs: number;
  /** Of the last picture before it, which is not repeated. */
  readonly before: MoveName | null;
  readonly temperament: Temperament;
  /** What people say pictures are about. */
  readonly rings: Show['focus'];
}

/** Thousands of slides stay as they are when one is changed; their moves are not worked out again. */
const lastFound = new WeakMap<
  Slide,
  {
    readonly around: Around;
    readonly layers: readonly (PictureLayer | ClipLayer)[];
    readonly known: readonly (AssetFacts | undefined)[];
    readonly moves: SlideMoves;
  }
>();

function movesOfSlide(slide: Slide, facts: FactsById, around: Around): SlideMoves {
  const last = lastFound.get(slide);
  if (
    last &&
    last.around.frame === around.frame &&
    last.around.seenMs === around.seenMs &&
    last.around.before === around.before &&
    last.around.temperament === around.temperament &&
    last.layers.every(
      ({ assetId }, index) =>
        facts.get(assetId) === last.known[index] && last.around.rings?.[assetId] === around.rings?.[assetId],
    )
  )
    return last.moves;
  const layers = [...everyLayer(slide.layers)].filter((layer) => layer.kind === 'picture' || layer.kind === 'clip');
  const moves = new Map<LayerId, PlannedMove>();
  let lastName = around.before;
  for (const layer of layers) {
    const known = factsInUse(layer, facts.get(layer.assetId));
    if (!known || known.kind === 'sound') continue;
    const window = pictureWindow(layer, known, around.frame, around.seenMs);
    const move =
      layer.kind === 'clip'
        ? layer.move
          ? setMove(layer.move)
          : still(known, CLIP_ENLARGEMENT, window, focusFor(layer))
        : planned(layer, known, window, { ...around, before: lastName });
    moves.set(layer.id, move);
    lastName = move.name;
  }
  lastFound.set(slide, { around, layers, known: layers.map((layer) => facts.get(layer.assetId)), moves });
  return moves;

  function focusFor({ assetId, crop }: Pick<PictureLayer | ClipLayer, 'assetId' | 'crop'>): Focus | null {
    const whole = facts.get(assetId);
    return !whole || whole.kind === 'sound'
      ? null
      : focusInUse({ ...(crop && { crop }) }, whole, around.rings?.[assetId]);
  }

  function planned(
    { id, move, ...layer }: PictureLayer,
    size: MoveSubject,
    window: PictureWindow,
    { seenMs, before, temperament }: Around,
  ): PlannedMove {
    const focus = focusFor(layer);
    switch (move.kind) {
      case 'automatic':
        return automaticMove(size, window.shape, seenMs, move.deal === undefined ? id : `${id} ${move.deal}`, {
          unlike: before,
          mustFill: window.mustFill,
          focus,
          temperament,
        });
      case 'still':
        return still(size, LARGEST_ENLARGEMENT, window, focus);
      case 'set':
        return setMove(move);
      default:
        return unreachable(move);
    }
  }

  function still(
    size: MoveSubject,
    mostEnlargement: number,
    { shape, mustFill }: PictureWindow,
    focus: Focus | null,
  ): PlannedMove {
    const framing = standingFraming(size, shape, mostEnlargement, { mustFill, focus });
    return { name: 'still', first: framing, last: framing };
  }
}

function setMove({ kind: _kind, first, last, ...pace }: SetMove): PlannedMove {
  return { name: 'still', first, last, ...(Object.keys(pace).length > 0 && { pace }) };
}

/** The box a picture is seen through. One that was given both its sides is filled, whatever that cuts away. */
export interface PictureWindow {
  readonly shape: FrameShape;
  readonly mustFill: boolean;
}

/** As it stands at the slide's start, in the frame's pixels. */
export function pictureWindow(
  layer: PictureLayer | ClipLayer,
  picture: MoveSubject,
  frame: FrameShape,
  seenMs: number,
): PictureWindow {
  const { width, height } = layer.channels ?? {};
  const widthPx = width === undefined ? null : valueAt(width, 0, seenMs) * frame.widthPx;
  const heightPx = height === undefined ? null : valueAt(height, 0, seenMs) * frame.heightPx;
  const aspect = picture.widthPx / picture.heightPx;
  if (widthPx === null && heightPx === null) return { shape: frame, mustFill: false };
  return {
    shape: {
      ...frame,
      widthPx: Math.max(1, widthPx ?? heightPx! * aspect),
      heightPx: Math.max(1, heightPx ?? widthPx! / aspect),
    },
    mustFill: true,
  };
}

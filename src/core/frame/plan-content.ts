import { factsInUse } from '../motion/crop';
import { fillFraming, fitFraming, type Framing } from '../motion/framing';
import type { AssetId } from '../show/ids';
import { COMING, LEAVING } from '../show/window-id';
import type { BoxLayer, ClipLayer, GroupLayer, Layer, PictureLayer, WordsLayer } from '../show/layer';
import { ownClipRate } from '../timing/clip-rate';
import { clipFrameAt } from '../timing/clip-time';
import { unreachable } from '../unreachable';
import { filledWords } from '../words/fields';
import { finerUnit, planPassage } from '../words/passage';
import { bitmapFor, largestOnScreen, shownWidthPx } from './box-on-screen';
import { type ContentPlan, type LightPlan, type SizeShare } from './frame-plan';
import type { Matrix3 } from './matrix';
import { sizesFor, wantedWidthPx } from './picture-size';
import { fillAt, gradientAt, styleAt } from './plan-colours';
import { cropPlan } from './plan-crop';
import { lightAt } from './plan-light';
import type { SlideMoment } from './slide-moment';

/** A layer that shows one thing, in one box. */
export type SingleLayer = Exclude<Layer, GroupLayer | BoxLayer>;

/**
 * What a layer shows at a moment; null when there is nothing to see.
 *
 * @param toScreen its box on the screen
 * @param away whether its back is turned to the eye
 */
export function planContent(
  moment: SlideMoment,
  layer: SingleLayer,
  toScreen: Matrix3,
  away: boolean,
): ContentPlan | null {
  const { around } = moment;
  switch (layer.kind) {
    case 'picture':
      // In a transition that is built of layers.
      if (layer.assetId === LEAVING && !away) return { kind: 'frame', which: 'leaving' };
      if (layer.assetId === COMING && !away) return { kind: 'frame', which: 'coming' };
      return away ? backOf(moment, layer, toScreen) : frontOf(moment, layer, toScreen);
    case 'drawing': {
      const light = lightAt(layer.light, moment.at, around.facts.get(layer.assetId));
      return standingPicture(moment, layer.assetId, aspectOf(moment, layer), toScreen, layer.id, light, fitFraming);
    }
    case 'clip':
      return clipContent(moment, layer, toScreen);
    case 'words':
      return wordsContent(moment, layer);
    case 'shape':
      return {
        kind: 'painted',
        shape: layer.shape,
        fill: fillAt(layer.fill, moment.colour),
        bitmap: bitmapFor(around, layer.id, toScreen),
      };
    case 'gradient':
      return {
        kind: 'painted',
        shape: { kind: 'rectangle' },
        fill: gradientAt(layer.gradient, moment.colour),
        bitmap: bitmapFor(around, layer.id, toScreen),
      };
    case 'solid':
      return plainContent(moment.colour(layer.colour));
    default:
      return unreachable(layer);
  }
}

/** A box of one colour. */
export function plainContent(colour: string): ContentPlan {
  return {
    kind: 'painted',
    shape: { kind: 'rectangle' },
    fill: { kind: 'colour', colour },
    bitmap: { widthPx: 4, heightPx: 4 },
  };
}

/**
 * A picture that stands in its box.
 *
 * @param framed how: filling the box, or whole within it
 */
export function standingPicture(
  { around }: SlideMoment,
  assetId: AssetId,
  boxAspect: number,
  toScreen: Matrix3,
  key: string,
  light: LightPlan | null,
  framed: typeof fillFraming = fillFraming,
): ContentPlan | null {
  const facts = around.facts.get(assetId);
  if (!facts || facts.kind === 'sound') return null;
  const framing = framed(facts.widthPx / facts.heightPx, boxAspect);
  return {
    kind: 'picture',
    assetId,
    crop: null,
    framing,
    sizes: sizes(around, facts, framing, framing.width, toScreen, key),
    light,
  };
}

function frontOf({ around, poses, at }: SlideMoment, layer: PictureLayer, toScreen: Matrix3): ContentPlan | null {
  const known = around.facts.get(layer.assetId);
  const facts = factsInUse(layer, known);
  const framing = poses.framing(layer);
  const move = around.moves.get(layer.id);
  if (!framing || !move || !facts || facts.kind === 'sound') return null;
  const tightest = Math.min(move.first.width, move.last.width);
  return {
    kind: 'picture',
    assetId: layer.assetId,
    crop: cropPlan(layer, known),
    framing,
    sizes: sizes(around, facts, framing, tightest, toScreen, layer.id),
    light: lightAt(layer.light, at, known),
  };
}

function backOf(moment: SlideMoment, layer: PictureLayer, toScreen: Matrix3): ContentPlan | null {
  const light = lightAt(layer.light, moment.at, moment.around.facts.get(layer.assetId));
  return standingPicture(moment, layer.back!.assetId, aspectOf(moment, layer), toScreen, `${layer.id} back`, light);
}

function clipContent(
  { around, poses, at, offsetMs }: SlideMoment,
  layer: ClipLayer,
  toScreen: Matrix3,
): ContentPlan | null {
  const known = around.facts.get(layer.assetId);
  const facts = factsInUse(layer, known);
  const framing = poses.framing(layer);
  const move = around.moves.get(layer.id);
  if (facts?.kind !== 'clip' || !framing || !move) return null;
  const { leavesMs, startMs } = around.span;
  const largestPx = widthsWanted(
    around,
    framing,
    Math.min(move.first.width, move.last.width),
    toScreen,
    layer.id,
  ).largestPx;
  return {
    kind: 'clip',
    assetId: layer.assetId,
    crop: cropPlan(layer, known),
    framing,
    clipFrame: clipFrameAt(layer, facts.lengthMs, leavesMs - startMs, offsetMs, ownClipRate(facts)),
    // One size for all of the slide: a decoder runs for each.
    sizes: sizesFor(facts, largestPx, largestPx),
    light: lightAt(layer.light, at, facts),
  };
}

function wordsContent({ around, offsetMs, colour }: SlideMoment, layer: WordsLayer): ContentPlan | null {
  const { place, style = {}, travel } = layer;
  const [title, subtitle] = [filledWords(layer.title, around.fields), filledWords(layer.subtitle, around.fields)];
  if (title.trim() === '' && subtitle.trim() === '') return null;
  const passage = planPassage(layer, around.span, offsetMs);
  if ((passage.entrance.share <= 0 && passage.travel === null) || passage.exit.share >= 1) return null;
  const crawls = travel?.kind === 'crawl';
  const unit = crawls ? 'word' : travel ? 'line' : finerUnit(passage.entrance.by, passage.exit.by);
  return {
    kind: 'words',
    look: { title, subtitle, place, style: styleAt(style, colour), unit, crawls, rolls: travel?.kind === 'roll' },
    passage,
  };
}

/** @param tightestWidth of the framing, at any moment of the slide */
function sizes(
  around: SlideMoment['around'],
  facts: { widthPx: number; heightPx: number },
  framing: Framing,
  tightestWidth: number,
  toScreen: Matrix3,
  key: string,
): SizeShare[] {
  const { largestPx, nowPx } = widthsWanted(around, framing, tightestWidth, toScreen, key);
  return sizesFor(facts, largestPx, nowPx);
}

function widthsWanted(
  around: SlideMoment['around'],
  framing: Framing,
  tightestWidth: number,
  toScreen: Matrix3,
  key: string,
): { readonly largestPx: number; readonly nowPx: number } {
  const nowPx = wantedWidthPx(shownWidthPx(toScreen), framing.width);
  const largest = wantedWidthPx(largestOnScreen(around, key, toScreen).widthPx, tightestWidth);
  return { largestPx: Math.max(nowPx, largest), nowPx };
}

function aspectOf({ poses }: SlideMoment, layer: Layer): number {
  const { widthPx, heightPx } = poses.size(layer);
  return widthPx / heightPx;
}

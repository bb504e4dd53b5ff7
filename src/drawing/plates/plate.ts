import type {
  BackingPlan,
  ContentPlan,
  CropPlan,
  EdgePlan,
  FramePlan,
  LayerPlan,
  LightPlan,
  PictureContent,
  ClipContent,
  PictureSize,
  SlidePlan,
  StencilLook,
  WordsLook,
} from '../../core/frame/frame-plan';
import { NEUTRAL } from '../../core/frame/frame-plan';
import type { AssetId } from '../../core/show/ids';
import type { Fill, Gradient, Shape } from '../../core/show/layer';
import type { WipeMapLook } from '../../core/transitions/transition-plan';

/** Something a frame is drawn from that is made once and kept: equal keys are the same plate. */
export type Plate =
  | {
      readonly kind: 'picture';
      readonly assetId: AssetId;
      readonly crop: CropPlan | null;
      readonly size: PictureSize;
      readonly light: LightPlan | null;
    }
  | {
      readonly kind: 'clip';
      readonly assetId: AssetId;
      readonly crop: CropPlan | null;
      readonly size: PictureSize;
      readonly clipFrame: number;
    }
  | { readonly kind: 'words'; readonly look: WordsLook; readonly frame: PictureSize }
  | { readonly kind: 'painted'; readonly shape: Shape; readonly fill: Fill<string>; readonly bitmap: PictureSize }
  | { readonly kind: 'stencil'; readonly look: StencilLook }
  | { readonly kind: 'outline'; readonly look: NonNullable<EdgePlan['outline']> }
  | { readonly kind: 'vignette' }
  | { readonly kind: 'gradient'; readonly gradient: Gradient<string>; readonly frame: PictureSize }
  | {
      readonly kind: 'blurred';
      readonly assetId: AssetId;
      readonly clipFrame: number | null;
      readonly crop: CropPlan | null;
      readonly aspect: number;
      readonly amount: number;
      readonly darkness: number;
      readonly colour?: number;
      readonly light?: LightPlan;
      readonly frame: PictureSize;
    }
  | { readonly kind: 'wipe-map'; readonly look: WipeMapLook; readonly frame: PictureSize };

/** Pictures and clips are asked for at every frame; their keys are made without serialising. */
export function keyOf(plate: Plate): string {
  if (plate.kind === 'picture' && !plate.light && !plate.crop)
    return `${plate.assetId} ${plate.size.widthPx}×${plate.size.heightPx}`;
  if (plate.kind === 'clip' && !plate.crop)
    return `${plate.assetId} ${plate.clipFrame} ${plate.size.widthPx}×${plate.size.heightPx}`;
  return JSON.stringify(plate);
}

export function backingPlate(backing: Extract<BackingPlan, { kind: 'picture' }>): Plate {
  return { kind: 'picture', assetId: backing.assetId, crop: null, size: backing.size, light: backing.light ?? null };
}

export function pictureContentPlate(
  content: PictureContent | ClipContent,
  size: PictureSize,
  isTransparent: boolean,
): Plate {
  if (content.kind === 'clip') {
    const { assetId, crop, clipFrame } = content;
    return { kind: 'clip', assetId, crop, size, clipFrame };
  }
  return {
    kind: 'picture',
    assetId: content.assetId,
    crop: content.crop,
    size,
    light: lightOfPlate(content.light, isTransparent),
  };
}

/**
 * The part of a light that goes into the plate. A moving one is laid over the plate at every frame, so only what stands still in it does;
 * on pictures with transparency, whose planes are weighed by it, all of it goes in.
 */
function lightOfPlate(light: LightPlan | null, isTransparent: boolean): LightPlan | null {
  if (!light || !light.moves || isTransparent) return light;
  if (light.sharpen === 0 && !light.print && light.redEyes.length === 0) return null;
  return { ...light, moves: false, values: NEUTRAL };
}

/** A box of white, by which cels are cut. */
export const WHITE: Plate = {
  kind: 'painted',
  shape: { kind: 'rectangle' },
  fill: { kind: 'colour', colour: '#ffffff' },
  bitmap: { widthPx: 4, heightPx: 4 },
};

/** By which rolling words fade at the frame's upper and lower edge. */
export const ROLL_FADE: Plate = {
  kind: 'painted',
  shape: { kind: 'rectangle' },
  fill: {
    kind: 'linear',
    angleDegrees: 90,
    stops: [
      { at: 0, colour: '#ffffff', opacity: 0 },
      { at: 0.12, colour: '#ffffff' },
      { at: 0.88, colour: '#ffffff' },
      { at: 1, colour: '#ffffff', opacity: 0 },
    ],
  },
  bitmap: { widthPx: 16, heightPx: 512 },
};

/** Everything a plan needs beside itself. */
export function platesOf(plan: FramePlan, isTransparent: (id: AssetId) => boolean): Plate[] {
  const frame = { widthPx: plan.widthPx, heightPx: plan.heightPx };
  const plates: Plate[] = [];
  const slides: SlidePlan[] = plan.incoming ? [plan.slide, plan.incoming.slide] : [plan.slide];
  for (const slide of slides) {
    const { backing } = slide;
    if (backing.kind === 'blurred') plates.push({ ...backing, frame });
    if (backing.kind === 'gradient') plates.push({ kind: 'gradient', gradient: backing.gradient, frame });
    if (backing.kind === 'picture') plates.push(backingPlate(backing));
    for (const layer of slide.layers) addLayer(layer);
  }
  for (const layer of plan.over) addLayer(layer);
  const transition = plan.incoming?.transition;
  if (transition?.kind === 'built') transition.layers.forEach(addLayer);
  if (transition?.kind === 'map') plates.push({ kind: 'wipe-map', look: transition.map, frame });
  return plates;

  function addLayer(layer: LayerPlan): void {
    addContent(layer.content);
    for (const mask of layer.masks) addLayer(mask.layer);
    if (layer.edge?.stencil) plates.push({ kind: 'stencil', look: layer.edge.stencil });
    if (layer.edge?.outline) plates.push({ kind: 'outline', look: layer.edge.outline });
    if (layer.vignette > 0) plates.push({ kind: 'vignette' });
    if (layer.cuts.length > 0) plates.push(WHITE);
  }

  function addContent(content: ContentPlan): void {
    switch (content.kind) {
      case 'picture':
      case 'clip':
        for (const { size } of content.sizes)
          plates.push(pictureContentPlate(content, size, isTransparent(content.assetId)));
        return;
      case 'words':
        plates.push({ kind: 'words', look: content.look, frame });
        if (content.look.rolls) plates.push(ROLL_FADE);
        return;
      case 'painted':
        plates.push({ kind: 'painted', shape: content.shape, fill: content.fill, bitmap: content.bitmap });
        return;
      case 'group':
        content.layers.forEach(addLayer);
        return;
      case 'frame':
        return;
    }
  }
}

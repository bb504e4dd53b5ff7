import type { PreparedShow } from '../frame/plan-frame';
import type { AssetId } from '../show/ids';
import { everyLayer, type Layer, type PictureLayer } from '../show/layer';
import type { Slide } from '../show/show';
import type { SlideSpan } from '../timing/slide-span';
import type { SnagLook } from './snag';

/** A stretch shorter than this is over before one has looked. */
const LEAD_IN_MS = 600;

export interface SlideLook {
  readonly slide: Slide;
  readonly index: number;
  readonly span: SlideSpan;
}

export function* slidesOf({ show, spans }: PreparedShow): Generator<SlideLook> {
  for (const [index, slide] of show.slides.entries()) yield { slide, index, span: spans[index]! };
}

/** The pictures of the show with where they are, hidden ones left out. */
export function* picturesOf(prepared: PreparedShow): Generator<SlideLook & { readonly layer: PictureLayer }> {
  for (const look of slidesOf(prepared))
    for (const layer of everyLayer(look.slide.layers))
      if (layer.kind === 'picture' && !layer.hidden) yield { ...look, layer };
}

/** The whole of a slide as a stretch to play. */
export const allOf = ({ span }: Pick<SlideLook, 'span'>) => ({ fromMs: span.startMs, toMs: span.endMs });

/** Around a moment of a slide, with some time before it. */
export function about({ span }: Pick<SlideLook, 'span'>, offsetMs: number, forMs = 1500) {
  const atMs = span.startMs + offsetMs;
  return { fromMs: Math.max(0, atMs - LEAD_IN_MS), toMs: atMs + forMs, atMs };
}

/** A file as a person calls it, in quotes. */
export function called(look: Pick<SnagLook, 'files'>, id: AssetId): string {
  const name = look.files.get(id)?.name;
  return name ? `“${name}”` : 'A file';
}

/** A layer's own words, short, in quotes. */
export function said(layer: Layer): string {
  if (layer.kind !== 'words') return 'The words';
  const text = `${layer.title} ${layer.subtitle}`.replace(/\s+/g, ' ').trim();
  return `“${text.length > 42 ? `${text.slice(0, 40).trimEnd()} …` : text}”`;
}

export const seconds = (ms: number): string => `${(ms / 1000).toFixed(1)} s`;
export const clock = (ms: number): string =>
  `${Math.floor(ms / 60_000)}:${String(Math.floor((ms % 60_000) / 1000)).padStart(2, '0')}`;

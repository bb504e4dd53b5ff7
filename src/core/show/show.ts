import type { FocusRing } from '../focus/focus-facts';
import type { Temperament } from '../motion/automatic-move';
import { CURRENT_METHODS, type MethodPins } from '../facts/fact-kinds';
import { FORMAT_VERSION } from './format/version';
import type { CameraClocks } from './camera-clock';
import type { Chosen } from './chosen';
import type { AssetId, ShowId, SlideId } from './ids';
import { assetIdsOfSound, type PlacedSound } from './placed-sound';
import type { FrameRate } from '../timing/frame-rate';
import type { Mark } from './mark';
import type { MixSaid } from './mix-said';
import type { Pace } from './pace';
import type { Breath } from './breath';
import type { CaptionLook, CaptionsByLanguage } from './caption';
import type { Mounted } from './mounted';
import type { PlumageInUse } from '../plumage/plumage';
import type { Watermark } from './watermark';
import type { BeatsSaid } from '../sound/listening/beats-said';
import type { SongTagsById } from './song-tags';
import {
  assetIdsOfLayer,
  everyLayer,
  type ClipLayer,
  type Gradient,
  type Layer,
  type PictureLayer,
  type WordsLayer,
} from './layer';
import type { Transition } from './transition';
import { windowNumber } from './window-id';

/**
 * The whole piece of work as a document. Immutable; changed only through `applyEdit`.
 * It holds decisions; what is known about files (size, length, colour) are `AssetFacts`, kept apart.
 */
export interface Show {
  readonly format: 'tanager-show';
  readonly version: typeof FORMAT_VERSION;
  readonly id: ShowId;
  readonly title: string;
  readonly frame: FrameShape;
  /** Length given to a picture when it is laid into the order. */
  readonly defaultLengthMs: number;
  readonly slides: readonly Slide[];
  /** The sounds of the show as a whole: its songs, in the order in which those without a place of their own follow each other. */
  readonly cues: readonly PlacedSound[];
  /** The methods by which what is known of its files was found out. */
  readonly methods: MethodPins;
  /** The pencil marks on the contact sheet, by `AssetId`; a file without one is not named. */
  readonly marks?: Readonly<Record<string, Mark>>;
  /** Clocks of cameras that were wrong. */
  readonly clocks?: CameraClocks;
  /** What people say pictures are about, by `AssetId`; it counts instead of what was found out. No rings: nothing in particular. */
  readonly focus?: Readonly<Record<string, readonly FocusRing[]>>;
  /** How much pictures move by themselves; `even` when it is not said. */
  readonly temperament?: Temperament;
  /** What people say about the beats of songs, by `AssetId`; it counts instead of what was found out. */
  readonly beats?: Readonly<Record<string, BeatsSaid>>;
  /** The pictures follow the music; the music follows the pictures when it is not said. */
  readonly pace?: Pace;
  readonly mix?: MixSaid;
  /** Silence before and after what is spoken, where slides do not say it themselves. */
  readonly breath?: Breath;
  /** How captions look that are part of the picture; they are none when it is not said. */
  readonly captionLook?: CaptionLook;
  /** The language of what is spoken; English when it is not said. */
  readonly language?: string;
  /** Snags that are left as they are, by `Snag.key`, with the reason; it may be empty. */
  readonly letBe?: Readonly<Record<string, string>>;
  /** By what right files are used, by `AssetId`: whose they are, which licence. */
  readonly licences?: Readonly<Record<string, string>>;
  /** What people say of songs; it counts instead of what stands in their files. */
  readonly tags?: SongTagsById;
  /** Which frame stands for a clip where it is shown as a print, by `AssetId`: milliseconds of the clip. Its first one when it is not said. */
  readonly posters?: Readonly<Record<string, number>>;
  /** The look of the whole show. */
  readonly plumage?: PlumageInUse;
  /** A studio's mark over all of it. */
  readonly watermark?: Watermark;
}

/** Everything a show says, without who it is: what a version keeps. */
export type ShowContent = Pick<
  Show,
  | 'title'
  | 'frame'
  | 'defaultLengthMs'
  | 'slides'
  | 'cues'
  | 'methods'
  | 'marks'
  | 'clocks'
  | 'focus'
  | 'temperament'
  | 'beats'
  | 'pace'
  | 'mix'
  | 'breath'
  | 'captionLook'
  | 'language'
  | 'letBe'
  | 'licences'
  | 'tags'
  | 'posters'
  | 'plumage'
  | 'watermark'
>;

export interface FrameShape {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly rate: FrameRate;
}

export interface Slide {
  readonly id: SlideId;
  /** From the slide's start to the next slide's start. */
  readonly lengthMs: number;
  /** How this slide comes in over the one before it. */
  readonly transition: Transition;
  readonly backing: Backing;
  /** Bottom to top. */
  readonly layers: readonly Layer[];
  /** What begins on it and goes where it goes: voices, short sounds. */
  readonly sounds: readonly PlacedSound[];
  /** A chapter of that name begins with it. */
  readonly chapter?: string;
  /** What is spoken on it. Its sentences are its captions. */
  readonly script?: string;
  readonly breath?: Breath;
  /** Captions set by hand or brought in, by language; those of the script's own language count instead of what is worked out. */
  readonly captions?: CaptionsByLanguage;
  /** A showing stays on it, at its last moment, until it is told to go on. */
  readonly waits?: true;
  /** Who chose its length, its transition, its backing. */
  readonly chosen?: Chosen;
  /** A mount laid it. */
  readonly mounted?: Mounted;
  /** How it was before the look of the whole show dressed it. */
  readonly bare?: BareSlide;
}

/** Values the look of the whole show changed, as they were; null where there was none. */
export type BareSlide = Partial<Pick<Slide, 'transition' | 'backing'>>;

/**
 * What lies behind everything on a slide. `automatic` asks the first picture: a blurred copy of it, or a plain colour behind a transparent one.
 */
export type Backing =
  | { readonly kind: 'automatic' }
  | { readonly kind: 'colour'; readonly colour: string }
  | { readonly kind: 'gradient'; readonly gradient: Gradient<string> }
  | {
      readonly kind: 'picture';
      readonly assetId: AssetId;
      /** Share of the frame's height, 0…0.1. */
      readonly blur?: number;
      readonly light?: BackingLight;
    }
  /** A blurred copy of the slide's own first picture; `amount` is a share of the frame's height (0…0.1), `darkness` 0…1. */
  | { readonly kind: 'blurred'; readonly amount: number; readonly darkness: number };

/** As `Light` of a picture, standing still. */
export interface BackingLight {
  /** In stops, −4…4. */
  readonly exposure?: number;
  readonly contrast?: number;
  readonly temperature?: number;
  readonly saturation?: number;
}

export const DEFAULT_SLIDE_LENGTH_MS = 5000;
export const DEFAULT_TRANSITION: Transition = { kind: 'dissolve', lengthMs: 1000 };
export const DEFAULT_FADE_OUT_MS = 3000;

/** An empty show in full HD, 16:9, 30 frames a second. */
export function emptyShow(id: ShowId, title: string): Show {
  return {
    format: 'tanager-show',
    version: FORMAT_VERSION,
    id,
    title,
    frame: { widthPx: 1920, heightPx: 1080, rate: { frames: 30, seconds: 1 } },
    defaultLengthMs: DEFAULT_SLIDE_LENGTH_MS,
    slides: [],
    cues: [],
    methods: CURRENT_METHODS,
  };
}

/** What the show says, apart from its identity. */
export function contentOf({ format: _format, version: _version, id: _id, ...content }: Show): ShowContent {
  return content;
}

export function wordsOf(slide: Slide): WordsLayer | null {
  return slide.layers.find((layer): layer is WordsLayer => layer.kind === 'words') ?? null;
}

/** The picture or clip a person would name the slide by: its lowest one. */
export function mainLayerOf(slide: Slide): PictureLayer | ClipLayer | null {
  for (const layer of everyLayer(slide.layers)) if (layer.kind === 'picture' || layer.kind === 'clip') return layer;
  return null;
}

/** Every file the slides use, once each. */
export function assetIdsOfSlides(slides: readonly Slide[]): AssetId[] {
  const ids = new Set<AssetId>();
  for (const slide of slides) {
    for (const layer of everyLayer(slide.layers)) for (const id of assetIdsOfLayer(layer)) ids.add(id);
    if (slide.backing.kind === 'picture') ids.add(slide.backing.assetId);
    if (slide.transition.kind === 'pattern' && typeof slide.transition.pattern === 'object')
      ids.add(slide.transition.pattern.assetId);
    if (slide.transition.kind === 'built')
      for (const layer of everyLayer(slide.transition.layers))
        for (const id of assetIdsOfLayer(layer)) if (windowNumber(id) === null) ids.add(id);
    for (const sound of slide.sounds) for (const id of assetIdsOfSound(sound)) ids.add(id);
  }
  return [...ids];
}

/** Every file the show uses, its songs too, once each. */
export function assetIdsOf(show: Show): AssetId[] {
  const mark = show.watermark ? [show.watermark.assetId] : [];
  return [...new Set([...assetIdsOfSlides(show.slides), ...show.cues.flatMap(assetIdsOfSound), ...mark])];
}

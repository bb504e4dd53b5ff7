import { prepareShow } from '../frame/plan-frame';
import type { AssetFacts, ClipFacts, PictureFacts, SoundFacts } from '../show/asset-facts';
import { assetId, cueId, layerId, showId, slideId, type AssetId } from '../show/ids';
import type { ClipLayer, Layer, PictureLayer, WordsLayer } from '../show/layer';
import { songAfter, voiceHere, type PlacedSound } from '../show/placed-sound';
import { emptyShow, type Show, type Slide } from '../show/show';
import type { SlideSeen, WordsSeen } from './slide-seen';
import type { LookedOverFile, SnagLook } from './snag';

export const asset = (n: number) => assetId(String(n).padStart(64, '0'));
export const SONG = asset(900);
export const VOICE = asset(901);
export const OTHER_SONG = asset(902);
export const CLIP = asset(903);

/** 64 hexadecimal digits, unlike those of other numbers. */
export const likeness = (n: number) =>
  Array.from({ length: 64 }, (_, at) => ((n * 7919 + at * (n + 3) * 31) % 16).toString(16)).join('');
export const picture = (n: number, more: Partial<PictureFacts> = {}): PictureFacts => ({
  kind: 'picture',
  widthPx: 6000,
  heightPx: 4000,
  hasTransparency: false,
  takenAt: `2025-06-14T20:${String(10 + n).padStart(2, '0')}:00`,
  camera: 'Orrery F2',
  brightness: 0.5,
  likeness: likeness(n),
  focus: { faces: [], subjects: [], salient: null, sharpness: 0.6 },
  ...more,
});
export const sound = (lengthMs: number, lufs: number, truePeakDb = -3): SoundFacts => ({
  kind: 'sound',
  lengthMs,
  title: null,
  artist: null,
  listening: {
    loudness: {
      integratedLufs: lufs,
      truePeakDb,
      curve: Array.from({ length: Math.ceil(lengthMs / 500) }, () => 10 * lufs),
    },
    heardFromMs: 0,
    heardToMs: lengthMs,
    beats: null,
    sections: [],
    energy: [],
    accentsMs: [],
  },
});
export const clip: ClipFacts = {
  kind: 'clip',
  widthPx: 1920,
  heightPx: 1080,
  lengthMs: 8000,
  hasSound: false,
  takenAt: null,
  framesPerSecond: 30,
};

export const shown = (n: number, more: Partial<PictureLayer> = {}): PictureLayer => ({
  kind: 'picture',
  id: layerId(`p${n}`),
  assetId: asset(n),
  move: { kind: 'automatic' },
  ...more,
});
export const words = (title: string, more: Partial<WordsLayer> = {}): WordsLayer => ({
  kind: 'words',
  id: layerId('w'),
  title,
  subtitle: '',
  place: 'bottom',
  ...more,
});
export const slide = (n: number, more: Partial<Slide> = {}): Slide => ({
  id: slideId(`s${n}`),
  lengthMs: 5000,
  transition: { kind: 'dissolve', lengthMs: 1000 },
  backing: { kind: 'automatic' },
  layers: [shown(n)],
  sounds: [],
  ...more,
});

export interface Laid {
  readonly show: Show;
  readonly facts: Map<AssetId, AssetFacts>;
  readonly files: Map<AssetId, LookedOverFile>;
  readonly seen: Map<Slide['id'], SlideSeen>;
  readonly films: SnagLook['films'];
}

/** Eight pictures over a song that ends with them, whose licence is known: nothing that would embarrass. */
export function clean(): Laid {
  const slides = Array.from({ length: 8 }, (_, n) => slide(n));
  const facts = new Map<AssetId, AssetFacts>(slides.map((_slide, n) => [asset(n), picture(n)]));
  facts.set(SONG, sound(90_000, -14));
  const show: Show = {
    ...emptyShow(showId('x'), 'An evening'),
    slides,
    cues: [songAfter(cueId('song'), SONG, 3000)],
    licences: { [SONG]: 'Our own work', [OTHER_SONG]: 'Our own work' },
  };
  const files = new Map([...facts.keys()].map((id): [AssetId, LookedOverFile] => [id, file(id)]));
  return { show, facts, files, seen: new Map(), films: [] };
}

export const file = (id: AssetId): LookedOverFile => ({ name: `file ${Number(id)}`, state: 'ready', madeHere: false });

export function lookAt({ show, facts, files, seen, films }: Laid): SnagLook {
  return { prepared: prepareShow(show, facts), files, seen, films, now: '2026-11-27T12:00:00' };
}

export function withSlide(laid: Laid, index: number, change: (slide: Slide) => Slide): Laid {
  return {
    ...laid,
    show: { ...laid.show, slides: laid.show.slides.map((one, at) => (at === index ? change(one) : one)) },
  };
}
export const withLayers = (laid: Laid, index: number, layers: readonly Layer[]) =>
  withSlide(laid, index, (one) => ({ ...one, layers }));
export const withFacts = (laid: Laid, id: AssetId, known: AssetFacts): Laid => ({
  ...laid,
  facts: new Map([...laid.facts, [id, known]]),
  files: new Map([...laid.files, [id, file(id)]]),
});
export const withCues = (laid: Laid, ...cues: readonly PlacedSound[]): Laid => ({
  ...laid,
  show: { ...laid.show, cues },
});
export const withVoice = (laid: Laid, index: number, known: SoundFacts, more: Partial<PlacedSound> = {}): Laid =>
  withSlide(withFacts(laid, VOICE, known), index, (one) => ({
    ...one,
    sounds: [{ ...voiceHere(cueId('v'), VOICE, 500), ...more }],
  }));
export const FACE = { left: 0.4, top: 0.2, width: 0.2, height: 0.3, score: 0.95, sharpness: 0.5 };
export const withFace = (laid: Laid, n: number) =>
  withFacts(laid, asset(n), picture(n, { focus: { faces: [FACE], subjects: [], salient: null, sharpness: 0.6 } }));
export const framing = (x: number, y: number, size: number) => ({
  x,
  y,
  width: size,
  height: size * (3 / 2) * (9 / 16),
  turnDegrees: 0,
});
export const setMove = (first: ReturnType<typeof framing>, last = first): PictureLayer['move'] => ({
  kind: 'set',
  first,
  last,
});
export const seenWords = (more: Partial<WordsSeen>): WordsSeen => ({
  layerId: layerId('w'),
  worst: { offsetMs: 2000, legibility: { contrast: 9, busyness: 3, clear: 8.8 } },
  face: null,
  margins: { left: 0.3, top: 0.8, right: 0.3, bottom: 0.08 },
  scale: 1,
  size: 0.08,
  ...more,
});
export const withSeen = (laid: Laid, more: Partial<WordsSeen>, flashes: SlideSeen['flashes'] = null): Laid => ({
  ...withLayers(laid, 3, [shown(3), words('At dusk')]),
  seen: new Map([[slideId('s3'), { words: [seenWords(more)], flashes }]]),
});
export const clipLayer: ClipLayer = { kind: 'clip', id: layerId('c'), assetId: CLIP, trimStartMs: 0, soundGainDb: 0 };

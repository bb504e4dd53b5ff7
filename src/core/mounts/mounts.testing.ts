import type { AssetFacts, ClipFacts, PictureFacts } from '../show/asset-facts';
import { assetId, cueId, layerId, showId, slideId, type AssetId } from '../show/ids';
import { slideFromAsset } from '../show/new-slide';
import { emptyShow, type Show, type Slide } from '../show/show';
import { frameOfShape } from '../show/shape';
import type { LayMount } from './lay-mount';
import type { Look } from './mount';

export const asset = (n: number): AssetId => assetId(`a${String(n).padStart(63, '0')}`);
export const SONG = asset(900);
export const LOGO = asset(901);
const SHAPES = [
  { widthPx: 3000, heightPx: 2000 },
  { widthPx: 2000, heightPx: 3000 },
  { widthPx: 2400, heightPx: 2400 },
];
export const picture = (n: number, more: Partial<PictureFacts> = {}): PictureFacts => ({
  kind: 'picture',
  ...SHAPES[n % 3]!,
  hasTransparency: false,
  takenAt: `2025-06-${String(10 + (n % 4)).padStart(2, '0')}T18:${String(n % 60).padStart(2, '0')}:00`,
  camera: 'Orrery F2',
  brightness: 0.5,
  ...more,
});
export const CLIP: ClipFacts = {
  kind: 'clip',
  widthPx: 1920,
  heightPx: 1080,
  lengthMs: 9000,
  hasSound: true,
  takenAt: null,
};
export const FACTS = new Map<AssetId, AssetFacts>([
  ...Array.from({ length: 60 }, (_, n): [AssetId, AssetFacts] => [asset(n), picture(n)]),
  [SONG, { kind: 'sound', lengthMs: 200_000, title: 'Harbour Reel', artist: 'The Made Ups' }],
  [LOGO, picture(1, { hasTransparency: true, widthPx: 900, heightPx: 600 })],
]);
export const LOOK: Look = {
  letters: { title: 'fraunces', text: 'instrument', weight: 500, spacing: 0 },
  palette: { ink: '#1d2230', paper: '#f6f1e7', accent: '#b5472f', soft: '#cdbfa6' },
};

/** Fresh ids, other ones for each counter. */
export function counter(prefix: string): () => string {
  let count = 0;
  return () => `${prefix}${(count += 1)}`;
}

/** A show of so many pictures, with a song that begins and ends on slides in it. */
export function showOf(count: number, shape = '16:9', facts: ReadonlyMap<AssetId, AssetFacts> = FACTS): Show {
  const newId = counter('p');
  const empty = emptyShow(showId('show'), 'Midsummer');
  const slides = Array.from({ length: count }, (_, n): Slide => ({
    ...slideFromAsset(asset(n), facts.get(asset(n))!, 5000, newId),
    id: slideId(`s${n}`),
  }));
  return {
    ...empty,
    frame: frameOfShape(shape, empty.frame),
    slides,
    marks: { [asset(0)]: 'keep' },
    cues:
      count < 2
        ? []
        : [
            {
              id: cueId('song'),
              kind: 'song',
              assetId: SONG,
              starts: { at: 'slide', slideId: slideId('s1'), offsetMs: 300 },
              ends: { at: 'slide', slideId: slideId(`s${count - 1}`), offsetMs: 700 },
              trimStartMs: 0,
              gainDb: 0,
              fadeInMs: 0,
              fadeOutMs: 1000,
            },
          ],
  };
}

/** The slide with words on it. */
export const withTitle = (slide: Slide, title: string, subtitle = ''): Slide => ({
  ...slide,
  layers: [...slide.layers, { kind: 'words', id: layerId('w'), title, subtitle, place: 'bottom' }],
});

export const given = (parts: Pick<LayMount, 'mount'> & Partial<LayMount>): LayMount => ({
  look: LOOK,
  facts: FACTS,
  studio: { name: 'Harrow Lane Pictures', contact: 'hello@harrowlane.example', logo: LOGO },
  newId: counter('m'),
  ...parts,
});

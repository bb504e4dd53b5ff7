import { layerId as layerIdOf, type LayerId, type SlideId } from '../show/ids';
import type { ShowEdit } from '../show/edit';
import { everyLayer, type GradientLayer, type WordsLayer } from '../show/layer';
import { layerIn } from '../show/pile';
import type { Slide } from '../show/show';
import { textOf } from '../show/words-of-slide';
import { WORDS_PLACES, type WordsPlace, type WordsStyle } from '../show/words';
import { atLightness, okLab, type ColourChannel } from '../keys/colour';
import type { FactsById } from '../show/asset-facts';
import { layersOfPictures } from './pictures-of-slide';
import type { SnagFix, SnagLook } from './snag';
import { TITLE_SIZE } from '../words/sizes';

const PAPER = '#fcfaf5';
const INK = '#1c1815';
const STRONG_SHADOW = { colour: '#000000', opacity: 0.95, softness: 0.2, x: 0, y: 0.03 };
const PALE_SHADOW = { ...STRONG_SHADOW, colour: '#ffffff' };
/** How far a picture is paled or darkened behind words. */
const BAND = 0.62;

const PLACE_NAMES: Record<WordsPlace, string> = {
  'top-left': 'top left',
  top: 'the top',
  'top-right': 'top right',
  left: 'the left',
  centre: 'the middle',
  right: 'the right',
  'bottom-left': 'bottom left',
  bottom: 'the bottom',
  'bottom-right': 'bottom right',
};

/**
 * What might make words read better, the least intrusive first.
 *
 * @param which `places`: only another place; `inward`: what brings them in from the edges; `size`: what makes them fit
 */
export function wordsFixes(
  { prepared }: SnagLook,
  slideId: SlideId | null,
  layerId: LayerId | undefined,
  which: 'all' | 'places' | 'inward' | 'size',
): SnagFix[] {
  const slide = prepared.show.slides.find((one) => one.id === slideId);
  const layer = slide && layerId ? layerIn(slide.layers, layerId) : null;
  if (!slide || layer?.kind !== 'words') return [];
  if (which === 'places') return places(slide, layer);
  if (which === 'inward') return [...inward(slide, layer), ...smaller(slide, layer), ...places(slide, layer)];
  if (which === 'size') return resized(slide, layer);
  return [
    ...looks(slide, layer, colourOfPicture(slide, prepared.facts)),
    ...places(slide, layer),
    ...band(slide, layer),
  ];
}

const withStyle = (slide: Slide, layer: WordsLayer, style: WordsStyle<ColourChannel>): ShowEdit => ({
  kind: 'set-words',
  slideId: slide.id,
  layerId: layer.id,
  words: { ...textOf(layer), style: { ...layer.style, ...style } },
});

/** How light words in a colour of the picture are, in OKLab, and how dark. */
const PALE = 0.93;
const DEEP = 0.27;
/** Less colourful than this in OKLab is grey. */
const COLOURFUL = 0.035;

/** The colour by which one would name the slide's first picture, if it has any colour. */
function colourOfPicture(slide: Slide, facts: FactsById): string | null {
  const [picture] = layersOfPictures(slide.layers);
  const known = picture && facts.get(picture.assetId);
  if (known?.kind !== 'picture') return null;
  const chroma = (colour: string) => Math.hypot(okLab(colour)[1], okLab(colour)[2]);
  return known.colours?.find((colour) => chroma(colour) >= COLOURFUL) ?? null;
}

function looks(slide: Slide, layer: WordsLayer, own: string | null): SnagFix[] {
  const inColour = (colour: string, shadow: typeof STRONG_SHADOW) =>
    withStyle(slide, layer, { colour, accent: colour, shadow });
  const boxed = (colour: string, box: string) =>
    withStyle(slide, layer, {
      colour,
      accent: colour,
      shadow: 'none',
      box: { colour: box, opacity: 0.82, padding: 0.35, radius: 0.12 },
    });
  return [
    { name: 'A stronger shadow', edit: withStyle(slide, layer, { shadow: STRONG_SHADOW }) },
    { name: 'White words', edit: inColour(PAPER, STRONG_SHADOW) },
    { name: 'Dark words', edit: inColour(INK, PALE_SHADOW) },
    ...(own
      ? [
          { name: 'A light colour of the picture', edit: inColour(atLightness(own, PALE), STRONG_SHADOW) },
          { name: 'A deep colour of the picture', edit: inColour(atLightness(own, DEEP), PALE_SHADOW) },
        ]
      : []),
    { name: 'A dark box behind them', edit: boxed(PAPER, INK) },
    { name: 'A light box behind them', edit: boxed(INK, PAPER) },
  ];
}

function places(slide: Slide, layer: WordsLayer): SnagFix[] {
  if (layer.travel) return [];
  return WORDS_PLACES.filter((place) => place !== layer.place).map((place) => ({
    name: `Put them at ${PLACE_NAMES[place]}`.replace('at the middle', 'in the middle'),
    edit: { kind: 'set-words', slideId: slide.id, layerId: layer.id, words: { ...textOf(layer), place } },
  }));
}

/** Each of the nine places in light and in dark words, the place they have first. */
export function placesAndColours(
  { prepared }: SnagLook,
  slideId: SlideId,
  layerId: LayerId,
): (SnagFix & { readonly stays: boolean })[] {
  const slide = prepared.show.slides.find((one) => one.id === slideId);
  const layer = slide && layerIn(slide.layers, layerId);
  if (!slide || layer?.kind !== 'words' || layer.travel) return [];
  const own = layer.place;
  return [own, ...WORDS_PLACES.filter((place) => place !== own)].flatMap((place) =>
    (['light', 'dark'] as const).map((tone) => {
      const [colour, shadow] = tone === 'light' ? [PAPER, STRONG_SHADOW] : [INK, PALE_SHADOW];
      return {
        stays: place === own,
        name: `${tone === 'light' ? 'Light' : 'Dark'} words ${place === 'centre' ? 'in' : 'at'} ${PLACE_NAMES[place]}`,
        edit: {
          kind: 'set-words',
          slideId: slide.id,
          layerId: layer.id,
          words: { ...textOf(layer), place, style: { ...layer.style, colour, accent: colour, shadow } },
        },
      };
    }),
  );
}

/** Words whose box was moved go back towards their place in the frame. Those that move by keys are left to hands. */
function inward(slide: Slide, layer: WordsLayer): SnagFix[] {
  const moved = (['x', 'y'] as const).flatMap((name) => {
    const value = layer.channels?.[name];
    return value === undefined ? [] : [{ name, value }];
  });
  if (moved.length === 0 || moved.some(({ value }) => typeof value !== 'number')) return [];
  const nearer = (share: number) =>
    Object.fromEntries(moved.map(({ name, value }) => [name, 0.5 + ((value as number) - 0.5) * share]));
  return [0.85, 0.7, 0.5, 0].map((share) => ({
    name: share === 0 ? 'Put them back in their place' : 'Bring them in from the edge',
    edit: { kind: 'set-channels', slideId: slide.id, layerId: layer.id, channels: nearer(share) },
  }));
}

function smaller(slide: Slide, layer: WordsLayer): SnagFix[] {
  const size = layer.style?.size ?? TITLE_SIZE;
  return [
    ...[0.8, 0.65].map((share) => ({
      name: 'Make them smaller',
      edit: withStyle(slide, layer, { size: Math.max(0.01, Math.round(1000 * size * share) / 1000) }),
    })),
    { name: 'Break their lines earlier', edit: withStyle(slide, layer, { measure: 0.7 }) },
  ];
}

function resized(slide: Slide, layer: WordsLayer): SnagFix[] {
  return [0.07, 0.055, 0.045, 0.035].map((size) => ({
    name: `Set them at ${(100 * size).toFixed(1)} % of the frame`,
    edit: withStyle(slide, layer, { size }),
  }));
}

/** A soft dark or pale band between the words and what lies behind them, as high as their third of the frame. */
function band(slide: Slide, layer: WordsLayer): SnagFix[] {
  const taken = new Set([...everyLayer(slide.layers)].map((other) => other.id as string));
  let id = 'behind-words';
  for (let n = 2; taken.has(id); n += 1) id = `behind-words-${n}`;
  const below = slide.layers[slide.layers.indexOf(layer) - 1];
  if (!slide.layers.includes(layer)) return [];
  const [y, height] = layer.place.startsWith('top')
    ? [0.25, 0.5]
    : layer.place.startsWith('bottom')
      ? [0.75, 0.5]
      : [0.5, 0.7];
  const layerOf = (colour: string): GradientLayer => ({
    kind: 'gradient',
    id: layerIdOf(id),
    name: 'Behind the words',
    channels: { x: 0.5, y, width: 1, height, opacity: BAND },
    gradient: {
      kind: 'linear',
      angleDegrees: 90,
      stops: [
        { at: 0, colour, opacity: layer.place.startsWith('top') ? 1 : 0 },
        ...(layer.place.startsWith('top') || layer.place.startsWith('bottom')
          ? [{ at: 0.55, colour, opacity: 0.9 }]
          : [
              { at: 0.3, colour, opacity: 1 },
              { at: 0.7, colour, opacity: 1 },
            ]),
        { at: 1, colour, opacity: layer.place.startsWith('bottom') ? 1 : 0 },
      ],
    },
  });
  const laid = (colour: string, words: string): ShowEdit => ({
    kind: 'together',
    name: 'lay a band behind the words',
    edits: [
      {
        kind: 'add-layers',
        slideId: slide.id,
        runs: [{ into: null, aboveId: below?.id ?? null, layers: [layerOf(colour)] }],
      },
      withStyle(slide, layer, { colour: words, accent: words, shadow: 'none' }),
    ],
  });
  return [
    { name: 'Darken the picture behind them', edit: laid('#000000', PAPER) },
    { name: 'Pale the picture behind them', edit: laid('#ffffff', INK) },
  ];
}

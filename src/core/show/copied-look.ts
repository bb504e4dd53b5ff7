import { moveUnderCrop, settledCrop, type Crop } from '../motion/crop';
import type { FactsById } from './asset-facts';
import type { ShowEdit } from './edit';
import type { Edge, Move, PictureLayer } from './layer';
import { picturesOf } from './layout';
import type { Light } from './light';
import { mainLayerOf, wordsOf, type Slide } from './show';
import { textOf, type WordsText } from './words-of-slide';

/** What can be taken from one slide and given to others. */
export type LookPart = 'light' | 'edge' | 'crop' | 'move' | 'words';
export const LOOK_PARTS: readonly LookPart[] = ['light', 'edge', 'crop', 'move', 'words'];

/** How a slide looks, apart from what it shows and says. A part that is null was as it is when nobody has done anything; one that is missing the slide does not have. */
export interface CopiedLook {
  readonly light?: Light | null;
  readonly edge?: Edge | null;
  readonly crop?: Crop | null;
  readonly move?: Move;
  readonly words?: Omit<WordsText, 'title' | 'subtitle'>;
}

/** The look of a slide: of its lowest picture or clip, and of its words. Red eyes belong to the picture and stay there. */
export function lookOf(slide: Slide): CopiedLook {
  const main = mainLayerOf(slide);
  const words = wordsOf(slide);
  const said = words && textOf(words);
  return {
    ...(main && { light: withoutEyes(main.light), edge: main.edge ?? null }),
    ...(main?.kind === 'picture' && { crop: main.crop ?? null, move: main.move }),
    ...(said && { words: lookOfWords(said) }),
  };
}

export const partsOf = (look: CopiedLook): readonly LookPart[] => LOOK_PARTS.filter((part) => look[part] !== undefined);

/**
 * Gives parts of a look to slides, as one step: to all their pictures, and to the words that are there.
 *
 * @returns null when none of them has anything to give it to
 */
export function lookGiven(
  slides: readonly Slide[],
  look: CopiedLook,
  parts: ReadonlySet<LookPart>,
  facts: FactsById,
): ShowEdit | null {
  const layers = slides.flatMap((slide) => picturesOf(slide).map((layer) => ({ slideId: slide.id, layer })));
  const pictures = layers.filter(
    (entry): entry is typeof entry & { layer: PictureLayer } => entry.layer.kind === 'picture',
  );
  const edits: ShowEdit[] = [];
  if (parts.has('light') && look.light !== undefined && layers.length > 0)
    edits.push({
      kind: 'set-light',
      lights: layers.map(({ slideId, layer }) => ({
        slideId,
        layerId: layer.id,
        light: withEyes(look.light ?? null, layer.light?.redEyes),
      })),
    });
  if (parts.has('edge') && look.edge !== undefined && layers.length > 0)
    edits.push({
      kind: 'set-edge',
      edges: layers.map(({ slideId, layer }) => ({ slideId, layerId: layer.id, edge: look.edge ?? null })),
    });
  if (parts.has('crop') && look.crop !== undefined) {
    const crops = pictures.flatMap(({ slideId, layer }) => {
      const picture = facts.get(layer.assetId);
      if (picture?.kind !== 'picture') return [];
      const crop = look.crop ? settledCrop(look.crop, picture) : null;
      return [{ slideId, layerId: layer.id, crop, move: moveUnderCrop(layer.move, layer.crop, crop, picture) }];
    });
    if (crops.length > 0) edits.push({ kind: 'set-crops', crops });
  }
  if (parts.has('move') && look.move)
    edits.push(
      ...pictures.map(({ slideId, layer }): ShowEdit => ({
        kind: 'set-move',
        slideId,
        layerId: layer.id,
        move: look.move!,
      })),
    );
  if (parts.has('words') && look.words)
    for (const slide of slides) {
      const words = wordsOf(slide);
      if (!words) continue;
      const { title, subtitle } = words;
      edits.push({
        kind: 'set-words',
        slideId: slide.id,
        layerId: words.id,
        words: { title, subtitle, ...withPartsOf(look.words, words) },
      });
    }
  if (edits.length === 0) return null;
  return {
    kind: 'together',
    name: `give a look to ${slides.length === 1 ? 'a slide' : `${slides.length} slides`}`,
    edits,
  };
}

/** Parts of a line that look otherwise belong to what is said, not to how it looks. */
function lookOfWords({
  title: _title,
  subtitle: _subtitle,
  style,
  ...look
}: WordsText): Omit<WordsText, 'title' | 'subtitle'> {
  if (!style) return look;
  const { parts: _parts, ...rest } = style;
  return { ...look, style: rest };
}

function withPartsOf(
  look: Omit<WordsText, 'title' | 'subtitle'>,
  { style }: Pick<WordsText, 'style'>,
): Omit<WordsText, 'title' | 'subtitle'> {
  return style?.parts ? { ...look, style: { ...look.style, parts: style.parts } } : look;
}

function withoutEyes(light: Light | undefined): Light | null {
  if (!light) return null;
  const { redEyes: _eyes, ...rest } = light;
  return Object.keys(rest).length > 0 ? rest : null;
}

function withEyes(light: Light | null, redEyes: Light['redEyes']): Light | null {
  return redEyes ? { ...light, redEyes } : light;
}

import { stat } from 'node:fs/promises';
import { CLIP_FRAMES_PER_SECOND } from '../../../core/frame/frame-plan';
import type { PreparedShow } from '../../../core/frame/plan-frame';
import type { AssetId } from '../../../core/show/ids';
import { seenLayers } from '../../../core/show/layer';
import { assetIdsOfSlides } from '../../../core/show/show';
import type { FilmStretch } from '../../../core/film/film-spec';
import { fontFile, kernelsFile, pageFile, shapingFile } from '../../paths';
import { readPack } from './packed';

/** Letters and scripts get so much smaller in the ZIP. */
const PACKED_SHARE = 0.5;

/** How large a page of a show would be but for its sound, worked out from the packs of some of its slides: as many pictures as are seen, as large as those were. */
export async function bytesOfPage(
  { show, spans, facts }: PreparedShow,
  { fromMs, toMs }: FilmStretch,
  packs: readonly string[],
): Promise<{ readonly byteCount: number; readonly pictureCount: number; readonly packedCount: number }> {
  const sizes = new Map<string, number>();
  for (const pack of packs)
    for (const { name, byteCount } of await readPack(pack)) sizes.set(name, Math.max(byteCount, sizes.get(name) ?? 0));
  const of = (kind: string) => [...sizes].filter(([name]) => name.startsWith(kind)).map(([, bytes]) => bytes);
  const pictures = new Set<AssetId>();
  let clipSeconds = 0;
  show.slides.forEach((slide, index) => {
    const { startMs, leavesMs } = spans[index]!;
    if (startMs >= toMs || leavesMs <= fromMs) return;
    for (const id of assetIdsOfSlides([{ ...slide, sounds: [] }]))
      if (facts.get(id)?.kind === 'picture') pictures.add(id);
    const clips = [...seenLayers(slide.layers)].filter(({ kind }) => kind === 'clip').length;
    clipSeconds += (clips * (Math.min(toMs, leavesMs) - Math.max(fromMs, startMs))) / 1000;
  });
  const fonts = [...sizes.keys()].filter((name) => name.startsWith('font ')).map((name) => fontFile(name.slice(5)));
  const fixed = [kernelsFile(), shapingFile(), pageFile('player'), pageFile('drawing'), pageFile('plates')];
  let byteCount = 0;
  for (const file of [...fonts, ...fixed]) byteCount += (await stat(file)).size * PACKED_SHARE;
  byteCount += pictures.size * mean(of('picture ')) + clipSeconds * CLIP_FRAMES_PER_SECOND * mean(of('clip '));
  return { byteCount, pictureCount: pictures.size, packedCount: of('picture ').length };
}

const mean = (values: readonly number[]) =>
  values.length === 0 ? 0 : values.reduce((sum, value) => sum + value, 0) / values.length;

import type { AssetId } from '../show/ids';
import { assetIdsOfSlides, wordsOf, type Show } from '../show/show';
import { asCsv } from './csv';

/** Columns of the running order as a table. `files` and `number` are for reading; what they say is not taken back. */
export const ORDER_COLUMNS = ['slide', 'number', 'seconds', 'title', 'subtitle', 'script', 'chapter', 'files'] as const;

/** The running order as CSV: a row for each slide, in order. @param names of files, as they came */
export function orderTable({ slides }: Pick<Show, 'slides'>, names: ReadonlyMap<AssetId, string>): string {
  const rows = slides.map((slide, index) => {
    const words = wordsOf(slide);
    const files = assetIdsOfSlides([slide]).flatMap((id) => names.get(id) ?? []);
    return [
      slide.id,
      String(index + 1),
      secondsOf(slide.lengthMs),
      words?.title ?? '',
      words?.subtitle ?? '',
      slide.script ?? '',
      slide.chapter ?? '',
      files.join(' · '),
    ];
  });
  return asCsv([ORDER_COLUMNS, ...rows]);
}

/** 5500 → 5.5 */
export const secondsOf = (lengthMs: number): string => String(Math.round(lengthMs) / 1000);

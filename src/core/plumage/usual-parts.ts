import type { Show } from '../show/show';
import type { PlumageWith } from './plumage';

/** What a plumage brings to a show where nobody says otherwise: no opener or closer where words stand already. */
export function usualParts(show: Pick<Show, 'slides'>): PlumageWith {
  const hasWords = (at: number) => show.slides.at(at)?.layers.some(({ kind }) => kind === 'words') ?? false;
  return {
    opener: !hasWords(0),
    chapters: show.slides.some(({ chapter }) => chapter !== undefined),
    closer: !hasWords(-1),
    several: false,
  };
}

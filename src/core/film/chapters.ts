import type { PreparedShow } from '../frame/plan-frame';

export interface FilmChapter {
  readonly title: string;
  /** In the time of the film. */
  readonly startMs: number;
  readonly endMs: number;
}

/**
 * The chapters of a film, without gaps; none when the show names none. What comes before the first one is called as the show is.
 *
 * @param fromMs from where to where of the show the film goes
 */
export function filmChapters({ show, seenFromMs }: PreparedShow, fromMs: number, toMs: number): FilmChapter[] {
  const begun: { readonly title: string; readonly startMs: number }[] = [];
  show.slides.forEach(({ chapter }, index) => {
    const startMs = Math.max(0, seenFromMs[index]! - fromMs);
    if (chapter === undefined || seenFromMs[index]! >= toMs) return;
    // One that begins before the stretch is on when it starts.
    if (startMs === 0) begun.length = 0;
    begun.push({ title: chapter, startMs });
  });
  if (begun.length === 0) return [];
  if (begun[0]!.startMs > 0) begun.unshift({ title: show.title, startMs: 0 });
  return begun.map((chapter, index) => ({ ...chapter, endMs: begun[index + 1]?.startMs ?? toMs - fromMs }));
}

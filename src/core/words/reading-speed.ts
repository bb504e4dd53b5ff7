/** Scripts without spaces between words: so many signs are read as one word. Counted after Trauzettel-Klosinski et al. (2012), “Standardized assessment of reading performance”. */
const SIGNS_A_WORD = 1.6;
const WITHOUT_SPACES = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}]/gu;

/** People read words on a picture, with an eye on the picture, at about this many a minute; above the second they give up. */
const COMFORTABLE = 150;
const FASTEST = 220;

export type ReadingEase = 'easy' | 'quick' | 'too-fast';

/** How many words there are to read; signs of scripts without spaces count by what they take to read. */
export function wordsToRead(text: string): number {
  const signs = text.match(WITHOUT_SPACES)?.length ?? 0;
  const spaced = text
    .replace(WITHOUT_SPACES, ' ')
    .split(/\s+/)
    .filter((word) => /[\p{L}\p{N}]/u.test(word)).length;
  return spaced + signs / SIGNS_A_WORD;
}

/** @param overMs how long the words can be read, more than 0 */
export function readingSpeed(
  text: string,
  overMs: number,
): { readonly wordsPerMinute: number; readonly ease: ReadingEase } {
  const wordsPerMinute = (wordsToRead(text) * 60_000) / overMs;
  return {
    wordsPerMinute,
    ease: wordsPerMinute <= COMFORTABLE ? 'easy' : wordsPerMinute <= FASTEST ? 'quick' : 'too-fast',
  };
}

/** How long a text must stand to be read at all, by most. */
export function shortestReadMs(text: string): number {
  return Math.ceil((wordsToRead(text) * 60_000) / FASTEST);
}

/** How long a text must stand to be read in comfort. */
export function comfortableMs(text: string): number {
  return Math.ceil((wordsToRead(text) * 60_000) / COMFORTABLE / 100) * 100;
}

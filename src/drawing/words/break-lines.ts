import LineBreaker from 'linebreak';
import type { ShelfFont } from './fonts';
import { clustersOf } from './clusters';
import { shapeLine, type ShapedLine } from './shape-line';

interface Measure {
  readonly fonts: readonly ShelfFont[];
  /** Widest line. */
  readonly ems: number;
  /** Between letters. */
  readonly spacing: number;
}

export interface BrokenText {
  readonly lines: readonly ShapedLine[];
  /** The widest piece that had to be torn, since nothing may break it and it is wider than the measure; 0 when none was. */
  readonly tornEms: number;
}

/**
 * Typed line breaks are kept; longer lines are broken where Unicode allows (UAX #14), Thai between its words, and a word wider than the measure with a hyphen
 * where its script has one.
 *
 * @param balanced lines of about one length, in as few as they take
 */
export function brokenText(text: string, measure: Measure, balanced = false): BrokenText {
  if (text.trim() === '') return { lines: [], tornEms: 0 };
  const paragraphs = text
    .trim()
    .split(/\r?\n/)
    .map((paragraph) => (balanced ? balancedParagraph(paragraph, measure) : brokenParagraph(paragraph, measure)));
  return {
    lines: paragraphs.flatMap((one) => one.lines),
    tornEms: Math.max(...paragraphs.map((one) => one.tornEms)),
  };
}

/** More lines than these are a text, and texts are read as they run. */
const MOST_BALANCED = 6;

/** The narrowest measure at which it takes no more lines than at the full one: no short last line. */
function balancedParagraph(text: string, measure: Measure): BrokenText {
  const natural = brokenParagraph(text, measure);
  const count = natural.lines.length;
  if (count < 2 || count > MOST_BALANCED || natural.tornEms > 0) return natural;
  let [narrow, wide] = [measure.ems / count, measure.ems];
  let best = natural;
  for (let step = 0; step < 7; step += 1) {
    const ems = (narrow + wide) / 2;
    const tried = brokenParagraph(text, { ...measure, ems });
    if (tried.lines.length > count || tried.tornEms > 0) narrow = ems;
    else {
      wide = ems;
      best = tried;
    }
  }
  return best;
}

function brokenParagraph(text: string, { fonts, ems, spacing }: Measure): BrokenText {
  const lines: ShapedLine[] = [];
  let tornEms = 0;
  let open = '';
  const close = (line: string) => lines.push(shapeLine(line.trimEnd(), fonts, spacing));
  for (const piece of piecesOf(text)) {
    if (shapeLine((open + piece).trimEnd(), fonts, spacing).widthEms <= ems) {
      open += piece;
      continue;
    }
    if (open.trim() !== '') close(open);
    const pieceEms = shapeLine(piece.trimEnd(), fonts, spacing).widthEms;
    open = piece;
    if (pieceEms <= ems) continue;
    tornEms = Math.max(tornEms, pieceEms);
    const parts = tornWord(piece, (part) => shapeLine(part, fonts, spacing).widthEms <= ems);
    for (const part of parts.slice(0, -1)) close(part);
    open = parts.at(-1)!;
  }
  if (open.trim() !== '' || lines.length === 0) close(open);
  return { lines, tornEms };
}

/** Scripts that show with a hyphen that a word goes on. */
const HYPHENATED = /\p{Script=Latin}|\p{Script=Greek}|\p{Script=Cyrillic}/u;
/** No fewer letters stand alone on either side of a hyphen. */
const LEAST_LETTERS = 3;

function tornWord(word: string, fits: (part: string) => boolean): string[] {
  const parts: string[] = [];
  let left = clustersOf(word);
  while (left.length > 1 && !fits(left.join('').trimEnd())) {
    let count = 1;
    while (count < left.length && fits(partOf(left, count + 1))) count += 1;
    count = Math.max(1, Math.min(count, left.length > 2 * LEAST_LETTERS ? left.length - LEAST_LETTERS : count));
    parts.push(partOf(left, count));
    left = left.slice(count);
  }
  return [...parts, left.join('')];
}

function partOf(clusters: readonly string[], count: number): string {
  const part = clusters.slice(0, count).join('');
  const letters = HYPHENATED.test(clusters[count - 1] ?? '') && HYPHENATED.test(clusters[count] ?? '');
  return letters ? `${part}-` : part;
}

/** Thai has no spaces between words. Node and Chromium both carry ICU’s dictionary for it and part it alike. */
const THAI = /\p{Script=Thai}/u;
const thaiWords = new Intl.Segmenter('th', { granularity: 'word' });

/** What must not be broken, in order. */
function piecesOf(text: string): string[] {
  const breaker = new LineBreaker(text);
  const result: string[] = [];
  let from = 0;
  for (let next = breaker.nextBreak(); next; next = breaker.nextBreak()) {
    const piece = text.slice(from, next.position);
    result.push(...(THAI.test(piece) ? thaiPieces(piece) : [piece]));
    from = next.position;
  }
  return result;
}

/** Signs and spaces stay with the word before them. */
function thaiPieces(text: string): string[] {
  const words: string[] = [];
  for (const { segment } of thaiWords.segment(text)) {
    if (words.length > 0 && !/^[\p{L}\p{N}]/u.test(segment)) words[words.length - 1] += segment;
    else words.push(segment);
  }
  return words;
}

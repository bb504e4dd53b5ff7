import type { WordsLook } from '../../core/frame/frame-plan';
import { anchorOf } from '../../core/show/words';
import {
  LINE_HEIGHT,
  SUBTITLE_SHARE,
  TITLE_SIZE,
  WORDS_GAP,
  WORDS_MARGIN,
  WORDS_MEASURE,
} from '../../core/words/sizes';
import type { ShelfFont } from './fonts';
import { shapeLine, type ShapedLine } from './shape-line';
import { brokenText } from './break-lines';

/** Between the columns of credits, in ems. */
const COLUMN_GAP = 1.4;
/** Share of an em above the baseline that a line of capitals and ascenders needs. */
const ASCENT = 0.92;

export interface PlacedLine {
  readonly line: ShapedLine;
  readonly isTitle: boolean;
  readonly sizePx: number;
  readonly leftPx: number;
  readonly baselinePx: number;
}

export interface LaidOutWords {
  readonly lines: readonly PlacedLine[];
  /** Around all lines. */
  readonly topPx: number;
  readonly heightPx: number;
  /** How much smaller they are than was asked, so that they fit: 1 when they are not. */
  readonly scale: number;
}

/** Words are made smaller down to this share so that their longest word is whole; a longer one is torn. */
const LEAST_FOR_WORDS = 0.65;
/** And down to this share so that all of them are within the frame. */
const LEAST_FOR_FRAME = 0.3;
const SMALLER = 0.94;

interface WordsFonts {
  readonly title: readonly ShelfFont[];
  readonly text: readonly ShelfFont[];
}

/**
 * Breaks the words into lines and places them in the frame. Words that do not fit at the size they were given are laid out smaller, and `scale` says so; those
 * that travel through the frame keep theirs.
 */
export function layOutWords(
  look: WordsLook,
  fonts: WordsFonts,
  frame: { readonly widthPx: number; readonly heightPx: number },
): LaidOutWords {
  if (look.crawls) return laidOut(look, fonts, frame, 1);
  const first = laidOut(look, fonts, frame, 1);
  // A hair less, so that what just fits is not broken for a rounding.
  let scale = first.wordScale < 1 ? Math.max(LEAST_FOR_WORDS, 0.997 * first.wordScale) : 1;
  let words = scale < 1 ? laidOut(look, fonts, frame, scale) : first;
  const roomPx = Math.min(
    frame.heightPx - 2 * WORDS_MARGIN * Math.min(frame.heightPx, frame.widthPx),
    (look.style.room ?? 1) * frame.heightPx,
  );
  while (!look.rolls && words.heightPx > roomPx && scale > LEAST_FOR_FRAME) {
    scale *= SMALLER;
    words = laidOut(look, fonts, frame, scale);
  }
  return words;
}

/** @returns also by how much it would have to be smaller for its longest word to be whole */
function laidOut(
  look: WordsLook,
  fonts: WordsFonts,
  frame: { readonly widthPx: number; readonly heightPx: number },
  scale: number,
): LaidOutWords & { readonly wordScale: number } {
  const { style, crawls } = look;
  const measurePx = crawls ? Infinity : (style.measure ?? WORDS_MEASURE) * frame.widthPx;
  // In a tall frame the width, not the height, bounds the size of words.
  const unitPx = Math.min(frame.heightPx, frame.widthPx);
  const titlePx = scale * (style.size ?? TITLE_SIZE) * unitPx;
  const textPx = titlePx * SUBTITLE_SHARE;
  const spacing = style.letterSpacing ?? 0;
  const broken = (text: string, of: readonly ShelfFont[], sizePx: number, balanced: boolean) =>
    brokenText(crawls ? inOneLine(text) : text, { fonts: of, ems: measurePx / sizePx, spacing }, balanced);
  const title = broken(look.title, fonts.title, titlePx, !crawls);
  const pairs = look.rolls ? pairedLines(look.subtitle) : null;
  const text = pairs ? { lines: [], tornEms: 0 } : broken(look.subtitle, fonts.text, textPx, false);
  const rows: Row[] = [
    ...title.lines.map((line) => ({ line, sizePx: titlePx, isTitle: true, column: null })),
    ...text.lines.map((line) => ({ line, sizePx: textPx, isTitle: false, column: null })),
    ...(pairs ?? []).flatMap(([left, right]): Row[] => {
      const row = { sizePx: textPx, isTitle: false };
      // An empty line parts the groups of credits.
      if (left.trim() === '') return [{ ...row, line: shapeLine('', fonts.text, spacing), column: null }];
      if (right === null)
        return broken(left, fonts.text, textPx, false).lines.map((line) => ({ ...row, line, column: null }));
      return [
        { ...row, line: shapeLine(left, fonts.text, spacing), column: 'left' },
        { ...row, line: shapeLine(right, fonts.text, spacing), column: 'right' },
      ];
    }),
  ];
  const widestPairPx = rows.reduce(
    (widest, { column, line, sizePx }) =>
      column === null ? widest : Math.max(widest, 2 * (line.widthEms * sizePx + (COLUMN_GAP * sizePx) / 2)),
    0,
  );
  const wordScale = measurePx / Math.max(measurePx, title.tornEms * titlePx, text.tornEms * textPx, widestPairPx);
  const titleCount = title.lines.length;
  const gapPx = titleCount > 0 && rows.length > titleCount ? WORDS_GAP * unitPx : 0;
  const lineHeight = LINE_HEIGHT * (style.lineSpacing ?? 1);
  // What stands in the right column is beside what is in the left one.
  const heightPx = rows.reduce((sum, row) => sum + (row.column === 'right' ? 0 : row.sizePx * lineHeight), gapPx);

  const marginPx = WORDS_MARGIN * unitPx;
  const [horizontal, vertical] = anchorOf(look.place);
  const widestPx = Math.max(0, ...rows.map((row) => row.line.widthEms * row.sizePx));
  const align = style.align === undefined ? horizontal : { left: 0, centre: 0.5, right: 1 }[style.align];
  const blockLeftPx = marginPx + (frame.widthPx - 2 * marginPx - widestPx) * horizontal;
  let topPx = marginPx + (frame.heightPx - 2 * marginPx - heightPx) * vertical;
  const blockTopPx = topPx;
  const middlePx = frame.widthPx / 2;
  const lines = rows.map(({ column, ...row }, index) => {
    if (index === titleCount) topPx += gapPx;
    if (column === 'right') topPx -= row.sizePx * lineHeight;
    const widthPx = row.line.widthEms * row.sizePx;
    const halfGapPx = (COLUMN_GAP * row.sizePx) / 2;
    const leftPx =
      column === null
        ? blockLeftPx + (widestPx - widthPx) * align
        : column === 'left'
          ? middlePx - halfGapPx - widthPx
          : middlePx + halfGapPx;
    const placed = { ...row, leftPx, baselinePx: topPx + ASCENT * row.sizePx };
    topPx += row.sizePx * lineHeight;
    return placed;
  });
  return { lines, topPx: blockTopPx, heightPx, scale, wordScale: crawls ? 1 : wordScale };
}

interface Row {
  readonly line: ShapedLine;
  readonly sizePx: number;
  readonly isTitle: boolean;
  /** Of credits in two columns, which meet in the middle of the frame. */
  readonly column: 'left' | 'right' | null;
}

/** Credits whose lines say who did what: the parts on either side of a tab or of two spaces. Null when no line does. */
function pairedLines(text: string): (readonly [left: string, right: string | null])[] | null {
  const lines = text
    .trim()
    .split(/\r?\n/)
    .map((line) => {
      const parts = /^(.*?\S)(?:\t\s*| {2,})(\S.*)$/.exec(line.trim());
      return parts ? ([parts[1]!, parts[2]!] as const) : ([line, null] as const);
    });
  return lines.some(([, right]) => right !== null) ? lines : null;
}

function inOneLine(text: string): string {
  return text.trim().replace(/\s*\r?\n\s*/g, ' · ');
}

import LineBreaker from 'linebreak';
import type { WordsLook } from '../../core/frame/frame-plan';
import type { ShelfFont } from './fonts';
import { shapeLine, type ShapedLine } from './shape-line';

/** Sizes as shares of the frame's shorter side. */
export const TITLE_SIZE = 0.082;
const SUBTITLE_SHARE = 0.042 / 0.082;
const LINE_HEIGHT = 1.14;
const GAP = 0.018;
const MARGIN = 0.075;
/** Widest line as a share of the frame's width. */
const MEASURE = 0.8;
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
}

/** Breaks the words into lines (UAX #14) and places them in the frame. @param crawls keeps every paragraph on one line and all paragraphs in a row */
export function layOutWords(
  look: WordsLook,
  fonts: { readonly title: readonly ShelfFont[]; readonly text: readonly ShelfFont[] },
  frame: { readonly widthPx: number; readonly heightPx: number },
  crawls = false,
): LaidOutWords {
  const { style } = look;
  const measurePx = crawls ? Infinity : (style.measure ?? MEASURE) * frame.widthPx;
  // In a tall frame the width, not the height, bounds the size of words.
  const unitPx = Math.min(frame.heightPx, frame.widthPx);
  const titlePx = (style.size ?? TITLE_SIZE) * unitPx;
  const textPx = titlePx * SUBTITLE_SHARE;
  const spacing = style.letterSpacing ?? 0;
  const rows: { line: ShapedLine; sizePx: number; isTitle: boolean }[] = [];
  for (const line of brokenLines(
    crawls ? inOneLine(look.title) : look.title,
    fonts.title,
    measurePx / titlePx,
    spacing,
  ))
    rows.push({ line, sizePx: titlePx, isTitle: true });
  const titleCount = rows.length;
  for (const line of brokenLines(
    crawls ? inOneLine(look.subtitle) : look.subtitle,
    fonts.text,
    measurePx / textPx,
    spacing,
  ))
    rows.push({ line, sizePx: textPx, isTitle: false });
  const gapPx = titleCount > 0 && rows.length > titleCount ? GAP * unitPx : 0;
  const lineHeight = LINE_HEIGHT * (style.lineSpacing ?? 1);
  const heightPx = rows.reduce((sum, row) => sum + row.sizePx * lineHeight, gapPx);

  const marginPx = MARGIN * unitPx;
  const [vertical, horizontal] = anchors(look.place);
  const widestPx = Math.max(0, ...rows.map((row) => row.line.widthEms * row.sizePx));
  const align = style.align === undefined ? horizontal : { left: 0, centre: 0.5, right: 1 }[style.align];
  const blockLeftPx = marginPx + (frame.widthPx - 2 * marginPx - widestPx) * horizontal;
  let topPx = marginPx + (frame.heightPx - 2 * marginPx - heightPx) * vertical;
  const blockTopPx = topPx;
  const lines = rows.map((row, index) => {
    if (index === titleCount) topPx += gapPx;
    const placed = {
      ...row,
      leftPx: blockLeftPx + (widestPx - row.line.widthEms * row.sizePx) * align,
      baselinePx: topPx + ASCENT * row.sizePx,
    };
    topPx += row.sizePx * lineHeight;
    return placed;
  });
  return { lines, topPx: blockTopPx, heightPx };
}

function anchors(place: WordsLook['place']): [vertical: number, horizontal: number] {
  const vertical = place.startsWith('top') ? 0 : place.startsWith('bottom') ? 1 : 0.5;
  const horizontal = place.endsWith('left') ? 0 : place.endsWith('right') ? 1 : 0.5;
  return [vertical, horizontal];
}

function inOneLine(text: string): string {
  return text.trim().replace(/\s*\r?\n\s*/g, ' · ');
}

/** Typed line breaks are kept; longer lines are broken where Unicode allows, and a word wider than the measure between characters. */
function brokenLines(text: string, fonts: readonly ShelfFont[], measureEms: number, spacing: number): ShapedLine[] {
  return text.trim() === ''
    ? []
    : text
        .trim()
        .split(/\r?\n/)
        .flatMap((paragraph) => brokenParagraph(paragraph, fonts, measureEms, spacing));
}

function brokenParagraph(text: string, fonts: readonly ShelfFont[], measureEms: number, spacing: number): ShapedLine[] {
  const lines: ShapedLine[] = [];
  let open = '';
  for (const piece of pieces(text)) {
    const longer = shapeLine((open + piece).trimEnd(), fonts, spacing);
    if (longer.widthEms <= measureEms) {
      open += piece;
      continue;
    }
    if (open.trim() !== '') lines.push(shapeLine(open.trimEnd(), fonts, spacing));
    open = '';
    for (const character of piece) {
      if (open !== '' && shapeLine(open + character, fonts, spacing).widthEms > measureEms && character.trim() !== '') {
        lines.push(shapeLine(open, fonts, spacing));
        open = '';
      }
      open += character;
    }
  }
  if (open.trim() !== '' || lines.length === 0) lines.push(shapeLine(open.trimEnd(), fonts, spacing));
  return lines;
}

function pieces(text: string): string[] {
  const breaker = new LineBreaker(text);
  const result: string[] = [];
  let from = 0;
  for (let next = breaker.nextBreak(); next; next = breaker.nextBreak()) {
    result.push(text.slice(from, next.position));
    from = next.position;
  }
  return result;
}

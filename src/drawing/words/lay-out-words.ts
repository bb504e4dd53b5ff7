import LineBreaker from 'linebreak';
import type { Font } from 'harfbuzzjs';
import type { WordsLook } from '../../core/frame/frame-plan';
import type { Fonts } from './fonts';
import { shapeLine, type ShapedLine } from './shape-line';

/** Sizes as shares of the frame's height. */
const TITLE_SIZE = 0.082;
const SUBTITLE_SIZE = 0.042;
const LINE_HEIGHT = 1.14;
const GAP = 0.018;
const MARGIN = 0.075;
/** Widest line as a share of the frame's width. */
const MEASURE = 0.8;
/** Share of an em above the baseline that a line of capitals and ascenders needs. */
const ASCENT = 0.92;

export interface PlacedLine {
  readonly line: ShapedLine;
  readonly sizePx: number;
  readonly leftPx: number;
  readonly baselinePx: number;
}

/** Breaks the words into lines (UAX #14) and places them in the frame. */
export function layOutWords(look: WordsLook, fonts: Fonts, frame: { readonly widthPx: number; readonly heightPx: number }): PlacedLine[] {
  const rows: { line: ShapedLine; sizePx: number }[] = [];
  const measurePx = MEASURE * frame.widthPx;
  // In a tall frame the width, not the height, bounds the size of words.
  const unitPx = Math.min(frame.heightPx, frame.widthPx);
  for (const line of brokenLines(look.title, fonts.title, measurePx / (TITLE_SIZE * unitPx))) rows.push({ line, sizePx: TITLE_SIZE * unitPx });
  const titleCount = rows.length;
  for (const line of brokenLines(look.subtitle, fonts.text, measurePx / (SUBTITLE_SIZE * unitPx))) rows.push({ line, sizePx: SUBTITLE_SIZE * unitPx });
  const gapPx = titleCount > 0 && rows.length > titleCount ? GAP * unitPx : 0;
  const heightPx = rows.reduce((sum, row) => sum + row.sizePx * LINE_HEIGHT, gapPx);

  const marginPx = MARGIN * unitPx;
  const [vertical, horizontal] = anchors(look.place);
  let topPx = marginPx + (frame.heightPx - 2 * marginPx - heightPx) * vertical;
  return rows.map((row, index) => {
    if (index === titleCount) topPx += gapPx;
    const widthPx = row.line.widthEms * row.sizePx;
    const placed = {
      ...row,
      leftPx: marginPx + (frame.widthPx - 2 * marginPx - widthPx) * horizontal,
      baselinePx: topPx + ASCENT * row.sizePx,
    };
    topPx += row.sizePx * LINE_HEIGHT;
    return placed;
  });
}

function anchors(place: WordsLook['place']): [vertical: number, horizontal: number] {
  const vertical = place.startsWith('top') ? 0 : place.startsWith('bottom') ? 1 : 0.5;
  const horizontal = place.endsWith('left') ? 0 : place.endsWith('right') ? 1 : 0.5;
  return [vertical, horizontal];
}

/** Typed line breaks are kept; longer lines are broken where Unicode allows, and a word wider than the measure between characters. */
function brokenLines(text: string, fonts: readonly Font[], measureEms: number): ShapedLine[] {
  return text.trim() === '' ? [] : text.trim().split(/\r?\n/).flatMap((paragraph) => brokenParagraph(paragraph, fonts, measureEms));
}

function brokenParagraph(text: string, fonts: readonly Font[], measureEms: number): ShapedLine[] {
  const lines: ShapedLine[] = [];
  let open = '';
  for (const piece of pieces(text)) {
    const longer = shapeLine((open + piece).trimEnd(), fonts);
    if (longer.widthEms <= measureEms) {
      open += piece;
      continue;
    }
    if (open.trim() !== '') lines.push(shapeLine(open.trimEnd(), fonts));
    open = '';
    for (const character of piece) {
      if (open !== '' && shapeLine(open + character, fonts).widthEms > measureEms && character.trim() !== '') {
        lines.push(shapeLine(open, fonts));
        open = '';
      }
      open += character;
    }
  }
  if (open.trim() !== '' || lines.length === 0) lines.push(shapeLine(open.trimEnd(), fonts));
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

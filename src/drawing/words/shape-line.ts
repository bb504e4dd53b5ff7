import bidiFactory from 'bidi-js';
import { Buffer, Direction, shape, type Font } from 'harfbuzzjs';
import { emojiParts } from './clusters';
import type { ShelfFont } from './fonts';

/** One glyph of a line, in ems from the line's left end on its baseline; y goes up. `at` is the index in the line's text of the first character it stands for. */
export interface PlacedGlyph {
  readonly font: Font;
  readonly isEmoji: boolean;
  readonly glyph: number;
  readonly x: number;
  readonly y: number;
  readonly at: number;
  readonly advance: number;
}

export interface ShapedLine {
  readonly text: string;
  readonly glyphs: readonly PlacedGlyph[];
  readonly widthEms: number;
  readonly rightToLeft: boolean;
}

const bidi = bidiFactory();
/** Font units in an em, for every font: HarfBuzz scales to it. */
export const UNITS = 2048;
/** Scripts whose letters hang together: space between them would tear words. */
const JOINED = /[\p{Script=Arabic}\p{Script=Syriac}\p{Script=Devanagari}]/u;

/**
 * Shapes one line: split where the writing direction or the font changes, each run by HarfBuzz, runs in the order they are seen (UAX #9, rule L2).
 *
 * @param spacingEms added after every letter, except in scripts whose letters hang together
 */
export function shapeLine(text: string, fonts: readonly ShelfFont[], spacingEms = 0): ShapedLine {
  const glyphs: PlacedGlyph[] = [];
  let x = 0;
  const { runs, rightToLeft } = visualRuns(text, fonts);
  for (const run of runs) {
    const { font, isEmoji } = run.font;
    font.setScale(UNITS, UNITS);
    const buffer = new Buffer();
    buffer.addText(run.text);
    buffer.guessSegmentProperties();
    buffer.setDirection(run.rightToLeft ? Direction.RTL : Direction.LTR);
    shape(font, buffer);
    const infos = buffer.getGlyphInfos();
    const positions = buffer.getGlyphPositions();
    const spacing = JOINED.test(run.text) ? 0 : spacingEms * UNITS;
    infos.forEach((info, index) => {
      const position = positions[index]!;
      const advance = position.xAdvance + (position.xAdvance > 0 ? spacing : 0);
      glyphs.push({
        font,
        isEmoji,
        glyph: info.codepoint,
        x: (x + position.xOffset) / UNITS,
        y: position.yOffset / UNITS,
        at: run.start + info.cluster,
        advance: advance / UNITS,
      });
      x += advance;
    });
  }
  return { text, glyphs, widthEms: x / UNITS, rightToLeft };
}

interface Run {
  readonly text: string;
  readonly start: number;
  readonly font: ShelfFont;
  readonly rightToLeft: boolean;
}

function visualRuns(text: string, fonts: readonly ShelfFont[]): { runs: Run[]; rightToLeft: boolean } {
  const { levels, paragraphs } = bidi.getEmbeddingLevels(text) as {
    levels: Uint8Array;
    paragraphs: { level: number }[];
  };
  const runs: (Run & { level: number })[] = [];
  const add = (signs: string, start: number, font: ShelfFont) => {
    const level = levels[start]!;
    const last = runs.at(-1);
    if (last && last.level === level && last.font === font)
      runs[runs.length - 1] = { ...last, text: last.text + signs };
    else runs.push({ text: signs, start, font, level, rightToLeft: level % 2 === 1 });
  };
  const emoji = fonts.find((font) => font.isEmoji);
  for (const part of emojiParts(text)) {
    if (part.isEmoji && emoji) {
      add(part.text, part.start, emoji);
      continue;
    }
    let at = part.start;
    for (const character of part.text) {
      const last = runs.at(-1);
      // Marks and spaces stay in the run they are in.
      const stays =
        last &&
        at > part.start &&
        last.level === levels[at] &&
        !last.font.isEmoji &&
        (/^[\p{M}\s\u200d\ufe0e\ufe0f]$/u.test(character) || has(last.font, character));
      add(character, at, stays ? last.font : fontFor(character, fonts));
      at += character.length;
    }
  }
  const highest = Math.max(0, ...runs.map((run) => run.level));
  for (let level = highest; level >= 1; level -= 1) {
    for (let from = 0; from < runs.length; from += 1) {
      if (runs[from]!.level < level) continue;
      let to = from;
      while (to < runs.length && runs[to]!.level >= level) to += 1;
      runs.splice(from, to - from, ...runs.slice(from, to).reverse());
      from = to;
    }
  }
  return { runs, rightToLeft: (paragraphs[0]?.level ?? 0) % 2 === 1 };
}

function fontFor(character: string, fonts: readonly ShelfFont[]): ShelfFont {
  return fonts.find((font) => has(font, character)) ?? fonts[0]!;
}

function has({ font }: ShelfFont, character: string): boolean {
  return Boolean(font.nominalGlyph(character.codePointAt(0)!));
}

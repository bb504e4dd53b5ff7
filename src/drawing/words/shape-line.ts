import bidiFactory from 'bidi-js';
import { Buffer, Direction, shape, type Font } from 'harfbuzzjs';

/** One glyph of a line, in ems from the line's left end on its baseline; y goes up. */
export interface PlacedGlyph {
  readonly font: Font;
  readonly glyph: number;
  readonly x: number;
  readonly y: number;
}

export interface ShapedLine {
  readonly glyphs: readonly PlacedGlyph[];
  readonly widthEms: number;
}

const bidi = bidiFactory();
/** Font units in an em, for every font: HarfBuzz scales to it. */
const UNITS = 2048;

/** Shapes one line: split where the writing direction or the font changes, each run by HarfBuzz, runs in the order they are seen (UAX #9, rule L2). */
export function shapeLine(text: string, fonts: readonly Font[]): ShapedLine {
  const glyphs: PlacedGlyph[] = [];
  let x = 0;
  for (const run of visualRuns(text, fonts)) {
    run.font.setScale(UNITS, UNITS);
    const buffer = new Buffer();
    buffer.addText(run.text);
    buffer.guessSegmentProperties();
    buffer.setDirection(run.rightToLeft ? Direction.RTL : Direction.LTR);
    shape(run.font, buffer);
    const infos = buffer.getGlyphInfos();
    const positions = buffer.getGlyphPositions();
    infos.forEach((info, index) => {
      const position = positions[index]!;
      glyphs.push({ font: run.font, glyph: info.codepoint, x: (x + position.xOffset) / UNITS, y: position.yOffset / UNITS });
      x += position.xAdvance;
    });
  }
  return { glyphs, widthEms: x / UNITS };
}

interface Run {
  readonly text: string;
  readonly font: Font;
  readonly rightToLeft: boolean;
}

function visualRuns(text: string, fonts: readonly Font[]): Run[] {
  const { levels } = bidi.getEmbeddingLevels(text);
  const runs: (Run & { level: number })[] = [];
  let at = 0;
  for (const character of text) {
    const level = levels[at]!;
    const last = runs.at(-1);
    // Marks and spaces stay in the run they are in.
    const font = last && last.level === level && (/^[\p{M}\s]$/u.test(character) || has(last.font, character)) ? last.font : fontFor(character, fonts);
    if (last && last.level === level && last.font === font) runs[runs.length - 1] = { ...last, text: last.text + character };
    else runs.push({ text: character, font, level, rightToLeft: level % 2 === 1 });
    at += character.length;
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
  return runs;
}

function fontFor(character: string, fonts: readonly Font[]): Font {
  return fonts.find((font) => has(font, character)) ?? fonts[0]!;
}

function has(font: Font, character: string): boolean {
  return Boolean(font.nominalGlyph(character.codePointAt(0)!));
}

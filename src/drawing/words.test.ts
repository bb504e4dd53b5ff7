import { beforeAll, describe, expect, it } from '@jest/globals';
import type { WordsLook } from '../core/frame/frame-plan';
import { openNodeDrawing, type NodeDrawing } from '../server/films/node-drawing';
import { drawWords } from './words/draw-words';
import { layOutWords } from './words/lay-out-words';
import { shapeLine } from './words/shape-line';

const HD = { widthPx: 1280, heightPx: 720 };
const look = (title: string, more: Partial<WordsLook> = {}): WordsLook => ({ title, subtitle: '', place: 'bottom-left', ...more });
let drawing: NodeDrawing;
beforeAll(async () => { drawing = await openNodeDrawing(); });

describe('shapeLine', () => {
  it('kerns: “AV” is narrower than its letters apart', () => {
    const width = (text: string) => shapeLine(text, drawing.fonts.title).widthEms;
    expect(width('AV')).toBeLessThan(width('A') + width('V') - 0.005);
  });
  it('finds accented letters in the font’s other files and leaves none undrawn', () => {
    for (const text of ['Łódź ŐŰ', 'Ångström', 'Đặng Thùy']) expect(shapeLine(text, drawing.fonts.title).glyphs.every((glyph) => glyph.glyph !== 0)).toBe(true);
  });
  it('orders right-to-left runs as they are read', () => {
    const line = shapeLine('ab אב', drawing.fonts.title);
    expect(line.glyphs.map((glyph) => glyph.x)).toEqual([...line.glyphs.map((glyph) => glyph.x)].sort((a, b) => a - b));
    expect(line.glyphs).toHaveLength(5);
  });
});

describe('layOutWords', () => {
  const linesOf = (of: WordsLook, frame = HD) => layOutWords(of, drawing.fonts, frame);

  it('keeps typed lines and breaks long ones within the measure', () => {
    expect(linesOf(look('One\nTwo'))).toHaveLength(2);
    const long = linesOf(look('We set out at dusk, forty boats on one rope, and nobody looked back until the harbour light had gone'));
    expect(long.length).toBeGreaterThan(2);
    for (const line of long) expect(line.line.widthEms * line.sizePx).toBeLessThanOrEqual(0.8 * 1280);
  });
  it('breaks a word that is wider than the frame between its letters', () => {
    const lines = linesOf(look('Donaudampfschifffahrtsgesellschaftskapitänsmützenabzeichenverordnung'));
    expect(lines.length).toBeGreaterThan(1);
  });
  it.each([['top-left', 'left', 'top'], ['centre', 'middle', 'middle'], ['bottom-right', 'right', 'bottom']] as const)('places words at %s', (place, across, down) => {
    const [line] = linesOf(look('Regatta', { place }));
    const middle = { x: line!.leftPx + (line!.line.widthEms * line!.sizePx) / 2, y: line!.baselinePx - line!.sizePx / 3 };
    const part = (value: number, size: number, names: readonly string[]) => names[Math.floor((value / size) * 3)];
    expect([part(middle.x, 1280, ['left', 'middle', 'right']), part(middle.y, 720, ['top', 'middle', 'bottom'])]).toEqual([across, down]);
  });
  it('scales with the frame, so that film and viewer break alike', () => {
    const small = linesOf(look('The brass band gets on board and plays until the rain', { subtitle: 'It always does' }), { widthPx: 640, heightPx: 360 });
    const large = linesOf(look('The brass band gets on board and plays until the rain', { subtitle: 'It always does' }), { widthPx: 1920, heightPx: 1080 });
    expect(small.map((line) => line.line.glyphs.length)).toEqual(large.map((line) => line.line.glyphs.length));
    expect(large[0]!.leftPx / small[0]!.leftPx).toBeCloseTo(3, 6);
  });
});

describe('drawWords', () => {
  it('draws white letters with a dark shadow, nothing far from them', () => {
    const { pixels, leftPx, topPx } = drawWords(look('Regatta'), drawing.fonts, drawing.fillOutline, HD)!;
    let [white, dark] = [0, 0];
    for (let at = 0; at < pixels.rgba.length; at += 4) {
      if (pixels.rgba[at]! > 250 && pixels.rgba[at + 3]! > 250) white += 1;
      if (pixels.rgba[at]! < 5 && pixels.rgba[at + 3]! > 60) dark += 1;
    }
    expect(white).toBeGreaterThan(1500);
    expect(dark).toBeGreaterThan(800);
    expect(pixels.rgba[3]).toBeLessThan(12);
    expect([leftPx % 2, topPx % 2, pixels.widthPx % 2, pixels.heightPx % 2]).toEqual([0, 0, 0, 0]);
  });
  it('stays within the frame however much is written', () => {
    const drawn = drawWords(look('much to say '.repeat(60), { place: 'centre' }), drawing.fonts, drawing.fillOutline, HD)!;
    expect([drawn.leftPx >= 0, drawn.topPx >= 0, drawn.leftPx + drawn.pixels.widthPx <= 1280, drawn.topPx + drawn.pixels.heightPx <= 720]).toEqual([true, true, true, true]);
  });
  it('has nothing to draw for spaces', () => {
    expect(drawWords(look('  \n '), drawing.fonts, drawing.fillOutline, HD)).toBeNull();
  });
});

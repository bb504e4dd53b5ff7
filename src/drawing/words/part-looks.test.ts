import { beforeAll, describe, expect, it } from '@jest/globals';
import type { WordsLook } from '../../core/frame/frame-plan';
import type { WordsStyle } from '../../core/show/words';
import { openNodeDrawing, type NodeDrawing } from '../../server/films/node-drawing';
import { whiteLook } from '../checking/letters-plan';
import { drawWords } from './draw-words';

const HD = { widthPx: 1280, heightPx: 720 };
let drawing: NodeDrawing;
beforeAll(async () => {
  drawing = await openNodeDrawing();
});
const look = (title: string, style: WordsStyle, subtitle = ''): WordsLook => ({
  title,
  subtitle,
  place: 'centre',
  style: { shadow: 'none', ...style },
  unit: 'all',
  crawls: false,
  rolls: false,
});
/** How many pixels are more or less of a colour, and where they lie. */
async function inked(of: WordsLook, colour: 'red' | 'white' | 'any') {
  const { pieces } = (await drawWords(of, drawing.fonts, drawing.drawing2d, HD))!;
  let [count, left, right] = [0, Infinity, -Infinity];
  for (const { pixels, leftPx } of pieces)
    for (let at = 0; at < pixels.rgba.length; at += 4) {
      const [r, g, , a] = pixels.rgba.subarray(at, at + 4) as unknown as [number, number, number, number];
      if (a < 128 || (colour === 'red' && g > 100) || (colour === 'white' && g < 150)) continue;
      if (r < 100) continue;
      const x = leftPx + ((at / 4) % pixels.widthPx);
      [count, left, right] = [count + 1, Math.min(left, x), Math.max(right, x)];
    }
  return { count, left, right };
}
const RED = '#e02010';

describe('a part of a line', () => {
  it('has its own colour wherever it stands, and the rest keeps its own', async () => {
    const title = 'Boats and lanterns';
    const plain = await inked(look(title, {}), 'any');
    const of = look(title, { parts: [{ words: 'lanterns', colour: RED }] });
    const [red, white] = [await inked(of, 'red'), await inked(of, 'white')];
    expect(red.count).toBeGreaterThan(0.3 * plain.count);
    expect(red.left).toBeGreaterThan(white.right - 2);
    expect(Math.abs(red.count + white.count - plain.count) / plain.count).toBeLessThan(0.05);
    // The same, letter by letter.
    const { pieces } = (await drawWords({ ...of, unit: 'letter' }, drawing.fonts, drawing.drawing2d, HD))!;
    expect(pieces).toHaveLength('Boats and lanterns'.length);
    expect((await inked({ ...of, unit: 'letter' }, 'red')).count).toBeGreaterThan(0.9 * red.count);
  });
  it('is found across the end of a line and with other spaces between, but not inside a longer word', async () => {
    const red = async (title: string, words: string, subtitle = '') =>
      (await inked(look(title, { parts: [{ words, colour: RED }] }, subtitle), 'red')).count;
    expect(await red('Boats\nand lanterns', 'Boats and')).toBeGreaterThan(await red('Boats\nand lanterns', 'Boats'));
    expect(await red('Boats  and lanterns', 'Boats and')).toBeGreaterThan(0);
    expect(await red('Strain', 'rain')).toBe(0);
    expect(await red('Rain, rain', 'rain')).toBeGreaterThan(0);
    expect(await red('Boats', 'lanterns', 'lanterns')).toBeGreaterThan(0);
    expect(await red('Boats', 'ships')).toBe(0);
  });
  it('is the one that was said last, where two lie on each other', async () => {
    const style = {
      parts: [
        { words: 'and lanterns', colour: '#ffffff' },
        { words: 'lanterns', colour: RED },
      ],
    };
    expect((await inked(look('Boats and lanterns', style), 'red')).count).toBeGreaterThan(0);
    const turned = { parts: [...style.parts].reverse() };
    expect((await inked(look('Boats and lanterns', turned), 'red')).count).toBe(0);
  });
});

describe('letters that lean', () => {
  it('reach further to the right at their heads, stand where they stood, and upright in words that lean', async () => {
    const [upright, leaning] = [await inked(look('HHH', {}), 'any'), await inked(look('HHH', { italic: true }), 'any')];
    expect(leaning.right - upright.right).toBeGreaterThan(6);
    expect(Math.abs(leaning.left - upright.left)).toBeLessThan(4);
    expect(Math.abs(leaning.count - upright.count) / upright.count).toBeLessThan(0.03);
    const part = { words: 'HHH', italic: true } as const;
    expect(await inked(look('HHH', { parts: [part] }), 'any')).toEqual(leaning);
    expect(await inked(look('HHH', { italic: true, parts: [part] }), 'any')).toEqual(upright);
  });
  it('are measured as they lean, in one colour, when it is looked whether they can be read', async () => {
    const of = look('Boats HHH', { parts: [{ words: 'HHH', colour: RED, italic: true }] });
    const measured = whiteLook(of);
    expect((await inked(measured, 'red')).count).toBe(0);
    expect((await inked(measured, 'any')).right).toBe((await inked(of, 'any')).right);
  });
});

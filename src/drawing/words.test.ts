import { beforeAll, describe, expect, it } from '@jest/globals';
import type { WordsLook } from '../core/frame/frame-plan';
import { FONT_NAMES } from '../core/show/words';
import { openNodeDrawing, type NodeDrawing } from '../server/films/node-drawing';
import { drawWords } from './words/draw-words';
import { layOutWords } from './words/lay-out-words';
import { shapeLine } from './words/shape-line';

const HD = { widthPx: 1280, heightPx: 720 };
const look = (title: string, more: Partial<WordsLook> = {}): WordsLook => ({
  title,
  subtitle: '',
  place: 'bottom-left',
  style: {},
  unit: 'all',
  crawls: false,
  rolls: false,
  ...more,
});
let drawing: NodeDrawing;
beforeAll(async () => {
  drawing = await openNodeDrawing();
});
const chain = (text: string) => drawing.fonts.chainFor('bricolage', 700, text);
const shaped = async (text: string, spacing = 0) => shapeLine(text, await chain(text), spacing);

describe('shapeLine', () => {
  it('kerns: “AV” is narrower than its letters apart', async () => {
    const width = async (text: string) => (await shaped(text)).widthEms;
    expect(await width('AV')).toBeLessThan((await width('A')) + (await width('V')) - 0.005);
  });
  it.each([
    'Łódź ŐŰ',
    'Ångström',
    'Đặng Thùy',
    'مهرجان الفوانيس',
    'ליל הפנסים',
    'दीपों की रात',
    'คืนแห่งโคมไฟ',
    '灯笼赛舟之夜',
    '燈籠賽舟之夜 們 體',
    'ひかり カナ',
    '등불 축제의 밤',
    'Νύχτα με φαναράκια ὦ',
    'Ночь',
    'ґедзь ў',
    '🏮⛵🥧',
  ])('has a glyph for every character of “%s”', async (text) => {
    expect((await shaped(text)).glyphs.every((glyph) => glyph.glyph !== 0)).toBe(true);
  });
  it('has every family that can be chosen, each drawn in itself, with the letters of Europe', async () => {
    const widths = new Map<string, number>();
    for (const name of FONT_NAMES) {
      const line = shapeLine(
        'Hamburgefonstiv Straße Łódź Ångström',
        await drawing.fonts.chainFor(name, 600, 'Hamburgefonstiv Straße Łódź Ångström'),
      );
      expect(line.glyphs.every((glyph) => glyph.glyph !== 0)).toBe(true);
      widths.set(name, Math.round(1e4 * line.widthEms));
    }
    // No two are the same font under two names.
    expect(new Set(widths.values()).size).toBe(FONT_NAMES.length);
    expect(FONT_NAMES.length).toBeGreaterThanOrEqual(14);
  });
  it('orders right-to-left runs as they are read', async () => {
    const line = await shaped('ab אב');
    expect(line.glyphs.map((glyph) => glyph.x)).toEqual([...line.glyphs.map((glyph) => glyph.x)].sort((a, b) => a - b));
    expect(line.glyphs.map((glyph) => glyph.at)).toEqual([0, 1, 2, 4, 3]);
  });
  it('joins Arabic letters: a letter within a word is another shape than by itself', async () => {
    // Its dot is a glyph of its own and the same everywhere; its body is not.
    const bodies = (line: Awaited<ReturnType<typeof shaped>>) =>
      line.glyphs.filter((glyph) => glyph.advance > 0).map((glyph) => glyph.glyph);
    const [alone] = bodies(await shaped('ف'));
    const joined = bodies(await shaped('ففف'));
    expect(new Set(joined).size).toBe(3);
    expect(joined).not.toContain(alone);
  });
  it('forms Devanagari clusters and puts their vowel signs where they are read', async () => {
    // KA + virama + SSA become one conjunct; the sign of a short I goes before its letter.
    expect((await shaped('क्ष')).glyphs).toHaveLength(1);
    const [sign, letter] = (await shaped('कि')).glyphs;
    expect(sign!.glyph).not.toBe((await shaped('क')).glyphs[0]!.glyph);
    expect(letter!.glyph).toBe((await shaped('क')).glyphs[0]!.glyph);
  });
  it('draws a family of emoji as one', async () => {
    expect((await shaped('👩‍🚀')).glyphs).toHaveLength(1);
  });
  it.each(['🎉', '1️⃣', '#️⃣', '☀️', '⚽', '❤️', '🇫🇮', '👩‍👩‍👧', '👋🏽', '🏴󠁧󠁢󠁳󠁣󠁴󠁿', '🎉 1️⃣ ☀️'])(
    'draws %s in colour, also when nothing else is written',
    async (text) => {
      const { glyphs } = await shaped(text);
      const signs = glyphs.filter((glyph) => glyph.advance > 0 && text[glyph.at] !== ' ');
      expect(signs.map((glyph) => [glyph.isEmoji, glyph.glyph !== 0])).toEqual(signs.map(() => [true, true]));
      expect(signs).toHaveLength(text.split(' ').length);
    },
  );
  it.each(['12 boats', '☀︎', 'a#b*c', 'x ☺ y'])(
    'leaves signs that are no pictures in “%s” to the letters’ font, or to the one that has them',
    async (text) => {
      const { glyphs } = await shaped(text);
      expect(glyphs.filter((glyph) => /[\w#*\s]/.test(text[glyph.at]!)).every((glyph) => !glyph.isEmoji)).toBe(true);
      expect(glyphs.every((glyph) => glyph.glyph !== 0 || glyph.advance === 0)).toBe(true);
    },
  );
  it('spaces letters, but never tears those that hang together', async () => {
    expect((await shaped('boat', 0.1)).widthEms).toBeCloseTo((await shaped('boat')).widthEms + 0.4, 6);
    expect((await shaped('فانوس', 0.1)).widthEms).toBeCloseTo((await shaped('فانوس')).widthEms, 6);
  });
});

describe('layOutWords', () => {
  const laidOut = async (of: WordsLook, frame = HD) =>
    layOutWords(of, { title: await chain(of.title), text: await chain(of.subtitle) }, frame);
  const linesOf = async (of: WordsLook, frame = HD, crawls = false) => (await laidOut({ ...of, crawls }, frame)).lines;

  it('keeps typed lines and breaks long ones within the measure', async () => {
    expect(await linesOf(look('One\nTwo'))).toHaveLength(2);
    const long = await linesOf(
      look('We set out at dusk, forty boats on one rope, and nobody looked back until the harbour light had gone'),
    );
    expect(long.length).toBeGreaterThan(2);
    for (const line of long) expect(line.line.widthEms * line.sizePx).toBeLessThanOrEqual(0.8 * 1280);
  });
  it('sets credits that roll in two columns where a line has a tab or two spaces, one row each', async () => {
    const subtitle = 'Brass band  The Slipway Five\nPies\tWren & Daughters\n\nWith thanks to the harbour';
    const lines = (await linesOf(look('', { subtitle, rolls: true, place: 'centre' }))).filter(
      (line) => line.line.text.trim() !== '',
    );
    const edges = lines.map((line) => ({
      text: line.line.text,
      left: Math.round(line.leftPx),
      right: Math.round(line.leftPx + line.line.widthEms * line.sizePx),
      row: Math.round(line.baselinePx),
    }));
    const [role, name, pies, bakers, thanks] = edges;
    expect(edges.map((edge) => edge.text)).toEqual([
      'Brass band',
      'The Slipway Five',
      'Pies',
      'Wren & Daughters',
      'With thanks to the harbour',
    ]);
    expect([role!.row, pies!.row]).toEqual([name!.row, bakers!.row]);
    expect([role!.right, name!.left]).toEqual([pies!.right, bakers!.left]);
    expect(Math.abs((role!.right + name!.left) / 2 - 640)).toBeLessThanOrEqual(1);
    expect(thanks!.row).toBeGreaterThan(pies!.row + 2 * (pies!.row - role!.row) - 2);
    // Words that stand are no credits: two spaces are two spaces.
    expect(await linesOf(look('', { subtitle: 'Pies  Wren' }))).toHaveLength(1);
  });
  it('breaks Thai between its words, never before a mark', async () => {
    const text = 'งานเทศกาลโคมไฟที่ท่าเรือของเมืองพอร์ตเอลเลอรีในคืนวันเสาร์ที่สิบสี่มิถุนายน';
    const lines = await linesOf(look(text, { style: { measure: 0.35 } }));
    expect(lines.length).toBeGreaterThan(2);
    expect(lines.map((line) => line.line.text).join('')).toBe(text);
    const words = new Set([...new Intl.Segmenter('th', { granularity: 'word' }).segment(text)].map((one) => one.index));
    let at = 0;
    for (const { line } of lines) {
      expect(words.has(at)).toBe(true);
      expect(line.text).not.toMatch(/^[\p{M}\u0e33]/u);
      at += line.text.length;
    }
  });
  it('lays out 200 strings of emoji, Thai, German and mixed scripts whole: nothing lost, boxed, torn apart or outside the frame', async () => {
    const parts = [
      ['🎉', '1️⃣', '☀️', '⚽', '👩‍👩‍👧‍👦', '🇫🇷', '👋🏽', '🏴‍☠️', '❤️‍🔥', '#️⃣', '🏮', '🧑‍🚀'],
      ['เก้าอี้', 'ใหญ่ที่สุด', 'งานโคมไฟ', 'ท่าเรือของเมือง', 'น้ำขึ้นให้รีบตัก', 'โรงเรียน', 'แม่น้ำ'],
      [
        'Donaudampfschifffahrt',
        'Laternenumzug',
        'Straßenübergang',
        'Großmutters',
        'Hafenrundfahrtsgesellschaft',
        'ÄRGER',
        'im',
      ],
      ['Ночь', 'ليلة', 'לילה', '灯笼之夜', 'रात', '등불', 'Łódź', '2031', '–', '“Pies”', '½', 'Đặng'],
    ];
    const deal = (index: number, of: readonly string[]) => of[(index * 7 + (index >> 2) * 3) % of.length]!;
    const texts = Array.from({ length: 200 }, (_, index) => {
      const own = parts[index % 4]!;
      const other = parts[(index >> 2) % 4]!;
      const words = [
        deal(index, own),
        deal(index + 1, other),
        deal(index + 2, own),
        deal(index + 3, own),
        deal(index + 5, other),
      ];
      // Thai is written without spaces; emoji are strung together by every third person.
      return words.slice(0, 1 + (index % 5)).join(own === parts[1] || index % 3 === 0 ? '' : ' ');
    });
    const bare = (text: string) => text.replaceAll(/[\s-]/g, '');
    const faults: string[] = [];
    for (const [index, text] of texts.entries()) {
      const words = await laidOut(
        look(text, { style: { size: 0.09 + 0.01 * (index % 4), measure: 0.3 + 0.1 * (index % 5) } }),
      );
      const lines = words.lines.map(({ line }) => line);
      const measurePx = (0.3 + 0.1 * (index % 5)) * HD.widthPx;
      const clusters = [...new Intl.Segmenter('en', { granularity: 'grapheme' }).segment(text)].map(
        (one) => one.segment,
      );
      const say = (fault: string) => faults.push(`${text}: ${fault}`);
      if (bare(lines.map((line) => line.text).join('')) !== bare(text)) say('something is lost');
      if (lines.some((line) => line.glyphs.some((glyph) => glyph.glyph === 0))) say('a box');
      if (words.lines.some(({ line, sizePx }) => line.widthEms * sizePx > measurePx + 1)) say('wider than its measure');
      if (words.topPx < 0 || words.topPx + words.heightPx > HD.heightPx) say('outside the frame');
      if (lines.some((line) => /^[\p{M}\u0e33\u200d]/u.test(line.text) || /[เแโใไ\u200d]$/u.test(line.text)))
        say('torn apart');
      for (const cluster of clusters.filter((one) => /\p{Emoji_Presentation}|\ufe0f/u.test(one))) {
        const line = lines.find((one) => one.text.includes(cluster));
        const drawn = line?.glyphs.filter((glyph) => glyph.at === line.text.indexOf(cluster)) ?? [];
        if (drawn.length !== 1 || !drawn[0]!.isEmoji) say(`${cluster} is not one picture`);
      }
    }
    expect(faults).toEqual([]);
  });
  it('leaves no short last line under a title, and takes no more lines for it', async () => {
    const widths = async (title: string) =>
      (await linesOf(look(title, { style: { size: 0.09, measure: 0.55 } }))).map((line) => line.line.widthEms);
    const [first, second, third, ...more] = await widths('The brass band gets on board the last boat home');
    expect(more).toEqual([]);
    expect(Math.min(first!, second!, third!) / Math.max(first!, second!, third!)).toBeGreaterThan(0.7);
    expect(await widths('Pies first')).toHaveLength(1);
  });
  it('makes words smaller until the longest is whole, and tears with a hyphen what still is not', async () => {
    const small = await laidOut(look('Lanternmakersfestival', { style: { size: 0.14, measure: 0.6 } }));
    expect([small.lines.length, small.scale < 1, small.scale > 0.65]).toEqual([1, true, true]);
    const torn = await laidOut(
      look('Donaudampfschifffahrtsgesellschaftskapitänsmützenfabrikantenverband', {
        style: { size: 0.1, measure: 0.5 },
      }),
    );
    expect(torn.scale).toBeCloseTo(0.65, 2);
    expect(torn.lines.slice(0, -1).every((line) => line.line.text.endsWith('-'))).toBe(true);
    expect(torn.lines.at(-1)!.line.text).not.toMatch(/-|^.{0,2}$/);
  });
  it('makes a title that is too long for the frame smaller, says by how much, and lets credits roll at their size', async () => {
    const long = 'and about boats, pies, rain and lanterns '.repeat(12);
    const words = await laidOut(look(long, { style: { size: 0.12, measure: 0.4 }, place: 'right' }));
    expect(words.scale).toBeLessThan(0.6);
    expect(words.topPx).toBeGreaterThan(0);
    expect(words.topPx + words.heightPx).toBeLessThan(720);
    expect((await laidOut(look(long, { rolls: true }))).scale).toBe(1);
    expect((await laidOut(look('Pies first'))).scale).toBe(1);
  });
  it('breaks a word that is wider than the frame between its letters', async () => {
    const lines = await linesOf(look('Donaudampfschifffahrtsgesellschaftskapitänsmützenabzeichenverordnung'));
    expect(lines.length).toBeGreaterThan(1);
  });
  it.each([
    ['top-left', 'left', 'top'],
    ['centre', 'middle', 'middle'],
    ['bottom-right', 'right', 'bottom'],
  ] as const)('places words at %s', async (place, across, down) => {
    const [line] = await linesOf(look('Regatta', { place }));
    const middle = {
      x: line!.leftPx + (line!.line.widthEms * line!.sizePx) / 2,
      y: line!.baselinePx - line!.sizePx / 3,
    };
    const part = (value: number, size: number, names: readonly string[]) => names[Math.floor((value / size) * 3)];
    expect([
      part(middle.x, 1280, ['left', 'middle', 'right']),
      part(middle.y, 720, ['top', 'middle', 'bottom']),
    ]).toEqual([across, down]);
  });
  it('scales with the frame, so that film and viewer break alike', async () => {
    const small = await linesOf(
      look('The brass band gets on board and plays until the rain', { subtitle: 'It always does' }),
      { widthPx: 640, heightPx: 360 },
    );
    const large = await linesOf(
      look('The brass band gets on board and plays until the rain', { subtitle: 'It always does' }),
      { widthPx: 1920, heightPx: 1080 },
    );
    expect(small.map((line) => line.line.glyphs.length)).toEqual(large.map((line) => line.line.glyphs.length));
    expect(large[0]!.leftPx / small[0]!.leftPx).toBeCloseTo(3, 6);
  });
  it('keeps everything on one line for a crawl', async () => {
    expect(
      await linesOf(
        look('One\nTwo and a great deal more than would ever fit into the frame at once, again and again and again'),
        HD,
        true,
      ),
    ).toHaveLength(1);
  });
  it('aligns lines by themselves', async () => {
    const [long, short] = await linesOf(
      look('A long first line\nshort', { place: 'centre', style: { align: 'right' } }),
    );
    const rightEnd = (line: typeof long) => line!.leftPx + line!.line.widthEms * line!.sizePx;
    expect(rightEnd(short)).toBeCloseTo(rightEnd(long), 6);
  });
});

describe('drawWords', () => {
  const drawn = (of: WordsLook) => drawWords(of, drawing.fonts, drawing.drawing2d, HD);

  it('draws white letters with a dark shadow, nothing far from them', async () => {
    const { pixels, leftPx, topPx } = (await drawn(look('Regatta')))!.pieces[0]!;
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
  it('stays within the frame however much is written', async () => {
    const [piece] = (await drawn(look('much to say '.repeat(60), { place: 'centre' })))!.pieces;
    expect([
      piece!.leftPx >= 0,
      piece!.topPx >= 0,
      piece!.leftPx + piece!.pixels.widthPx <= 1280,
      piece!.topPx + piece!.pixels.heightPx <= 720,
    ]).toEqual([true, true, true, true]);
  });
  it('has nothing to draw for spaces', async () => {
    expect(await drawn(look('  \n '))).toBeNull();
  });
  it.each([
    ['line', 2],
    ['word', 3],
    ['letter', 14],
  ] as const)('takes words apart by %s, all shadows before all faces', async (unit, count) => {
    const words = (await drawn(look('We set\noutwards', { unit })))!;
    expect(words.counts[unit]).toBe(count);
    const half = words.pieces.length / 2;
    expect(words.pieces.slice(0, half).map((piece) => piece.letter)).toEqual(
      words.pieces.slice(half).map((piece) => piece.letter),
    );
  });
  it('draws emoji in their own colours', async () => {
    const [piece] = (await drawn(look('🏮', { style: { shadow: 'none' } })))!.pieces;
    let red = 0;
    for (let at = 0; at < piece!.pixels.rgba.length; at += 4)
      if (piece!.pixels.rgba[at]! > 150 && piece!.pixels.rgba[at + 1]! < 90 && piece!.pixels.rgba[at + 3]! > 200)
        red += 1;
    expect(red).toBeGreaterThan(150);
  });
  it('puts colour, outline and box where the style says', async () => {
    const words = (await drawn(
      look('Pie', {
        style: {
          colour: '#00ff00',
          outline: { colour: '#0000ff', width: 0.06 },
          shadow: 'none',
          box: { colour: '#ff0000', opacity: 1, padding: 0.3, radius: 0 },
        },
      }),
    ))!;
    const [box, face] = words.pieces;
    expect([...box!.pixels.rgba.subarray(0, 4)]).toEqual([255, 0, 0, 255]);
    const has = (r: number, g: number, b: number) => {
      for (let at = 0; at < face!.pixels.rgba.length; at += 4)
        if (
          face!.pixels.rgba[at] === r &&
          face!.pixels.rgba[at + 1] === g &&
          face!.pixels.rgba[at + 2] === b &&
          face!.pixels.rgba[at + 3] === 255
        )
          return true;
      return false;
    };
    expect([has(0, 255, 0), has(0, 0, 255), has(255, 255, 255)]).toEqual([true, true, false]);
  });
});

import type { WordsLook } from '../../core/frame/frame-plan';
import { blur } from '../plates/gaussian';
import type { Pixels } from '../planes/picture-planes';
import type { FontShelf } from './fonts';
import { layOutWords, type LaidOutWords, type PlacedLine } from './lay-out-words';
import type { Drawing2d } from './outline';
import { paintColourGlyph } from './paint-colour-glyph';
import { partLooks, type PartLook } from './part-looks';
import { UNITS, type PlacedGlyph } from './shape-line';

/** Words as pixels at their place in the frame, in pieces that come and go by themselves; `leftPx` and `topPx` are even, since chroma has half the samples. */
export interface DrawnWords {
  readonly pieces: readonly DrawnPiece[];
  readonly counts: Readonly<Record<'line' | 'word' | 'letter', number>>;
  readonly topPx: number;
  readonly heightPx: number;
  /** How much smaller they are than was asked, so that they fit. */
  readonly scale: number;
  /** Of the longest line. */
  readonly leftPx: number;
  readonly widthPx: number;
}

export interface DrawnPiece {
  readonly pixels: Pixels;
  readonly leftPx: number;
  readonly topPx: number;
  /** Of its letters. */
  readonly sizePx: number;
  readonly line: number;
  readonly word: number;
  readonly letter: number;
  readonly rightToLeft: boolean;
}

/** The shadow's softness and fall, as shares of the letter size; strong enough to read white on a bright sky. */
const USUAL_SHADOW = { colour: '#000000', opacity: 0.72, softness: 0.11, x: 0, y: 0.04 };
/** How far letters that lean go to the right, as a share of their height: the tangent of 11°. */
const LEANS = 0.194;
/** What a wide blur loses in strength at thin strokes. */
const SHADOW_GAIN = 1.6;
const TITLE_WEIGHT = 700;
const TEXT_WEIGHT = 500;

interface Piece {
  readonly glyphs: { readonly glyph: PlacedGlyph; readonly of: PlacedLine }[];
  readonly line: number;
  readonly word: number;
  readonly letter: number;
}

/** Draws words once for a frame size: outlines from the fonts, with their outline, shadow and box. @returns null when there is nothing to see */
export async function drawWords(
  look: WordsLook,
  shelf: FontShelf,
  drawing: Drawing2d,
  frame: { readonly widthPx: number; readonly heightPx: number },
): Promise<DrawnWords | null> {
  const { style } = look;
  const [title, text] = await Promise.all([
    shelf.chainFor(style.font ?? 'bricolage', style.weight ?? TITLE_WEIGHT, look.title),
    shelf.chainFor(
      style.subtitleFont ?? style.font ?? 'instrument',
      style.weight === undefined ? TEXT_WEIGHT : Math.min(style.weight, TEXT_WEIGHT + 100),
      look.subtitle,
    ),
  ]);
  const words = layOutWords(look, { title, text }, frame);
  const lines = words.lines.filter((line) => line.line.glyphs.length > 0);
  if (lines.length === 0) return null;
  const { pieces, counts } = piecesOf(lines, look);
  const travels = look.crawls || look.rolls;
  const partOf = partLooks(lines, look.style.parts);
  const drawn = pieces.flatMap((piece) => drawPiece(piece, look, partOf, drawing, travels ? null : frame));
  // All shadows first: none falls on a neighbour's face.
  const ordered = [
    ...boxOf(words, lines, look, drawing),
    ...drawn.filter((piece) => piece.isShadow),
    ...drawn.filter((piece) => !piece.isShadow),
  ];
  const leftPx = Math.min(...lines.map((line) => line.leftPx));
  return {
    pieces: ordered.map(({ piece }) => piece),
    counts,
    topPx: words.topPx,
    heightPx: words.heightPx,
    scale: words.scale,
    leftPx,
    widthPx: Math.max(...lines.map((line) => line.leftPx + line.line.widthEms * line.sizePx)) - leftPx,
  };
}

function piecesOf(lines: readonly PlacedLine[], look: WordsLook): { pieces: Piece[]; counts: DrawnWords['counts'] } {
  const byKey = new Map<string, Piece>();
  let words = 0;
  let letters = 0;
  lines.forEach((of, line) => {
    // In the order they are read, which for Arabic and Hebrew is not that in which they stand.
    const reading = [...of.line.glyphs].sort((a, b) => a.at - b.at);
    let before = -1;
    for (const glyph of reading) {
      const between = of.line.text.slice(Math.max(0, before), glyph.at);
      if (before < 0 || /\s/.test(between)) words += 1;
      if (glyph.at !== before) letters += 1;
      before = glyph.at;
      const key = { all: 'all', line: `l${line}`, word: `w${words}`, letter: `c${letters}` }[look.unit];
      const piece = byKey.get(key) ?? { glyphs: [], line, word: words - 1, letter: letters - 1 };
      piece.glyphs.push({ glyph, of });
      byKey.set(key, piece);
    }
  });
  return { pieces: [...byKey.values()], counts: { line: lines.length, word: words, letter: letters } };
}

interface Drawn {
  readonly piece: DrawnPiece;
  readonly isShadow: boolean;
}

/** @param frame what is outside it is left out; null for words that travel in from outside */
function drawPiece(
  piece: Piece,
  look: WordsLook,
  partOf: PartLook,
  drawing: Drawing2d,
  frame: { readonly widthPx: number; readonly heightPx: number } | null,
): Drawn[] {
  const { style } = look;
  const sizePx = Math.max(...piece.glyphs.map(({ of }) => of.sizePx));
  const shadow = style.shadow === 'none' ? null : (style.shadow ?? USUAL_SHADOW);
  const room = Math.ceil(
    sizePx *
      (0.45 +
        (style.outline?.width ?? 0) +
        (shadow ? 3 * shadow.softness + Math.max(Math.abs(shadow.x), Math.abs(shadow.y)) : 0)),
  );
  const edges = piece.glyphs.map(({ glyph, of }) => ({
    left: of.leftPx + glyph.x * of.sizePx,
    right: of.leftPx + (glyph.x + Math.max(glyph.advance, 0.3)) * of.sizePx,
    top: of.baselinePx - of.sizePx,
    bottom: of.baselinePx + 0.3 * of.sizePx,
  }));
  const held = (value: number, most: number) => (frame ? Math.min(most, Math.max(0, value)) : value);
  const leftPx = evenDown(held(Math.min(...edges.map((edge) => edge.left)) - room, frame?.widthPx ?? 0));
  const topPx = evenDown(held(Math.min(...edges.map((edge) => edge.top)) - room, frame?.heightPx ?? 0));
  const widthPx = evenDown(
    held(Math.ceil(Math.max(...edges.map((edge) => edge.right)) + room), frame?.widthPx ?? 0) - leftPx,
  );
  const heightPx = evenDown(
    held(Math.ceil(Math.max(...edges.map((edge) => edge.bottom)) + room), frame?.heightPx ?? 0) - topPx,
  );
  if (widthPx < 2 || heightPx < 2 || widthPx > 8000) return [];

  const canvas = drawing.open(widthPx, heightPx);
  const { context } = canvas;
  const plain = piece.glyphs.filter(({ glyph }) => !glyph.isEmoji);
  for (const title of [true, false]) {
    const letters = plain
      .filter(({ of }) => of.isTitle === title)
      .map((one) => {
        const part = partOf(one.of, one.glyph.at);
        // In words that lean, a part that leans stands upright.
        return { ...one, colour: part?.colour ?? null, leans: (style.italic ?? false) !== (part?.italic ?? false) };
      });
    const path = outlineOf(letters, leftPx, topPx);
    if (path === '') continue;
    if (style.outline) {
      context.strokeStyle = style.outline.colour;
      context.lineJoin = 'round';
      context.lineWidth = 2 * style.outline.width * sizePx;
      context.stroke(drawing.path(path));
    }
    const usual = title ? (style.colour ?? '#ffffff') : (style.accent ?? style.colour ?? '#ffffff');
    for (const colour of new Set(letters.map((letter) => letter.colour))) {
      const own = letters.filter((letter) => letter.colour === colour);
      context.fillStyle = colour ?? usual;
      context.fill(drawing.path(own.length === letters.length ? path : outlineOf(own, leftPx, topPx)));
    }
  }
  for (const { glyph, of } of piece.glyphs) {
    if (!glyph.isEmoji) continue;
    paintColourGlyph(
      drawing,
      canvas,
      widthPx,
      heightPx,
      glyph.font,
      glyph.glyph,
      of.leftPx - leftPx + glyph.x * of.sizePx,
      of.baselinePx - topPx - glyph.y * of.sizePx,
      of.sizePx / UNITS,
    );
  }
  const face = canvas.pixels();
  const place = {
    leftPx,
    topPx,
    sizePx,
    line: piece.line,
    word: piece.word,
    letter: piece.letter,
    rightToLeft: piece.glyphs[0]!.of.line.rightToLeft,
  };
  const as = (rgba: Uint8ClampedArray, isShadow: boolean): Drawn => ({
    isShadow,
    piece: { ...place, pixels: { widthPx, heightPx, rgba, hasTransparency: true } },
  });
  if (!shadow) return [as(face, false)];
  const alpha = shadowOf(face, widthPx, heightPx, {
    x: shadow.x * sizePx,
    y: shadow.y * sizePx,
    sigma: shadow.softness * sizePx,
    opacity: shadow.opacity,
  });
  if (look.unit === 'all') return [as(faceOnShadow(face, alpha, shadow.colour), false)];
  return [as(coloured(alpha, shadow.colour), true), as(face, false)];
}

/** All glyphs as one path, in pixels. Three decimals: both engines then read the very same numbers. */
function outlineOf(
  glyphs: readonly (Piece['glyphs'][number] & { readonly leans: boolean })[],
  leftPx: number,
  topPx: number,
): string {
  const parts: string[] = [];
  for (const { glyph, of, leans } of glyphs) {
    const scale = of.sizePx / UNITS;
    const lean = leans ? LEANS : 0;
    const x = of.leftPx - leftPx + (glyph.x + lean * glyph.y) * of.sizePx;
    const y = of.baselinePx - topPx - glyph.y * of.sizePx;
    for (const command of glyph.font.glyphToJson(glyph.glyph)) {
      const { values } = command;
      const numbers = values.map((value, index) =>
        (index % 2 === 0 ? x + (value + lean * values[index + 1]!) * scale : y - value * scale).toFixed(3),
      );
      parts.push(command.type + numbers.join(' '));
    }
  }
  return parts.join('');
}

function shadowOf(
  face: Uint8ClampedArray,
  widthPx: number,
  heightPx: number,
  how: { x: number; y: number; sigma: number; opacity: number },
): Float32Array {
  const shadow = new Float32Array(widthPx * heightPx);
  const [dx, dy] = [Math.round(how.x), Math.round(how.y)];
  for (let y = Math.max(0, dy); y < Math.min(heightPx, heightPx + dy); y += 1) {
    for (let x = Math.max(0, dx); x < Math.min(widthPx, widthPx + dx); x += 1)
      shadow[y * widthPx + x] = face[4 * ((y - dy) * widthPx + x - dx) + 3]! / 255;
  }
  blur(shadow, widthPx, heightPx, Math.max(0.5, how.sigma));
  for (let index = 0; index < shadow.length; index += 1)
    shadow[index] = Math.min(1, shadow[index]! * SHADOW_GAIN) * how.opacity;
  return shadow;
}

function faceOnShadow(face: Uint8ClampedArray, shadow: Float32Array, colour: string): Uint8ClampedArray {
  const [r, g, b] = channels(colour);
  const out = new Uint8ClampedArray(face.length);
  for (let index = 0; index < shadow.length; index += 1) {
    const letter = face[4 * index + 3]! / 255;
    const rest = (1 - letter) * shadow[index]!;
    const alpha = letter + rest;
    if (alpha === 0) continue;
    out[4 * index] = (face[4 * index]! * letter + r * rest) / alpha;
    out[4 * index + 1] = (face[4 * index + 1]! * letter + g * rest) / alpha;
    out[4 * index + 2] = (face[4 * index + 2]! * letter + b * rest) / alpha;
    out[4 * index + 3] = alpha * 255;
  }
  return out;
}

function coloured(alpha: Float32Array, colour: string): Uint8ClampedArray {
  const [r, g, b] = channels(colour);
  const out = new Uint8ClampedArray(4 * alpha.length);
  for (let index = 0; index < alpha.length; index += 1) out.set([r, g, b, alpha[index]! * 255], 4 * index);
  return out;
}

/** A box behind all lines, which comes and goes as a whole. */
function boxOf(words: LaidOutWords, lines: readonly PlacedLine[], look: WordsLook, drawing: Drawing2d): Drawn[] {
  const { box } = look.style;
  if (!box) return [];
  const sizePx = Math.max(...lines.map((line) => line.sizePx));
  const room = box.padding * sizePx;
  const leftPx = evenDown(Math.min(...lines.map((line) => line.leftPx)) - room);
  const topPx = evenDown(words.topPx - room);
  const widthPx = evenDown(
    Math.min(
      8000,
      Math.ceil(Math.max(...lines.map((line) => line.leftPx + line.line.widthEms * line.sizePx)) + room) - leftPx,
    ),
  );
  const heightPx = evenDown(Math.ceil(words.topPx + words.heightPx + room) - topPx);
  if (widthPx < 2 || heightPx < 2) return [];
  const canvas = drawing.open(widthPx, heightPx);
  canvas.context.fillStyle = box.colour;
  canvas.context.beginPath();
  canvas.context.roundRect(0, 0, widthPx, heightPx, Math.min(box.radius * sizePx, heightPx / 2, widthPx / 2));
  canvas.context.fill();
  const rgba = canvas.pixels();
  for (let at = 3; at < rgba.length; at += 4) rgba[at] = rgba[at]! * box.opacity;
  return [
    {
      isShadow: true,
      piece: {
        pixels: { widthPx, heightPx, rgba, hasTransparency: true },
        leftPx,
        topPx,
        sizePx,
        line: -1,
        word: -1,
        letter: -1,
        rightToLeft: false,
      },
    },
  ];
}

function channels(colour: string): [r: number, g: number, b: number] {
  return [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16)) as [number, number, number];
}

function evenDown(value: number): number {
  return Math.floor(value / 2) * 2;
}

import type { WordsLook } from '../../core/frame/frame-plan';
import { blur } from '../planes/blurred-backing';
import type { Pixels } from '../planes/picture-planes';
import type { Fonts } from './fonts';
import { layOutWords, type PlacedLine } from './lay-out-words';

/** Fills outlines white on nothing and hands out the pixels. Differs between browser and server only in where its 2D context comes from. */
export type FillOutline = (svgPath: string, widthPx: number, heightPx: number) => Uint8ClampedArray;

/** Words as pixels at their place in the frame; `leftPx` and `topPx` are even, since chroma has half the samples. */
export interface DrawnWords {
  readonly pixels: Pixels;
  readonly leftPx: number;
  readonly topPx: number;
}

/** The shadow's softness and fall, as shares of the letter size; strong enough to read white on a bright sky. */
const SHADOW_SIGMA = 0.11;
const SHADOW_FALL = 0.04;
const SHADOW_STRENGTH = 0.72;

/**
 * Draws words once for a frame size: outlines from the fonts, white, with a soft dark shadow.
 *
 * @returns null when there is nothing to see
 */
export function drawWords(look: WordsLook, fonts: Fonts, fill: FillOutline, frame: { readonly widthPx: number; readonly heightPx: number }): DrawnWords | null {
  const lines = layOutWords(look, fonts, frame).filter((line) => line.line.glyphs.length > 0);
  if (lines.length === 0) return null;
  const largestPx = Math.max(...lines.map((line) => line.sizePx));
  const room = Math.ceil(largestPx * 0.6);
  const leftPx = evenDown(Math.max(0, Math.min(...lines.map((line) => line.leftPx)) - room));
  const topPx = evenDown(Math.max(0, Math.min(...lines.map((line) => line.baselinePx - line.sizePx)) - room));
  const rightPx = Math.min(frame.widthPx, Math.ceil(Math.max(...lines.map((line) => line.leftPx + line.line.widthEms * line.sizePx)) + room));
  const bottomPx = Math.min(frame.heightPx, Math.ceil(Math.max(...lines.map((line) => line.baselinePx + 0.3 * line.sizePx)) + room));
  const widthPx = evenDown(rightPx - leftPx);
  const heightPx = evenDown(bottomPx - topPx);
  if (widthPx < 2 || heightPx < 2) return null;
  const letters = fill(outlineOf(lines, leftPx, topPx), widthPx, heightPx);
  return { pixels: { widthPx, heightPx, rgba: withShadow(letters, widthPx, heightPx, largestPx), hasTransparency: true }, leftPx, topPx };
}

/** All glyphs as one path, in pixels. Three decimals: both engines then read the very same numbers. */
function outlineOf(lines: readonly PlacedLine[], leftPx: number, topPx: number): string {
  const parts: string[] = [];
  for (const placed of lines) {
    for (const glyph of placed.line.glyphs) {
      const scale = placed.sizePx / 2048;
      const x = placed.leftPx - leftPx + glyph.x * placed.sizePx;
      const y = placed.baselinePx - topPx - glyph.y * placed.sizePx;
      for (const command of glyph.font.glyphToJson(glyph.glyph)) {
        const numbers = command.values.map((value, index) => (index % 2 === 0 ? x + value * scale : y - value * scale).toFixed(3));
        parts.push(command.type + numbers.join(' '));
      }
    }
  }
  return parts.join('');
}

function withShadow(letters: Uint8ClampedArray, widthPx: number, heightPx: number, sizePx: number): Uint8ClampedArray {
  const count = widthPx * heightPx;
  const fall = Math.round(SHADOW_FALL * sizePx);
  const shadow = new Float32Array(count);
  for (let index = 0; index + fall * widthPx < count; index += 1) shadow[index + fall * widthPx] = letters[4 * index + 3]! / 255;
  blur(shadow, widthPx, heightPx, Math.max(0.5, SHADOW_SIGMA * sizePx));
  const out = new Uint8ClampedArray(4 * count);
  for (let index = 0; index < count; index += 1) {
    const letter = letters[4 * index + 3]! / 255;
    const alpha = letter + (1 - letter) * Math.min(1, shadow[index]! * 1.6) * SHADOW_STRENGTH;
    // White letters over a black shadow, as straight alpha.
    const white = alpha > 0 ? Math.round((letter / alpha) * 255) : 0;
    out[4 * index] = white;
    out[4 * index + 1] = white;
    out[4 * index + 2] = white;
    out[4 * index + 3] = Math.round(alpha * 255);
  }
  return out;
}

function evenDown(value: number): number {
  return Math.floor(value / 2) * 2;
}

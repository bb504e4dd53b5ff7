import { PaintFuncs, type Font } from 'harfbuzzjs';
import type { Canvas2d, Drawing2d } from './outline';

interface Line {
  readonly colorStops: readonly { readonly offset: number; readonly color: Shade }[];
}
interface Shade {
  readonly red: number;
  readonly green: number;
  readonly blue: number;
  readonly alpha: number;
}

/** Larger than any glyph, in font units. */
const EVERYWHERE = 1e5;

/** By the numbers of OpenType's CompositeMode (COLR table, version 1). */
const MODES: readonly GlobalCompositeOperation[] = [
  'copy',
  'copy',
  'destination-over',
  'source-over',
  'destination-over',
  'source-in',
  'destination-in',
  'source-out',
  'destination-out',
  'source-atop',
  'destination-atop',
  'xor',
  'lighter',
  'screen',
  'overlay',
  'darken',
  'lighten',
  'color-dodge',
  'color-burn',
  'hard-light',
  'soft-light',
  'difference',
  'exclusion',
  'multiply',
  'hue',
  'saturation',
  'color',
  'luminosity',
];

/**
 * Paints a glyph in colour as its font describes it (OpenType COLR), e.g. an emoji.
 *
 * @param scale pixels per font unit; (x, y) is the glyph's origin on the canvas
 */
export function paintColourGlyph(
  drawing: Drawing2d,
  canvas: Canvas2d,
  widthPx: number,
  heightPx: number,
  font: Font,
  glyph: number,
  x: number,
  y: number,
  scale: number,
): void {
  const pile: Canvas2d[] = [canvas];
  const top = () => pile.at(-1)!.context;
  const paints = new PaintFuncs();
  const fill = (style: CanvasGradient | string) => {
    top().fillStyle = style;
    top().fillRect(-EVERYWHERE, -EVERYWHERE, 2 * EVERYWHERE, 2 * EVERYWHERE);
  };
  const stopped = (gradient: CanvasGradient, line: Line) => {
    for (const stop of [...line.colorStops].sort((a, b) => a.offset - b.offset))
      gradient.addColorStop(Math.min(1, Math.max(0, stop.offset)), css(stop.color));
    return gradient;
  };
  paints.setPushTransformFunc((xx, yx, xy, yy, dx, dy) => {
    top().save();
    top().transform(xx, yx, xy, yy, dx, dy);
  });
  paints.setPopTransformFunc(() => top().restore());
  paints.setPushClipGlyphFunc((clip, clipFont) => {
    top().save();
    top().clip(drawing.path(clipFont.glyphToPath(clip)));
  });
  paints.setPushClipRectangleFunc((left, low, right, high) => {
    top().save();
    top().beginPath();
    top().rect(left, low, right - left, high - low);
    top().clip();
  });
  paints.setPopClipFunc(() => top().restore());
  paints.setColorFunc((_foreground, colour) => fill(css(colour)));
  paints.setLinearGradientFunc((line, x0, y0, x1, y1, x2, y2) => {
    // The third point turns the gradient's lines: the end is the second point's foot on the normal of the first to the third (OpenType COLR, “PaintLinearGradient”).
    const [px, py] = [y2 - y0, x0 - x2];
    const length = px * px + py * py;
    const along = length === 0 ? 0 : ((x1 - x0) * px + (y1 - y0) * py) / length;
    fill(stopped(top().createLinearGradient(x0, y0, x0 + px * along, y0 + py * along), line));
  });
  paints.setRadialGradientFunc((line, x0, y0, r0, x1, y1, r1) =>
    fill(stopped(top().createRadialGradient(x0, y0, r0, x1, y1, r1), line)),
  );
  paints.setSweepGradientFunc((line, x0, y0, startAngle) =>
    fill(stopped(top().createConicGradient(startAngle, x0, y0), line)),
  );
  paints.setPushGroupFunc(() => {
    const group = drawing.open(widthPx, heightPx);
    group.context.setTransform(top().getTransform());
    pile.push(group);
  });
  paints.setPopGroupFunc((mode) => {
    const group = pile.pop()!;
    const below = top();
    below.save();
    below.setTransform(1, 0, 0, 1, 0, 0);
    below.globalCompositeOperation = MODES[mode] ?? 'source-over';
    below.drawImage(group.image, 0, 0);
    below.restore();
  });
  canvas.context.save();
  canvas.context.setTransform(scale, 0, 0, -scale, x, y);
  font.paintGlyph(glyph, paints);
  canvas.context.restore();
}

function css({ red, green, blue, alpha }: Shade): string {
  return `rgba(${red},${green},${blue},${alpha / 255})`;
}

import { readFile } from 'node:fs/promises';
import { createCanvas, Path2D } from '@napi-rs/canvas';
import { loadKernels, type Kernels } from '../../drawing/kernel-module';
import type { FillOutline } from '../../drawing/words/draw-words';
import { loadFonts, type Fonts } from '../../drawing/words/fonts';
import { fontFile, kernelsFile } from '../paths';

/** The drawing code's surroundings on the server. */
export interface NodeDrawing {
  readonly kernels: Kernels;
  readonly fonts: Fonts;
  readonly fillOutline: FillOutline;
}

export async function openNodeDrawing(): Promise<NodeDrawing> {
  const [wasm, fonts] = await Promise.all([readFile(kernelsFile()), loadFonts(async (name) => new Uint8Array(await readFile(fontFile(name))))]);
  return { kernels: await loadKernels(new Uint8Array(wasm)), fonts, fillOutline };
}

const fillOutline: FillOutline = (svgPath, widthPx, heightPx) => {
  const context = createCanvas(widthPx, heightPx).getContext('2d');
  context.fillStyle = '#fff';
  context.fill(new Path2D(svgPath));
  return context.getImageData(0, 0, widthPx, heightPx).data;
};

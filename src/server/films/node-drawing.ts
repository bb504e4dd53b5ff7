import { readFile } from 'node:fs/promises';
import { createCanvas, Path2D as CanvasPath } from '@napi-rs/canvas';
import { loadKernels, type Kernels } from '../../drawing/kernel-module';
import { createFontShelf, type FontFile, type FontShelf } from '../../drawing/words/fonts';
import type { Drawing2d } from '../../drawing/words/outline';
import { fontFile, fontIndexFile, kernelsFile } from '../paths';

/** The drawing code's surroundings on the server. */
export interface NodeDrawing {
  readonly kernels: Kernels;
  readonly fonts: FontShelf;
  readonly drawing2d: Drawing2d;
}

export async function openNodeDrawing(): Promise<NodeDrawing> {
  const [wasm, index] = await Promise.all([readFile(kernelsFile()), readFile(fontIndexFile(), 'utf8')]);
  // Written by our own build, not by a person.
  const files = JSON.parse(index) as FontFile[];
  return {
    kernels: await loadKernels(new Uint8Array(wasm)),
    fonts: createFontShelf(files, async (name) => new Uint8Array(await readFile(fontFile(name)))),
    drawing2d,
  };
}

const drawing2d: Drawing2d = {
  open(widthPx, heightPx) {
    const canvas = createCanvas(widthPx, heightPx);
    const context = canvas.getContext('2d');
    return {
      context: context as unknown as OffscreenCanvasRenderingContext2D,
      image: canvas as unknown as CanvasImageSource,
      pixels: () => context.getImageData(0, 0, widthPx, heightPx).data,
    };
  },
  path: (svg) => new CanvasPath(svg) as unknown as Path2D,
};

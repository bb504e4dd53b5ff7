import { bytesOf, type Kernels } from '../kernel-module';
import type { PicturePlanes } from '../planes/picture-planes';
import type { Made } from './make-plate';

/** A plate out of one thread's kernels on its way into another's: pointers count from the beginning of each block. */
export interface CarriedPlate {
  readonly made: Made;
  /** What lies in its blocks, in the order of `blocksOf`. */
  readonly blocks: readonly Uint8Array<ArrayBuffer>[];
}

/** The memory a plate holds. */
export function blocksOf(made: Made): { readonly at: number; readonly byteCount: number }[] {
  switch (made.kind) {
    case 'planes':
    case 'outline':
      return [{ at: made.planes.block, byteCount: made.planes.byteCount }];
    case 'words':
      return made.pieces.map(({ planes }) => ({ at: planes.block, byteCount: planes.byteCount }));
    case 'wipe-map':
      return [{ at: made.map, byteCount: made.byteCount }];
    case 'nothing':
      return [];
  }
}

/** Takes a plate out of the kernels' memory, which is free again afterwards. */
export function packPlate(kernels: Kernels, made: Made): CarriedPlate {
  const blocks = blocksOf(made);
  const packed = {
    made: moved(
      made,
      blocks.map(({ at }) => -at),
    ),
    blocks: blocks.map(({ at, byteCount }) => bytesOf(kernels).slice(at, at + byteCount)),
  };
  for (const { at } of blocks) kernels.release(at);
  return packed;
}

/** Puts a plate into these kernels' memory. */
export function unpackPlate(kernels: Kernels, { made, blocks }: CarriedPlate): Made {
  const places = blocks.map((bytes) => kernels.allocate(bytes.length));
  blocks.forEach((bytes, index) => bytesOf(kernels).set(bytes, places[index]!));
  return moved(made, places);
}

/** The same plate with every pointer moved, block by block. */
function moved(made: Made, by: readonly number[]): Made {
  switch (made.kind) {
    case 'planes':
      return { ...made, planes: movedPlanes(made.planes, by[0]!) };
    case 'outline':
      return { ...made, planes: movedPlanes(made.planes, by[0]!) };
    case 'words':
      return {
        ...made,
        pieces: made.pieces.map((piece, index) => ({ ...piece, planes: movedPlanes(piece.planes, by[index]!) })),
      };
    case 'wipe-map':
      return { ...made, map: made.map + by[0]!, half: made.half + by[0]! };
    case 'nothing':
      return made;
  }
}

function movedPlanes(planes: PicturePlanes, by: number): PicturePlanes {
  // Opaque pictures have no transparency anywhere.
  const opaque = planes.alpha === 0 && planes.halfAlpha === 0;
  const transparency = opaque
    ? { alpha: 0, halfAlpha: 0 }
    : { alpha: planes.alpha + by, halfAlpha: planes.halfAlpha + by };
  return { ...planes, ...transparency, block: planes.block + by, y: planes.y + by, u: planes.u + by, v: planes.v + by };
}

import type { LightValues } from '../../core/frame/frame-plan';
import { balanceMatrix, chromaGain, chromaShift, toneCurve, vibranceGain } from '../../core/light/tone';
import type { Kernels } from '../kernel-module';
import type { PicturePlanes } from './picture-planes';

/** Layout of the tables: see the kernel. */
const GAIN_AT = 256;
const VIBRANCE_AT = 768;
const SHIFT_U_AT = 1280;
const SHIFT_V_AT = 1792;
const MATRIX_AT = 2304;
export const LIGHT_TABLE_BYTES = 2304 + 18;

/** Chroma spans 224 steps where luma spans 219. */
const CHROMA_STEPS = 224;
const LUMA_STEPS = 219;

/** Writes the tables of a light to the kernels' memory, `LIGHT_TABLE_BYTES` long. */
export function writeLightTables(kernels: Kernels, light: LightValues, to: number): void {
  const view = new DataView(kernels.memory.buffer, to, LIGHT_TABLE_BYTES);
  const [curve, gain, vibrance, shift] = [toneCurve(light), chromaGain(light), vibranceGain(light), chromaShift(light)];
  for (let code = 0; code < 256; code += 1) {
    const y = Math.min(1, Math.max(0, (code - 16) / LUMA_STEPS));
    const [cb, cr] = shift(y);
    view.setUint8(code, Math.round(16 + LUMA_STEPS * curve(y)));
    view.setInt16(GAIN_AT + 2 * code, Math.round(4096 * gain(y)), true);
    view.setInt16(VIBRANCE_AT + 2 * code, Math.round(4096 * vibrance(code / 224)), true);
    view.setInt16(SHIFT_U_AT + 2 * code, Math.round(16 * CHROMA_STEPS * cb), true);
    view.setInt16(SHIFT_V_AT + 2 * code, Math.round(16 * CHROMA_STEPS * cr), true);
  }
  const steps = [LUMA_STEPS, CHROMA_STEPS, CHROMA_STEPS];
  balanceMatrix(light).forEach((value, index) =>
    view.setInt16(
      MATRIX_AT + 2 * index,
      Math.round((4096 * value * steps[Math.floor(index / 3)]!) / steps[index % 3]!),
      true,
    ),
  );
}

/** Applies a light to planes in place, or from one picture into another of the same size. Transparent pictures keep their transparency, their colours are taken as they are. */
export function lightPicture(kernels: Kernels, from: PicturePlanes, to: PicturePlanes, light: LightValues): void {
  const tables = kernels.allocate(LIGHT_TABLE_BYTES);
  writeLightTables(kernels, light, tables);
  kernels.lightPlanes(
    from.y,
    from.u,
    from.v,
    from.yStride,
    from.cStride,
    to.y,
    to.u,
    to.v,
    to.yStride,
    to.cStride,
    from.widthPx,
    from.heightPx,
    tables,
  );
  kernels.release(tables);
}

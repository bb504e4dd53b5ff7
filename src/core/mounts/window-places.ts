import { windowNumber } from '../show/window-id';
import { valueAt } from '../keys/channel';
import { everyLayer } from '../show/layer';
import { type MountFit, type Shape } from './mount';

/** Width over height of each window of a fit as it stands at the end of its slide; 1 where that is not to be said. Turned and grouped ones count as they are. */
export function windowAspects(fit: MountFit, frame: Shape): number[] {
  const aspect = frame.widthPx / frame.heightPx;
  const found = new Map<number, number>();
  for (const slide of fit.slides)
    for (const layer of everyLayer(slide.layers)) {
      if (layer.kind !== 'picture') continue;
      const number = windowNumber(layer.assetId);
      if (number === null || found.has(number)) continue;
      const { width, height } = layer.channels ?? {};
      const at = (channel: typeof width) =>
        channel === undefined ? null : valueAt(channel, slide.lengthMs, slide.lengthMs);
      const [w, h] = [at(width), at(height)];
      found.set(number, w === null || h === null ? aspect : (w / h) * aspect);
    }
  return fit.windows.map((_, index) => found.get(index + 1) ?? 1);
}

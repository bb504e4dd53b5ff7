import { planFrame, type PreparedShow } from '../../core/frame/plan-frame';
import { isMoving, keysOf } from '../../core/keys/edit-keys';
import { channelAt, channelsOf } from '../../core/layers/channel-paths';
import { seenLayers } from '../../core/show/layer';
import { FLASH_FRAME, worstFlashes } from '../../core/snags/flashes';
import type { SlideSeen } from '../../core/snags/slide-seen';
import { luminanceAt } from '../../core/words/legibility';
import type { Checking } from './checking';

/** Three changes a second need three of them shorter than this. */
const SHORT_MS = 500;
/** So many keys of one channel can make four flashes. */
const MANY_KEYS = 7;
const PER_SECOND = 30;
/** Longer stretches are looked at to here: a clip that flashes does so within a minute. */
const LONGEST_MS = 60_000;

/** Whether something on a slide could flash: a clip, a run of short slides, a channel with many keys. */
function mayFlash({ show }: PreparedShow, index: number): boolean {
  const slide = show.slides[index]!;
  if (slide.lengthMs < SHORT_MS && (show.slides[index + 1]?.lengthMs ?? Infinity) < SHORT_MS) return true;
  for (const layer of seenLayers(slide.layers)) {
    if (layer.kind === 'clip') return true;
    for (const { path } of channelsOf(layer)) {
      const channel = channelAt(layer, path);
      if (isMoving(channel) && keysOf(channel).length >= MANY_KEYS) return true;
    }
  }
  return false;
}

/** The worst second that begins on a slide; null when it flashes no more than may be. */
export async function seeFlashes(
  checking: Checking,
  prepared: PreparedShow,
  index: number,
): Promise<SlideSeen['flashes']> {
  if (!mayFlash(prepared, index)) return null;
  const { startMs, endMs } = prepared.spans[index]!;
  const untilMs = Math.min(prepared.lengthMs, endMs + 1000, startMs + LONGEST_MS);
  const frames: Float32Array[] = [];
  const { across, down } = FLASH_FRAME;
  for (let atMs = startMs; atMs < untilMs; atMs += 1000 / PER_SECOND) {
    const plan = planFrame(prepared, atMs, { widthPx: across * 2, heightPx: down * 2 });
    if (!plan) break;
    const { rgba } = await checking.picture(plan);
    frames.push(
      Float32Array.from({ length: across * down }, (_, cell) => {
        const [x, y] = [2 * (cell % across), 2 * Math.floor(cell / across)];
        const at = (dx: number, dy: number) => luminanceAt(rgba, 4 * ((y + dy) * across * 2 + x + dx));
        return (at(0, 0) + at(1, 0) + at(0, 1) + at(1, 1)) / 4;
      }),
    );
  }
  const worst = frames.length > 0 ? worstFlashes(frames, PER_SECOND) : null;
  return worst && { offsetMs: Math.round((worst.frame * 1000) / PER_SECOND), perSecond: worst.perSecond };
}

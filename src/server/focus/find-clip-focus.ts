import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { focusOfFrames, LOOKED_AT_SHARES } from '../../core/focus/focus-of-clip';
import type { FocusFacts } from '../../core/focus/focus-facts';
import type { ClipFacts } from '../../core/show/asset-facts';
import { clipFilter } from '../assets/clip-frames';
import { clipInput } from '../assets/clip-input';
import { runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { findFocus, LOOKED_AT_PX } from './find-focus';

/** What finding out about a clip needs to know of it. */
export type LookedAtClip = Pick<ClipFacts, 'widthPx' | 'heightPx' | 'lengthMs' | 'hdr'>;

/** Finds out what a clip is about by frames of it. For decoder processes. @throws when none of them can be read */
export async function findClipFocus(file: string, clip: LookedAtClip, seeksFaces = true): Promise<FocusFacts> {
  const folder = await mkdtemp(path.join(tmpdir(), 'tanager-clip-'));
  try {
    const found: FocusFacts[] = [];
    let unread: unknown;
    for (const share of LOOKED_AT_SHARES) {
      const frame = path.join(folder, `${share}.png`);
      try {
        await writeFrame(file, clip, share * clip.lengthMs, frame);
        found.push(await findFocus(frame, seeksFaces, false));
      } catch (error) {
        unread = error;
      }
    }
    if (found.length === 0) throw unread;
    return focusOfFrames(found);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

async function writeFrame(file: string, clip: LookedAtClip, atMs: number, to: string): Promise<void> {
  const scale = Math.min(1, LOOKED_AT_PX / Math.max(clip.widthPx, clip.heightPx));
  const even = (value: number) => Math.max(2, 2 * Math.round((value * scale) / 2));
  const size = { widthPx: even(clip.widthPx), heightPx: even(clip.heightPx), hdr: clip.hdr };
  const second = atMs / 1000;
  await runFfmpeg([...clipInput(file, second), '-vf', clipFilter(size, second, 'jpeg'), '-frames:v', '1', '-y', to]);
}

import { mkdir, readFile, rm } from 'node:fs/promises';
import path from 'node:path';
import { showForFilm, type FilmSpec } from '../../core/film/film-spec';
import type { AssetFacts } from '../../core/show/asset-facts';
import type { AssetId } from '../../core/show/ids';
import type { Show } from '../../core/show/show';
import { frameAtMoment, frameCount } from '../../core/timing/frames';
import { showLengthMs } from '../../core/timing/slide-span';
import { runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { drawSegments } from './draw-segments';
import { AS_DRAWN } from './encodings';
import { FULL_RGB } from './finish-film';

interface StillOrder {
  readonly show: Show;
  /** Its shape and size. */
  readonly spec: FilmSpec;
  readonly atMs: number;
  readonly facts: ReadonlyMap<AssetId, AssetFacts>;
  readonly files: ReadonlyMap<AssetId, string>;
  /** Removed afterwards. */
  readonly workFolder: string;
}

/** One frame of the show as the film shows it. @returns a PNG */
export async function stillOf({ show, spec, atMs, facts, files, workFolder }: StillOrder): Promise<Uint8Array> {
  const shown = showForFilm(show, spec);
  const last = frameCount(showLengthMs(shown), spec.rate) - 1;
  const frame = Math.min(last, frameAtMoment(atMs, spec.rate));
  const drawn = path.join(workFolder, `still.${AS_DRAWN.container}`);
  const png = path.join(workFolder, 'still.png');
  await mkdir(workFolder, { recursive: true });
  try {
    await drawSegments({
      work: { show: shown, facts, files, widthPx: spec.widthPx, heightPx: spec.heightPx, encoding: AS_DRAWN },
      segments: [{ index: 0, firstFrame: frame, endFrame: frame + 1 }],
      fileOf: () => drawn,
      workerCount: 1,
      onFrames: () => {},
      onDrawn: () => Promise.resolve(),
    });
    await runFfmpeg(['-i', drawn, '-vf', `${FULL_RGB},format=rgb24`, '-frames:v', '1', '-y', png]);
    return await readFile(png);
  } finally {
    await rm(workFolder, { recursive: true, force: true });
  }
}

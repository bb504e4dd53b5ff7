import { mkdir, readFile, rm } from 'node:fs/promises';
import path from 'node:path';
import { showForFilm, type FilmSpec } from '../../core/film/film-spec';
import type { FilmSegment } from '../../core/film/plan-film';
import type { AssetFacts } from '../../core/show/asset-facts';
import type { AssetId } from '../../core/show/ids';
import type { Show } from '../../core/show/show';
import { frameAtMoment, frameCount } from '../../core/timing/frames';
import { showLengthMs } from '../../core/timing/slide-span';
import { runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { drawSegments } from './draw-segments';
import { AS_DRAWN } from './encodings';
import type { FilmWork } from './film-work';
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
  const shown = showForFilm(show, spec, facts);
  const last = frameCount(showLengthMs(shown), spec.rate) - 1;
  const frame = Math.min(last, frameAtMoment(atMs, spec.rate));
  const png = path.join(workFolder, 'still.png');
  await mkdir(workFolder, { recursive: true });
  try {
    const work = { show: shown, facts, files, widthPx: spec.widthPx, heightPx: spec.heightPx };
    const drawn = await drawnFrame(
      work,
      { index: 0, firstFrame: frame, endFrame: frame + 1, followedBy: 0, follows: 0 },
      workFolder,
    );
    await runFfmpeg(['-i', drawn, '-vf', `${FULL_RGB},format=rgb24`, '-frames:v', '1', '-y', png]);
    return await readFile(png);
  } finally {
    await rm(workFolder, { recursive: true, force: true });
  }
}

/** Draws one frame as it is. @returns the file of a film of that frame alone */
export async function drawnFrame(
  work: Omit<FilmWork, 'encoding'>,
  segment: FilmSegment,
  folder: string,
  signal?: AbortSignal,
): Promise<string> {
  const file = path.join(folder, `frame.${AS_DRAWN.container}`);
  await drawSegments({
    work: { ...work, encoding: AS_DRAWN },
    segments: [segment],
    fileOf: () => file,
    workerCount: 1,
    signal,
    onFrames: () => {},
    onDrawn: () => Promise.resolve(),
  });
  return file;
}

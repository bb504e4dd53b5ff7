import path from 'node:path';
import type { FilmSpec } from '../../core/film/film-spec';
import type { FilmSegment } from '../../core/film/plan-film';
import { runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { drawSegments } from './draw-segments';
import { AS_DRAWN, type SegmentEncoding } from './encodings';
import type { FilmWork } from './film-work';

const SAMPLE_FRAMES = 12;
const MOST_SAMPLES = 3;

interface Measuring {
  readonly spec: FilmSpec;
  readonly work: Omit<FilmWork, 'encoding' | 'widthPx' | 'heightPx'>;
  readonly segments: readonly FilmSegment[];
  /** Files of the film's segments. */
  readonly fileOf: (segment: FilmSegment) => string;
  readonly workFolder: string;
  readonly signal?: AbortSignal | undefined;
}

/**
 * How like the frames of a film are to what was drawn: the mean SSIM (Wang et al., “Image quality assessment: from error visibility to structural similarity”,
 * 2004, as ffmpeg's filter of that name works it out over luma and chroma) of the first frames of three segments. 1 is the very same.
 */
export async function likenessOfFilm({ spec, work, segments, fileOf, workFolder, signal }: Measuring): Promise<number> {
  const count = Math.min(MOST_SAMPLES, segments.length);
  const samples = Array.from({ length: count }, (_, index) => {
    const segment = segments[Math.floor(((index + 0.5) * segments.length) / count)]!;
    return { segment, part: { ...segment, endFrame: Math.min(segment.endFrame, segment.firstFrame + SAMPLE_FRAMES) } };
  });
  const drawnFile = ({ index }: FilmSegment) => path.join(workFolder, `drawn-${index}.${AS_DRAWN.container}`);
  await drawSegments({
    work: { ...work, widthPx: spec.widthPx, heightPx: spec.heightPx, encoding: AS_DRAWN satisfies SegmentEncoding },
    segments: samples.map(({ part }) => part),
    fileOf: drawnFile,
    workerCount: 1,
    signal,
    onFrames: () => {},
    onDrawn: () => Promise.resolve(),
  });
  let sum = 0;
  for (const { segment, part } of samples) {
    const frames = part.endFrame - part.firstFrame;
    const trimmed = `trim=end_frame=${frames},setpts=N/TB/25,format=yuv420p`;
    const said = await runFfmpeg(
      [
        ...['-loglevel', 'info', '-nostats', '-i', fileOf(segment), '-i', drawnFile(part)],
        ...['-lavfi', `[0:v]${trimmed}[a];[1:v]${trimmed}[b];[a][b]ssim`, '-f', 'null', '-'],
      ],
      { signal },
    );
    const all = /SSIM .*All:([\d.]+)/.exec(said);
    if (!all) throw new Error(`ffmpeg did not say how like two films are: ${said.slice(-300)}`);
    sum += Number(all[1]);
  }
  return sum / samples.length;
}

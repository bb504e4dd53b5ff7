import { mkdir, readFile, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { formatOf, type FilmFormatName } from '../../core/film/film-formats';
import { showForFilm, stretchOf, type FilmSpec } from '../../core/film/film-spec';
import { planFilm, type FilmPlan, type FilmSegment } from '../../core/film/plan-film';
import { prepareShow } from '../../core/frame/plan-frame';
import type { AssetFacts } from '../../core/show/asset-facts';
import type { AssetId } from '../../core/show/ids';
import type { Show } from '../../core/show/show';
import { framesPerSecond } from '../../core/timing/frame-rate';
import { drawSegments } from './draw-segments';
import { segmentEncoding, WHOLE_PICTURE_SECONDS } from './encodings';
import { finishingShare } from './film-telling';
import { finishFilm } from './finish-film';
import { hardwareEncoder } from './hardware-encoder';
import { WANTED_SHARE } from './fit-to-size';
import { filmWorkers } from './make-film';
import { bytesOfPage } from './page/try-page';
import { packetSizes } from './probe-film';

/** What a film would come to. */
export interface FilmTrial {
  readonly byteCount: number;
  readonly tookMs: number;
}

interface TrialOrder {
  readonly show: Show;
  readonly spec: FilmSpec;
  readonly facts: ReadonlyMap<AssetId, AssetFacts>;
  readonly files: ReadonlyMap<AssetId, string>;
  /** Removed afterwards. */
  readonly workFolder: string;
  readonly signal?: AbortSignal;
}

const SAMPLE_SECONDS = 0.5;
/** Where in the film the samples are taken. */
const SAMPLES = [0.18, 0.5, 0.82] as const;
/** Bytes a second of the sound. */
const SOUND_BYTES: Readonly<Partial<Record<FilmFormatName, number>>> = {
  mp4: 32_000,
  hevc: 32_000,
  vp9: 24_000,
  av1: 24_000,
  m4a: 32_000,
  mp3: 32_000,
  wav: 288_000,
  flac: 170_000,
  prores: 288_000,
  ffv1: 170_000,
  pal: 32_000,
  ntsc: 32_000,
  page: 24_000,
};
/** Mixing ten minutes takes about ten seconds. */
const MIX_MS_A_SECOND = 17;

/** Makes three half-seconds of a film and works out from them how large it would get, and how long it would take with nothing kept from earlier ones. */
export async function tryFilm(order: TrialOrder): Promise<FilmTrial> {
  const { spec, workFolder } = order;
  const show = showForFilm(order.show, spec, order.facts);
  const prepared = prepareShow(show, order.facts);
  const [fromMs, toMs] = stretchOf(spec, prepared.lengthMs);
  const seconds = (toMs - fromMs) / 1000;
  const { holds } = formatOf(spec.format);
  const soundBytes = holds === 'pictures' ? 0 : seconds * (SOUND_BYTES[spec.format] ?? 0);
  const mixMs = holds === 'pictures' ? 0 : seconds * MIX_MS_A_SECOND;
  if (holds === 'sound') return rounded(soundBytes, mixMs * 1.5);
  const whole = planFilm(prepared, spec.span);
  const each = framesPerSecond(spec.rate);
  const length = Math.max(1, Math.round(SAMPLE_SECONDS * each));
  const segments = holds === 'show' ? slidesOf(whole) : samplesOf(whole, length);
  const sampled = segments.reduce((sum, { firstFrame, endFrame }) => sum + endFrame - firstFrame, 0);
  const encoding = segmentEncoding(spec, await hardwareEncoder());
  const fileOf = ({ index }: FilmSegment) => path.join(workFolder, `segment-${index}.${encoding.container}`);
  await mkdir(workFolder, { recursive: true });
  try {
    let [madeMs, readMs] = [0, 0];
    await drawSegments({
      work: { show, facts: order.facts, files: order.files, ...sizeOf(spec), encoding },
      segments,
      fileOf,
      workerCount: 1,
      signal: order.signal,
      onFrames: () => {},
      onDrawn(_, drawn) {
        madeMs += drawn.drawMs - drawn.readMs + drawn.encodeMs;
        readMs += drawn.readMs;
        return Promise.resolve();
      },
    });
    const workers = Math.min(filmWorkers(), whole.segments.length);
    // A picture is read once for the slide it is on, and once more by the worker that has the segment after it.
    const reading = (readMs / segments.length) * Math.max(whole.segments.length, segments.length);
    const drawnMs = ((madeMs / sampled) * whole.frameCount + reading) / workers;
    if (holds === 'show') {
      const page = await bytesOfPage(prepared, { fromMs, toMs }, segments.map(fileOf));
      const packMs = (madeMs + readMs) / Math.max(1, page.packedCount);
      return rounded(page.byteCount + soundBytes, mixMs + (packMs * page.pictureCount) / workers);
    }
    if (spec.mostBytes === undefined && !PACKED_AGAIN.has(spec.format)) {
      const groupFrames = Math.round(each * WHOLE_PICTURE_SECONDS);
      const bytes = await bytesAFrame(segments.map(fileOf), groupFrames);
      return rounded(bytes * whole.frameCount + soundBytes, mixMs + drawnMs * 1.03);
    }
    if (spec.mostBytes !== undefined)
      return rounded(spec.mostBytes * WANTED_SHARE, mixMs + drawnMs * (1 + finishingShare(spec)));
    const startedMs = performance.now();
    const outFile = path.join(workFolder, `trial.${formatOf(spec.format).extension}`);
    await finishFilm({
      spec,
      prepared,
      plan: { firstFrame: segments[0]!.firstFrame, endFrame: segments.at(-1)!.endFrame, frameCount: sampled, segments },
      segments: segments.map(fileOf),
      soundFile: null,
      workFolder,
      outFile,
      signal: order.signal,
      onShare: () => {},
    });
    const packedMs = ((performance.now() - startedMs) / sampled) * whole.frameCount;
    const { size } = await stat(outFile);
    return rounded((size / sampled) * whole.frameCount + soundBytes, mixMs + drawnMs + packedMs);
  } finally {
    await rm(workFolder, { recursive: true, force: true });
  }
}

/** Some of a page's segments, whole. */
const slidesOf = ({ segments }: FilmPlan): FilmSegment[] =>
  [...new Set(SAMPLES.map((share) => segments[Math.floor(share * segments.length)]!))].map((segment, index) => ({
    ...segment,
    index,
  }));

/** Formats whose pictures are encoded anew when the film is put together. */
const PACKED_AGAIN: ReadonlySet<FilmFormatName> = new Set(['gif', 'webp', 'jpegs', 'pngs', 'pal', 'ntsc']);

const sizeOf = ({ widthPx, heightPx }: FilmSpec) => ({ widthPx, heightPx });
const rounded = (bytes: number, ms: number): FilmTrial => ({ byteCount: Math.round(bytes), tookMs: Math.round(ms) });

/** Short stretches of the film, in order; all of a film that is hardly longer. */
function samplesOf({ firstFrame, endFrame, frameCount }: FilmPlan, length: number): FilmSegment[] {
  if (frameCount <= SAMPLES.length * length) return [{ index: 0, firstFrame, endFrame, followedBy: 0, follows: 0 }];
  return SAMPLES.map((share, index) => {
    const first = firstFrame + Math.round(share * (frameCount - length));
    return { index, firstFrame: first, endFrame: first + length, followedBy: 0, follows: 0 };
  });
}

/** Each sample begins with a whole picture, the film has one in a group only. */
async function bytesAFrame(files: readonly string[], groupFrames: number): Promise<number> {
  let [whole, others, otherCount] = [0, 0, 0];
  for (const file of files) {
    const [first, ...rest] = await packetSizes(file);
    whole += first ?? (await readFile(file)).length;
    others += rest.reduce((sum, size) => sum + size, 0);
    otherCount += rest.length;
  }
  const other = otherCount === 0 ? 0 : others / otherCount;
  return (whole / files.length + other * (groupFrames - 1)) / groupFrames;
}

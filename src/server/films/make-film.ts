import { mkdir, rename, rm, stat } from 'node:fs/promises';
import { availableParallelism } from 'node:os';
import path from 'node:path';
import { formatOf, type FilmFormatName } from '../../core/film/film-formats';
import { showForFilm, type FilmSpec } from '../../core/film/film-spec';
import { planFilm, withFramesAfter, type FilmPlan, type FilmSegment } from '../../core/film/plan-film';
import { posterMoment } from '../../core/film/poster-moment';
import { prepareShow, type PreparedShow } from '../../core/frame/plan-frame';
import type { AssetFacts } from '../../core/show/asset-facts';
import type { AssetId } from '../../core/show/ids';
import { assetIdsOfSlides, type Show } from '../../core/show/show';
import { MIX_SAMPLE_RATE } from '../../core/sound/mix-plan';
import { planMix } from '../../core/sound/plan-mix';
import { frameAtMoment, frameCount, momentOfFrame } from '../../core/timing/frames';
import { renameSafely } from '../blobs/whole';
import { isDiskFull } from '../http/refusal';
import { logger } from '../logger';
import { writeMix } from '../mixing/write-mix';
import { drawSegments, type SegmentsOrder } from './draw-segments';
import type { SegmentFarm } from '../farm/farm';
import { segmentEncoding, SOUND_ARGS, type SegmentEncoding } from './encodings';
import { drawingVersion, mixKey, segmentKey, soundKey } from './film-keys';
import { createFilmTelling, type FilmProgress } from './film-telling';
import type { UnreadFile } from './film-work';
import { encodeSound, finishFilm, posterOf, type FilmParts } from './finish-film';
import { hardwareEncoder, type HardwareEncoder } from './hardware-encoder';
import { alsoNamed, type KeptFiles } from './kept-files';
import { likenessOfFilm } from './measure-film';
import { drawnFrame } from './still';

export interface FilmOrder {
  readonly show: Show;
  readonly spec: FilmSpec;
  readonly facts: ReadonlyMap<AssetId, AssetFacts>;
  readonly files: ReadonlyMap<AssetId, string>;
  readonly outFile: string;
  /** A frame of it as JPEG goes here, when wanted. */
  readonly posterFile?: string;
  /** Of a disc's film: frames that must be whole pictures. */
  readonly wholeFrames?: readonly number[];
  /** Whether it is told how like its frames are to what was drawn. */
  readonly measured?: boolean;
  /** For what is of no use afterwards; removed at the end, however that comes. */
  readonly workFolder: string;
  /** What is made and may be used again: after `kill -9` making goes on from there, and what an equal film has is not made again. */
  readonly kept: KeptFiles;
  readonly workerCount?: number;
  /** Other machines that draw as well; this one alone otherwise. */
  readonly farm?: SegmentFarm | null;
  /** An encoder of this machine's own; looked for when it is not said. */
  readonly hardware?: HardwareEncoder | null;
  readonly signal?: AbortSignal;
  readonly onProgress?: (progress: FilmProgress) => void;
  readonly onGlimpse?: (jpeg: Uint8Array) => void;
}

export interface MadeFilm {
  readonly plan: FilmPlan;
  readonly lengthMs: number;
  readonly byteCount: number;
  /** SSIM, 0…1; null where it was not measured. */
  readonly likeness: number | null;
  /** Frames that were there already. */
  readonly keptFrames: number;
  readonly stillFrames: number;
  readonly drawMs: number;
  readonly encodeMs: number;
  readonly wallMs: number;
  readonly problems: readonly UnreadFile[];
}

const MOST_WORKERS = 16;

/** Processes that draw at the same time, each with an encoder of one thread (`TANAGER_FILM_WORKERS`; as many as there are cores otherwise). */
export function filmWorkers(): number {
  const said = Number(process.env.TANAGER_FILM_WORKERS);
  return Number.isInteger(said) && said > 0
    ? Math.min(said, MOST_WORKERS)
    : Math.min(availableParallelism(), MOST_WORKERS);
}

/** Makes a film of a show: mixes the sound, draws and encodes the segments that are not there yet in worker processes, puts all together. @throws {RangeError} for a show without slides */
export async function makeFilm(order: FilmOrder): Promise<MadeFilm> {
  const startedMs = performance.now();
  if (order.show.slides.length === 0) throw new RangeError('a film needs at least one slide, got none');
  const show = showForFilm(order.show, order.spec, order.facts);
  const prepared = prepareShow(show, order.facts);
  const plan = planFilm(prepared, order.spec.span);
  const lengthMs = Math.round(momentOfFrame(plan.frameCount, show.frame.rate));
  await mkdir(order.workFolder, { recursive: true });
  try {
    const { holds } = formatOf(order.spec.format);
    const telling = createFilmTelling(plan, order.spec, holds, order.onProgress ?? (() => {}));
    const sound = holds === 'pictures' ? null : await mixed(order, prepared, telling.sound);
    const base = {
      ...{ spec: order.spec, prepared, plan, workFolder: order.workFolder },
      soundFile: sound?.file ?? null,
    };
    // Encoding it takes long and needs no picture.
    const [drawn, encodedSound] = await bothAtOnce(
      order.signal,
      async (signal) =>
        holds === 'sound' ? NOTHING_DRAWN : drawnSegments({ ...order, signal }, prepared, plan, telling),
      async (signal) => sound && encoded(order.kept, sound.name, { ...base, signal }),
    );
    const outFile = `${order.outFile}.part`;
    const parts: FilmParts = {
      ...base,
      encodedSound,
      segments: drawn.segments,
      outFile,
      signal: order.signal,
      wholeFrames: order.wholeFrames,
      onShare: telling.finishing,
    };
    telling.finishing(0);
    await finishFilm(parts);
    if (order.posterFile && holds !== 'sound') {
      const atMs = posterMoment(prepared, plan);
      if (holds === 'show') await drawnPoster(order, parts, atMs, `${order.posterFile}.part`);
      else await posterOf(parts, atMs, `${order.posterFile}.part`);
      await renameSafely(`${order.posterFile}.part`, order.posterFile);
    }
    const likeness = order.measured ? await measured(order, show, plan, drawn) : null;
    await renameSafely(outFile, order.outFile);
    await order.kept.prune();
    const { segments: _segments, ...counts } = drawn;
    const { size: byteCount } = await stat(order.outFile);
    return { plan, lengthMs, byteCount, likeness, ...counts, wallMs: performance.now() - startedMs };
  } finally {
    for (const file of [order.outFile, order.posterFile]) if (file) await rm(`${file}.part`, { force: true });
    await rm(order.workFolder, { recursive: true, force: true });
  }
}

/** When one of two fails the other is stopped; what is thrown is thrown once neither goes on. */
async function bothAtOnce<One, Other>(
  signal: AbortSignal | undefined,
  one: (signal: AbortSignal) => Promise<One>,
  other: (signal: AbortSignal) => Promise<Other>,
): Promise<[One, Other]> {
  const failed = new AbortController();
  const either = AbortSignal.any([failed.signal, ...(signal ? [signal] : [])]);
  const guarded = <Result>(making: Promise<Result>) =>
    making.catch((error: unknown) => {
      failed.abort(error);
      throw error;
    });
  const making = [guarded(one(either)), guarded(other(either))] as const;
  await Promise.allSettled(making);
  if (failed.signal.aborted) throw (signal?.aborted ? signal.reason : failed.signal.reason) as Error;
  return Promise.all(making);
}

interface DrawnFilm {
  /** Files, in order. */
  readonly segments: readonly string[];
  readonly keptFrames: number;
  readonly stillFrames: number;
  readonly drawMs: number;
  readonly encodeMs: number;
  readonly problems: readonly UnreadFile[];
}
/** Formats whose segments can be held against what was drawn. */
const MEASURED: ReadonlySet<FilmFormatName> = new Set(['mp4', 'hevc', 'vp9', 'av1']);

/** How like the film is to what was drawn. A film is whole without that: what goes wrong over it is told in the log and costs the figure only. */
async function measured(order: FilmOrder, show: Show, plan: FilmPlan, drawn: DrawnFilm): Promise<number | null> {
  const { spec, facts, files, workFolder, signal } = order;
  if (!MEASURED.has(spec.format) || spec.mostBytes !== undefined) return null;
  const fileOf = ({ index }: FilmSegment) => drawn.segments[index]!;
  return likenessOfFilm({
    spec,
    work: { show, facts, files },
    segments: plan.segments,
    fileOf,
    workFolder,
    signal,
  }).catch((error: unknown) => {
    if (signal?.aborted) throw error;
    logger().warn({ err: error }, 'a film could not be measured');
    return null;
  });
}

const NOTHING_DRAWN: DrawnFilm = { segments: [], keptFrames: 0, stillFrames: 0, drawMs: 0, encodeMs: 0, problems: [] };

/** A poster of what has no frames: the one frame is drawn. */
async function drawnPoster(order: FilmOrder, parts: FilmParts, atMs: number, file: string): Promise<void> {
  const { prepared, plan, workFolder } = parts;
  const firstFrame = plan.firstFrame + frameAtMoment(atMs, prepared.show.frame.rate);
  const segment = { index: 0, firstFrame, endFrame: firstFrame + 1, followedBy: 0, follows: 0 };
  const { facts, files, spec, signal } = order;
  const work = { show: prepared.show, facts, files, widthPx: spec.widthPx, heightPx: spec.heightPx };
  const drawn = await drawnFrame(work, segment, workFolder, signal);
  const one = { firstFrame, endFrame: firstFrame + 1, frameCount: 1, segments: [segment] };
  await posterOf({ ...parts, plan: one, segments: [drawn] }, 0, file);
}

/** The mix of the whole show, so that films of stretches share it. Null when nothing sounds. */
async function mixed(
  order: FilmOrder,
  prepared: PreparedShow,
  onShare: (share: number) => void,
): Promise<{ readonly name: string; readonly file: string } | null> {
  const { show, facts, lengthMs } = prepared;
  const mix = planMix(show, facts);
  if (mix.parts.length === 0) return null;
  const { rate } = show.frame;
  const sampleCount = Math.round((momentOfFrame(frameCount(lengthMs, rate), rate) * MIX_SAMPLE_RATE) / 1000);
  const name = mixKey(await drawingVersion(), mix, sampleCount);
  const outFile = path.join(order.workFolder, 'sound.f32');
  if (await order.kept.lend(name, outFile)) return { name, file: outFile };
  onShare(0);
  const written = `${outFile}.part`;
  await writeMix(mix, {
    fileOf: (id) => order.files.get(id)!,
    outFile: written,
    sampleCount,
    signal: order.signal,
    onProgress: onShare,
  });
  await rename(written, outFile);
  await alsoNamed(outFile, written);
  await order.kept.put(name, written);
  return { name, file: outFile };
}

/** Formats whose sound takes long to encode, and what it is packed in meanwhile. */
const SLOW_SOUND: Readonly<Partial<Record<FilmFormatName, string>>> = {
  mp4: 'm4a',
  hevc: 'm4a',
  page: 'm4a',
  vp9: 'webm',
  av1: 'webm',
};

/** The sound of the film's stretch as its format has it, unless that is quickly made or depends on a size; what an equal film had is taken. */
async function encoded(kept: KeptFiles, mix: string, parts: Parameters<typeof encodeSound>[0]): Promise<string | null> {
  const { spec, plan, prepared, workFolder } = parts;
  const extension = SLOW_SOUND[spec.format];
  if (!extension || spec.mostBytes !== undefined) return null;
  const { rate } = prepared.show.frame;
  const stretch = JSON.stringify([plan.firstFrame, plan.frameCount, rate]);
  const name = soundKey(mix, stretch, SOUND_ARGS[spec.format], extension);
  const file = path.join(workFolder, `sound.${extension}`);
  if (await kept.lend(name, file)) return file;
  await encodeSound(parts, `${file}.part`);
  await rename(`${file}.part`, file);
  await alsoNamed(file, `${file}.kept`);
  await kept.put(name, `${file}.kept`);
  return file;
}

/** The segments in order, by the machine's own encoder where there is one; should that fail, by ours. Other machines may not have it. */
async function drawnSegments(
  order: FilmOrder,
  prepared: PreparedShow,
  plan: FilmPlan,
  telling: ReturnType<typeof createFilmTelling>,
): Promise<DrawnFilm> {
  const hardware = order.farm ? null : order.hardware === undefined ? await hardwareEncoder() : order.hardware;
  const encoding = segmentEncoding(order.spec);
  const own = segmentEncoding(order.spec, hardware);
  if (own.args.join() === encoding.args.join()) return drawnAs(encoding, order, prepared, plan, telling);
  try {
    return await drawnAs(own, order, prepared, plan, telling);
  } catch (error) {
    if (order.signal?.aborted || isDiskFull(error)) throw error;
    logger().warn(
      { err: error, encoder: hardware?.name },
      'the machine’s own encoder failed; the film is made without it',
    );
    telling.again();
    return drawnAs(encoding, order, prepared, plan, telling);
  }
}

/** Segments that are there are taken, the others drawn. */
async function drawnAs(
  encoding: SegmentEncoding,
  order: FilmOrder,
  prepared: PreparedShow,
  plan: FilmPlan,
  telling: ReturnType<typeof createFilmTelling>,
): Promise<DrawnFilm> {
  const { spec, kept, workFolder } = order;
  const version = await drawingVersion();
  const keys = plan.segments.map((segment) => segmentKey(version, prepared, segment, spec, encoding));
  const fileOf = ({ index }: FilmSegment) =>
    path.join(workFolder, `segment-${String(index).padStart(5, '0')}.${encoding.container}`);
  const framesIn = ({ firstFrame, endFrame }: FilmSegment) => endFrame - firstFrame;
  const seenIn = (segment: FilmSegment) => assetsSeen(prepared, withFramesAfter(segment, encoding.looksAhead ?? 0));
  const missing: FilmSegment[] = [];
  for (const segment of plan.segments) {
    if (await kept.lend(keys[segment.index]!, fileOf(segment))) telling.keptSegment(segment);
    else missing.push(segment);
  }
  // Where a slide comes again in the same show, its segment is drawn once.
  const firstOf = new Map<string, FilmSegment>();
  for (const segment of missing) if (!firstOf.has(keys[segment.index]!)) firstOf.set(keys[segment.index]!, segment);
  const problems = new Map<AssetId, UnreadFile>();
  let [drawMs, encodeMs, stillFrames] = [0, 0, 0];
  const { farm } = order;
  const segments: SegmentsOrder = {
    work: {
      show: prepared.show,
      facts: order.facts,
      files: order.files,
      widthPx: spec.widthPx,
      heightPx: spec.heightPx,
      encoding,
    },
    segments: [...firstOf.values()],
    fileOf,
    signal: order.signal,
    onFrames: telling.frames,
    onBegun: telling.begun,
    ...(order.onGlimpse && { onGlimpse: order.onGlimpse }),
    async onDrawn(segment, drawn, unread) {
      drawMs += drawn.drawMs;
      encodeMs += drawn.encodeMs;
      stillFrames += drawn.stillFrames;
      const seen = seenIn(segment);
      for (const problem of unread) if (seen.has(problem.assetId)) problems.set(problem.assetId, problem);
      // What lacks a file is good for this film only: the file may be readable another time.
      if (!farm && !unread.some(({ assetId }) => seen.has(assetId))) {
        const also = `${fileOf(segment)}.kept`;
        await alsoNamed(fileOf(segment), also);
        await kept.put(keys[segment.index]!, also);
      }
      telling.drawnSegment(segment);
    },
  };
  if (farm)
    await farm.draw({
      ...segments,
      keyOf: ({ index }) => keys[index]!,
      assetsOf: (segment) => [...seenIn(segment)].filter((id) => order.files.has(id)),
    });
  else await drawSegments({ ...segments, workerCount: order.workerCount ?? filmWorkers() });
  for (const segment of missing) {
    const first = firstOf.get(keys[segment.index]!)!;
    if (first === segment) continue;
    await alsoNamed(fileOf(first), fileOf(segment));
    telling.keptSegment(segment);
  }
  const drawnFrames = [...firstOf.values()].reduce((sum, segment) => sum + framesIn(segment), 0);
  return {
    segments: plan.segments.map(fileOf),
    keptFrames: plan.frameCount - drawnFrames,
    stillFrames,
    drawMs,
    encodeMs,
    problems: [...problems.values()],
  };
}

/** Files of the slides that are on during a segment. */
function assetsSeen({ show, seenFromMs }: PreparedShow, { firstFrame, endFrame }: FilmSegment): ReadonlySet<AssetId> {
  const { rate } = show.frame;
  const slides = show.slides.filter((_, index) => {
    const from = frameAtMoment(seenFromMs[index]!, rate);
    const until = index + 2 < seenFromMs.length ? frameAtMoment(seenFromMs[index + 2]!, rate) : Infinity;
    return from < endFrame && until > firstFrame;
  });
  return new Set(assetIdsOfSlides(slides));
}

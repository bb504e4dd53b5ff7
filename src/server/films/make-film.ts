import { fork } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdir, rm, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { planFilm, type FilmPlan, type FilmSegment } from '../../core/film/plan-film';
import { asSrt } from '../../core/captions/caption-files';
import { threeLetters } from '../../core/captions/language-codes';
import { captionLanguages, captionsOfShow } from '../../core/captions/show-captions';
import type { AssetFacts } from '../../core/show/asset-facts';
import type { AssetId } from '../../core/show/ids';
import type { Show } from '../../core/show/show';
import { MIX_SAMPLE_RATE } from '../../core/sound/mix-plan';
import { planMix } from '../../core/sound/plan-mix';
import type { FrameRate } from '../../core/timing/frame-rate';
import { momentOfFrame } from '../../core/timing/frames';
import { showLengthMs } from '../../core/timing/slide-span';
import { renameSafely } from '../blobs/whole';
import { runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { writeMix } from '../mixing/write-mix';
import { filmWorkerFile } from '../paths';
import { COLOUR_TAGS } from './encode-segment';
import type { FilmWork, SegmentOrder, WorkerReport } from './film-work';

export type FilmStage = 'sound' | 'pictures' | 'joining';

export interface FilmProgress {
  readonly stage: FilmStage;
  readonly framesDone: number;
  readonly frameCount: number;
  /** Of the stage, 0…1. */
  readonly share: number;
  /** Something is finished for good: making it again goes on from there. */
  readonly kept: boolean;
}

export interface FilmOrder {
  readonly show: Show;
  readonly facts: ReadonlyMap<AssetId, AssetFacts>;
  readonly files: ReadonlyMap<AssetId, string>;
  readonly heightPx: number;
  readonly rate: FrameRate;
  readonly outFile: string;
  /** Finished segments stay here until the film is whole; starting again with the same folder goes on from them. */
  readonly workFolder: string;
  /** The segments stay when the film is whole; whoever ordered it removes them once it is sure of it. */
  readonly keepsWork?: boolean;
  readonly workerCount?: number;
  readonly signal?: AbortSignal;
  readonly onProgress?: (progress: FilmProgress) => void;
}

export interface MadeFilm {
  readonly plan: FilmPlan;
  readonly lengthMs: number;
  readonly drawMs: number;
  readonly encodeMs: number;
  readonly wallMs: number;
  readonly problems: readonly { readonly assetId: AssetId; readonly message: string }[];
}

const WORKERS = 2;
/** A worker reports every frame; one that says nothing for so long is lost in a picture. */
const LONGEST_SILENCE_MS = 180_000;

/** The film could not be made; `message` is a sentence for the person. */
export class FilmFailedError extends Error {
  override readonly name = 'FilmFailedError';
  constructor(
    message: string,
    readonly details: string,
  ) {
    super(message);
  }
}

/** Makes an MP4 of a show: mixes the sound, draws and encodes segments in worker processes, joins. @throws {RangeError} for a show without slides */
export async function makeFilm(order: FilmOrder): Promise<MadeFilm> {
  const startedMs = performance.now();
  if (order.show.slides.length === 0) throw new RangeError('a film needs at least one slide, got none');
  const workerCount = order.workerCount ?? WORKERS;
  const plan = planFilm(order.show.frame, order.heightPx, order.rate, showLengthMs(order.show), workerCount);
  await mkdir(order.workFolder, { recursive: true });
  const soundFile = await mixed(order, plan);
  const drawn = await drawSegments(order, plan, workerCount);
  order.onProgress?.({
    stage: 'joining',
    framesDone: plan.frameCount,
    frameCount: plan.frameCount,
    share: 0,
    kept: false,
  });
  await join(order, plan, soundFile);
  if (!order.keepsWork) await rm(order.workFolder, { recursive: true, force: true });
  return {
    plan,
    lengthMs: Math.round(momentOfFrame(plan.frameCount, plan.rate)),
    ...drawn,
    wallMs: performance.now() - startedMs,
  };
}

async function mixed(order: FilmOrder, plan: FilmPlan): Promise<string | null> {
  const mix = planMix(order.show, order.facts);
  if (mix.parts.length === 0) return null;
  const outFile = path.join(order.workFolder, 'sound.f32');
  if (existsSync(outFile)) return outFile;
  const sampleCount = Math.round((momentOfFrame(plan.frameCount, plan.rate) * MIX_SAMPLE_RATE) / 1000);
  const report = (share: number) =>
    order.onProgress?.({ stage: 'sound', framesDone: 0, frameCount: plan.frameCount, share, kept: false });
  report(0);
  await writeMix(mix, {
    fileOf: (id) => order.files.get(id)!,
    outFile: `${outFile}.part`,
    sampleCount,
    signal: order.signal,
    onProgress: report,
  });
  await renameSafely(`${outFile}.part`, outFile);
  return outFile;
}

const segmentFile = (order: FilmOrder, segment: FilmSegment) =>
  path.join(order.workFolder, `segment-${String(segment.index).padStart(5, '0')}.mp4`);

async function drawSegments(
  order: FilmOrder,
  plan: FilmPlan,
  workerCount: number,
): Promise<Pick<MadeFilm, 'drawMs' | 'encodeMs' | 'problems'>> {
  const waiting = plan.segments.filter((segment) => !existsSync(segmentFile(order, segment)));
  let framesDone = plan.frameCount - waiting.reduce((sum, segment) => sum + segment.endFrame - segment.firstFrame, 0);
  let drawMs = 0;
  let encodeMs = 0;
  const problems = new Map<AssetId, string>();
  const workData: FilmWork = {
    show: order.show,
    facts: order.facts,
    files: order.files,
    widthPx: plan.widthPx,
    heightPx: plan.heightPx,
    rate: plan.rate,
  };

  // One worker goes forward from the start, the other back from the end: neighbouring segments share pictures, which are then read by one of them only.
  const runOne = (workerIndex: number) =>
    new Promise<void>((resolve, reject) => {
      const take = () => (workerIndex % 2 === 0 ? waiting.shift() : waiting.pop());
      const first = take();
      if (!first) return resolve();
      // A process of its own: what reads strangers' pictures and clips must not take the server along.
      const worker = fork(filmWorkerFile(), {
        stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
        serialization: 'advanced',
        execArgv: [],
      });
      let segment = first;
      let ended = false;
      let heardMs = performance.now();
      const end = (settle: () => void) => {
        if (ended) return;
        ended = true;
        clearInterval(watch);
        order.signal?.removeEventListener('abort', stop);
        worker.once('exit', settle);
        if (worker.exitCode !== null || worker.signalCode !== null) settle();
        else worker.kill('SIGKILL');
      };
      const watch = setInterval(() => {
        if (performance.now() - heardMs > LONGEST_SILENCE_MS)
          end(() =>
            reject(
              new FilmFailedError(
                'One of the pictures or clips takes too long to read.',
                `frame ${segment.firstFrame} and on`,
              ),
            ),
          );
      }, 1000);
      const stop = () => end(() => reject(order.signal!.reason as Error));
      order.signal?.addEventListener('abort', stop, { once: true });
      const send = (next: FilmSegment) => {
        segment = next;
        worker.send({ segment, outFile: segmentFile(order, segment) } satisfies SegmentOrder);
      };
      worker.on('error', (error) => end(() => reject(error)));
      worker.on('exit', (code, signal) =>
        end(() => reject(new FilmFailedError('The program that draws the film ended.', `with ${signal ?? code}`))),
      );
      worker.on('message', (report: WorkerReport) => {
        heardMs = performance.now();
        if (report.kind === 'frames') {
          framesDone += report.done;
          tell(false);
        } else if (report.kind === 'problem') problems.set(report.assetId, report.message);
        else if (report.kind === 'failed')
          end(() =>
            reject(
              Object.assign(new FilmFailedError(report.message, report.details), report.diskFull && { code: 'ENOSPC' }),
            ),
          );
        else {
          drawMs += report.drawMs;
          encodeMs += report.encodeMs;
          tell(true);
          const next = take();
          if (next) send(next);
          else end(resolve);
        }
      });
      worker.send({ work: workData });
      send(first);
    });
  const tell = (kept: boolean) =>
    order.onProgress?.({
      stage: 'pictures',
      framesDone,
      frameCount: plan.frameCount,
      share: framesDone / plan.frameCount,
      kept,
    });

  order.signal?.throwIfAborted();
  await Promise.all(
    Array.from({ length: Math.min(workerCount, Math.max(1, waiting.length)) }, (_, workerIndex) => runOne(workerIndex)),
  );
  return { drawMs, encodeMs, problems: [...problems].map(([assetId, message]) => ({ assetId, message })) };
}

/** Joins the segments without encoding again and lays the sound beside them. The film appears under its name only when it is whole. */
async function join(order: FilmOrder, plan: FilmPlan, soundFile: string | null): Promise<void> {
  const list = plan.segments.map(
    (segment) =>
      `file '${path.basename(segmentFile(order, segment))}'\nduration ${momentOfFrame(segment.endFrame - segment.firstFrame, plan.rate) / 1000}`,
  );
  const listFile = path.join(order.workFolder, 'segments.txt');
  await writeFile(listFile, `ffconcat version 1.0\n${list.join('\n')}\n`);
  const sound = soundFile ? ['-f', 'f32le', '-ar', String(MIX_SAMPLE_RATE), '-ac', '2', '-i', soundFile] : [];
  const tracks = await captionFiles(order);
  const firstTrack = soundFile ? 2 : 1;
  await mkdir(path.dirname(order.outFile), { recursive: true });
  const part = `${order.outFile}.part`;
  await runFfmpeg(
    [
      '-protocol_whitelist',
      'file,pipe',
      '-f',
      'concat',
      '-safe',
      '1',
      '-i',
      listFile,
      ...sound,
      ...tracks.flatMap(({ file }) => ['-f', 'srt', '-i', file]),
      '-map',
      '0:v:0',
      ...(soundFile ? ['-map', '1:a:0', '-c:a', 'aac', '-b:a', '256k'] : []),
      ...tracks.flatMap(({ language }, index) => [
        '-map',
        `${firstTrack + index}:s:0`,
        `-metadata:s:s:${index}`,
        `language=${threeLetters(language)}`,
      ]),
      ...(tracks.length > 0 ? ['-c:s', 'mov_text'] : []),
      '-c:v',
      'copy',
      ...COLOUR_TAGS,
      '-metadata',
      `title=${order.show.title}`,
      '-movflags',
      '+faststart',
      '-f',
      'mp4',
      '-y',
      part,
    ],
    { signal: order.signal },
  );
  await renameSafely(part, order.outFile);
}

/** Captions beside the picture, one file for each language; none where they are part of it. */
async function captionFiles({ show, facts, workFolder }: FilmOrder): Promise<{ file: string; language: string }[]> {
  if (show.captionLook) return [];
  const tracks: { file: string; language: string }[] = [];
  for (const language of captionLanguages(show)) {
    const captions = captionsOfShow(show, facts, language);
    if (captions.length === 0) continue;
    const file = path.join(workFolder, `captions-${tracks.length}.srt`);
    await writeFile(file, asSrt(captions));
    tracks.push({ file, language });
  }
  return tracks;
}

import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import type { FilmSegment } from '../../core/film/plan-film';
import { basisOfFramesAfter, segmentBasis } from '../../core/film/segment-basis';
import type { PreparedShow } from '../../core/frame/plan-frame';
import type { MixPlan } from '../../core/sound/mix-plan';
import { ffmpegVersion } from '../ffmpeg/run-ffmpeg';
import { filmWorkerFile, fontIndexFile, kernelsFile } from '../paths';
import { framesBefore, type SegmentEncoding } from './encodings';

const KEY_LETTERS = 40;

let known: Promise<string> | null = null;

/** What draws and encodes: a new build, other fonts or another ffmpeg make other films. Looked at once. */
export function drawingVersion(): Promise<string> {
  known ??= (async () => {
    const hash = createHash('sha256');
    for (const file of [filmWorkerFile(), kernelsFile(), fontIndexFile()]) hash.update(await readFile(file));
    hash.update(await ffmpegVersion());
    return hash.digest('hex');
  })();
  return known;
}

/** The name a segment is kept under. */
export function segmentKey(
  version: string,
  prepared: PreparedShow,
  segment: FilmSegment,
  frame: { readonly widthPx: number; readonly heightPx: number },
  encoding: SegmentEncoding,
): string {
  const basis = segmentBasis(prepared, segment, frame);
  const after = encoding.looksAhead ? [basisOfFramesAfter(prepared, segment, encoding.looksAhead, frame)] : [];
  const before = framesBefore(segment, encoding);
  const ranIn = before > 0 ? [`run in by ${before}`] : [];
  return `${hashed([version, encoding.container, ...encoding.args, basis, ...after, ...ranIn])}.${encoding.container}`;
}

/** The name a mix is kept under. */
export function mixKey(version: string, mix: MixPlan, sampleCount: number): string {
  return `${hashed([version, String(sampleCount), JSON.stringify(mix)])}.f32`;
}

/** The name the sound of a stretch is kept under, encoded as a format has it. */
export function soundKey(mix: string, stretch: string, args: readonly string[], extension: string): string {
  return `${hashed([mix, stretch, ...args])}.${extension}`;
}

function hashed(parts: readonly string[]): string {
  const hash = createHash('sha256');
  for (const part of parts) hash.update(part).update('\0');
  return hash.digest('hex').slice(0, KEY_LETTERS);
}

import { existsSync, readdirSync } from 'node:fs';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { FilmQuality } from '../../core/film/film-spec';
import { OWN_INPUT, runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { logger } from '../logger';
import { probeFilm } from './probe-film';

/** An encoder for H.264 in the machine's own hardware. */
export interface HardwareEncoder {
  /** ffmpeg's name of it. */
  readonly name: string;
  args(quality: FilmQuality, groupFrames: string): readonly string[];
}

interface Candidate extends HardwareEncoder {
  /** Where there is none of these, there is no such hardware. */
  readonly devices: readonly RegExp[];
}

const LEVEL: Readonly<Record<FilmQuality, string>> = { light: '28', good: '23', best: '19' };
const HIGH = ['-profile:v', 'high'];

const CANDIDATES: readonly Candidate[] = [
  {
    name: 'h264_nvenc',
    devices: [/^nvidia\d+$/],
    args: (quality, group) => [
      ...['-c:v', 'h264_nvenc', '-preset', 'p5', '-rc', 'vbr', '-cq', LEVEL[quality], '-b:v', '0'],
      ...['-g', group, '-forced-idr', '1', '-pix_fmt', 'yuv420p', ...HIGH],
    ],
  },
  {
    name: 'h264_qsv',
    devices: [/^dri$/],
    args: (quality, group) => [
      ...['-c:v', 'h264_qsv', '-preset', 'medium', '-global_quality', LEVEL[quality]],
      ...['-g', group, '-idr_interval', '0', '-pix_fmt', 'nv12', ...HIGH],
    ],
  },
  {
    name: 'h264_v4l2m2m',
    devices: [/^video1\d$/],
    // It knows bits a second only.
    args: (quality, group) => [
      ...['-c:v', 'h264_v4l2m2m', '-b:v', { light: '4M', good: '8M', best: '16M' }[quality]],
      ...['-g', group, '-pix_fmt', 'yuv420p'],
    ],
  },
];

/** How like what went in what comes out must be at least: SSIM, over moving patterns. */
const LEAST_LIKENESS = 0.95;
const TRIAL = { frames: 60, rate: 30, group: 30 };
/** Hardware that does not answer is none. */
const TRIAL_MS = 20_000;

let known: Promise<HardwareEncoder | null> | null = null;

/** The machine's own encoder, if it has one that does its work right; looked for once. `TANAGER_ENCODER=software`: none is looked for. */
export function hardwareEncoder(): Promise<HardwareEncoder | null> {
  known ??= process.env.TANAGER_ENCODER === 'software' ? Promise.resolve(null) : findHardware();
  return known;
}

/** @param devices names below `/dev` */
export async function findHardware(devices: readonly string[] = devicesHere()): Promise<HardwareEncoder | null> {
  for (const candidate of CANDIDATES) {
    if (!devices.some((device) => candidate.devices.some((pattern) => pattern.test(device)))) continue;
    const fault = await faultOf(candidate).catch((error: unknown) =>
      error instanceof Error ? error.message : String(error),
    );
    if (fault === null) return candidate;
    logger().info({ encoder: candidate.name, fault }, 'the machine’s own encoder is not used');
  }
  return null;
}

function devicesHere(): string[] {
  return existsSync('/dev') ? readdirSync('/dev') : [];
}

/** Encodes two segments, joins them as films are joined, and looks at what came out. @returns what is wrong; null when nothing is */
async function faultOf({ args }: HardwareEncoder): Promise<string | null> {
  const folder = await mkdtemp(path.join(tmpdir(), 'tanager-encoder-'));
  const { frames, rate, group } = TRIAL;
  const source = `testsrc2=size=640x360:rate=${rate}:duration=${frames / rate}`;
  const limits = { timeMs: TRIAL_MS };
  const file = (name: string) => path.join(folder, name);
  try {
    for (const name of ['one.mp4', 'other.mp4'])
      await runFfmpeg(
        [
          ...['-f', 'lavfi', '-i', source, '-vf', 'format=yuv420p'],
          ...[
            ...args('good', String(group)),
            '-video_track_timescale',
            String(rate * 512),
            '-f',
            'mp4',
            '-y',
            file(name),
          ],
        ],
        { limits },
      );
    await writeFile(file('list.txt'), "ffconcat version 1.0\nfile 'one.mp4'\nfile 'other.mp4'\n");
    await runFfmpeg(
      [
        ...OWN_INPUT,
        '-f',
        'concat',
        '-safe',
        '1',
        '-i',
        file('list.txt'),
        '-c',
        'copy',
        '-f',
        'mp4',
        '-y',
        file('both.mp4'),
      ],
      { limits },
    );
    const { video, times } = await probeFilm(file('both.mp4'));
    if (video?.codec_name !== 'h264') return `it made ${String(video?.codec_name)}`;
    if (video.nb_read_frames !== String(2 * frames) || times.length !== 2 * frames)
      return `${String(video.nb_read_frames)} of ${2 * frames} frames came out`;
    if (times.some((time, at) => Math.abs(time - at / rate) > 0.002)) return 'frames come at the wrong moments';
    const said = await runFfmpeg(
      [
        '-loglevel',
        'info',
        '-i',
        file('one.mp4'),
        '-f',
        'lavfi',
        '-i',
        source,
        '-lavfi',
        '[0:v][1:v]ssim',
        '-f',
        'null',
        '-',
      ],
      { limits },
    );
    const likeness = Number(/All:([\d.]+)/.exec(said)?.[1] ?? 0);
    return likeness >= LEAST_LIKENESS ? null : `what comes out is like what went in by ${likeness} only`;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

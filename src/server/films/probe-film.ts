import { execFile } from 'node:child_process';
import { promisify } from 'node:util';

export interface ProbedFilm {
  readonly video: Readonly<Record<string, unknown>> | undefined;
  readonly sound: Readonly<Record<string, unknown>> | undefined;
  /** When each frame is shown, in seconds, in order. */
  readonly times: readonly number[];
}

/** How many bytes each frame of a file of our own takes, in the order they are stored. */
export async function packetSizes(file: string): Promise<number[]> {
  const { stdout } = await promisify(execFile)(
    process.env.TANAGER_FFPROBE ?? 'ffprobe',
    [...['-v', 'error', '-of', 'json', '-select_streams', 'v:0', '-show_entries', 'packet=size'], file],
    { maxBuffer: 1 << 26 },
  );
  return (JSON.parse(stdout) as { packets: { size: string }[] }).packets.map(({ size }) => Number(size));
}

/** A finished film as a player sees it: every frame is decoded and counted. For checks and benchmarks. */
export async function probeFilm(file: string): Promise<ProbedFilm> {
  const ask = async (...args: string[]) =>
    JSON.parse(
      (await promisify(execFile)('ffprobe', ['-v', 'error', '-of', 'json', ...args, file], { maxBuffer: 1 << 28 }))
        .stdout,
    ) as {
      streams?: Record<string, unknown>[];
      packets?: { pts_time: string }[];
    };
  const { streams = [] } = await ask('-count_frames', '-show_streams');
  const { packets = [] } = await ask('-select_streams', 'v:0', '-show_entries', 'packet=pts_time');
  return {
    video: streams.find((stream) => stream.codec_type === 'video'),
    sound: streams.find((stream) => stream.codec_type === 'audio'),
    times: packets.map((packet) => Number(packet.pts_time)).sort((a, b) => a - b),
  };
}

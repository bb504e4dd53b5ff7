import { statfs } from 'node:fs/promises';
import { sql } from 'drizzle-orm';
import { ffmpegVersion } from './ffmpeg/run-ffmpeg';
import { hardwareEncoder } from './films/hardware-encoder';
import { dataFolder } from './paths';
import type { RunningServer } from './running-server';

export interface Health {
  readonly ok: boolean;
  readonly parts: readonly { readonly name: string; readonly ok: boolean; readonly says: string }[];
}

/** Less than this and uploads are refused; see `uploads.ts`. */
const LEAST_FREE_BYTES = 256 * 1024 * 1024;

/** What the server needs for its work, each part asked now. */
export async function healthOf({ db, jobs, farm, objects }: RunningServer): Promise<Health> {
  const part = async (name: string, ask: () => Promise<string>) => {
    try {
      return { name, ok: true, says: await ask() };
    } catch (error) {
      return { name, ok: false, says: (error instanceof Error ? error.message : String(error)).slice(0, 300) };
    }
  };
  const parts = await Promise.all([
    part('database', async () => {
      await db.run(sql`select 1`);
      return 'answers';
    }),
    part('disk', async () => {
      const { bavail, bsize } = await statfs(dataFolder());
      const free = bavail * bsize;
      if (free < LEAST_FREE_BYTES) throw new Error(`only ${Math.floor(free / 2 ** 20)} MB are free`);
      return `${Math.floor(free / 2 ** 30)} GB free`;
    }),
    part('ffmpeg', ffmpegVersion),
    part('encoder', async () => (await hardwareEncoder())?.name ?? 'libx264'),
    part('queue', async () => {
      const { waiting, running } = await jobs.tally();
      return `${running} at work, ${waiting} waiting`;
    }),
    ...(farm ? [part('workers', () => farm.says())] : []),
    ...(objects ? [part('store', () => objects.ask().then(() => 'answers'))] : []),
  ]);
  return { ok: parts.every((one) => one.ok), parts };
}

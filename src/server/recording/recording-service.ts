import { mkdir, open, readdir, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { and, asc, eq } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import PQueue from 'p-queue';
import { assetId, type AssetId, type ShowId } from '../../core/show/ids';
import type { Cleaning } from '../../core/sound/voice/cleaning';
import { leaveOut, type LeftOut } from '../../core/sound/voice/leave-out';
import type { Stage } from '../../core/sound/voice/stage';
import type { Phrase } from '../../core/sound/voice/phrases';
import type { ContactSheet, SheetEntry } from '../assets/contact-sheet';
import { takenIn } from '../assets/taken-in';
import type { BlobStore } from '../blobs/blob-store';
import type { OpenDatabase } from '../database/open-database';
import { takes } from '../database/schema';
import type { Decoders } from '../decoding/decoders';
import { Refusal } from '../http/refusal';
import { floatsOf, mendedBeside } from './clean-file';
import { encodeFlac } from './encode-flac';

export interface NewTake {
  /** Null for a recording over the whole show. */
  readonly slideId: string | null;
  readonly name: string;
  /** Samples a second. */
  readonly rate: number;
}

/** A recording that has come in, wholly or in part, and was not kept yet. */
export interface UnkeptTake {
  readonly id: string;
  readonly slideId: string | null;
  readonly name: string;
  readonly startedAt: number;
  readonly lengthMs: number;
}

export interface CleanedFile {
  readonly entry: SheetEntry;
  /** What of it is worth hearing; null when nothing is said in it. */
  readonly trim: Phrase | null;
}

export interface KeptTake {
  /** The recording as it came. */
  readonly entry: SheetEntry;
  readonly cleaned: CleanedFile | null;
}

/** What is to become of a recording. */
export interface WantedTake {
  /** Null: as it was recorded. */
  readonly how: Cleaning | null;
  /** What was said again, in order. */
  readonly leftOut?: readonly LeftOut[];
}

/** Recordings: their sound is safe here a moment after it was said, whatever becomes of the page. */
export interface RecordingService {
  begin(show: ShowId, take: NewTake): Promise<string>;
  /**
   * Takes samples that follow on those that are there; what was sent before is not taken twice.
   *
   * @param from which sample of the recording the first one is
   * @returns how many samples there are now
   */
  add(show: ShowId, take: string, from: number, samples: Uint8Array): Promise<number>;
  unkept(show: ShowId): Promise<UnkeptTake[]>;
  /** Puts a recording on the show’s sheet as a file, cleaned as well when that is wanted. It stays among the unkept until it is let go. */
  keep(show: ShowId, take: string, wanted: WantedTake): Promise<KeptTake>;
  /** Its samples are not needed any more. */
  letGo(show: ShowId, take: string): Promise<void>;
  clean(show: ShowId, asset: AssetId, how: Cleaning, signal?: AbortSignal): Promise<CleanedFile>;
  /** Removes what lies among the recordings and belongs to none: of shows that were cleared away, or of work a server ended over. */
  tidy(): Promise<void>;
}

interface RecordingParts {
  readonly database: OpenDatabase;
  readonly blobs: BlobStore;
  readonly sheet: Pick<ContactSheet, 'takeIn' | 'entries' | 'factsOf'>;
  readonly decoders: Decoders;
  readonly folder: string;
  readonly now?: () => number;
}

const BYTES = Float32Array.BYTES_PER_ELEMENT;
/** Two hours at 192,000 samples a second, four days at 8,000: nobody speaks longer in one go. */
const MOST_BYTES = 6 * 1024 ** 3;
const MOST_TAKES = 200;
const CLEAN_LIMITS = { leastMs: 60_000, timesLength: 1, memoryBytes: 2 * 1024 ** 3 };
const SHORTEST_MS = 200;

export function createRecordingService({
  database: { db, write },
  blobs,
  sheet,
  decoders,
  folder,
  now = Date.now,
}: RecordingParts): RecordingService {
  /** What comes for one recording is written in turn. */
  const turns = new Map<string, PQueue>();
  const fileOf = (take: string) => path.join(folder, `${take}.f32`);

  return {
    async begin(show, { slideId, name, rate }) {
      const there = await db.select({ id: takes.id }).from(takes).where(eq(takes.showId, show));
      if (there.length >= MOST_TAKES)
        throw new Refusal(409, 'Many recordings wait to be kept or thrown away. Do that first, under Booth.');
      const id = nanoid(12);
      await mkdir(folder, { recursive: true });
      await (await open(fileOf(id), 'w')).close();
      await write((one) => one.insert(takes).values({ id, showId: show, slideId, name, rate, startedAt: now() }));
      return id;
    },
    add: (show, take, from, samples) =>
      inTurn(take, async () => {
        await found(show, take);
        const handle = await open(fileOf(take), 'r+');
        try {
          const { size } = await handle.stat();
          // What was half written when a server ended is written again.
          const thereCount = Math.floor(size / BYTES);
          if (from > thereCount) throw new Refusal(409, `Samples are missing: the next is number ${thereCount}.`);
          const fresh = samples.subarray((thereCount - from) * BYTES);
          const whole = fresh.subarray(0, fresh.length - (fresh.length % BYTES));
          if (thereCount * BYTES + whole.length > MOST_BYTES)
            throw new Refusal(413, 'This recording is as long as one can be. Keep it and begin another.');
          await handle.write(whole, 0, whole.length, thereCount * BYTES);
          return thereCount + whole.length / BYTES;
        } finally {
          await handle.close();
        }
      }),
    async unkept(show) {
      const rows = await db.select().from(takes).where(eq(takes.showId, show)).orderBy(asc(takes.startedAt));
      return Promise.all(
        rows.map(async ({ id, slideId, name, rate, startedAt }) => ({
          id,
          slideId,
          name,
          startedAt,
          lengthMs: (Math.floor((await sizeOf(fileOf(id))) / BYTES) * 1000) / rate,
        })),
      );
    },
    keep: (show, take, { how, leftOut = [] }) =>
      inTurn(take, async () => {
        const { name, rate } = await found(show, take);
        const file = fileOf(take);
        const count = Math.floor((await sizeOf(file)) / BYTES);
        if ((count * 1000) / rate < SHORTEST_MS)
          throw new Refusal(422, 'Nothing was recorded, so there is nothing to keep.');
        const out = `${file}.flac`;
        await encodeFlac(without(floatsOf(file, count * BYTES), leaveOut(leftOut, rate)), rate, out);
        const entry = await takenIn(sheet, show, out, `${name}.flac`, 'take');
        return { entry, cleaned: how ? await cleaned(show, entry, how) : null };
      }),
    letGo: (show, take) =>
      inTurn(take, async () => {
        await found(show, take);
        await write((one) => one.delete(takes).where(eq(takes.id, take)));
        await rm(fileOf(take), { force: true });
      }).finally(() => turns.delete(take)),
    async clean(show, asset, how, signal) {
      const entry = (await sheet.entries(show)).find((one) => one.assetId === asset);
      if (entry?.facts?.kind !== 'sound') throw new Refusal(404, 'There is no such sound.');
      return cleaned(show, entry, how, signal);
    },
    async tidy() {
      const known = new Set((await db.select({ id: takes.id }).from(takes)).map(({ id }) => path.basename(fileOf(id))));
      for (const name of await readdir(folder).catch(() => []))
        if (!known.has(name)) await rm(path.join(folder, name), { force: true });
    },
  };

  function inTurn<Value>(take: string, work: () => Promise<Value>): Promise<Value> {
    const queue = turns.get(take) ?? new PQueue({ concurrency: 1 });
    turns.set(take, queue);
    return queue.add(work) as Promise<Value>;
  }

  async function found(show: ShowId, take: string) {
    const [row] = await db
      .select()
      .from(takes)
      .where(and(eq(takes.id, take), eq(takes.showId, show)));
    if (!row) {
      turns.delete(take);
      throw new Refusal(404, 'There is no such recording.');
    }
    return row;
  }

  async function cleaned(
    show: ShowId,
    { assetId: of, fileName, facts }: SheetEntry,
    how: Cleaning,
    signal?: AbortSignal,
  ): Promise<CleanedFile> {
    await mkdir(folder, { recursive: true });
    const out = path.join(folder, `${nanoid(12)}.flac`);
    const lengthMs = facts?.kind === 'sound' ? facts.lengthMs : 0;
    try {
      const { trim } = await decoders.run(
        { kind: 'clean', file: await blobs.localFile(assetId(of)), out, how },
        {
          timeMs: CLEAN_LIMITS.leastMs + CLEAN_LIMITS.timesLength * lengthMs,
          memoryBytes: CLEAN_LIMITS.memoryBytes,
          ...(signal && { signal }),
        },
        true,
      );
      const name = `${fileName.replace(/\.[^.]+$/, '')}, cleaned.flac`;
      return { entry: await takenIn(sheet, show, out, name, 'cleaned'), trim };
    } catch (error) {
      if (signal?.aborted) throw new Refusal(409, 'Cleaning was stopped; the recording is as it was.');
      throw error;
    } finally {
      for (const left of [out, mendedBeside(out)]) await rm(left, { force: true });
    }
  }
}

async function* without(samples: AsyncIterable<Float32Array>, stage: Stage): AsyncGenerator<Float32Array> {
  for await (const some of samples) {
    const kept = stage.push(some);
    if (kept.length > 0) yield kept;
  }
}

const sizeOf = (file: string) =>
  stat(file).then(
    ({ size }) => size,
    () => 0,
  );

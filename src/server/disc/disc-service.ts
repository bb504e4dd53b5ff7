import { mkdir, readdir, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { and, asc, desc, eq, inArray } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import PQueue from 'p-queue';
import { changedDisc, faultOfPlan, usualDisc, type DiscChange, type DiscPlan } from '../../core/disc/disc-plan';
import { BURNING, type BurnRow, type DiscProgress, type DiscReport, type DiscState } from '../../core/disc/disc-making';
import { labelShow, LABEL_PX } from '../../core/disc/label-show';
import { pageShow } from '../../core/disc/menu-shows';
import type { FilmSpec } from '../../core/film/film-spec';
import type { ShowId } from '../../core/show/ids';
import type { Show } from '../../core/show/show';
import type { OpenDatabase } from '../database/open-database';
import { burns, discs, shows as showTable } from '../database/schema';
import type { KeptFiles } from '../films/kept-files';
import { makeFilm } from '../films/make-film';
import { stillOf } from '../films/still';
import type { JobStore } from '../jobs/job';
import type { Places } from '../publishing/places';
import type { BurnFar } from './burning';
import { labelSheet } from './label-sheet';
import { imageFile, workFolderOf } from './making-disc';
import { filesOfAll, menuGround, pageSpec, plannedDisc, type PlannedDisc } from './make-image';
import { missingPrograms } from './disc-programs';
import { NO_MOUNT, withLogo, type DiscSources } from './disc-sources';
import { seenDisc, type DiscSeen } from './seen-disc';

/** A disc as the shelf tells of it. */
export interface DiscLine {
  readonly id: string;
  readonly title: string;
  readonly filmCount: number;
  readonly state: DiscState;
}

/** How far a disc is. */
export interface DiscFar {
  readonly state: DiscState;
  /** Null: nothing of it is made now. */
  readonly progress: DiscProgress | null;
  readonly problem: string | null;
  readonly byteCount: number | null;
  readonly report: DiscReport | null;
  /** The latest first. */
  readonly burns: readonly BurnRow[];
  /** The page of the drive, for a browser on this machine. */
  readonly driveDoor: string | null;
}

/** Video discs. What is another studio's is not there: null, or false. */
export interface DiscService {
  list(studioId: string): Promise<DiscLine[]>;
  /** @returns null when there is no such show */
  create(studioId: string, show: ShowId): Promise<string | null>;
  find(studioId: string, id: string): Promise<DiscSeen | null>;
  far(studioId: string, id: string): Promise<DiscFar | null>;
  /** @returns a sentence when it cannot be so */
  change(studioId: string, id: string, change: DiscChange): Promise<true | false | string>;
  remove(studioId: string, id: string): Promise<true | false | string>;
  start(studioId: string, id: string): Promise<true | false | string>;
  stop(studioId: string, id: string): Promise<boolean>;
  /** A page of the menu as it is drawn, as PNG; a sentence when it cannot be. */
  still(studioId: string, id: string, page: number): Promise<Uint8Array | string | null>;
  /** The same moving, with its music: a file. */
  moving(studioId: string, id: string, page: number): Promise<{ readonly file: string } | string | null>;
  /** The label as PDF. */
  label(studioId: string, id: string): Promise<{ readonly title: string; readonly pdf: Uint8Array } | string | null>;
  image(studioId: string, id: string): Promise<{ readonly title: string; readonly file: string } | null>;
  burn(studioId: string, id: string, copies: number): Promise<true | false | string>;
  stopBurn(studioId: string, id: string, burn: string): Promise<boolean>;
  /** Clears away what an earlier server left half done. */
  tidy(): Promise<void>;
}

export interface DiscParts {
  readonly database: OpenDatabase;
  readonly sources: DiscSources;
  readonly jobs: JobStore;
  readonly places: Places;
  readonly kept: KeptFiles;
  readonly folder: string;
  readonly wake: () => void;
  readonly stop: (kind: 'disc' | 'burn', id: string) => Promise<void>;
  readonly now?: () => number;
}

const MAKING_NOW = 'This disc is being made. Stop that first.';
const BURNING_NOW = 'Copies of it are being burned. Stop them first.';
/** Pages and labels whose drawing was asked for; the last ones are remembered. */
const MOST_MOVING = 40;
const STILL_AT_MS = 5000;

export function createDiscService(parts: DiscParts): DiscService {
  const { database, sources, jobs, places, kept, folder, wake, stop, now = Date.now } = parts;
  const { db, write } = database;
  const drawing = new PQueue({ concurrency: 1 });
  const movingFolder = path.join(folder, 'moving');

  return {
    async tidy() {
      for (const name of await readdir(folder))
        if (name.endsWith('.work')) await rm(path.join(folder, name), { recursive: true, force: true });
    },
    async list(studioId) {
      const rows = await db.select().from(discs).where(eq(discs.studioId, studioId)).orderBy(desc(discs.createdAt));
      return rows.map(({ id, plan, state }) => ({ id, title: plan.title, filmCount: plan.films.length, state }));
    },
    async create(studioId, show) {
      const [own] = await db
        .select()
        .from(showTable)
        .where(and(eq(showTable.id, show), eq(showTable.studioId, studioId)));
      if (!own) return null;
      const { shows } = await sources.showsOf(studioId, usualDisc('Disc', show, '16:9', null));
      const [opened] = shows;
      const song = opened?.cues.find(({ kind }) => kind === 'song')?.assetId ?? null;
      const wide = !opened || opened.frame.widthPx / opened.frame.heightPx > 1.5;
      const id = nanoid(12);
      await write((one) =>
        one.insert(discs).values({
          ...{ id, studioId, state: 'open', createdAt: now() },
          plan: usualDisc(own.title || 'Untitled', show, wide ? '16:9' : '4:3', song),
        }),
      );
      return id;
    },
    async find(studioId, id) {
      const row = await rowOf(studioId, id);
      return row && seenDisc(row, sources, await missingPrograms());
    },
    async far(studioId, id) {
      const row = await rowOf(studioId, id);
      if (!row) return null;
      const progress = row.state === 'making' ? (await jobs.progressOf('disc', [id])).get(id) : null;
      const rows = await db
        .select()
        .from(burns)
        .where(eq(burns.discId, id))
        .orderBy(desc(burns.orderedAt), desc(burns.id));
      const at = (await jobs.progressOf('burn', [id])).get(id) as BurnFar | undefined;
      return {
        state: row.state,
        progress: (progress as DiscProgress | undefined) ?? null,
        problem: row.problem,
        byteCount: (await hasImage(row)) ? row.byteCount : null,
        report: row.report,
        burns: rows.map(({ id: burn, state, problem, serial, orderedAt }) => ({
          ...{ id: burn, state, problem, serial, orderedAt },
          share: at?.burn === burn && state !== 'waits' ? at.share : state === 'done' ? 1 : 0,
        })),
        driveDoor: places.door('drive', studioId),
      };
    },
    async change(studioId, id, change) {
      const row = await rowOf(studioId, id);
      if (!row) return false;
      if (row.state === 'making') return MAKING_NOW;
      const plan = changedDisc(row.plan, change);
      const fault = faultOfPlan(plan);
      if (fault) return fault;
      const added = plan.films.filter(({ showId: one }) => !row.plan.films.some((film) => film.showId === one));
      const own = await db
        .select({ id: showTable.id })
        .from(showTable)
        .where(
          and(
            eq(showTable.studioId, studioId),
            inArray(
              showTable.id,
              added.map((film) => film.showId),
            ),
          ),
        );
      if (own.length < added.length) return 'There is no such show.';
      await write((one) => one.update(discs).set({ plan }).where(eq(discs.id, id)));
      return true;
    },
    async remove(studioId, id) {
      const row = await rowOf(studioId, id);
      if (!row) return false;
      if (row.state === 'making') return MAKING_NOW;
      if (await isBurning(id)) return BURNING_NOW;
      await write((one) =>
        one.transaction(async (transaction) => {
          await transaction.delete(burns).where(eq(burns.discId, id));
          await transaction.delete(discs).where(eq(discs.id, id));
        }),
      );
      await rm(imageFile(folder, id), { force: true });
      return true;
    },
    async start(studioId, id) {
      const row = await rowOf(studioId, id);
      if (!row) return false;
      if (row.state === 'making') return MAKING_NOW;
      if (await isBurning(id)) return BURNING_NOW;
      const { shows, faults } = await sources.showsOf(studioId, row.plan);
      if (faults.length > 0) return faults.join(' ');
      if (!(await sources.mountOf(studioId, row.plan))) return NO_MOUNT;
      const missing = await missingPrograms();
      if (missing.length > 0) return missing.join(' ');
      const { fit } = await planned(row.plan, shows);
      if (fit.fault) return fit.fault;
      await write((one) =>
        one.transaction(async (transaction) => {
          await transaction.update(discs).set({ state: 'making', problem: null }).where(eq(discs.id, id));
          await jobs.addWithin(transaction, { kind: 'disc', studioId, key: id, data: {} });
        }),
      );
      wake();
      return true;
    },
    async stop(studioId, id) {
      const row = await rowOf(studioId, id);
      if (row?.state !== 'making') return false;
      await write((one) =>
        one
          .update(discs)
          // What was made before is still there.
          .set({ state: row.imageHash === null ? 'open' : 'ready', problem: null })
          .where(and(eq(discs.id, id), eq(discs.state, 'making'))),
      );
      if (await jobs.cancel('disc', id)) await stop('disc', id);
      await rm(workFolderOf(folder, id), { recursive: true, force: true });
      return true;
    },
    async still(studioId, id, page) {
      const drawn = await drawnPage(studioId, id, page);
      if (drawn === null || typeof drawn === 'string') return drawn;
      const { show, order } = drawn;
      return drawing.add(() =>
        stillOf({
          ...{ show, spec: pageSpec(order.plan), atMs: STILL_AT_MS, workFolder: spare() },
          facts: menuGround(order, []).facts,
          files: filesOfAll(order),
        }),
      );
    },
    async moving(studioId, id, page) {
      const drawn = await drawnPage(studioId, id, page);
      if (drawn === null || typeof drawn === 'string') return drawn;
      const { show, order } = drawn;
      const name = `${sources.madeOf(order.plan, [show]).slice(0, 40)}-${page}.mp4`;
      const file = path.join(movingFolder, name);
      await drawing.add(async () => {
        await mkdir(movingFolder, { recursive: true });
        const there = await readdir(movingFolder);
        if (there.includes(name)) return;
        for (const old of there.slice(0, Math.max(0, there.length - MOST_MOVING)))
          await rm(path.join(movingFolder, old), { force: true });
        await makeFilm({
          ...{ show, spec: pageSpec(order.plan), outFile: file, workFolder: spare(), kept },
          facts: menuGround(order, []).facts,
          files: filesOfAll(order),
        });
      });
      return { file };
    },
    async label(studioId, id) {
      const gathered = await gather(studioId, id);
      if (gathered === null || typeof gathered === 'string') return gathered;
      const { order, films } = gathered;
      const ground = menuGround(order, films);
      const made = labelShow(ground);
      if (!made.ok) return 'The label could not be laid.';
      const spec: FilmSpec = { ...pageSpec(order.plan), shape: '1:1', widthPx: LABEL_PX, heightPx: LABEL_PX };
      const png = await drawing.add(() =>
        stillOf({
          ...{ show: made.show, spec, atMs: 2500, facts: ground.facts, files: filesOfAll(order), workFolder: spare() },
        }),
      );
      return { title: order.plan.title, pdf: await labelSheet(png, order.plan.title) };
    },
    async image(studioId, id) {
      const row = await rowOf(studioId, id);
      return row && (await hasImage(row)) ? { title: row.plan.title, file: imageFile(folder, id) } : null;
    },
    async burn(studioId, id, copies) {
      const row = await rowOf(studioId, id);
      if (!row) return false;
      if (row.state === 'making') return MAKING_NOW;
      if (!(await hasImage(row))) return 'Make the disc’s image first.';
      if (!places.drive(studioId)) return 'There is no disc drive.';
      await write((one) =>
        one.transaction(async (transaction) => {
          const at = now();
          for (let copy = 0; copy < copies; copy += 1)
            await transaction
              .insert(burns)
              .values({ id: nanoid(12), discId: id, state: 'waits', orderedAt: at + copy });
          await jobs.addWithin(transaction, { kind: 'burn', studioId, key: id, data: {} });
        }),
      );
      wake();
      return true;
    },
    async stopBurn(studioId, id, burn) {
      const row = await rowOf(studioId, id);
      if (!row) return false;
      const [was] = await db
        .select()
        .from(burns)
        .where(and(eq(burns.id, burn), eq(burns.discId, id)));
      if (!was || !BURNING.includes(was.state)) return false;
      await write((one) =>
        one
          .update(burns)
          .set({
            state: 'stopped',
            endedAt: now(),
            problem: was.state === 'writing' ? 'Stopped while it was written: that disc is spoilt.' : null,
          })
          .where(eq(burns.id, burn)),
      );
      if (was.state === 'waits') return true;
      // The drive is stopped; the copies after this one go on.
      if (await jobs.cancel('burn', id)) await stop('burn', id);
      if (await isBurning(id)) {
        await jobs.add({ kind: 'burn', studioId, key: id, data: {} });
        wake();
      }
      return true;
    },
  };

  function spare(): string {
    return path.join(folder, `spare-${nanoid(8)}.work`);
  }

  async function rowOf(studioId: string, id: string) {
    const [row] = await db
      .select()
      .from(discs)
      .where(and(eq(discs.id, id), eq(discs.studioId, studioId)));
    return row ?? null;
  }

  /** Images are made again rather than kept in backups: one may be gone. */
  async function hasImage({ id, imageHash }: typeof discs.$inferSelect): Promise<boolean> {
    return (
      imageHash !== null &&
      (await stat(imageFile(folder, id)).then(
        () => true,
        () => false,
      ))
    );
  }

  async function isBurning(id: string): Promise<boolean> {
    const [found] = await db
      .select({ id: burns.id })
      .from(burns)
      .where(and(eq(burns.discId, id), inArray(burns.state, [...BURNING])))
      .orderBy(asc(burns.orderedAt))
      .limit(1);
    return found !== undefined;
  }

  async function planned(plan: DiscPlan, shows: readonly Show[]): Promise<PlannedDisc> {
    const known = await Promise.all(shows.map(async (show) => ({ show, facts: await sources.factsOf(show) })));
    return plannedDisc(plan, known);
  }

  /** All that pages are drawn from. @returns a sentence when something is not there */
  async function gather(studioId: string, id: string) {
    const row = await rowOf(studioId, id);
    if (!row) return null;
    const { plan } = row;
    const { shows, faults } = await sources.showsOf(studioId, plan);
    if (faults.length > 0) return faults.join(' ');
    const mount = await sources.mountOf(studioId, plan);
    if (!mount) return NO_MOUNT;
    const gathered = await Promise.all(shows.map((show) => sources.sourceNow(show)));
    const order = { plan, sources: gathered, ...mount, studio: await sources.studioOf(studioId) };
    return { order: withLogo(order), ...plannedDisc(plan, gathered) };
  }

  async function drawnPage(studioId: string, id: string, index: number) {
    const gathered = await gather(studioId, id);
    if (gathered === null || typeof gathered === 'string') return gathered;
    const { order, films, pages } = gathered;
    const page = pages[index];
    if (!page) return null;
    const made = pageShow(menuGround(order, films), page);
    return made.ok ? { show: made.show, order } : made.sentence;
  }
}

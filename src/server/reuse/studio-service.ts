import { createHash } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { and, asc, eq } from 'drizzle-orm';
import { filesOfMount, MOUNT_DOCUMENT, type MountDocument } from '../../core/mounts/mount-document';
import type { ShowId } from '../../core/show/ids';
import { emptyShow } from '../../core/show/show';
import { EMPTY_PROFILE, STUDIO_PROFILE, type StudioProfile } from '../../core/studio/studio-profile';
import { stableText } from '../../core/stable-text';
import type { ContactSheet } from '../assets/contact-sheet';
import type { BlobStore } from '../blobs/blob-store';
import type { OpenDatabase } from '../database/open-database';
import type { Decoders } from '../decoding/decoders';
import type { Events } from '../events';
import { forgetFacelessFacts, forgetFaces } from '../focus/faces-wanted';
import { documents, mounts, shows, studios } from '../database/schema';
import { parse } from '../schema/parse';
import { shelfOf } from './shelf-of';
import type { ShowEdit } from '../../core/show/edit';
import { SHIPPED_PLUMAGE } from '../../core/plumage/shipped-plumage';
import type { ShowService } from '../shows/show-service';
import { readMountFile, writeMountFile } from './mount-file';

/** A mount on a studio's shelf. */
export interface KeptMount {
  readonly id: string;
  readonly document: MountDocument;
  readonly missing: readonly string[];
  readonly createdAt: number;
  readonly removed: boolean;
}

export interface OpenedStudio {
  readonly profile: StudioProfile;
  readonly revision: number;
  /** The show whose sheet holds the studio's own files. */
  readonly shelf: ShowId;
}

export interface StudioService {
  open(studioId: string): Promise<OpenedStudio>;
  /** @returns null when it was changed meanwhile */
  setProfile(studioId: string, profile: StudioProfile, knownRevision: number): Promise<OpenedStudio | null>;
  mounts(studioId: string): Promise<KeptMount[]>;
  /** Keeps a mount; its files are put beside it from the sheet they lie on. */
  keep(studioId: string, document: MountDocument, from: ShowId): Promise<KeptMount>;
  setRemoved(studioId: string, id: string, removed: boolean): Promise<boolean>;
  /** Writes a mount as one file. @returns its name; null when it is not there */
  exportTo(studioId: string, id: string, outFile: string): Promise<string | null>;
  /** Gives a show that was just made what the studio's new shows have. */
  begin(studioId: string, show: ShowId): Promise<void>;
  /** Takes in a mount file. @throws {StrangeArchiveError} */
  importFrom(studioId: string, file: string): Promise<KeptMount>;
}

/** As many as `lookAgain` takes. */
const LOOKED_AT_ONCE = 1000;

/** For copying a large clip. */
const BARE_LIMITS = { timeMs: 120_000, memoryBytes: 1024 ** 3 };

interface StudioParts {
  readonly database: OpenDatabase;
  readonly events: Events;
  readonly sheet: ContactSheet;
  readonly blobs: BlobStore;
  readonly shows: ShowService;
  readonly decoders: Decoders;
  readonly now?: () => number;
}

export function createStudioService({
  database,
  events,
  sheet,
  blobs,
  shows: showService,
  decoders,
  now = Date.now,
}: StudioParts): StudioService {
  const { db, write } = database;
  const service: StudioService = {
    async open(studioId) {
      const [row] = await db.select().from(studios).where(eq(studios.id, studioId));
      const shelf = await shelfReady(studioId);
      const parsed = row ? parse<StudioProfile>(STUDIO_PROFILE, row.profile) : null;
      return { profile: parsed?.ok ? parsed.value : EMPTY_PROFILE, revision: row?.revision ?? 0, shelf };
    },
    async setProfile(studioId, profile, knownRevision) {
      const before = (await service.open(studioId)).profile.faces;
      const done = await write(async (one) => {
        const [row] = await one.select({ revision: studios.revision }).from(studios).where(eq(studios.id, studioId));
        if ((row?.revision ?? 0) !== knownRevision) return false;
        const values = { id: studioId, profile, revision: knownRevision + 1 };
        await one.insert(studios).values(values).onConflictDoUpdate({ target: studios.id, set: values });
        return true;
      });
      if (!done) return null;
      if (before !== profile.faces)
        await (profile.faces === 'not-sought' ? withoutFacesNow(studioId) : withFacesNow(studioId));
      return service.open(studioId);
    },
    async mounts(studioId) {
      const rows = await db.select().from(mounts).where(eq(mounts.studioId, studioId)).orderBy(asc(mounts.createdAt));
      return rows.flatMap((row): KeptMount[] => {
        // One that a newer version kept, or that is damaged, is none of today's; its row stays.
        const parsed = parse<MountDocument>(MOUNT_DOCUMENT, row.document);
        if (!parsed.ok) return [];
        const { id, missing, createdAt, removedAt } = row;
        return [{ id, document: parsed.value, missing, createdAt, removed: removedAt !== null }];
      });
    },
    async keep(studioId, document, from) {
      await sheet.borrow(await shelfReady(studioId), from, filesOfMount(document));
      return insert(studioId, document, []);
    },
    async setRemoved(studioId, id, removed) {
      const result = await write((one) =>
        one
          .update(mounts)
          .set({ removedAt: removed ? now() : null })
          .where(and(eq(mounts.studioId, studioId), eq(mounts.id, id))),
      );
      return result.rowsAffected > 0;
    },
    async exportTo(studioId, id, outFile) {
      const found = (await service.mounts(studioId)).find((mount) => mount.id === id);
      if (!found) return null;
      await writeMountFile(outFile, found.document, {
        lies: (asset) => blobs.localFile(asset),
        bare: (file, out) => decoders.run({ kind: 'bare', file, out }, BARE_LIMITS, true),
      });
      return `${found.document.name}.mount.zip`;
    },
    async begin(studioId, show) {
      const { profile, shelf } = await service.open(studioId);
      const edits: ShowEdit[] = [];
      const plumage = [...profile.plumage, ...SHIPPED_PLUMAGE].find(({ id }) => id === profile.newShows.plumage);
      if (plumage)
        edits.push({
          kind: 'together',
          name: `dress the show in ${plumage.name}`.slice(0, 200),
          edits: [
            { kind: 'set-temperament', temperament: plumage.temperament === 'even' ? null : plumage.temperament },
            {
              kind: 'set-plumage',
              plumage: {
                is: plumage,
                with: { opener: false, chapters: false, closer: false, several: false },
                seed: 0,
                bare: { temperament: null },
              },
            },
          ],
        });
      if (profile.newShows.watermark && profile.logo) {
        await sheet.borrow(show, shelf, [profile.logo], 'studio');
        edits.push({ kind: 'set-watermark', watermark: { assetId: profile.logo, ...profile.watermark } });
      }
      if (edits.length > 0)
        await showService.applyEdits(
          show,
          edits.map((edit, index) => ({ editId: `begun-${show}-${index}`.slice(-40), edit })),
          0,
        );
    },
    async importFrom(studioId, file) {
      const folder = await mkdtemp(path.join(tmpdir(), 'tanager-mount-'));
      try {
        const { document, files, missing } = await readMountFile(file, folder);
        const shelf = await shelfReady(studioId);
        for (const [id, one] of files) await sheet.takeIn(shelf, one.file, one.fileName, 'move', id);
        return await insert(studioId, document, missing);
      } finally {
        await rm(folder, { recursive: true, force: true });
      }
    },
  };
  return service;

  async function withoutFacesNow(studioId: string): Promise<void> {
    for (const show of await forgetFaces(database, studioId)) events.tell(show, { kind: 'sheet' });
  }

  async function withFacesNow(studioId: string): Promise<void> {
    const again = await forgetFacelessFacts(database, studioId);
    for (let from = 0; from < again.length; from += LOOKED_AT_ONCE)
      await sheet.lookAgain(again.slice(from, from + LOOKED_AT_ONCE));
  }

  async function insert(studioId: string, document: MountDocument, missing: readonly string[]): Promise<KeptMount> {
    const id = idOfMount(document);
    const createdAt = now();
    await write((one) =>
      one
        .insert(mounts)
        .values({ studioId, id, name: document.name, document, missing, createdAt, removedAt: null })
        .onConflictDoUpdate({ target: [mounts.studioId, mounts.id], set: { removedAt: null, missing } }),
    );
    return { id, document, missing, createdAt, removed: false };
  }

  async function shelfReady(studioId: string): Promise<ShowId> {
    const id = shelfOf(studioId);
    const [there] = await db.select({ id: shows.id }).from(shows).where(eq(shows.id, id));
    if (there) return id;
    const empty = emptyShow(id, 'The studio’s shelf');
    const row = { id, studioId, title: empty.title, revision: 0, slideCount: 0, lengthMs: 0 };
    await write((one) =>
      one.transaction(async (transaction) => {
        await transaction
          .insert(shows)
          .values({ ...row, createdAt: now(), changedAt: now() })
          .onConflictDoNothing();
        await transaction.insert(documents).values({ showId: id, revision: 0, document: empty }).onConflictDoNothing();
      }),
    );
    return id;
  }
}

/** Mounts are told apart by all they are: two that only share a name are two. */
export function idOfMount(document: MountDocument): string {
  return createHash('sha256').update(stableText(document)).digest('hex').slice(0, 32);
}

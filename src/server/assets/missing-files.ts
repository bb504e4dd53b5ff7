import { stat } from 'node:fs/promises';
import path from 'node:path';
import { eq } from 'drizzle-orm';
import { fileUses, mayBe, type MissingFile } from '../../core/show/file-uses';
import { assetId, type AssetId, type ShowId } from '../../core/show/ids';
import type { Show } from '../../core/show/show';
import type { BlobStore } from '../blobs/blob-store';
import { hashOfFile } from '../blobs/content-hash';
import type { OpenDatabase } from '../database/open-database';
import { sheetEntries } from '../database/schema';
import type { Events } from '../events';
import { logger } from '../logger';
import type { ContactSheet } from './contact-sheet';
import { filesBelow, placeBelow } from './folder-intake';

/** How far a search for missing files is. */
export interface MissingSearch {
  readonly looked: number;
  readonly fileCount: number;
  readonly found: number;
  readonly ended: boolean;
}

/** Files that shows use and that are not there any more: told, and found again by what is in them. */
export interface MissingFiles {
  /** Files of a show’s slides, music and sheet that are not on the disk. */
  of(show: Show): Promise<MissingFile[]>;
  /** How far the last search for a show is; null before the first. */
  search(show: ShowId): MissingSearch | null;
  /** Looks for all of them in a folder of the server’s disk and those in it. @returns false when there is no such folder */
  look(show: Show, folder: string): Promise<boolean>;
}

/** @param root the folder that was opened; null: none */
export function createMissingFiles(
  root: string | null,
  { db }: OpenDatabase,
  blobs: BlobStore,
  sheet: ContactSheet,
  events: Events,
): MissingFiles {
  const searches = new Map<ShowId, MissingSearch>();

  const files: MissingFiles = {
    async of(show) {
      const uses = fileUses(show);
      const entries = new Map(
        (await db.select().from(sheetEntries).where(eq(sheetEntries.showId, show.id))).map((row) => [row.assetId, row]),
      );
      const missing: MissingFile[] = [];
      for (const id of new Set([...uses.keys(), ...entries.keys()])) {
        const entry = entries.get(id);
        const used = uses.get(id as AssetId);
        // One that was brought and could not be read is not missing: it is no file for a show.
        if (entry?.state === 'refused' && !used) continue;
        if (entry && entry.state !== 'refused' && (await isThere(id as AssetId))) continue;
        missing.push({
          assetId: assetId(id),
          fileName: entry?.fileName ?? null,
          byteCount: entry && entry.byteCount > 0 ? entry.byteCount : null,
          uses: used ?? { slides: [], music: false, watermark: false },
        });
      }
      return missing;
    },
    search: (show) => searches.get(show) ?? null,
    async look(show, folder) {
      const place = await placeBelow(root, folder);
      if (place === null) return false;
      const missing = await files.of(show);
      const there = await filesBelow(place);
      searches.set(show.id, { looked: 0, fileCount: there.length, found: 0, ended: there.length === 0 });
      void lookThrough(show.id, there, missing).catch((error: unknown) => {
        logger().error({ err: error, show: show.id }, 'the search for missing files broke off');
        searches.set(show.id, { ...searches.get(show.id)!, ended: true });
      });
      return true;
    },
  };
  return files;

  async function isThere(id: AssetId): Promise<boolean> {
    return (await blobs.cameAt(id)) !== null;
  }

  async function lookThrough(show: ShowId, there: readonly string[], missing: readonly MissingFile[]): Promise<void> {
    const left = new Map(missing.map((file) => [file.assetId, file]));
    for (const [index, file] of there.entries()) {
      if (left.size > 0) {
        const found = await foundIn(file, left);
        if (found) {
          left.delete(found.assetId);
          await sheet.takeIn(show, file, found.fileName ?? path.basename(file), 'copy', found.assetId);
          events.tell(show, { kind: 'sheet' });
        }
      }
      searches.set(show, {
        ...{ looked: index + 1, fileCount: there.length },
        ...{ found: missing.length - left.size, ended: index + 1 === there.length },
      });
    }
  }

  /** What a file is among those that are missing. One that cannot be read is none of them. */
  async function foundIn(file: string, left: ReadonlyMap<AssetId, MissingFile>): Promise<MissingFile | null> {
    const known = await stat(file).catch(() => null);
    const candidate = { name: path.basename(file), size: known?.size ?? -1 };
    if (!known || ![...left.values()].some((one) => mayBe(one, candidate))) return null;
    const hash = await hashOfFile(file).catch(() => null);
    return hash === null ? null : (left.get(hash) ?? null);
  }
}

import { and, eq, inArray, isNotNull, notInArray } from 'drizzle-orm';
import { assetId, type AssetId } from '../../core/show/ids';
import type { BlobStore } from '../blobs/blob-store';
import type { OpenDatabase, Writing } from '../database/open-database';
import {
  assets,
  documents,
  edits,
  facts,
  filmDocuments,
  films,
  folderIntakes,
  guestNotes,
  invitations,
  screeningFilms,
  screeningPasses,
  screenings,
  seriesRows,
  sheetEntries,
  proofMarks,
  proofs,
  publications,
  showGuests,
  shows,
  takes,
  versions,
  viewings,
} from '../database/schema';

/** What nothing on the shelf or in the archive uses any more. */
export interface Unused {
  /** Shows that were taken off the shelf. */
  readonly showCount: number;
  readonly filmCount: number;
  /** Files that no other show has on its contact sheet. */
  readonly fileCount: number;
  readonly byteCount: number;
}

export interface Clearing {
  /** What would go. */
  look(studioId: string): Promise<Unused>;
  /** Takes it away for good. @returns what went */
  clear(studioId: string): Promise<Unused>;
}

interface ClearingParts {
  readonly database: OpenDatabase;
  readonly blobs: BlobStore;
  /** Ends a film’s making, and removes its file. */
  readonly endFilm: (filmId: string) => Promise<void>;
  readonly removeFilmFile: (filmId: string) => Promise<void>;
  /** Removes what is kept of pictures and sound for making films again. */
  readonly forgetSegments: () => Promise<void>;
  readonly now?: () => number;
}

/** A file that came so lately may be about to be laid on another sheet. */
const LATELY_MS = 10 * 60_000;

/** Clearing away what was taken off the shelf. Until somebody asks for it nothing goes: a show comes back as it was. */
export function createClearing({
  database: { db, write },
  blobs,
  endFilm,
  removeFilmFile,
  forgetSegments,
  now = Date.now,
}: ClearingParts): Clearing {
  return {
    look: async (studioId) => sizeOf(await found(db, studioId)),
    async clear(studioId) {
      for (const film of (await found(db, studioId)).films) await endFilm(film.id);
      // Nothing is laid on a sheet while files go: sheets are written through the same queue.
      return write(async (database) => {
        const gone = await database.transaction(async (transaction) => {
          const unused = await found(transaction, studioId);
          await removeRows(transaction, unused);
          return unused;
        });
        // Only what no row names any more: a fault before this leaves everything as it was.
        for (const film of gone.films) await removeFilmFile(film.id);
        if (gone.showIds.length > 0) await forgetSegments();
        for (const file of gone.files) await blobs.remove(file.id);
        return sizeOf(gone);
      });
    },
  };

  async function found(one: Writing, studioId: string): Promise<Found> {
    const gone = await one
      .select({ id: shows.id })
      .from(shows)
      .where(and(eq(shows.studioId, studioId), isNotNull(shows.removedAt)));
    const showIds = gone.map((show) => show.id);
    if (showIds.length === 0) return { showIds, films: [], files: [] };
    const made = await one
      .select({ id: films.id, byteCount: films.byteCount })
      .from(films)
      .where(inArray(films.showId, showIds));
    const theirs = await one
      .select({ id: sheetEntries.assetId, byteCount: sheetEntries.byteCount })
      .from(sheetEntries)
      .where(inArray(sheetEntries.showId, showIds));
    const kept = new Set(
      (
        await one
          .select({ id: sheetEntries.assetId })
          .from(sheetEntries)
          .where(notInArray(sheetEntries.showId, showIds))
      ).map((entry) => entry.id),
    );
    const files = new Map(theirs.filter((entry) => !kept.has(entry.id)).map((entry) => [entry.id, entry.byteCount]));
    const old: Found['files'][number][] = [];
    for (const [id, byteCount] of files) {
      const cameAt = await blobs.cameAt(assetId(id));
      if (cameAt === null || now() - cameAt > LATELY_MS) old.push({ id: assetId(id), byteCount });
    }
    return { showIds, films: made.map((film) => ({ id: film.id, byteCount: film.byteCount ?? 0 })), files: old };
  }
}

interface Found {
  readonly showIds: readonly string[];
  readonly films: readonly { readonly id: string; readonly byteCount: number }[];
  readonly files: readonly { readonly id: AssetId; readonly byteCount: number }[];
}

async function removeRows(one: Writing, { showIds, films: made, files }: Found): Promise<void> {
  for (const some of inPieces([...showIds])) {
    const shown = one.select({ id: screenings.id }).from(screenings).where(inArray(screenings.showId, some));
    for (const table of [screeningFilms, screeningPasses, guestNotes, viewings])
      await one.delete(table).where(inArray(table.screeningId, shown));
    await one.delete(screenings).where(inArray(screenings.showId, some));
    await one.update(seriesRows).set({ showId: null }).where(inArray(seriesRows.showId, some));
    const proofed = one.select({ id: proofs.id }).from(proofs).where(inArray(proofs.showId, some));
    await one.delete(proofMarks).where(inArray(proofMarks.proofId, proofed));
    await one.delete(proofs).where(inArray(proofs.showId, some));
  }
  const filmIds = made.map((film) => film.id);
  const fileIds = files.map((file) => file.id);
  for (const some of inPieces(filmIds)) {
    await one.delete(filmDocuments).where(inArray(filmDocuments.filmId, some));
    await one.delete(films).where(inArray(films.id, some));
  }
  for (const some of inPieces([...showIds])) {
    for (const table of [
      documents,
      edits,
      versions,
      folderIntakes,
      sheetEntries,
      takes,
      showGuests,
      invitations,
      publications,
    ])
      await one.delete(table).where(inArray(table.showId, some));
    await one.delete(shows).where(inArray(shows.id, some));
  }
  for (const some of inPieces(fileIds)) {
    await one.delete(facts).where(inArray(facts.assetId, some));
    await one.delete(assets).where(inArray(assets.id, some));
  }
}

/** SQLite takes at most so many variables in a statement. */
function inPieces(ids: readonly string[], size = 1000): string[][] {
  return Array.from({ length: Math.ceil(ids.length / size) }, (_, index) =>
    ids.slice(index * size, (index + 1) * size),
  );
}

function sizeOf({ showIds, films: made, files }: Found): Unused {
  return {
    showCount: showIds.length,
    filmCount: made.length,
    fileCount: files.length,
    byteCount: [...made, ...files].reduce((sum, one) => sum + one.byteCount, 0),
  };
}

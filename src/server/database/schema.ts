import { index, integer, primaryKey, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import type { ShowEdit } from '../../core/show/edit';
import type { AssetFacts } from '../../core/show/asset-facts';
import type { Show, ShowContent } from '../../core/show/show';
import type { FilmStage } from '../films/make-film';
import { zippedJson } from './zipped-json';

/** Times are milliseconds since 1970. */
export const shows = sqliteTable('shows', {
  id: text('id').primaryKey(),
  revision: integer('revision').notNull(),
  /** Kept here for the shelf. */
  title: text('title').notNull(),
  slideCount: integer('slide_count').notNull(),
  lengthMs: integer('length_ms').notNull(),
  posterAssetId: text('poster_asset_id'),
  createdAt: integer('created_at').notNull(),
  changedAt: integer('changed_at').notNull(),
  removedAt: integer('removed_at'),
  archivedAt: integer('archived_at'),
});

/** Shows written whole now and then, apart from their rows, which each edit writes. */
export const documents = sqliteTable('documents', {
  showId: text('show_id')
    .primaryKey()
    .references(() => shows.id),
  /** The show's revision when this was written; later edits are in `edits`. */
  revision: integer('revision').notNull(),
  document: zippedJson('document').$type<Show>().notNull(),
});

export const edits = sqliteTable(
  'edits',
  {
    showId: text('show_id')
      .notNull()
      .references(() => shows.id),
    /** The show's revision after this edit. */
    revision: integer('revision').notNull(),
    /** Given by the browser, so that an edit sent twice is applied once. */
    editId: text('edit_id').notNull(),
    edit: text('edit', { mode: 'json' }).$type<ShowEdit>().notNull(),
    at: integer('at').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.showId, table.revision] }),
    uniqueIndex('edits_once').on(table.showId, table.editId),
  ],
);

/** A show as it once was, kept for ever under a name. */
export const versions = sqliteTable(
  'versions',
  {
    id: text('id').primaryKey(),
    showId: text('show_id')
      .notNull()
      .references(() => shows.id),
    name: text('name').notNull(),
    /** `safety`: kept by itself, before something that could have lost work. */
    why: text('why', { enum: ['kept', 'safety'] }).notNull(),
    content: text('content', { mode: 'json' }).$type<ShowContent>().notNull(),
    slideCount: integer('slide_count').notNull(),
    lengthMs: integer('length_ms').notNull(),
    createdAt: integer('created_at').notNull(),
    removedAt: integer('removed_at'),
  },
  (table) => [index('versions_of_show').on(table.showId, table.createdAt)],
);

/** A folder on the server's own disk that is being taken in; the row goes when all of it has come. */
export const folderIntakes = sqliteTable('folder_intakes', {
  showId: text('show_id')
    .primaryKey()
    .references(() => shows.id),
  /** Below the configured root, with slashes. */
  folder: text('folder').notNull(),
});

/** What is known about a file, by content. */
export const assets = sqliteTable('assets', {
  id: text('id').primaryKey(),
  mime: text('mime').notNull(),
  byteCount: integer('byte_count').notNull(),
  facts: text('facts', { mode: 'json' }).$type<AssetFacts>().notNull(),
});

/** A file on a show's contact sheet. */
export const sheetEntries = sqliteTable(
  'sheet_entries',
  {
    id: text('id').primaryKey(),
    showId: text('show_id')
      .notNull()
      .references(() => shows.id),
    assetId: text('asset_id').notNull(),
    fileName: text('file_name').notNull(),
    byteCount: integer('byte_count').notNull(),
    /** `arrived`: safe on disk, not yet looked at. */
    state: text('state', { enum: ['arrived', 'ready', 'refused'] }).notNull(),
    problem: text('problem'),
    addedAt: integer('added_at').notNull(),
  },
  (table) => [
    uniqueIndex('sheet_entries_once').on(table.showId, table.assetId),
    index('sheet_entries_state').on(table.state),
  ],
);

export const films = sqliteTable(
  'films',
  {
    id: text('id').primaryKey(),
    showId: text('show_id')
      .notNull()
      .references(() => shows.id),
    /** The show as it was when the film was ordered. */
    document: text('document', { mode: 'json' }).$type<Show>().notNull(),
    title: text('title').notNull(),
    heightPx: integer('height_px').notNull(),
    framesPerSecond: integer('frames_per_second').notNull(),
    state: text('state', { enum: ['waiting', 'making', 'ready', 'failed', 'cancelled'] }).notNull(),
    stage: text('stage').$type<FilmStage>(),
    framesDone: integer('frames_done').notNull(),
    frameCount: integer('frame_count').notNull(),
    problem: text('problem'),
    byteCount: integer('byte_count'),
    /** The unguessable part of the screening's link. */
    screeningToken: text('screening_token').notNull().unique(),
    orderedAt: integer('ordered_at').notNull(),
    startedAt: integer('started_at'),
    finishedAt: integer('finished_at'),
  },
  (table) => [index('films_of_show').on(table.showId)],
);

/** Work to be done later. Whoever holds the lease works on it and renews it; a lease that has run out may be taken over. */
export const jobs = sqliteTable(
  'jobs',
  {
    id: text('id').primaryKey(),
    kind: text('kind', { enum: ['film'] }).notNull(),
    /** The film's id. */
    subjectId: text('subject_id').notNull(),
    state: text('state', { enum: ['waiting', 'running', 'done'] }).notNull(),
    holder: text('holder'),
    leaseUntil: integer('lease_until'),
    attempts: integer('attempts').notNull(),
    createdAt: integer('created_at').notNull(),
  },
  (table) => [index('jobs_by_state').on(table.state)],
);

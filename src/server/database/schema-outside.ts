import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { BURN_STATES, DISC_STATES, type DiscReport } from '../../core/disc/disc-making';
import type { DiscPlan } from '../../core/disc/disc-plan';
import { PURPOSE_NAMES, type PurposeName } from '../../core/film/purposes/purposes';
import { ROW_STATES, SERIES_STATES, type RowState, type SeriesPlan } from '../../core/series/series';
import type { HookEvent, Scope } from '../../core/studio/api-token';
import { accounts, shows } from './schema-roots';

/** What goes out of the house and comes into it: channels, publications, whole shows as one file, pages of several films, series. */

/** Where a studio is signed in elsewhere: at a video host, at a social page. */
export const channels = sqliteTable(
  'channels',
  {
    id: text('id').primaryKey(),
    studioId: text('studio_id').notNull(),
    place: text('place', { enum: ['video', 'post'] }).notNull(),
    /** As the host calls it. */
    name: text('name').notNull(),
    /** Null: it has to be signed in to anew. */
    accessToken: text('access_token'),
    refreshToken: text('refresh_token'),
    /** Until when the access token is good; null: not told. */
    expiresAt: integer('expires_at'),
    createdAt: integer('created_at').notNull(),
  },
  (table) => [index('channels_of_studio').on(table.studioId)],
);

/** Somebody who went to sign in elsewhere and has not come back yet. */
export const channelAsks = sqliteTable('channel_asks', {
  /** Of what they bring back; the word itself is not kept. */
  hash: text('hash').primaryKey(),
  accountId: text('account_id')
    .notNull()
    .references(() => accounts.id),
  studioId: text('studio_id').notNull(),
  place: text('place', { enum: ['video', 'post'] }).notNull(),
  /** What only this server knows of the question (PKCE). */
  verifier: text('verifier').notNull(),
  /** Our own address, as it was told then. */
  redirect: text('redirect').notNull(),
  /** The show they came from. */
  showId: text('show_id').notNull(),
  until: integer('until').notNull(),
});

/** What was handed over, or is to be: letters, films at a host, posts. */
export const publications = sqliteTable(
  'publications',
  {
    id: text('id').primaryKey(),
    studioId: text('studio_id').notNull(),
    showId: text('show_id')
      .notNull()
      .references(() => shows.id),
    kind: text('kind', { enum: ['mail', 'video', 'post'] }).notNull(),
    /** Who or where it goes to, as a person calls it. */
    to: text('to').notNull(),
    title: text('title').notNull(),
    wanted: text('wanted', { mode: 'json' }).notNull(),
    /** By which the place knows it again, so that asking twice makes one. */
    key: text('key').notNull(),
    /** `open`: not ended, whether it waits or is worked on. */
    state: text('state', { enum: ['open', 'there', 'refused', 'failed', 'cancelled', 'taken-down'] }).notNull(),
    problem: text('problem'),
    /** From when on it may have arrived, though nobody has said so. */
    handedAt: integer('handed_at'),
    /** What it is there. */
    outsideId: text('outside_id'),
    /** Where the rest of it is sent to. */
    uploadUrl: text('upload_url'),
    address: text('address'),
    orderedAt: integer('ordered_at').notNull(),
    endedAt: integer('ended_at'),
    /** When it was last seen there. */
    seenAt: integer('seen_at'),
  },
  (table) => [index('publications_of_show').on(table.showId)],
);

/** Shows that come as one file: on their way in, or not long here. */
export const bundleIntakes = sqliteTable(
  'bundle_intakes',
  {
    /** The show it becomes has the same. */
    id: text('id').primaryKey(),
    studioId: text('studio_id').notNull(),
    fileName: text('file_name').notNull(),
    state: text('state', { enum: ['taking', 'done', 'failed'] }).notNull(),
    problem: text('problem'),
    /** Once it is on the shelf. */
    showId: text('show_id'),
    fileCount: integer('file_count'),
    /** Files that were not as they said. */
    bad: text('bad', { mode: 'json' })
      .$type<readonly { readonly name: string; readonly problem: string }[]>()
      .notNull(),
    createdAt: integer('created_at').notNull(),
  },
  (table) => [index('bundle_intakes_of_studio').on(table.studioId)],
);

/** Pages of several screenings for one client. */
export const bills = sqliteTable(
  'bills',
  {
    id: text('id').primaryKey(),
    studioId: text('studio_id').notNull(),
    /** The unguessable part of its link. */
    token: text('token').notNull().unique(),
    title: text('title').notNull(),
    words: text('words').notNull(),
    /** In the order they are shown in. */
    screenings: text('screenings', { mode: 'json' }).$type<readonly string[]>().notNull(),
    shut: integer('shut', { mode: 'boolean' }).notNull(),
    createdAt: integer('created_at').notNull(),
  },
  (table) => [index('bills_of_studio').on(table.studioId)],
);

/** Shows of which many are made: a film for each row of a table. */
export const series = sqliteTable(
  'series',
  {
    id: text('id').primaryKey(),
    studioId: text('studio_id').notNull(),
    title: text('title').notNull(),
    /** The pattern. */
    showId: text('show_id').notNull(),
    plan: text('plan', { mode: 'json' }).$type<SeriesPlan>().notNull(),
    purpose: text('purpose', { enum: PURPOSE_NAMES as [PurposeName, ...PurposeName[]] }).notNull(),
    /** Below the folder of the server’s disk that was opened; null: files come from the browser. */
    folder: text('folder'),
    screened: integer('screened', { mode: 'boolean' }).notNull(),
    /** The page of all of them, once there is one. */
    billId: text('bill_id'),
    /** The pattern as it was when films were last asked for. */
    pattern: text('pattern', { mode: 'json' }),
    state: text('state', { enum: SERIES_STATES }).notNull(),
    /** When films were last asked for. */
    begunAt: integer('begun_at'),
    createdAt: integer('created_at').notNull(),
  },
  (table) => [index('series_of_studio').on(table.studioId)],
);

/** What became of each row. One that nothing was done about is not here. */
export const seriesRows = sqliteTable(
  'series_rows',
  {
    seriesId: text('series_id')
      .notNull()
      .references(() => series.id),
    /** From 1. */
    number: integer('number').notNull(),
    state: text('state', { enum: ROW_STATES as [RowState, ...RowState[]] }).notNull(),
    problem: text('problem'),
    told: text('told', { mode: 'json' }).$type<readonly string[]>().notNull(),
    showId: text('show_id'),
    filmId: text('film_id'),
    screeningId: text('screening_id'),
    /** A hash of all its show was built from, and the show’s revision then: a higher one was changed by hand. */
    builtFrom: text('built_from'),
    builtRevision: integer('built_revision'),
    endedAt: integer('ended_at'),
  },
  (table) => [primaryKey({ columns: [table.seriesId, table.number] }), index('series_rows_of_show').on(table.showId)],
);

/** Words by which programs ask, each for one person. */
export const tokens = sqliteTable(
  'tokens',
  {
    id: text('id').primaryKey(),
    /** Of the word; the word itself is not kept. */
    hash: text('hash').notNull().unique(),
    accountId: text('account_id')
      .notNull()
      .references(() => accounts.id),
    name: text('name').notNull(),
    scopes: text('scopes', { mode: 'json' }).$type<readonly Scope[]>().notNull(),
    createdAt: integer('created_at').notNull(),
    usedAt: integer('used_at'),
    until: integer('until'),
  },
  (table) => [index('tokens_of_account').on(table.accountId)],
);

/** Addresses of other programs that are told what happens. */
export const hooks = sqliteTable(
  'hooks',
  {
    id: text('id').primaryKey(),
    studioId: text('studio_id').notNull(),
    url: text('url').notNull(),
    /** By which what is told is signed. */
    secret: text('secret').notNull(),
    events: text('events', { mode: 'json' }).$type<readonly HookEvent[]>().notNull(),
    last: text('last'),
    createdAt: integer('created_at').notNull(),
  },
  (table) => [index('hooks_of_studio').on(table.studioId)],
);

/** Video discs: what is on them, and the image that was made last. */
export const discs = sqliteTable(
  'discs',
  {
    id: text('id').primaryKey(),
    studioId: text('studio_id').notNull(),
    plan: text('plan', { mode: 'json' }).$type<DiscPlan>().notNull(),
    state: text('state', { enum: DISC_STATES }).notNull(),
    problem: text('problem'),
    /** What the image was made of: the plan and the shows, as a hash. */
    madeOf: text('made_of'),
    madeAt: integer('made_at'),
    byteCount: integer('byte_count'),
    /** The content hash of the image. */
    imageHash: text('image_hash'),
    /** What the last image is like, and what is said of it. */
    report: text('report', { mode: 'json' }).$type<DiscReport>(),
    createdAt: integer('created_at').notNull(),
  },
  (table) => [index('discs_of_studio').on(table.studioId)],
);

/** Copies of an image that were burned, or are to be. */
export const burns = sqliteTable(
  'burns',
  {
    id: text('id').primaryKey(),
    discId: text('disc_id')
      .notNull()
      .references(() => discs.id),
    state: text('state', { enum: BURN_STATES }).notNull(),
    problem: text('problem'),
    /** Of the disc it is on, as the drive tells it. */
    serial: text('serial'),
    orderedAt: integer('ordered_at').notNull(),
    endedAt: integer('ended_at'),
  },
  (table) => [index('burns_of_disc').on(table.discId)],
);

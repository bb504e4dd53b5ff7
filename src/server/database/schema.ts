import { index, integer, primaryKey, real, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import { zippedJson } from './zipped-json';
import { accounts, shows } from './schema-roots';

export * from './schema-outside';
export * from './schema-roots';

/** Shows written whole now and then, apart from their rows, which each edit writes. */
export const documents = sqliteTable('documents', {
  showId: text('show_id')
    .primaryKey()
    .references(() => shows.id),
  /** The show's revision when this was written; later edits are in `edits`. */
  revision: integer('revision').notNull(),
  document: zippedJson('document').$type<unknown>().notNull(),
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
    /** As it was sent; `formatVersion` says how to read it. */
    edit: text('edit', { mode: 'json' }).$type<unknown>().notNull(),
    formatVersion: integer('format_version').notNull().default(1),
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
    content: text('content', { mode: 'json' }).$type<unknown>().notNull(),
    formatVersion: integer('format_version').notNull().default(1),
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

/** A file by content, apart from what is known about it, which is `facts`. */
export const assets = sqliteTable('assets', {
  id: text('id').primaryKey(),
  mime: text('mime').notNull(),
  byteCount: integer('byte_count').notNull(),
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
    /** Made here, not brought: a recording, or one that was cleaned; or lent by the studio's own shelf. */
    made: text('made', { enum: ['take', 'cleaned', 'studio', 'band'] }),
    /** How a file beside it rates it (XMP). */
    rating: integer('rating'),
  },
  (table) => [
    uniqueIndex('sheet_entries_once').on(table.showId, table.assetId),
    index('sheet_entries_state').on(table.state),
  ],
);

/** Recordings whose sound is still coming, or has come and was not kept yet. Their samples lie in a file of each. */
export const takes = sqliteTable(
  'takes',
  {
    id: text('id').primaryKey(),
    showId: text('show_id')
      .notNull()
      .references(() => shows.id),
    /** Where it was begun; null for a recording over the whole show. */
    slideId: text('slide_id'),
    name: text('name').notNull(),
    /** Samples a second. */
    rate: integer('rate').notNull(),
    startedAt: integer('started_at').notNull(),
  },
  (table) => [index('takes_of_show').on(table.showId)],
);

/** What a method found out about a file’s content. A better version of a method adds a row; shows and films go on with the one they were made with. */
export const facts = sqliteTable(
  'facts',
  {
    assetId: text('asset_id').notNull(),
    kind: text('kind').notNull(),
    methodVersion: integer('method_version').notNull(),
    value: text('value', { mode: 'json' }).$type<unknown>().notNull(),
    madeAt: integer('made_at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.assetId, table.kind, table.methodVersion] })],
);

/** What a person says about a file’s content where a method was wrong; it wins over every fact. Null: what was said was taken back. */
export const corrections = sqliteTable(
  'corrections',
  {
    studioId: text('studio_id').notNull(),
    assetId: text('asset_id').notNull(),
    kind: text('kind').notNull(),
    /** Grows with each change, so that the earlier ones can be gone back to. */
    revision: integer('revision').notNull(),
    value: text('value', { mode: 'json' }).$type<unknown>(),
    at: integer('at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.studioId, table.assetId, table.kind, table.revision] })],
);

export const films = sqliteTable(
  'films',
  {
    id: text('id').primaryKey(),
    studioId: text('studio_id').notNull().default('studio'),
    showId: text('show_id')
      .notNull()
      .references(() => shows.id),
    title: text('title').notNull(),
    heightPx: integer('height_px').notNull(),
    /** All that was asked for (`FilmSpec`); films of earlier versions have none. */
    spec: text('spec', { mode: 'json' }).$type<unknown>(),
    /** So many frames in so many seconds. */
    rateFrames: integer('frames_per_second').notNull(),
    rateSeconds: integer('rate_seconds').notNull().default(1),
    state: text('state', { enum: ['waiting', 'making', 'ready', 'failed', 'cancelled'] }).notNull(),
    frameCount: integer('frame_count').notNull(),
    problem: text('problem'),
    byteCount: integer('byte_count'),
    /** Frames that were there already when it was made. */
    keptFrames: integer('kept_frames'),
    /** How like its frames are to what was drawn, 0…1. */
    likeness: real('likeness'),
    orderedAt: integer('ordered_at').notNull(),
    startedAt: integer('started_at'),
    finishedAt: integer('finished_at'),
  },
  (table) => [index('films_of_show').on(table.showId)],
);

/** The show as it was when a film was ordered, apart from the row that changes while the film is made. */
export const filmDocuments = sqliteTable('film_documents', {
  filmId: text('film_id')
    .primaryKey()
    .references(() => films.id),
  document: zippedJson('document').$type<unknown>().notNull(),
});

/**
 * Work to be done later, with everything it needs. Whoever takes it holds a lease and renews it; one that has run out may be taken over. `fence` grows with
 * each taking: only who took it last can commit what came of it.
 */
export const jobs = sqliteTable(
  'jobs',
  {
    id: text('id').primaryKey(),
    studioId: text('studio_id').notNull(),
    kind: text('kind').notNull(),
    /** What it is about, by content or id: while one with the same kind and key is not ended there is no second. */
    key: text('key').notNull(),
    data: zippedJson('data').$type<unknown>().notNull(),
    /** Higher ones come first. */
    priority: integer('priority').notNull(),
    state: text('state', { enum: ['waiting', 'running', 'done', 'failed', 'cancelled'] }).notNull(),
    holder: text('holder'),
    fence: integer('fence').notNull(),
    leaseUntil: integer('lease_until'),
    /** Takings since anything was last finished of it. */
    tries: integer('tries').notNull(),
    notBefore: integer('not_before').notNull(),
    problem: text('problem'),
    createdAt: integer('created_at').notNull(),
    endedAt: integer('ended_at'),
  },
  (table) => [
    index('jobs_to_take').on(table.state, table.kind, table.priority),
    index('jobs_by_key').on(table.kind, table.key),
  ],
);

/** How far work is, apart from the row that holds it, since it is written often. */
export const jobProgress = sqliteTable('job_progress', {
  jobId: text('job_id')
    .primaryKey()
    .references(() => jobs.id),
  value: text('value', { mode: 'json' }).$type<unknown>().notNull(),
  at: integer('at').notNull(),
});

/** What a studio says of itself; the files it has beside its shows lie on the sheet of a show of its own, see `shelfOf`. */
export const studios = sqliteTable('studios', {
  id: text('id').primaryKey(),
  profile: text('profile', { mode: 'json' }).$type<unknown>().notNull(),
  /** Grows with each change. */
  revision: integer('revision').notNull(),
});

/** Mounts a studio made or was given. `id` is a hash of all a mount is: the same one is kept once. */
export const mounts = sqliteTable(
  'mounts',
  {
    studioId: text('studio_id').notNull(),
    id: text('id').notNull(),
    name: text('name').notNull(),
    document: zippedJson('document').$type<unknown>().notNull(),
    /** What it needs that was not there when it came, as sentences. */
    missing: text('missing', { mode: 'json' }).$type<readonly string[]>().notNull(),
    createdAt: integer('created_at').notNull(),
    removedAt: integer('removed_at'),
  },
  (table) => [primaryKey({ columns: [table.studioId, table.id] })],
);

/** Where films of a show are watched by whoever has the link. */
export const screenings = sqliteTable(
  'screenings',
  {
    id: text('id').primaryKey(),
    studioId: text('studio_id').notNull(),
    showId: text('show_id')
      .notNull()
      .references(() => shows.id),
    /** The unguessable part of its link. */
    token: text('token').notNull().unique(),
    /** Over the film's own; null: that one. */
    title: text('title'),
    /** Argon2id; null: whoever has the link may watch. */
    passwordHash: text('password_hash'),
    /** Nobody watches from here on; null: no such moment. */
    endsAt: integer('ends_at'),
    /** Shut by hand. */
    shut: integer('shut', { mode: 'boolean' }).notNull().default(false),
    mayTake: integer('may_take', { mode: 'boolean' }).notNull().default(false),
    guestBook: integer('guest_book', { mode: 'boolean' }).notNull().default(true),
    counts: integer('counts', { mode: 'boolean' }).notNull().default(true),
    /** What it asks for on pause and at the end; null: nothing. */
    call: text('call', { mode: 'json' }).$type<{ readonly words: string; readonly to: string }>(),
    createdAt: integer('created_at').notNull(),
  },
  (table) => [index('screenings_of_show').on(table.showId)],
);

/** What is shown at a screening: the same film in several qualities. */
export const screeningFilms = sqliteTable(
  'screening_films',
  {
    screeningId: text('screening_id')
      .notNull()
      .references(() => screenings.id),
    filmId: text('film_id').notNull(),
  },
  (table) => [primaryKey({ columns: [table.screeningId, table.filmId] })],
);

/** Who said a screening's password; what the browser holds is kept as a hash only. */
export const screeningPasses = sqliteTable('screening_passes', {
  hash: text('hash').primaryKey(),
  screeningId: text('screening_id')
    .notNull()
    .references(() => screenings.id),
  until: integer('until').notNull(),
});

/** What viewers wrote into a screening's guest book, and what was answered. */
export const guestNotes = sqliteTable(
  'guest_notes',
  {
    id: text('id').primaryKey(),
    screeningId: text('screening_id')
      .notNull()
      .references(() => screenings.id),
    showId: text('show_id').notNull(),
    /** Of answers: the note they are given to. */
    replyTo: text('reply_to'),
    /** Of the film. */
    atMs: integer('at_ms').notNull(),
    /** What the film showed then; null when the film's show cannot be read any more. */
    slideId: text('slide_id'),
    /** The slides before it then, nearest first: where the note stands when its slide is gone. */
    before: text('before', { mode: 'json' }).$type<readonly string[]>().notNull(),
    kind: text('kind', { enum: ['note', 'wish'] }).notNull(),
    by: text('by', { enum: ['guest', 'studio'] }).notNull(),
    name: text('name').notNull(),
    words: text('words').notNull(),
    /** `held`: until the studio lets it in. */
    state: text('state', { enum: ['open', 'done', 'hidden', 'held'] }).notNull(),
    createdAt: integer('created_at').notNull(),
  },
  (table) => [index('guest_notes_of_show').on(table.showId), index('guest_notes_of_screening').on(table.screeningId)],
);

/** One for each time a page began to play a film. Nothing in it says who it was. */
export const viewings = sqliteTable(
  'viewings',
  {
    id: text('id').primaryKey(),
    screeningId: text('screening_id')
      .notNull()
      .references(() => screenings.id),
    /** Stretches of the film that played, in its milliseconds, sorted and apart. */
    watched: text('watched', { mode: 'json' }).$type<readonly (readonly [number, number])[]>().notNull(),
    /** So much of the film, in milliseconds. */
    seenMs: integer('seen_ms').notNull(),
    startedAt: integer('started_at').notNull(),
    changedAt: integer('changed_at').notNull(),
  },
  (table) => [index('viewings_of_screening').on(table.screeningId)],
);

/** Shows that somebody may see and work on besides those of their studio. */
export const showGuests = sqliteTable(
  'show_guests',
  {
    accountId: text('account_id')
      .notNull()
      .references(() => accounts.id),
    showId: text('show_id')
      .notNull()
      .references(() => shows.id),
  },
  (table) => [primaryKey({ columns: [table.accountId, table.showId] })],
);

/** A browser that is signed in; what it holds is kept as a hash only. */
export const sessions = sqliteTable(
  'sessions',
  {
    hash: text('hash').primaryKey(),
    /** By which its owner ends it. */
    id: text('id').notNull().unique(),
    accountId: text('account_id')
      .notNull()
      .references(() => accounts.id),
    /** “Firefox on Linux” */
    browser: text('browser').notNull(),
    createdAt: integer('created_at').notNull(),
    seenAt: integer('seen_at').notNull(),
    until: integer('until').notNull(),
  },
  (table) => [index('sessions_of_account').on(table.accountId)],
);

/** Links that sign somebody in once. */
export const entries = sqliteTable('entries', {
  hash: text('hash').primaryKey(),
  accountId: text('account_id')
    .notNull()
    .references(() => accounts.id),
  until: integer('until').notNull(),
});

/** Links by which somebody joins a studio, or a show of it as a guest. */
export const invitations = sqliteTable(
  'invitations',
  {
    id: text('id').primaryKey(),
    hash: text('hash').notNull().unique(),
    studioId: text('studio_id').notNull(),
    role: text('role', { enum: ['owner', 'member', 'guest'] }).notNull(),
    /** Of guests. */
    showId: text('show_id').references(() => shows.id),
    /** For whom, as who invites calls them. */
    label: text('label').notNull(),
    createdAt: integer('created_at').notNull(),
    until: integer('until').notNull(),
  },
  (table) => [index('invitations_of_studio').on(table.studioId)],
);

/** Keys that lie in people’s devices; only the public half is here (Web Authentication). */
export const passkeys = sqliteTable(
  'passkeys',
  {
    id: text('id').primaryKey(),
    accountId: text('account_id')
      .notNull()
      .references(() => accounts.id),
    /** Base64url. */
    publicKey: text('public_key').notNull(),
    counter: integer('counter').notNull(),
    transports: text('transports', { mode: 'json' }).$type<readonly string[]>().notNull(),
    name: text('name').notNull(),
    createdAt: integer('created_at').notNull(),
  },
  (table) => [index('passkeys_of_account').on(table.accountId)],
);

/** Who did what. Names are kept as they were then. */
export const audit = sqliteTable(
  'audit',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    studioId: text('studio_id').notNull(),
    /** Null: not known, as when a password was wrong. */
    accountId: text('account_id'),
    name: text('name').notNull(),
    /** A sentence’s name in `audit-sentences`. */
    did: text('did').notNull(),
    /** What it was done to, as it was called then. */
    what: text('what').notNull(),
    /** So many times, one after the other. */
    count: integer('count').notNull(),
    at: integer('at').notNull(),
  },
  (table) => [index('audit_of_studio').on(table.studioId, table.at)],
);

/** Where a client marks pictures of a show. */
export const proofs = sqliteTable(
  'proofs',
  {
    id: text('id').primaryKey(),
    studioId: text('studio_id').notNull(),
    showId: text('show_id')
      .notNull()
      .references(() => shows.id),
    /** The unguessable part of its link. */
    token: text('token').notNull().unique(),
    label: text('label').notNull(),
    /** In the order they are shown in. */
    pictures: text('pictures', { mode: 'json' }).$type<readonly string[]>().notNull(),
    longestPx: integer('longest_px').notNull(),
    watermark: text('watermark'),
    endsAt: integer('ends_at'),
    shut: integer('shut', { mode: 'boolean' }).notNull().default(false),
    /** When the client sent the choice; null: they are still at it. */
    sentAt: integer('sent_at'),
    /** Who sent it, as they call themselves. */
    sentBy: text('sent_by'),
    createdAt: integer('created_at').notNull(),
  },
  (table) => [index('proofs_of_show').on(table.showId)],
);

/** What clients said of pictures. */
export const proofMarks = sqliteTable(
  'proof_marks',
  {
    proofId: text('proof_id')
      .notNull()
      .references(() => proofs.id),
    assetId: text('asset_id').notNull(),
    mark: text('mark', { enum: ['keep', 'linger', 'leave-out'] }),
    note: text('note').notNull(),
    at: integer('at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.proofId, table.assetId] })],
);

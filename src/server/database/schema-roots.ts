import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';

/** What other tables refer to. Times are milliseconds since 1970. */
export const shows = sqliteTable('shows', {
  id: text('id').primaryKey(),
  /** Whose it is; what belongs to a show belongs to its studio. */
  studioId: text('studio_id').notNull().default('studio'),
  revision: integer('revision').notNull(),
  /** Kept here for the shelf. */
  title: text('title').notNull(),
  slideCount: integer('slide_count').notNull(),
  lengthMs: integer('length_ms').notNull(),
  posterAssetId: text('poster_asset_id'),
  /** Of a clip: the frame that stands for it; null: its first. */
  posterAtMs: integer('poster_at_ms'),
  createdAt: integer('created_at').notNull(),
  changedAt: integer('changed_at').notNull(),
  removedAt: integer('removed_at'),
  archivedAt: integer('archived_at'),
});

/** People who sign in. Everybody belongs to one studio; what of it they see is said by their role. */
export const accounts = sqliteTable(
  'accounts',
  {
    id: text('id').primaryKey(),
    studioId: text('studio_id').notNull(),
    /** `guest`: of single shows, named in `show_guests`. */
    role: text('role', { enum: ['owner', 'member', 'guest'] }).notNull(),
    name: text('name').notNull(),
    /** In small letters; null as long as somebody signs in by one-time links only. */
    email: text('email').unique(),
    /** Argon2id; null: no password was set. */
    passwordHash: text('password_hash'),
    createdAt: integer('created_at').notNull(),
  },
  (table) => [index('accounts_of_studio').on(table.studioId)],
);

import { and, eq, inArray } from 'drizzle-orm';
import { FACT_KINDS } from '../../core/facts/fact-kinds';
import { withoutFaces, type FocusFacts } from '../../core/focus/focus-facts';
import { assetId, showId, type AssetId, type ShowId } from '../../core/show/ids';
import type { StudioProfile } from '../../core/studio/studio-profile';
import type { Database, OpenDatabase, Writing } from '../database/open-database';
import { facts, sheetEntries, shows, studios } from '../database/schema';

/** SQLite takes at most 32,766 variables in a statement. */
const IDS_AT_ONCE = 1000;

/** Whether a studio has faces looked for. */
async function wantsFaces(db: Writing | Database, studioId: string): Promise<boolean> {
  const [row] = await db.select({ profile: studios.profile }).from(studios).where(eq(studios.id, studioId));
  return (row?.profile as Partial<StudioProfile> | undefined)?.faces !== 'not-sought';
}

/** Whether faces are looked for in a picture: as soon as one of the studios that have it wants nobody’s to be, they are not. */
export async function seeksFaces(db: Database, id: AssetId): Promise<boolean> {
  const owners = await db
    .selectDistinct({ studioId: shows.studioId })
    .from(sheetEntries)
    .innerJoin(shows, eq(shows.id, sheetEntries.showId))
    .where(eq(sheetEntries.assetId, id));
  for (const { studioId } of owners) if (!(await wantsFaces(db, studioId))) return false;
  return true;
}

/** A studio’s pictures, with the shows they lie in. */
async function picturesOf(db: Database, studioId: string): Promise<{ assets: AssetId[]; shows: ShowId[] }> {
  const rows = await db
    .selectDistinct({ asset: sheetEntries.assetId, show: sheetEntries.showId })
    .from(sheetEntries)
    .innerJoin(shows, eq(shows.id, sheetEntries.showId))
    .where(eq(shows.studioId, studioId));
  return {
    assets: [...new Set(rows.map(({ asset }) => assetId(asset)))],
    shows: [...new Set(rows.map(({ show }) => showId(show)))],
  };
}

/** Deletes what was found about faces in all of a studio’s pictures, by every version of the method. @returns the shows whose sheets have changed */
export async function forgetFaces({ db, write }: OpenDatabase, studioId: string): Promise<ShowId[]> {
  const { assets, shows: ids } = await picturesOf(db, studioId);
  for (let from = 0; from < assets.length; from += IDS_AT_ONCE) {
    const some = and(eq(facts.kind, 'focus'), inArray(facts.assetId, assets.slice(from, from + IDS_AT_ONCE)));
    await write((one) =>
      one.transaction(async (transaction) => {
        for (const row of await transaction.select().from(facts).where(some)) {
          const value = withoutFaces(row.value as FocusFacts);
          await transaction
            .update(facts)
            .set({ value })
            .where(
              and(eq(facts.assetId, row.assetId), eq(facts.kind, 'focus'), eq(facts.methodVersion, row.methodVersion)),
            );
        }
      }),
    );
  }
  return ids;
}

/** Forgets of a studio’s pictures what was found while faces were not looked for, so that they are looked at again. @returns which */
export async function forgetFacelessFacts({ db, write }: OpenDatabase, studioId: string): Promise<AssetId[]> {
  const { assets } = await picturesOf(db, studioId);
  const again: AssetId[] = [];
  for (let from = 0; from < assets.length; from += IDS_AT_ONCE) {
    const some = assets.slice(from, from + IDS_AT_ONCE);
    const focus = and(eq(facts.kind, 'focus'), eq(facts.methodVersion, FACT_KINDS.focus.version));
    const rows = await db
      .select()
      .from(facts)
      .where(and(focus, inArray(facts.assetId, some)));
    const faceless = rows.filter(({ value }) => (value as FocusFacts).facesSought === false).map((row) => row.assetId);
    if (faceless.length === 0) continue;
    await write((one) => one.delete(facts).where(and(focus, inArray(facts.assetId, faceless))));
    again.push(...faceless.map(assetId));
  }
  return again;
}

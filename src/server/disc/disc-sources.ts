import { createHash } from 'node:crypto';
import type { DiscPlan } from '../../core/disc/disc-plan';
import { shippedMount } from '../../core/mounts/shipped/shipped-mounts';
import { filesOfMount, mountOf } from '../../core/mounts/mount-document';
import type { Mount } from '../../core/mounts/mount';
import { showId, type AssetId } from '../../core/show/ids';
import { assetIdsOf, contentOf, type Show } from '../../core/show/show';
import { stableText } from '../../core/stable-text';
import type { ContactSheet } from '../assets/contact-sheet';
import type { FilmService } from '../films/film-service';
import type { BlobStore } from '../blobs/blob-store';
import type { StudioService } from '../reuse/studio-service';
import type { ShowService } from '../shows/show-service';
import type { Database } from '../database/open-database';
import { and, eq, isNull } from 'drizzle-orm';
import { shows as showTable } from '../database/schema';
import type { DiscOrder, DiscSource } from './make-image';

export const NO_MOUNT = 'The mount of the menu is not there any more. Choose another one.';

/** The shows of a disc as they are now. */
export interface DiscShows {
  readonly shows: readonly Show[];
  /** Why it cannot be made of them, a sentence each. */
  readonly faults: readonly string[];
}

interface SourceParts {
  readonly db: Database;
  readonly shows: ShowService;
  readonly sheet: ContactSheet;
  readonly blobs: BlobStore;
  readonly studio: StudioService;
  readonly films: FilmService;
}

/** Where a disc's shows, mount and studio come from. Shows of other studios are not there. */
export function createDiscSources({ db, shows, sheet, blobs, studio, films }: SourceParts) {
  return {
    async showsOf(studioId: string, plan: DiscPlan): Promise<DiscShows> {
      const found: Show[] = [];
      const faults: string[] = [];
      for (const { showId: id, title } of plan.films) {
        const name = title.trim() || 'One of its shows';
        const [own] = await db
          .select({ id: showTable.id })
          .from(showTable)
          .where(and(eq(showTable.id, id), eq(showTable.studioId, studioId), isNull(showTable.removedAt)));
        const opened = own ? await shows.load(showId(id)) : null;
        if (!opened) faults.push(`${name} is not on the shelf any more. Take it off the disc.`);
        else if (opened.damage !== null) faults.push(`“${opened.show.title}” cannot be read. Take it off the disc.`);
        else if (opened.show.slides.length === 0)
          faults.push(`“${opened.show.title || 'Untitled'}” has no slides yet.`);
        else found.push(opened.show);
      }
      if (plan.films.length === 0) faults.push('There is no film on it yet. Put a show on it.');
      return { shows: found, faults };
    },

    /** What is known of a show's files, whether all were looked at or not. */
    factsOf: (show: Show) => sheet.factsOf(assetIdsOf(show), show.methods),

    /** A show with its files as they are: what is still being looked at is drawn without. */
    async sourceNow(show: Show): Promise<DiscSource> {
      return { show, ...(await films.sourceOf(show, 'now')) };
    },

    /** The mount behind the first page, with its own files; the usual one's place is taken when it is not there any more. */
    async mountOf(studioId: string, plan: DiscPlan): Promise<Pick<DiscOrder, 'mount' | 'mountFiles'> | null> {
      const shipped = shippedMount(plan.menu.mount);
      if (shipped) return { mount: shipped, mountFiles: { facts: new Map(), files: new Map() } };
      const kept = (await studio.mounts(studioId)).find(({ id }) => id === plan.menu.mount);
      if (!kept) return null;
      const ids = filesOfMount(kept.document);
      const files = new Map<AssetId, string>();
      for (const id of ids) files.set(id, await blobs.localFile(id));
      return {
        mount: mountOf(kept.id, kept.document),
        mountFiles: { facts: await sheet.factsOf(ids), files },
      };
    },

    async keptMounts(studioId: string): Promise<Mount[]> {
      const kept = await studio.mounts(studioId);
      return kept.filter(({ removed }) => !removed).map(({ id, document }) => mountOf(id, document));
    },

    async studioOf(studioId: string): Promise<DiscOrder['studio'] & { readonly logoFile: string | null }> {
      const { name, contact, logo } = (await studio.open(studioId)).profile;
      return { name, contact, logo, logoFile: logo ? await blobs.localFile(logo) : null };
    },

    /** What an image is made of, as a hash: by it is known whether it is of today. */
    madeOf(plan: DiscPlan, shownNow: readonly Show[]): string {
      return createHash('sha256')
        .update(stableText([plan, shownNow.map(contentOf)]))
        .digest('hex');
    },
  };
}

export type DiscSources = ReturnType<typeof createDiscSources>;

type Gathered = Pick<DiscOrder, 'plan' | 'sources' | 'mount' | 'mountFiles'> & {
  readonly studio: DiscOrder['studio'] & { readonly logoFile: string | null };
};

/** The studio's own logo is a file of no show. */
export function withLogo(order: Gathered): Gathered {
  const { logo, logoFile } = order.studio;
  if (!logo || !logoFile) return order;
  const { facts, files } = order.mountFiles;
  return { ...order, mountFiles: { facts, files: new Map([...files, [logo, logoFile]]) } };
}

import { aboutSong } from '../../core/show/song-tags';
import type { DiscReport, DiscState } from '../../core/disc/disc-making';
import type { DiscPlan } from '../../core/disc/disc-plan';
import { drawnSize } from '../../core/disc/disc-standard';
import type { DiscFit } from '../../core/disc/fit-disc';
import type { MenuPage } from '../../core/disc/menu-pages';
import { menuColours, menuFit, pageTimes, type MenuColours } from '../../core/disc/menu-shows';
import { PLAIN_LOOK } from '../../core/mounts/plain-look';
import { SHIPPED_MOUNTS } from '../../core/mounts/shipped/shipped-mounts';
import { picturesOf } from '../../core/show/layout';
import type { Show } from '../../core/show/show';
import type { discs } from '../database/schema';
import { NO_MOUNT, type DiscSources } from './disc-sources';
import { plannedDisc } from './make-image';

/** A film of a disc, as its page shows it. */
export interface SeenFilm {
  readonly showId: string;
  /** As the menu calls it. */
  readonly title: string;
  readonly lengthMs: number;
  readonly chapters: readonly { readonly title: string; readonly startMs: number }[];
}

/** A disc as its page shows it. */
export interface DiscSeen {
  readonly id: string;
  readonly plan: DiscPlan;
  readonly state: DiscState;
  /** Differs when the plan or anything in its shows does. */
  readonly stamp: string;
  /** The image is of what the disc was before it was changed, or its shows were. */
  readonly isOld: boolean;
  /** None when a show is missing. */
  readonly films: readonly SeenFilm[];
  readonly pages: readonly (MenuPage & { readonly lengthMs: number })[];
  readonly fit: DiscFit | null;
  readonly colours: MenuColours;
  /** What is to be known before it is made: why it cannot be, and what will be otherwise than one might think. */
  readonly faults: readonly string[];
  readonly told: readonly string[];
  /** What can be chosen. */
  readonly mounts: readonly { readonly id: string; readonly name: string; readonly shelf: string }[];
  readonly songs: readonly { readonly id: string; readonly name: string }[];
  readonly report: DiscReport | null;
}

/** @param missing programs that are not installed, a sentence each */
export async function seenDisc(
  row: typeof discs.$inferSelect,
  sources: DiscSources,
  missing: readonly string[],
): Promise<DiscSeen> {
  const { id, studioId, plan, state, report, madeOf, imageHash } = row;
  const { shows, faults } = await sources.showsOf(studioId, plan);
  const whole = faults.length === 0;
  const known = whole
    ? await Promise.all(shows.map(async (show) => ({ show, facts: await sources.factsOf(show) })))
    : [];
  const stamp = sources.madeOf(plan, shows);
  const planned = whole ? plannedDisc(plan, known) : null;
  return {
    ...{ id, plan, state, report, stamp },
    isOld: imageHash !== null && whole && madeOf !== stamp,
    films: (planned?.films ?? []).map(({ showId, title, lengthMs, frameCount, chapters }) => ({
      ...{ showId, title, lengthMs },
      chapters: chapters.map((chapter) => ({
        title: chapter.title,
        startMs: Math.round((chapter.startFrame * lengthMs) / frameCount),
      })),
    })),
    pages: (planned?.pages ?? []).map((page) => ({ ...page, lengthMs: pageTimes(plan, page).lengthMs })),
    fit: planned?.fit ?? null,
    colours: menuColours(shows[0]),
    faults: [
      ...faults,
      ...((await sources.mountOf(studioId, plan)) ? [] : [NO_MOUNT]),
      ...missing,
      ...(planned?.fit.fault ? [planned.fit.fault] : []),
    ],
    told: planned?.told ?? [],
    mounts: await mountsFor(studioId, plan, shows, sources),
    songs: await songsOf(shows, sources),
  };
}

/** Mounts that can be a menu: those of one slide. */
async function mountsFor(studioId: string, plan: DiscPlan, shows: readonly Show[], sources: DiscSources) {
  const pictures = shows.reduce(
    (sum, { slides }) => sum + slides.filter((slide) => picturesOf(slide).length > 0).length,
    0,
  );
  const { logo } = await sources.studioOf(studioId);
  const frame = drawnSize(plan.standard, plan.shape);
  return [...(await sources.keptMounts(studioId)), ...SHIPPED_MOUNTS].flatMap((mount) => {
    const fit = menuFit(mount, frame, PLAIN_LOOK, pictures);
    const hasLogo = fit?.windows.some(({ takes }) => takes === 'logo') ?? false;
    return fit && (!hasLogo || logo) ? [{ id: mount.id, name: mount.name, shelf: mount.shelf }] : [];
  });
}

async function songsOf(shows: readonly Show[], sources: DiscSources) {
  const songs = new Map<string, string>();
  for (const show of shows) {
    const facts = await sources.factsOf(show);
    for (const { kind, assetId } of show.cues) {
      const known = facts.get(assetId);
      if (kind === 'song' && known && !songs.has(assetId))
        songs.set(
          assetId,
          aboutSong(known.kind === 'sound' ? known : undefined, show.tags?.[assetId]).title ?? 'Song of the show',
        );
    }
  }
  return [...songs].map(([id, name]) => ({ id, name }));
}

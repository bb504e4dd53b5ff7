import { mkdir, readdir, rm, stat, statfs, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { authoringDocument, type AuthoredPage } from '../../core/disc/authoring';
import { discFilm, wholePictures, type DiscFilm } from '../../core/disc/disc-chapters';
import { tellingFar, type DiscProgress } from '../../core/disc/disc-making';
import type { DiscPlan } from '../../core/disc/disc-plan';
import { DISC_BYTES, discSpec, drawnSize, STANDARDS } from '../../core/disc/disc-standard';
import { fitDisc, type DiscFit } from '../../core/disc/fit-disc';
import { menuPages, type MenuPage } from '../../core/disc/menu-pages';
import { pageShow, pageTimes, type MenuGround } from '../../core/disc/menu-shows';
import { walkDisc, type WalkedDisc } from '../../core/disc/reading/walk-disc';
import { showForFilm, type FilmSpec } from '../../core/film/film-spec';
import { prepareShow } from '../../core/frame/plan-frame';
import type { AssetFacts, FactsById } from '../../core/show/asset-facts';
import type { AssetId } from '../../core/show/ids';
import type { Show } from '../../core/show/show';
import { planMix } from '../../core/sound/plan-mix';
import { renameSafely } from '../blobs/whole';
import { FilmFailedError } from '../films/film-failed-error';
import type { UnreadFile } from '../films/film-work';
import type { KeptFiles } from '../films/kept-files';
import { makeFilm } from '../films/make-film';
import { missingPrograms, runDiscProgram } from './disc-programs';
import { openSectors } from './image-sectors';
import { menuVideo } from './menu-video';

/** A show that goes on a disc, with its files. */
export interface DiscSource {
  readonly show: Show;
  readonly facts: FactsById;
  readonly files: ReadonlyMap<AssetId, string>;
}

export interface DiscOrder {
  readonly plan: DiscPlan;
  /** In the order of `plan.films`. */
  readonly sources: readonly DiscSource[];
  readonly mount: MenuGround['mount'];
  /** What the mount carries. */
  readonly mountFiles: Pick<DiscSource, 'facts' | 'files'>;
  readonly studio: MenuGround['studio'];
  readonly outFile: string;
  readonly workFolder: string;
  readonly kept: KeptFiles;
  readonly signal?: AbortSignal | undefined;
  readonly onProgress?: (progress: DiscProgress) => void;
}

export interface MadeDisc {
  readonly byteCount: number;
  readonly pictureKbits: number;
  readonly walked: WalkedDisc;
  readonly told: readonly string[];
  readonly problems: readonly UnreadFile[];
}

/** All of a disc that is known before anything of it is made. */
export interface PlannedDisc {
  readonly films: readonly DiscFilm[];
  readonly pages: readonly MenuPage[];
  readonly fit: DiscFit;
  readonly told: readonly string[];
}

/** What the films, the menu and the fit of a disc are. */
export function plannedDisc(plan: DiscPlan, sources: readonly Pick<DiscSource, 'show' | 'facts'>[]): PlannedDisc {
  const spec = discSpec(plan.standard, plan.shape, 6000);
  const films = sources.map(({ show, facts }, index) => {
    const { showId, title } = plan.films[index]!;
    const prepared = prepareShow(showForFilm(show, spec, facts), facts);
    return discFilm(prepared, showId, title.trim() || show.title || 'Untitled', plan.chaptersBy);
  });
  const pages = menuPages(plan, films);
  const menusMs = pages.reduce((sum, page) => sum + pageTimes(plan, page).lengthMs, 0);
  const fit = fitDisc(
    films.reduce((sum, { lengthMs }) => sum + lengthMs, 0),
    menusMs,
    plan.layers,
  );
  return { films, pages, fit, told: films.flatMap(({ told }) => told) };
}

/** What a menu is designed from. */
export function menuGround(
  order: Pick<DiscOrder, 'plan' | 'sources' | 'mount' | 'mountFiles' | 'studio'>,
  films: readonly DiscFilm[],
): MenuGround {
  const { plan, sources, mount, mountFiles, studio } = order;
  return {
    plan,
    films,
    mount,
    studio,
    shows: sources.map(({ show }) => show),
    facts: allOf(sources.map(({ facts }) => facts).concat(mountFiles.facts)),
  };
}

/** How a page of a menu is drawn. */
export function pageSpec({ standard, shape }: Pick<DiscPlan, 'standard' | 'shape'>): FilmSpec {
  const { rate } = STANDARDS[standard];
  return { purpose: 'disc', format: 'mp4', shape, ...drawnSize(standard, shape), rate, quality: 'best' };
}

export function filesOfAll(order: Pick<DiscOrder, 'sources' | 'mountFiles'>): ReadonlyMap<AssetId, string> {
  return allOf([...order.sources.map(({ files }) => files), order.mountFiles.files]);
}

const allOf = <Value>(maps: readonly ReadonlyMap<AssetId, Value>[]): Map<AssetId, Value> =>
  new Map(maps.flatMap((map) => [...map]));

const MOST_TRIES = 3;

/**
 * Makes the image of a DVD-Video disc: films, pages of the menu, structures, file system; then walks through what came of it, button by button.
 *
 * @throws {FilmFailedError} with a sentence for the person
 */
export async function makeImage(order: DiscOrder): Promise<MadeDisc> {
  const { plan, sources, workFolder, outFile, kept, signal } = order;
  const far = tellingFar(order.onProgress ?? (() => {}), () => performance.now());
  const missing = await missingPrograms();
  if (missing.length > 0) throw new FilmFailedError(missing.join(' '), '');
  if (sources.length === 0) throw new FilmFailedError('There is no film on this disc yet.', '');
  const { films, pages, fit, told } = plannedDisc(plan, sources);
  if (fit.fault) throw new FilmFailedError(fit.fault, '');
  await assertRoom(path.dirname(outFile), fit.byteCount);
  await rm(workFolder, { recursive: true, force: true });
  await mkdir(workFolder, { recursive: true });
  try {
    const problems = new Map<AssetId, UnreadFile>();
    const pageFiles = await madePages();
    let pictureKbits = fit.pictureKbits;
    const authored = path.join(workFolder, 'disc');
    for (let tries = 1; ; tries += 1) {
      await madeFilms(pictureKbits);
      await author(authored);
      const bytes = await bytesBelow(authored);
      const room = DISC_BYTES[plan.layers] - AROUND_BYTES;
      if (bytes <= room) break;
      if (tries === MOST_TRIES)
        throw new FilmFailedError('These films do not fit on the disc. Take one with two layers, or fewer films.', '');
      pictureKbits = Math.floor(pictureKbits * (room / bytes) * 0.97);
      await rm(authored, { recursive: true, force: true });
    }
    for (const file of films.keys()) await rm(filmFile(file), { force: true });
    const byteCount = await image(authored);
    far('checking', 0);
    const sectors = await openSectors(`${outFile}.part`);
    const walked = await walkDisc({ plan, films, pages }, sectors.read).finally(() => sectors.close());
    if (walked.faults.length > 0)
      throw new FilmFailedError(
        'The disc that came of it does not do what it should, so it was not kept.',
        walked.faults.join('; '),
      );
    await renameSafely(`${outFile}.part`, outFile);
    await kept.prune();
    return { byteCount, pictureKbits, walked, told, problems: [...problems.values()] };

    async function madePages(): Promise<AuthoredPage[]> {
      const made: AuthoredPage[] = [];
      const ground = menuGround(order, films);
      const files = filesOfAll(order);
      const folder = path.join(workFolder, 'menu');
      await mkdir(folder, { recursive: true });
      for (const [index, page] of pages.entries()) {
        far('menu', index / pages.length);
        const drawn = path.join(folder, `drawn-${index + 1}.mp4`);
        const of = pageShow(ground, page);
        if (!of.ok) throw new FilmFailedError(of.sentence, '');
        const { problems: unread } = await makeFilm({
          show: of.show,
          spec: pageSpec(plan),
          facts: ground.facts,
          files,
          outFile: drawn,
          workFolder: path.join(folder, 'work'),
          kept,
          ...(signal && { signal }),
        });
        for (const problem of unread) problems.set(problem.assetId, problem);
        const hasSound = planMix(of.show, ground.facts).parts.length > 0;
        const { colours, lengthMs, roundMs } = of;
        const file = await menuVideo({
          plan,
          page,
          drawn,
          hasSound,
          colours,
          lengthMs,
          roundMs,
          folder,
          index,
          signal,
        });
        made.push({ file, roundMs });
      }
      return made;
    }

    async function madeFilms(kbits: number): Promise<void> {
      const all = films.reduce((sum, { frameCount }) => sum + frameCount, 0);
      let before = 0;
      for (const [index, film] of films.entries()) {
        const { show, facts, files } = sources[index]!;
        const { problems: unread } = await makeFilm({
          show,
          facts: facts as ReadonlyMap<AssetId, AssetFacts>,
          files,
          spec: discSpec(plan.standard, plan.shape, kbits),
          outFile: filmFile(index),
          wholeFrames: wholePictures(
            film.chapters.map(({ startFrame }) => startFrame),
            STANDARDS[plan.standard].groupFrames,
          ),
          workFolder: path.join(workFolder, `film-${index + 1}.work`),
          kept,
          ...(signal && { signal }),
          onProgress: ({ stage, share }) => {
            // Drawing is most of it; what comes before and after is told as part of it.
            const own =
              stage === 'sound' ? 0.02 * share : stage === 'pictures' ? 0.02 + 0.75 * share : 0.77 + 0.23 * share;
            far('films', Math.min(1, (before + film.frameCount * own) / all));
          },
        });
        before += film.frameCount;
        for (const problem of unread) problems.set(problem.assetId, problem);
      }
    }

    async function author(folder: string): Promise<void> {
      far('authoring', 0);
      const document = path.join(workFolder, 'disc.xml');
      const files = { folder, films: films.map((_, index) => filmFile(index)), pages: pageFiles };
      await writeFile(document, authoringDocument(plan, films, pages, files));
      await runDiscProgram('dvdauthor', ['-x', document], { signal, standard: STANDARDS[plan.standard].name });
    }
  } catch (error) {
    await rm(`${outFile}.part`, { force: true });
    throw error;
  } finally {
    await rm(workFolder, { recursive: true, force: true });
  }

  function filmFile(index: number): string {
    return path.join(workFolder, `film-${index + 1}.mpg`);
  }

  async function image(folder: string): Promise<number> {
    far('image', 0);
    await runDiscProgram(
      'genisoimage',
      ['-dvd-video', '-V', volumeLabel(plan.title), '-o', `${outFile}.part`, folder],
      {
        signal,
        onSaid: (line) => {
          const share = /^\s*([\d.]+)% done/.exec(line);
          if (share) far('image', Number(share[1]) / 100);
        },
      },
    );
    return (await stat(`${outFile}.part`)).size;
  }
}

/** Films lie there as they were encoded and as they are on the disc, then as that and as an image. */
const TIMES_ON_DISK = 2.1;

/** @throws {FilmFailedError} when the disk has no room for what making it takes */
async function assertRoom(folder: string, byteCount: number): Promise<void> {
  const { bavail, bsize } = await statfs(folder);
  const wanted = byteCount * TIMES_ON_DISK;
  if (bavail * bsize < wanted)
    throw new FilmFailedError(
      `Making this disc takes ${(wanted / 1e9).toFixed(1)} GB of the server’s disk, and ${((bavail * bsize) / 1e9).toFixed(1)} GB are free.`,
      '',
    );
}

/** The file system's own, and what rounding to sectors takes. */
const AROUND_BYTES = 2_000_000;

async function bytesBelow(folder: string): Promise<number> {
  let sum = 0;
  for (const entry of await readdir(folder, { recursive: true, withFileTypes: true }))
    if (entry.isFile()) sum += (await stat(path.join(entry.parentPath, entry.name))).size;
  return sum;
}

/** A title as a disc's file system can be called: capital letters, figures and lines, thirty-two at most. */
export function volumeLabel(title: string): string {
  const plain = title
    .normalize('NFKD')
    .replaceAll(/\p{M}/gu, '')
    .replaceAll('ß', 'ss')
    .replaceAll(/[^\p{L}\p{N}]+/gu, '_')
    .replaceAll(/[^A-Za-z0-9_]/g, '')
    .toUpperCase()
    .replaceAll(/^_+|_+$/g, '');
  return plain.slice(0, 32) || 'DISC';
}

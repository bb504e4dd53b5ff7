import { mkdir } from 'node:fs/promises';
import path from 'node:path';
import { createContactSheet, type ContactSheet } from './assets/contact-sheet';
import { createFolderIntake, type FolderIntake } from './assets/folder-intake';
import { createMissingFiles, type MissingFiles } from './assets/missing-files';
import { finding, hearing, looking, proxying } from './assets/looking';
import type { BlobStore } from './blobs/blob-store';
import type { ObjectStore } from './blobs/object-store';
import { openStorage, type Storage } from './open-storage';
import { clearParts } from './blobs/whole';
import { openDatabase, type Database } from './database/open-database';
import { keepReserve } from './database/reserve';
import { createDecoders, type Decoders } from './decoding/decoders';
import { createEvents, type Events } from './events';
import { createFactStore, type FactStore } from './facts/fact-store';
import { createFilmService, type FilmService } from './films/film-service';
import type { SegmentFarm } from './farm/farm';
import { drawingVersion } from './films/film-keys';
import { filmWorkers } from './films/make-film';
import { openHallDoor, USUAL_HALL_PORT, type HallDoor } from './hall/hall-door';
import { createJobRunner, type JobRunner } from './jobs/job-runner';
import { createJobStore } from './jobs/job-store';
import type { JobStore } from './jobs/job';
import { lockFolder } from './lock-folder';
import { logger } from './logger';
import { dataFolder, openFolder } from './paths';
import { createBandService, type BandService } from './band/band-service';
import { createRecordingService, type RecordingService } from './recording/recording-service';
import { createBundleService, type BundleService } from './bundles/bundle-service';
import { burningDiscs } from './disc/burning';
import { createDiscService, type DiscService } from './disc/disc-service';
import { createDiscSources } from './disc/disc-sources';
import { makingDisc } from './disc/making-disc';
import { makingSeries } from './series/make-series';
import { openSeriesFiles, type SeriesFiles } from './series/series-files';
import { createSeriesService, type SeriesService } from './series/series-service';
import { createChannels, type Channels } from './publishing/channels';
import { createPlaces, type Places } from './publishing/places';
import { createPublishingService, type PublishingService } from './publishing/publishing-service';
import { openStandIns, USUAL_STAND_INS_PORT, type StandIns } from './stand-ins/open-stand-ins';
import { createProofService, type ProofService } from './proofs/proof-service';
import { createStudioService, type StudioService } from './reuse/studio-service';
import { createBills, type Bills } from './screenings/bills';
import { createScreeningService, type ScreeningService } from './screenings/screening-service';
import { createAccounts, type Accounts } from './studio/accounts';
import { createAudit, type Audit } from './studio/audit';
import { letOwnerIn } from './studio/first-owner';
import { createInvitations, type Invitations } from './studio/invitations';
import { createPasskeys, type Passkeys } from './studio/passkeys';
import { createHooks, type Hooks } from './studio/hooks';
import { createSessions, type Sessions } from './studio/sessions';
import { createTokens, type Tokens } from './studio/tokens';
import { createClearing, type Clearing } from './shows/clearing';
import { createShowService, type ShowService } from './shows/show-service';
import { createVersionService, type VersionService } from './shows/versions';

/** Everything that lives as long as the server process. */
export interface RunningServer {
  readonly db: Database;
  readonly shows: ShowService;
  readonly versions: VersionService;
  readonly sheet: ContactSheet;
  readonly folders: FolderIntake;
  readonly missing: MissingFiles;
  readonly films: FilmService;
  readonly screenings: ScreeningService;
  readonly bills: Bills;
  readonly proofs: ProofService;
  /** What is handed over to places outside, and how they are reached. */
  readonly publishing: PublishingService;
  /** Whole shows as one file, out and in. */
  readonly bundles: BundleService;
  /** Many films of one pattern. */
  readonly series: SeriesService;
  readonly seriesFiles: SeriesFiles;
  /** Video discs. */
  readonly discs: DiscService;
  readonly channels: Channels;
  readonly places: Places;
  readonly studio: StudioService;
  readonly accounts: Accounts;
  readonly sessions: Sessions;
  readonly tokens: Tokens;
  readonly hooks: Hooks;
  readonly invitations: Invitations;
  readonly passkeys: Passkeys;
  readonly audit: Audit;
  readonly clearing: Clearing;
  readonly recording: RecordingService;
  readonly band: BandService;
  readonly facts: FactStore;
  readonly blobs: BlobStore;
  readonly decoders: Decoders;
  readonly jobs: JobStore;
  readonly runner: JobRunner;
  readonly events: Events;
  /** Null unless the server was told to open it. */
  readonly hall: HallDoor | null;
  /** Other machines that draw as well; null where none are looked for. */
  readonly farm: SegmentFarm | null;
  /** The store other machines reach too; null where everything lies in the data folder. */
  readonly objects: ObjectStore | null;
  readonly uploadFolder: string;
  /** Ends in good order: nothing is taken up any more, work is given back, programs are ended. */
  close(): Promise<void>;
}

const RESERVE_AGAIN_MS = 10 * 60_000;

// Next bundles routes apart from each other; the one process has one server all the same.
const held = globalThis as typeof globalThis & { tanagerServer?: Promise<RunningServer> };

/** The server's parts, started on first use. */
export function runningServer(): Promise<RunningServer> {
  held.tanagerServer ??= start();
  return held.tanagerServer;
}

async function start(): Promise<RunningServer> {
  const server = await openServer(wantedStandIns);
  await letOwnerIn(server);
  await server.sheet.resume();
  await server.folders.resume();
  await server.films.resume();
  server.runner.start();
  return server;
}

/** The server's parts without its work: nothing is taken up until its runner is started. @throws {FolderInUseError} when another server has the data folder @param openOutside called once the folder is held; left out: there are no stand-ins */
export async function openServer(openOutside?: () => Promise<StandIns | null>): Promise<RunningServer> {
  const folder = dataFolder();
  const [uploadFolder, filmFolder, blobFolder, takesFolder, discFolder] = [
    ...['uploads', 'films', 'blobs', 'takes', 'discs'],
  ].map((name) => path.join(folder, name)) as [string, string, string, string, string];
  for (const needed of [uploadFolder, filmFolder, blobFolder, discFolder]) await mkdir(needed, { recursive: true });
  const lock = await lockFolder(folder);
  const database = await openDatabase();
  const events = createEvents();
  const storage = await openStorage(folder);
  const { blobs, kept } = storage;
  const decoders = createDecoders();
  const finders = createDecoders(1);
  const facts = createFactStore(database);
  const jobs = createJobStore(database);
  const wake = () => runner.look();
  const shows = createShowService(database, events);
  const sheetParts = { database, blobs, facts, decoders, finders, jobs, events, wake };
  const sheet = createContactSheet(sheetParts);
  const versions = createVersionService(database);
  const folders = createFolderIntake(openFolder(), database, sheet, events);
  const farm = await wantedFarm(storage, path.join(folder, 'kept', 'drawing'));
  const films = createFilmService({
    database,
    blobs,
    sheet,
    jobs,
    events,
    folder: filmFolder,
    filmFiles: storage.films,
    farm,
    kept,
    wake,
    stop: (filmId) => runner.stop('film', filmId),
  });
  const studio = createStudioService({ database, events, sheet, blobs, shows, decoders });
  const accounts = createAccounts(database);
  const standIns = (await openOutside?.()) ?? null;
  const places = createPlaces(standIns);
  const channels = createChannels(database, places);
  const handing = createPublishingService({
    ...{ database, jobs, events, films, studio, channels, places, wake },
    stop: (id) => runner.stop('publish', id),
  });
  const bundles = createBundleService({
    ...{ database, blobs, shows, sheet, jobs, wake },
    folder: path.join(folder, 'bundles'),
    stop: (id) => runner.stop('bundle', id),
  });
  const screenings = createScreeningService({ database, sheet, events });
  const bills = createBills(database, screenings);
  const hooks = createHooks({ database, jobs, wake });
  const unhear = hooks.hear(events);
  const seriesFiles = await openSeriesFiles(path.join(folder, 'series'), openFolder());
  const seriesParts = {
    ...{ database, shows, sheet, films, files: seriesFiles, jobs, wake },
    stop: (key: string) => runner.stop('series', key),
  };
  const discSources = createDiscSources({ db: database.db, shows, sheet, blobs, studio, films });
  const discParts = { database, films, sources: discSources, kept, jobs, places, folder: discFolder };
  const runner: JobRunner = createJobRunner(jobs, [
    films.making,
    bundles.taking,
    hooks.telling,
    makingSeries({ ...seriesParts, screenings, bills }),
    makingDisc(discParts),
    burningDiscs(discParts),
    handing.publishing,
    looking(sheetParts),
    proxying(sheetParts, sheet),
    finding(sheetParts, sheet),
    hearing(sheetParts, sheet),
  ]);
  const hall = await wantedHall();
  const recording = createRecordingService({ database, blobs, sheet, decoders, folder: takesFolder });
  await recording.tidy();
  const band = createBandService({ sheet, folder: path.join(folder, 'band') });
  await band.tidy();
  const discs = createDiscService({ ...discParts, wake, stop: (kind, id) => runner.stop(kind, id) });
  await discs.tidy();
  await bundles.tidy();
  // Whatever held these is gone: there is one server to a data folder, and this is it.
  await jobs.freeAll();
  for (const written of [filmFolder, blobFolder, discFolder]) await clearParts(written);
  // Room that was used up on a full disk is kept again once there is some.
  const reserving = setInterval(() => void keepReserve(folder).catch(() => {}), RESERVE_AGAIN_MS);
  reserving.unref();
  let closing: Promise<void> | null = null;
  const close = async () => {
    clearInterval(reserving);
    unhear();
    await hall?.close();
    await runner.drain();
    await farm?.close();
    storage.close();
    await standIns?.close();
    decoders.close();
    finders.close();
    database.close();
    await lock.release();
  };
  return {
    db: database.db,
    shows,
    versions,
    sheet,
    folders,
    missing: createMissingFiles(openFolder(), database, blobs, sheet, events),
    films,
    screenings,
    bills,
    proofs: createProofService(database, events),
    accounts,
    publishing: handing,
    bundles,
    series: createSeriesService(seriesParts),
    seriesFiles,
    discs,
    channels,
    places,
    sessions: createSessions(database),
    tokens: createTokens(database),
    hooks,
    invitations: createInvitations(database),
    passkeys: createPasskeys(database),
    audit: createAudit(database),
    studio,
    clearing: createClearing({
      database,
      blobs,
      endFilm: async (filmId) => void (await films.cancel(filmId)),
      removeFilmFile: (filmId) => films.removeFiles(filmId),
      forgetSegments: () => kept.clear(),
    }),
    recording,
    band,
    facts,
    blobs,
    decoders,
    jobs,
    runner,
    events,
    hall,
    farm,
    objects: storage.objects,
    uploadFolder,
    close: () =>
      (closing ??= close().catch((error: unknown) =>
        logger().error({ err: error }, 'the server could not end in good order'),
      )),
  };
}

/** `TANAGER_STAND_INS`: `none`, a port, `0` for any; unset: the usual one. Without them the server goes on, and says so. */
async function wantedStandIns(): Promise<StandIns | null> {
  const wanted = process.env.TANAGER_STAND_INS ?? String(USUAL_STAND_INS_PORT);
  if (wanted === 'none') return null;
  const folder = path.join(dataFolder(), 'stand-ins');
  try {
    return await openStandIns(folder, Number(wanted) || 0);
  } catch (error) {
    logger().error({ err: error }, 'the stand-ins could not be opened');
    return null;
  }
}

/** `TANAGER_REDIS_URL`: where machines that draw segments together have their queue. `TANAGER_FILM_WORKERS=0`: this one draws none itself. */
async function wantedFarm({ blobs, kept }: Storage, drawing: string): Promise<SegmentFarm | null> {
  const url = process.env.TANAGER_REDIS_URL;
  if (!url) return null;
  const { openFarm } = await import('./farm/farm');
  const own = process.env.TANAGER_FILM_WORKERS === '0' ? 0 : filmWorkers();
  return openFarm({ url, version: await drawingVersion(), blobs, kept, own, folder: drawing });
}

/** `TANAGER_HALL`: empty for none, a port, or anything else for the usual one. A port that is taken is told, and another one stands in. */
async function wantedHall(): Promise<HallDoor | null> {
  const wanted = process.env.TANAGER_HALL ?? '';
  if (wanted === '' || wanted === '0') return null;
  const port = Number(wanted) > 1 ? Number(wanted) : USUAL_HALL_PORT;
  try {
    return await openHallDoor(port);
  } catch (error) {
    logger().error({ err: error, port }, 'the hall’s door could not be opened');
    return null;
  }
}

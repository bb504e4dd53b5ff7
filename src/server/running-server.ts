import { mkdir } from 'node:fs/promises';
import path from 'node:path';
import { createContactSheet, type ContactSheet } from './assets/contact-sheet';
import { createFolderIntake, type FolderIntake } from './assets/folder-intake';
import { openBlobStore, type BlobStore } from './blobs/blob-store';
import { openDatabase } from './database/open-database';
import { createEvents, type Events } from './events';
import { createFilmService, type FilmService } from './films/film-service';
import { dataFolder, openFolder } from './paths';
import { createShowService, type ShowService } from './shows/show-service';
import { createVersionService, type VersionService } from './shows/versions';

/** Everything that lives as long as the server process. */
export interface RunningServer {
  readonly shows: ShowService;
  readonly versions: VersionService;
  readonly sheet: ContactSheet;
  readonly folders: FolderIntake;
  readonly films: FilmService;
  readonly blobs: BlobStore;
  readonly events: Events;
  readonly uploadFolder: string;
}

// Next bundles routes apart from each other; the one process has one server all the same.
const held = globalThis as typeof globalThis & { tanagerServer?: Promise<RunningServer> };

/** The server's parts, started on first use. */
export function runningServer(): Promise<RunningServer> {
  held.tanagerServer ??= start();
  return held.tanagerServer;
}

async function start(): Promise<RunningServer> {
  const server = await openServer();
  await server.sheet.resume();
  await server.folders.resume();
  server.films.start();
  return server;
}

/** The server's parts without its work: nothing is taken up until asked. */
export async function openServer(): Promise<RunningServer & { close(): void }> {
  const folder = dataFolder();
  const uploadFolder = path.join(folder, 'uploads');
  const filmFolder = path.join(folder, 'films');
  for (const needed of [uploadFolder, filmFolder]) await mkdir(needed, { recursive: true });
  const database = await openDatabase();
  const events = createEvents();
  const blobs = openBlobStore(path.join(folder, 'blobs'));
  const shows = createShowService(database, events);
  const sheet = createContactSheet(database, blobs, events);
  const versions = createVersionService(database);
  const folders = createFolderIntake(openFolder(), database, sheet, events);
  const films = createFilmService({ database, blobs, sheet, events, folder: filmFolder });
  return { shows, versions, sheet, folders, films, blobs, events, uploadFolder, close: () => database.close() };
}

import path from 'node:path';
import { takesOf, type Mount } from '../core/mounts/mount';
import { mountOf } from '../core/mounts/mount-document';
import { PLAIN_LOOK } from '../core/mounts/plain-look';
import { SHIPPED_MOUNTS } from '../core/mounts/shipped/shipped-mounts';
import { StrangeArchiveError } from '../server/archive/strange-archive';
import { FolderInUseError } from '../server/lock-folder';
import type { KeptMount } from '../server/reuse/studio-service';
import { openServer, type RunningServer } from '../server/running-server';
import { THE_STUDIO } from '../server/studio/may-do';
import { parsedArgs } from './parsed-args';
import type { Surroundings } from './tanager';
import { UsageError } from './usage-error';

const FRAME = { widthPx: 1920, heightPx: 1080 };

/** Lists and shows mounts, hands one on as a file, takes one in. */
export async function mountsCommand(args: readonly string[], surroundings: Surroundings): Promise<number> {
  const { values, positionals } = parsedArgs(args, { out: { type: 'string' }, json: { type: 'boolean' } });
  const [what, name, ...more] = positionals;
  if (more.length > 0) throw new UsageError('mounts takes one mount at a time.');
  if (what === 'list') return withStudio((_server, kept) => list(kept, values.json ?? false, surroundings));
  if (name === undefined || (what !== 'show' && what !== 'export' && what !== 'import'))
    throw new UsageError('mounts takes list, show NAME, export NAME --out FILE.zip, or import FILE.zip.');
  if (what === 'show')
    return withStudio((_server, kept) => show(found(kept, name), values.json ?? false, surroundings));
  if (what === 'import')
    return withStudio((server) => bringIn(server!, path.resolve(surroundings.folder, name), surroundings), true);
  if (!values.out) throw new UsageError('Say where the mount goes with --out FILE.zip.');
  const out = path.resolve(surroundings.folder, values.out);
  return withStudio(async (server, kept) => {
    const one = found(kept, name);
    if (!one.kept)
      throw new Error(`“${one.mount.name}” ships with every Tanager; only mounts of your own are handed on.`);
    await server!.studio.exportTo(THE_STUDIO, one.kept.id, out);
    surroundings.out(`${out}\n`);
    return 0;
  }, true);
}

interface Known {
  readonly mount: Mount;
  readonly kept: KeptMount | null;
}

/** Works with the studio's data; where a server has it, the shipped mounts are still told of. @param needed without it nothing can be done */
async function withStudio(
  work: (server: RunningServer | null, kept: readonly KeptMount[]) => Promise<number> | number,
  needed = false,
): Promise<number> {
  let server: RunningServer;
  try {
    server = await openServer();
  } catch (error) {
    if (!(error instanceof FolderInUseError)) throw error;
    if (needed)
      throw new Error(
        'A server is at work on this data folder. Do it in the app, under Studio, or end the server first.',
        { cause: error },
      );
    return work(null, []);
  }
  try {
    const kept = await server.studio.mounts(THE_STUDIO);
    return await work(
      server,
      kept.filter(({ removed }) => !removed),
    );
  } finally {
    await server.close();
  }
}

const all = (kept: readonly KeptMount[]): Known[] => [
  ...kept.map((one) => ({ mount: mountOf(one.id, one.document), kept: one })),
  ...SHIPPED_MOUNTS.map((mount) => ({ mount, kept: null })),
];

function found(kept: readonly KeptMount[], name: string): Known {
  const same = all(kept).filter(
    ({ mount }) =>
      mount.id === name ||
      (mount.id.startsWith(`${name}`) && name.length >= 6) ||
      mount.name.toLowerCase() === name.toLowerCase(),
  );
  const exact = same.find(({ mount }) => mount.id === name);
  if (exact) return exact;
  if (same.length > 1)
    throw new UsageError(
      `There are ${same.length} mounts called that; say which by its id: ${same.map(({ mount }) => mount.id).join(', ')}.`,
    );
  if (!same[0]) throw new UsageError(`There is no mount “${name}”. “tanager mounts list” names them.`);
  return same[0];
}

const takes = (mount: Mount) => [...new Set(mount.fits(FRAME, PLAIN_LOOK).map(takesOf))].sort((a, b) => a - b);

function list(kept: readonly KeptMount[], json: boolean, { out }: Surroundings): number {
  const known = all(kept);
  if (json) {
    out(
      `${JSON.stringify(known.map(({ mount, kept: own }) => ({ id: mount.id, name: mount.name, shelf: mount.shelf, author: mount.author, pictures: takes(mount), shipped: own === null })))}\n`,
    );
    return 0;
  }
  let shelf = '';
  for (const { mount } of known.toSorted((one, other) => one.mount.shelf.localeCompare(other.mount.shelf))) {
    if (mount.shelf !== shelf) out(`${shelf === '' ? '' : '\n'}${mount.shelf}\n`);
    shelf = mount.shelf;
    out(`  ${mount.id.padEnd(34)} ${mount.name}: ${picturesSaid(takes(mount))}\n`);
  }
  return 0;
}

function picturesSaid(counts: readonly number[]): string {
  const [least, most] = [counts[0]!, counts.at(-1)!];
  return most === 0
    ? 'no picture'
    : least === most
      ? `${most} ${most === 1 ? 'picture' : 'pictures'}`
      : `${least} to ${most} pictures`;
}

function show({ mount, kept }: Known, json: boolean, { out }: Surroundings): number {
  const fits = mount.fits(FRAME, PLAIN_LOOK).map((fit) => ({
    name: fit.name,
    suits: fit.suits,
    slides: fit.slides.length,
    lengthMs: fit.slides.reduce((sum, { lengthMs }) => sum + lengthMs, 0),
    windows: fit.windows.map(({ name }) => name),
    words: [...new Set(fit.words.map(({ name }) => name))],
  }));
  const { id, name, author, description, shelf } = mount;
  if (json)
    out(
      `${JSON.stringify({ id, name, author, description, shelf, shipped: kept === null, missing: kept?.missing ?? [], fits })}\n`,
    );
  else {
    out(`${name} (${id}), ${shelf}${author ? `, by ${author}` : ''}\n${description}\n`);
    for (const sentence of kept?.missing ?? []) out(`${sentence}\n`);
    for (const fit of fits)
      out(
        `  ${fit.name}: ${(fit.lengthMs / 1000).toFixed(1)} s${fit.windows.length > 0 ? `; windows ${fit.windows.join(', ')}` : ''}${fit.words.length > 0 ? `; words ${fit.words.join(', ')}` : ''}\n`,
      );
  }
  return 0;
}

async function bringIn(server: RunningServer, file: string, { out, tell }: Surroundings): Promise<number> {
  try {
    const { id, document, missing } = await server.studio.importFrom(THE_STUDIO, file);
    for (const sentence of missing) tell(`${sentence}\n`);
    out(`${id}  ${document.name}\n`);
    return 0;
  } catch (error) {
    if (error instanceof StrangeArchiveError) throw new Error(`${file} was not taken. ${error.message}`);
    throw error;
  }
}

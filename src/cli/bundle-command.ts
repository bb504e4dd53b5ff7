import { createWriteStream } from 'node:fs';
import { copyFile, mkdir } from 'node:fs/promises';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { intakeSentence } from '../core/bundles/bundle';
import { whole } from '../server/blobs/whole';
import { FolderInUseError } from '../server/lock-folder';
import { dataFolder } from '../server/paths';
import { openServer, type RunningServer } from '../server/running-server';
import { THE_STUDIO } from '../server/studio/may-do';
import { parsedArgs } from './parsed-args';
import type { Surroundings } from './tanager';
import { UsageError } from './usage-error';

/** `bundle SHOW --out FILE`: a whole show as one file, by its id or its title. `import FILE`: such a file onto the shelf. */
export async function bundleCommand(
  which: 'bundle' | 'import',
  args: readonly string[],
  surroundings: Surroundings,
): Promise<number> {
  const { values, positionals } = parsedArgs(args, { out: { type: 'string' }, json: { type: 'boolean' } });
  const [what, ...more] = positionals;
  const json = values.json ?? false;
  if (what === undefined || more.length > 0)
    throw new UsageError(
      which === 'bundle' ? 'bundle takes one show: its id, or its title.' : 'import takes one file.',
    );
  if (which === 'bundle' && !values.out) throw new UsageError('Say where the file goes with --out FILE.');
  const server = await opened();
  try {
    return which === 'bundle'
      ? await save(server, what, path.resolve(surroundings.folder, values.out!), json, surroundings)
      : await bringIn(server, path.resolve(surroundings.folder, what), json, surroundings);
  } finally {
    await server.close();
  }
}

async function opened(): Promise<RunningServer> {
  try {
    return await openServer();
  } catch (error) {
    if (!(error instanceof FolderInUseError)) throw error;
    throw new Error(
      'A server is at work on this data folder. Do it in the app, on the shelf, or end the server first.',
      {
        cause: error,
      },
    );
  }
}

async function save(
  server: RunningServer,
  what: string,
  out: string,
  json: boolean,
  { out: say, tell }: Surroundings,
): Promise<number> {
  const shelf = (await server.shows.shelf()).filter(({ place }) => place !== 'removed');
  const byId = shelf.filter(({ id }) => id === what);
  const found = byId.length > 0 ? byId : shelf.filter(({ title }) => title === what);
  if (found.length === 0) throw new Error(`There is no show “${what}” on the shelf.`);
  if (found.length > 1)
    throw new Error(
      `Several shows are called “${what}”: ${found.map(({ id }) => id).join(', ')}. Say which by its id.`,
    );
  const written = await server.bundles.write(found[0]!.id);
  if (!written) throw new Error('This show is damaged and cannot be saved as one file.');
  await whole(out, (part) => pipeline(written.bytes, createWriteStream(part)));
  for (const name of written.missing) tell(`${name} is not here any more; the show was saved without it.\n`);
  say(json ? `${JSON.stringify({ file: out, byteCount: written.byteCount, missing: written.missing })}\n` : `${out}\n`);
  return 0;
}

/** @returns 3 when some of its files are not as they were */
async function bringIn(
  server: RunningServer,
  file: string,
  json: boolean,
  { out: say, tell }: Surroundings,
): Promise<number> {
  const copy = path.join(dataFolder(), 'bundles', `given-${process.pid}.part`);
  await mkdir(path.dirname(copy), { recursive: true });
  await copyFile(file, copy).catch((cause: unknown) => {
    throw new Error(`${file} cannot be read.`, { cause });
  });
  const id = await server.bundles.order(THE_STUDIO, copy, path.basename(file));
  server.runner.start(['bundle', 'look']);
  await server.runner.idle('bundle');
  await server.runner.idle('look');
  const intake = (await server.bundles.list(THE_STUDIO)).find((one) => one.id === id)!;
  if (intake.state === 'failed') throw new Error(`${file}: ${intakeSentence(intake)}`);
  for (const { name, problem } of intake.bad) tell(`${name}: ${problem}\n`);
  say(
    json
      ? `${JSON.stringify({ show: intake.showId, title: intake.title, bad: intake.bad })}\n`
      : `“${intake.title}” ${intakeSentence(intake)}.\n`,
  );
  return intake.bad.length === 0 ? 0 : 3;
}

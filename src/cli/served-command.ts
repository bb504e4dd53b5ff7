import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { intakeSentence, type BundleIntake } from '../core/bundles/bundle';
import { DISC_STAGE_NAMES } from '../core/disc/disc-making';
import { editBetween } from '../core/show/edit-between';
import type { Show } from '../core/show/show';
import type { DiscFar } from '../server/disc/disc-service';
import { checkCommand } from './check-command';
import { discOptions } from './disc-command';
import { withBorrowed } from './borrowed-show';
import { clientFor } from './remote-command';
import { readShow } from './show-file';
import type { ServerClient } from './server-client';
import type { Surroundings } from './tanager';
import { UsageError } from './usage-error';
import { voiceCommand } from './voice-command';

/** Commands that work on saved shows, or on the data folder, and with `--server` on shows of a server. */
export const SERVED = ['check', 'voice', 'bundle', 'import', 'disc'] as const;
type Served = (typeof SERVED)[number];

interface Asked extends Surroundings {
  readonly server: ServerClient;
  /** What was typed beside where the server is. */
  readonly rest: readonly string[];
  readonly json: boolean;
}

/** Whether a command was told where a server is. */
export const isServed = (command: string | undefined, args: readonly string[]): command is Served =>
  (SERVED as readonly (string | undefined)[]).includes(command) &&
  args.some((arg) => arg === '--server' || arg.startsWith('--server='));

/** Does for shows of a server what these commands do for saved ones. */
export async function servedCommand(
  which: Served,
  args: readonly string[],
  surroundings: Surroundings,
): Promise<number> {
  const { rest, values } = taken(args, ['server', 'token']);
  const { server } = clientFor(values);
  return WORK[which]({ ...surroundings, server, rest, json: rest.includes('--json') });
}

const WORK: Readonly<Record<Served, (asked: Asked) => Promise<number>>> = {
  async check({ server, rest, ...surroundings }) {
    const { name, others } = firstOf(rest, 'check takes one show: its id, or its title.');
    const { show } = await server.showNamed(name);
    return withBorrowed(server, show.id, (file) => checkCommand([file, ...others], surroundings));
  },
  async voice({ server, rest, ...surroundings }) {
    const { name, others } = firstOf(rest, 'voice takes one show: its id, or its title.');
    const { show, revision } = await server.showNamed(name);
    const given = others.map((arg, at) => (others[at - 1] === '--take' ? path.resolve(surroundings.folder, arg) : arg));
    return withBorrowed(server, show.id, async (file) => {
      const before = await readShow(file, 'keep');
      const code = await voiceCommand([file, ...given], surroundings);
      const { files, ...after } = await readShow(file, 'keep');
      // What was recorded, and what was made of it, goes onto the sheet before the slide names it.
      for (const [id, place] of Object.entries(files))
        if (!Object.hasOwn(before.files, id)) await server.bring(show.id, path.resolve(path.dirname(file), place));
      await server.lookedAt(show.id, surroundings.tell);
      const { files: _files, ...was } = before;
      const edit = editBetween(was as Show, after as Show, `lay a voice on slide ${slideIn(given)}`);
      if (edit) await server.edit(show.id, revision, edit);
      return code;
    });
  },
  async bundle({ server, rest, folder, out, json }) {
    const { values, rest: names } = taken(rest, ['out']);
    const { name } = firstOf(names, 'bundle takes one show: its id, or its title.');
    if (!values.out) throw new UsageError('Say where the file goes with --out FILE.');
    const { show } = await server.showNamed(name);
    const file = path.resolve(folder, values.out);
    await server.fetchTo(`/api/v1/shows/${show.id}/bundle`, file);
    out(json ? `${JSON.stringify({ file })}\n` : `${file}\n`);
    return 0;
  },
  async import({ server, rest, folder, out, tell, json }) {
    const { name } = firstOf(rest, 'import takes one file.');
    const before = new Set((await bundlesOf(server)).map(({ id }) => id));
    await server.sendBundle(path.resolve(folder, name));
    for (;;) {
      const intake = (await bundlesOf(server)).find(({ id }) => !before.has(id));
      if (intake?.state === 'failed') throw new Error(`${name}: ${intakeSentence(intake)}`);
      if (intake?.state === 'done') {
        for (const { name: bad, problem } of intake.bad) tell(`${bad}: ${problem}\n`);
        const { showId: show, title, bad } = intake;
        out(json ? `${JSON.stringify({ show, title, bad })}\n` : `“${title}” ${intakeSentence(intake)}.\n`);
        return bad.length === 0 ? 0 : 3;
      }
      await sleep(400);
    }
  },
  async disc({ server, rest, folder, out, tell, json }) {
    const asked = discOptions(rest, folder);
    const shows: Show[] = [];
    for (const name of asked.names) shows.push((await server.showNamed(name)).show);
    const plan = asked.plan(shows);
    const { id } = await server.call<{ id: string }>('POST', `/api/v1/shows/${shows[0]!.id}/discs`);
    const at = `/api/v1/discs/${id}`;
    const films = shows.map((show) => ({ showId: show.id, title: '' }));
    await server.call('PATCH', at, { ...plan, films });
    await server.call('POST', `${at}/making`);
    for (let last = ''; ;) {
      const far = await server.call<DiscFar>('GET', `${at}/far`);
      if (far.state === 'failed' || far.state === 'open') throw new Error(far.problem ?? 'The disc was stopped.');
      if (far.state === 'ready') break;
      const line = far.progress
        ? `${DISC_STAGE_NAMES[far.progress.stage]}  ${Math.round(far.progress.share * 100)} %`
        : 'it waits for its turn';
      if (line !== last) tell(`\r${line}      `);
      last = line;
      await sleep(500);
    }
    tell('\n');
    const { byteCount, report } = await server.call<DiscFar>('GET', `${at}/far`);
    await server.fetchTo(`${at}/image`, asked.out);
    out(json ? `${JSON.stringify({ disc: id, image: asked.out, bytes: byteCount, ...report })}\n` : `${asked.out}\n`);
    return 0;
  },
};

const bundlesOf = async (server: ServerClient) =>
  (await server.call<{ bundles: BundleIntake[] }>('GET', '/api/v1/bundles')).bundles;

const slideIn = (args: readonly string[]) => args[args.indexOf('--slide') + 1] ?? '';

/** Takes options with a value out of what was typed. */
function taken<Name extends string>(
  args: readonly string[],
  names: readonly Name[],
): { readonly rest: string[]; readonly values: Partial<Record<Name, string>> } {
  const rest: string[] = [];
  const values: Partial<Record<Name, string>> = {};
  for (let at = 0; at < args.length; at += 1) {
    const arg = args[at]!;
    const name = names.find((one) => arg === `--${one}` || arg.startsWith(`--${one}=`));
    if (!name) rest.push(arg);
    else if (arg.includes('=')) values[name] = arg.slice(arg.indexOf('=') + 1);
    else {
      const value = args[(at += 1)];
      if (value === undefined) throw new UsageError(`--${name} needs something after it.`);
      values[name] = value;
    }
  }
  return { rest, values };
}

/** The first thing that is no option, and everything else. */
function firstOf(args: readonly string[], otherwise: string): { readonly name: string; readonly others: string[] } {
  const [name] = args;
  if (name === undefined || name.startsWith('--')) throw new UsageError(otherwise);
  return { name, others: args.slice(1) };
}

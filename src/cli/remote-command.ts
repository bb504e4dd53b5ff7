import { stat } from 'node:fs/promises';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { nanoid } from 'nanoid';
import { formatOf } from '../core/film/film-formats';
import { PURPOSE_NAMES, specFor } from '../core/film/purposes/purposes';
import { shippedMount } from '../core/mounts/shipped/shipped-mounts';
import { dressEdit } from '../core/plumage/dress';
import { usualParts } from '../core/plumage/usual-parts';
import { SHIPPED_PLUMAGE } from '../core/plumage/shipped-plumage';
import { kindByName } from '../core/series/file-kinds';
import type { AssetFacts } from '../core/show/asset-facts';
import { takenAt } from '../core/show/camera-clock';
import type { ShowEdit } from '../core/show/edit';
import { cueId, layerId, type AssetId } from '../core/show/ids';
import { slideFromAsset } from '../core/show/new-slide';
import { songAfter } from '../core/show/placed-sound';
import { rawTwins } from '../core/show/raw-twins';
import { assetIdsOfSlides, DEFAULT_FADE_OUT_MS, wordsOf, type Show } from '../core/show/show';
import { textOf } from '../core/show/words-of-slide';
import { withItsLengths } from '../core/timing/follow-music';
import { filesBelow } from '../server/assets/folder-intake';
import type { SheetEntry } from '../server/assets/contact-sheet';
import type { FilmRow } from '../server/films/film-row';
import { parsedArgs } from './parsed-args';
import { serverClient, type ServerClient } from './server-client';
import type { Surroundings } from './tanager';
import { UsageError } from './usage-error';

/** Commands that ask a server. */
export const REMOTE = ['shows', 'new', 'add', 'arrange', 'words', 'music', 'plumage', 'film', 'screen'] as const;
export type RemoteCommand = (typeof REMOTE)[number];

const OPTIONS = {
  server: { type: 'string' },
  token: { type: 'string' },
  json: { type: 'boolean' },
  by: { type: 'string' },
  seconds: { type: 'string' },
  slide: { type: 'string' },
  title: { type: 'string' },
  subtitle: { type: 'string' },
  lead: { type: 'string' },
  purpose: { type: 'string' },
  out: { type: 'string' },
  film: { type: 'string' },
} as const;

interface Asked extends Surroundings {
  readonly server: ServerClient;
  readonly address: string;
  readonly names: readonly string[];
  readonly values: Readonly<Record<string, string | boolean | undefined>>;
}

/** What a command came to: printed as JSON, or as the sentence. */
interface Done {
  readonly told: object;
  readonly says: string;
}

const WORK: Readonly<Record<RemoteCommand, (asked: Asked) => Promise<Done>>> = {
  async shows({ server }) {
    const { shows } = await server.call<{ shows: { id: string; title: string; slideCount: number; place: string }[] }>(
      'GET',
      '/api/v1/shows',
    );
    const there = shows.filter(({ place }) => place !== 'removed');
    return {
      told: { shows: there.map(({ id, title, slideCount }) => ({ id, title, slides: slideCount })) },
      says: there.map(({ id, title }) => `${id}  ${title}`).join('\n'),
    };
  },
  async new({ server, names }) {
    const title = names.join(' ').trim();
    if (title === '') throw new UsageError('new takes a title.');
    const { id } = await server.call<{ id: string }>('POST', '/api/v1/shows', { title });
    return { told: { id, title }, says: id };
  },
  async add({ server, names, folder, tell }) {
    const [name, ...given] = names;
    if (!name || given.length === 0) throw new UsageError('add takes a show and files, or folders of them.');
    const { show } = await server.showNamed(name);
    const files = await filesIn(given.map((one) => path.resolve(folder, one)));
    let already = 0;
    for (const [index, file] of files.entries()) {
      tell(`\r${index + 1} of ${files.length} `);
      if ((await server.bring(show.id, file)) === 'already-there') already += 1;
    }
    const entries = await server.lookedAt(show.id, tell);
    tell('\n');
    const brought = new Set(files.map((file) => path.basename(file)));
    const problems = entries
      .filter(({ state, fileName }) => state === 'refused' && brought.has(fileName))
      .map(({ fileName: file, problem }) => ({ file, problem }));
    for (const { file, problem } of problems) tell(`${file}: ${problem}\n`);
    return {
      told: { show: show.id, files: files.length, already, problems },
      says: `${files.length - problems.length} of ${files.length} are on the sheet.`,
    };
  },
  async arrange({ server, names, values, tell }) {
    const { show, revision } = await server.showNamed(showIn(names, 'arrange'));
    const by = values.by ?? 'time';
    if (by !== 'time' && by !== 'name') throw new UsageError('--by is time or name.');
    const seconds = values.seconds === undefined ? null : Number(values.seconds);
    if (seconds !== null && !(seconds > 0)) throw new UsageError('--seconds is a number above 0.');
    const entries = inOrder(await server.lookedAt(show.id, tell), show, by);
    if (entries.length === 0)
      return { told: { show: show.id, slides: 0 }, says: 'Everything is in the order already.' };
    const lengthMs = seconds === null ? show.defaultLengthMs : Math.round(seconds * 1000);
    const slides = entries.map(({ assetId, facts }) => slideFromAsset(assetId, facts!, lengthMs, () => nanoid(10)));
    const edit: ShowEdit = { kind: 'add-slides', runs: [{ afterId: show.slides.at(-1)?.id ?? null, slides }] };
    await server.edit(show.id, revision, withItsLengths(show, await factsFor(server, show), edit).edit);
    return {
      told: { show: show.id, slides: slides.length },
      says: `${slides.length} slides were laid into the order.`,
    };
  },
  async words({ server, names, values }) {
    const { show, revision } = await server.showNamed(showIn(names, 'words'));
    const slide = show.slides[Number(values.slide) - 1];
    if (!slide) throw new UsageError(`--slide is a number from 1 to ${show.slides.length}.`);
    if (values.title === undefined && values.subtitle === undefined)
      throw new UsageError('Say the words with --title or --subtitle.');
    const known = wordsOf(slide);
    const base = known ? textOf(known) : { title: '', subtitle: '', place: 'bottom-left' as const };
    const words = {
      ...base,
      ...(values.title !== undefined && { title: String(values.title) }),
      ...(values.subtitle !== undefined && { subtitle: String(values.subtitle) }),
    };
    const isEmpty = words.title === '' && words.subtitle === '';
    await server.edit(show.id, revision, {
      ...{ kind: 'set-words', slideId: slide.id, layerId: known?.id ?? layerId(nanoid(10)) },
      words: isEmpty ? null : words,
    });
    return { told: { show: show.id, slide: Number(values.slide) }, says: 'The words stand there.' };
  },
  async music({ server, names, values, folder, tell }) {
    const [name, song] = names;
    if (!name || !song) throw new UsageError('music takes a show and a song.');
    const lead = values.lead ?? 'pictures';
    if (lead !== 'pictures' && lead !== 'music') throw new UsageError('--lead is pictures or music.');
    const before = await server.showNamed(name);
    const file = path.resolve(folder, song);
    await server.bring(before.show.id, file);
    const entries = await server.lookedAt(before.show.id, tell);
    const entry = entries.find(({ fileName, facts }) => fileName === path.basename(file) && facts?.kind === 'sound');
    if (!entry) throw new Error(`${path.basename(file)} is no song that can be used.`);
    const { show, revision } = await server.showNamed(before.show.id);
    const cue = songAfter(cueId(nanoid(10)), entry.assetId, DEFAULT_FADE_OUT_MS);
    const edits: ShowEdit[] = [{ kind: 'set-cues', cues: [...show.cues, cue] }];
    if (lead === 'music') edits.push({ kind: 'set-pace', pace: { by: 'music' } });
    const edit: ShowEdit =
      edits.length === 1 ? edits[0]! : { kind: 'together', name: 'put a song under the show', edits };
    const entailed = withItsLengths(show, factsOf(entries), edit);
    await server.edit(show.id, revision, entailed.edit);
    if (entailed.unmet) tell(`${entailed.unmet}\n`);
    return {
      told: { show: show.id, song: entry.fileName, unmet: entailed.unmet },
      says: `“${entry.fileName}” plays under the show.`,
    };
  },
  async plumage({ server, names, tell }) {
    const [name, wanted] = names;
    if (!name || !wanted) throw new UsageError('plumage takes a show and the name of a plumage.');
    const plumage = SHIPPED_PLUMAGE.find((one) => one.id === wanted || one.name.toLowerCase() === wanted.toLowerCase());
    if (!plumage)
      throw new UsageError(`plumage knows ${SHIPPED_PLUMAGE.map(({ id }) => id).join(', ')}; got ${wanted}.`);
    const { show, revision } = await server.showNamed(name);
    const { profile } = await server.call<{ profile: { name: string; contact: string; logo: AssetId | null } }>(
      'GET',
      '/api/v1/studio',
    );
    const wardrobe = {
      facts: await factsFor(server, show),
      // Its logo is on the sheets of shows that have it there already; without it mounts that show it are left out.
      studio: { name: profile.name, contact: profile.contact, logo: null },
      mountOf: (id: string) => shippedMount(id) ?? null,
    };
    const { edit, missing } = dressEdit(
      show,
      { plumage, with: show.plumage?.with ?? usualParts(show), seed: show.plumage?.seed ?? 0 },
      wardrobe,
    );
    for (const sentence of missing.values()) tell(`${sentence}\n`);
    if (edit) await server.edit(show.id, revision, edit);
    return {
      told: { show: show.id, plumage: plumage.id, missing: [...missing.values()] },
      says: `The show wears ${plumage.name}.`,
    };
  },
  async film({ server, names, values, folder, tell }) {
    const { show } = await server.showNamed(showIn(names, 'film'));
    const purpose = PURPOSE_NAMES.find((one) => one === (values.purpose ?? 'screen'));
    if (!purpose)
      throw new UsageError(`--purpose must be one of ${PURPOSE_NAMES.join(', ')}, got ${String(values.purpose)}.`);
    const spec = specFor(show, purpose);
    const { ids } = await server.call<{ ids: string[] }>('POST', `/api/v1/shows/${show.id}/films`, { specs: [spec] });
    const film = await filmDone(server, show.id, ids[0]!, tell);
    const { extension } = formatOf(spec.format);
    if (values.out === undefined)
      return { told: { show: show.id, film: film.id, bytes: film.byteCount }, says: film.id };
    const file = path.resolve(folder, String(values.out));
    if (path.extname(file).toLowerCase() !== `.${extension}`)
      throw new UsageError(`This film goes into a file that ends in .${extension}, got ${path.basename(file)}.`);
    await server.fetchTo(`/api/v1/films/${film.id}/file`, file);
    return { told: { show: show.id, film: film.id, bytes: film.byteCount, file }, says: file };
  },
  async screen({ server, address, names, values }) {
    const { show } = await server.showNamed(showIn(names, 'screen'));
    const { films } = await server.call<{ films: FilmRow[] }>('GET', `/api/v1/shows/${show.id}/films`);
    const film =
      values.film === undefined
        ? films.find(({ state }) => state === 'ready')
        : films.find(({ id }) => id === values.film);
    if (film?.state !== 'ready') throw new Error('There is no finished film to screen. Make one first: tanager film.');
    const { id } = await server.call<{ id: string }>('POST', `/api/v1/shows/${show.id}/screenings`, {
      films: [film.id],
    });
    const { screenings } = await server.call<{ screenings: { id: string; token: string }[] }>(
      'GET',
      `/api/v1/shows/${show.id}/screenings`,
    );
    const link = `${address}/s/${screenings.find((one) => one.id === id)!.token}`;
    return { told: { show: show.id, film: film.id, link }, says: link };
  },
};

/** Asks a server for what the interface does. */
export async function remoteCommand(
  which: RemoteCommand,
  args: readonly string[],
  surroundings: Surroundings,
): Promise<number> {
  const { values, positionals } = parsedArgs(args, OPTIONS);
  const { server, address } = clientFor(values);
  const { told, says } = await WORK[which]({ ...surroundings, server, address, names: positionals, values });
  surroundings.out(values.json ? `${JSON.stringify(told)}\n` : `${says}\n`);
  return 0;
}

/** The server a command was told of, or the surroundings name. */
export function clientFor(said: { readonly server?: string; readonly token?: string }): {
  readonly server: ServerClient;
  readonly address: string;
} {
  const token = said.token ?? process.env.TANAGER_TOKEN;
  const address = (said.server ?? process.env.TANAGER_SERVER ?? 'http://127.0.0.1:3217').replace(/\/+$/, '');
  if (!URL.canParse(address))
    throw new UsageError(`--server must be an address such as http://127.0.0.1:3217, got ${address}.`);
  if (!token)
    throw new UsageError('Say the token with --token or TANAGER_TOKEN; one is made under Studio, For programs.');
  return { server: serverClient({ address, token }), address };
}

function showIn(names: readonly string[], command: string): string {
  const [name, ...more] = names;
  if (name === undefined || more.length > 0) throw new UsageError(`${command} takes one show: its id, or its title.`);
  return name;
}

/** Files as they were named; a folder stands for those in it that can be in a show. */
async function filesIn(places: readonly string[]): Promise<string[]> {
  const files: string[] = [];
  for (const place of places) {
    const known = await stat(place).catch(() => {
      throw new Error(`${place}: there is no such file.`);
    });
    if (known.isDirectory()) files.push(...(await filesBelow(place)).filter((file) => kindByName(file) !== null));
    else files.push(place);
  }
  return files;
}

const factsOf = (entries: readonly SheetEntry[]): Map<AssetId, AssetFacts> =>
  new Map(entries.flatMap(({ assetId, facts }) => (facts ? [[assetId, facts] as const] : [])));

const factsFor = async (server: ServerClient, show: Show) => factsOf(await server.sheet(show.id));

/** Pictures and clips that are not in the order yet, in order. */
function inOrder(entries: readonly SheetEntry[], show: Show, by: 'time' | 'name'): SheetEntry[] {
  const used = new Set(assetIdsOfSlides(show.slides));
  const raws = new Set(rawTwins(entries).keys());
  const natural = new Intl.Collator('en', { numeric: true });
  const timeOf = ({ facts }: SheetEntry) =>
    facts && facts.kind !== 'sound' ? (takenAt(facts, show.clocks) ?? '9999') : '9999';
  return entries
    .filter(
      (entry) =>
        entry.facts && entry.facts.kind !== 'sound' && !used.has(entry.assetId) && !raws.has(entry) && !entry.made,
    )
    .filter(({ assetId }) => show.marks?.[assetId] !== 'leave-out')
    .sort(
      (one, other) =>
        (by === 'time' ? timeOf(one).localeCompare(timeOf(other)) : 0) || natural.compare(one.fileName, other.fileName),
    );
}

async function filmDone(
  server: ServerClient,
  show: string,
  id: string,
  tell: (text: string) => void,
): Promise<FilmRow> {
  for (;;) {
    const { films } = await server.call<{ films: FilmRow[] }>('GET', `/api/v1/shows/${show}/films`);
    const film = films.find((one) => one.id === id);
    if (!film || film.state === 'cancelled') throw new Error('The film was stopped.');
    if (film.state === 'failed') throw new Error(film.problem ?? 'The film could not be made.');
    tell(`\r${film.framesDone} of ${film.frameCount} frames `);
    if (film.state === 'ready') {
      tell('\n');
      return film;
    }
    await sleep(500);
  }
}

import { chooseBest } from '../choosing/choose';
import type { AssetFacts } from '../show/asset-facts';
import { takenAt } from '../show/camera-clock';
import { applyEdit, type ShowEdit } from '../show/edit';
import { editBetween } from '../show/edit-between';
import { cueId, type AssetId } from '../show/ids';
import { slideFromAsset } from '../show/new-slide';
import type { PlacedSound } from '../show/placed-sound';
import { songAfter } from '../show/placed-sound';
import { DEFAULT_FADE_OUT_MS, type Show, type Slide } from '../show/show';
import { USUAL_LANGUAGE } from '../show/caption';
import { freedCues } from '../show/freed-sounds';
import { rawTwins } from '../show/raw-twins';
import { groundOf, withMount } from '../mounts/lay-mount';
import { dressed, type Wardrobe } from '../plumage/dress';
import { saidKey } from '../plumage/undress';
import type { Plumage, PlumageWith } from '../plumage/plumage';
import { logoEdit } from '../studio/logo';
import type { Watermark } from '../show/watermark';
import type { Parted, StartingPoint } from './starting-points';

/** A file that may go into a show that is begun. */
export interface StartFile {
  readonly assetId: AssetId;
  readonly fileName: string;
  readonly facts: AssetFacts;
}

export interface Start {
  readonly point: StartingPoint;
  readonly plumage: Plumage;
  readonly with: PlumageWith;
  readonly words: StartingPoint['words'];
  /** So many pictures at most are chosen; null: all. */
  readonly most: number | null;
  readonly credits: boolean;
  /** The studio's logo at an end, and a watermark over all of it, where it has one. */
  readonly logo?: { readonly first: boolean; readonly last: boolean };
  readonly watermark?: Watermark;
}

export interface Started {
  readonly show: Show;
  /** Pictures that were left out by choosing. */
  readonly omitted: number;
  readonly missing: ReadonlyMap<string, string>;
}

/** Which mount the credits are. */
const CREDITS = 'roll-call';
/** Songs set the pace where every slide gets so long, at least and at most. */
const LEAST_BY_MUSIC_MS = 2400;
const MOST_BY_MUSIC_MS = 9000;

/** A show begun from files nobody prepared: the best of them, in order of time, parted, dressed and closed. What is in the order already makes way. */
export function startedShow(
  show: Show,
  files: readonly StartFile[],
  start: Start,
  wardrobe: Wardrobe,
  newId: () => string,
): Started {
  const { point, plumage, words } = start;
  const twins = rawTwins(files.map((file) => ({ ...file, id: file.assetId })));
  const raws = new Set([...twins.keys()].map(({ assetId }) => assetId));
  const usable = files.filter(
    ({ assetId, facts }) => !raws.has(assetId) && facts.kind !== 'sound' && show.marks?.[assetId] !== 'leave-out',
  );
  const { shown, omitted } = chosenOf(usable, start.most, show);
  const ordered = inOrder(shown, show);
  const plain = ordered.map(({ assetId, facts }): Slide => slideFromAsset(assetId, facts, point.pictureMs, newId));
  const parts = partsOf(ordered, show, point.parted);
  const slides = plain.map((slide, index): Slide => {
    const chapter = parts.get(index);
    return chapter === undefined ? slide : { ...slide, chapter };
  });
  const songs = files.filter(({ facts }) => facts.kind === 'sound');
  const cues: PlacedSound[] =
    songs.length > 0 && show.cues.length === 0
      ? songs.map(({ assetId }) => songAfter(cueId(newId()), assetId, DEFAULT_FADE_OUT_MS))
      : retied(show);
  const { plumage: _plumage, pace: _pace, ...rest } = show;
  const title = words.title.trim() || show.title;
  const bare: Show = { ...rest, title, slides, cues, defaultLengthMs: point.pictureMs };
  const said = {
    [saidKey('opener', '', 'Title')]: title,
    ...(words.subtitle.trim() && { [saidKey('opener', '', 'Below the title')]: words.subtitle }),
    ...closing(words.closing),
  };
  // What the mounts say is given as if it had been written in another plumage before.
  const worn: Show = {
    ...bare,
    plumage: { is: plumage, with: start.with, seed: 0, bare: { temperament: show.temperament ?? null }, said },
  };
  const done = dressed(worn, { plumage, with: start.with, seed: 1 }, wardrobe);
  const credited = start.credits ? withCredits(done.show, plumage, wardrobe, newId) : done.show;
  const marked = withLogos(credited, start, wardrobe, newId);
  return {
    show: withPace(start.watermark ? { ...marked, watermark: start.watermark } : marked, songs),
    omitted,
    missing: done.missing,
  };
}

/** The sounds there are, without the slides they began or ended with: songs follow one another, as long as they are. */
function retied({ cues, slides }: Show): PlacedSound[] {
  const all = new Set(slides.map(({ id }) => id));
  const freed = freedCues(cues, slides, all);
  return freed.map((cue, at): PlacedSound => {
    if (cue === cues[at] || cue.kind !== 'song') return cue;
    const { starts, ends } = cues[at]!;
    return {
      ...cue,
      starts: starts.at === 'slide' ? { at: 'after' } : starts,
      ends: ends.at === 'slide' ? { at: 'own-end' } : ends,
    };
  });
}

/** Beginning a show as one step. */
export function startEdit(show: Show, started: Started, name: string): ShowEdit | null {
  const { show: after } = started;
  const edit = editBetween(show, after, `begin ${name}`);
  if (!edit || edit.kind !== 'together') return edit;
  return {
    ...edit,
    edits: [
      ...(show.title === after.title ? [] : [{ kind: 'rename-show' as const, title: after.title }]),
      ...(show.defaultLengthMs === after.defaultLengthMs
        ? []
        : [{ kind: 'set-default-length' as const, lengthMs: after.defaultLengthMs }]),
      ...edit.edits,
      ...(after.watermark && JSON.stringify(show.watermark) !== JSON.stringify(after.watermark)
        ? [{ kind: 'set-watermark' as const, watermark: after.watermark }]
        : []),
      ...(JSON.stringify(show.pace) === JSON.stringify(after.pace)
        ? []
        : [{ kind: 'set-pace' as const, pace: after.pace ?? null }]),
    ],
  };
}

const closing = (text: string): Record<string, string> =>
  text.trim() === ''
    ? {}
    : Object.fromEntries(
        ['Thanks', 'Words to end with', 'Question or name'].map((name) => [saidKey('closer', '', name), text]),
      );

function chosenOf(
  files: readonly StartFile[],
  most: number | null,
  show: Show,
): { shown: StartFile[]; omitted: number } {
  const pictures = files.filter(({ facts }) => facts.kind === 'picture');
  const candidates = pictures.flatMap(({ assetId, facts }) =>
    facts.kind === 'picture' ? [{ id: assetId, facts, takenAt: takenAt(facts, show.clocks) }] : [],
  );
  const count = most === null ? candidates.length : Math.min(most, candidates.length);
  const { chosen } = chooseBest(candidates, count, (id) => show.marks?.[id] ?? null);
  const kept = new Set<AssetId>(chosen.map(({ id }) => id));
  const shown = files.filter(
    ({ assetId, facts }) => facts.kind === 'clip' || (most === null && facts.kind === 'picture') || kept.has(assetId),
  );
  return { shown, omitted: files.length - shown.length };
}

/** By when they were taken; those that do not say, by name, after the others. */
function inOrder(files: readonly StartFile[], show: Show): StartFile[] {
  const natural = new Intl.Collator('en', { numeric: true });
  const at = (file: StartFile) => timeOf(file, show) ?? '9999';
  return [...files].sort((one, other) =>
    at(one) < at(other) ? -1 : at(one) > at(other) ? 1 : natural.compare(one.fileName, other.fileName),
  );
}

const timeOf = ({ facts }: StartFile, show: Show): string | null =>
  facts.kind === 'sound' ? null : takenAt(facts, show.clocks);

/** A part has so many pictures at least. */
const LEAST_IN_A_PART = 3;

/** Which picture begins which part, by index. */
export function partsOf(files: readonly StartFile[], show: Show, parted: Parted): ReadonlyMap<number, string> {
  if (parted.by === 'nothing') return new Map();
  const said = files.map((file) => timeOf(file, show));
  // Where most say nothing of when they were taken, what they belong to would be guessed.
  const isTold = said.filter((time) => time !== null).length >= said.length / 2;
  if (parted.by === 'pauses') return partsByPauses(isTold ? said : said.map(() => null), parted.names);
  if (!isTold) return new Map();
  const runs: Run[] = [];
  said.forEach((time, index) => {
    if (time === null) return;
    const key = time.slice(0, parted.by === 'day' ? 10 : parted.by === 'month' ? 7 : 4);
    const last = runs.at(-1);
    if (last?.toKey === key) last.count += 1;
    else runs.push({ index, number: runs.length + 1, toNumber: runs.length + 1, key, toKey: key, count: 1 });
  });
  const parts = joinedRuns(runs);
  const language = show.language ?? USUAL_LANGUAGE;
  return parts.length > 1 ? new Map(parts.map((run) => [run.index, partName(parted, run, language)])) : new Map();
}

/** Pictures of one day, month or year, or of several that follow one another. */
interface Run {
  /** Of its first picture. */
  readonly index: number;
  readonly number: number;
  readonly key: string;
  toNumber: number;
  toKey: string;
  count: number;
}

/** None with fewer pictures than a part has at least: those that are too short go on into the next, the last into the one before it. */
function joinedRuns(runs: readonly Run[]): Run[] {
  const parts: Run[] = [];
  const take = (into: Run, run: Run) => {
    into.toNumber = run.toNumber;
    into.toKey = run.toKey;
    into.count += run.count;
  };
  for (const run of runs) {
    const last = parts.at(-1);
    if (last && last.count < LEAST_IN_A_PART) take(last, run);
    else parts.push({ ...run });
  }
  const last = parts.at(-1);
  if (parts.length > 1 && last!.count < LEAST_IN_A_PART) {
    parts.pop();
    take(parts.at(-1)!, last!);
  }
  return parts;
}

function partName(
  { by, name }: Exclude<Parted, { by: 'nothing' | 'pauses' }>,
  { number, toNumber, key, toKey }: Run,
  language: string,
): string {
  const of = (one: string, other: string) => (one === other ? one : `${one} – ${other}`);
  if (by === 'day') return `${name} ${of(String(number), String(toNumber))}`.trim();
  if (by === 'year') return `${name} ${of(key, toKey)}`.trim();
  const month = (of: string) =>
    new Intl.DateTimeFormat(language, { month: 'long', timeZone: 'UTC' }).format(new Date(`${of}-01T00:00:00Z`));
  return of(month(key), month(toKey));
}

/** At the longest pauses, none closer to another than a few pictures; where nobody says when they were taken, evenly. */
function partsByPauses(times: readonly (string | null)[], names: readonly string[]): ReadonlyMap<number, string> {
  const count = Math.min(names.length, Math.floor(times.length / LEAST_IN_A_PART));
  if (count < 2) return new Map();
  const msAt = (index: number) => (times[index] ? Date.parse(`${times[index]!.slice(0, 19)}Z`) : NaN);
  const pauses = times
    .map((_, index) => ({ index, ms: index === 0 ? NaN : msAt(index) - msAt(index - 1) }))
    .filter(({ ms }) => ms > 0)
    .sort((one, other) => other.ms - one.ms);
  const begins = [0];
  for (const { index } of pauses) {
    if (begins.length === count) break;
    const near = [...begins, times.length].some((other) => Math.abs(other - index) < LEAST_IN_A_PART);
    if (!near) begins.push(index);
  }
  if (begins.length < count && pauses.length === 0)
    for (let part = 1; part < count; part += 1) begins.push(Math.round((part * times.length) / count));
  return new Map(begins.sort((one, other) => one - other).map((index, part) => [index, names[part]!]));
}

function withCredits(show: Show, { letters, palette }: Plumage, wardrobe: Wardrobe, newId: () => string): Show {
  const mount = wardrobe.mountOf(CREDITS);
  const last = show.slides.at(-1);
  if (!mount || !last) return show;
  const laid = withMount(groundOf(show, [], newId), {
    mount,
    look: { letters, palette },
    facts: wardrobe.facts,
    studio: wardrobe.studio,
    newId,
  });
  if (!laid.ok) return show;
  const credits = laid.show.slides.find(({ id }) => laid.slideIds.includes(id));
  const isEmpty = credits?.layers.every((layer) => layer.kind !== 'words' || layer.subtitle.trim() === '') ?? true;
  return isEmpty ? show : laid.show;
}

function withLogos(show: Show, { plumage, logo }: Start, { facts, studio }: Wardrobe, newId: () => string): Show {
  if (!studio.logo) return show;
  const given = { look: { letters: plumage.letters, palette: plumage.palette }, facts, studio, newId };
  return (['first', 'last'] as const).reduce((now, place) => {
    const wanted = logo?.[place] ? logoEdit(now, place, true, given) : null;
    const result = wanted?.ok && wanted.edit ? applyEdit(now, wanted.edit) : null;
    return result?.ok ? result.show : now;
  }, show);
}

/** The pictures follow the music where there is one and it is about as long as they want to be seen. */
function withPace(show: Show, songs: readonly StartFile[]): Show {
  const musicMs = songs.reduce((sum, { facts }) => sum + (facts.kind === 'sound' ? facts.lengthMs : 0), 0);
  const eachMs = musicMs / Math.max(1, show.slides.length);
  return songs.length > 0 && eachMs >= LEAST_BY_MUSIC_MS && eachMs <= MOST_BY_MUSIC_MS
    ? { ...show, pace: { by: 'music' } }
    : show;
}

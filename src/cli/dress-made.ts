import { mkdir } from 'node:fs/promises';
import path from 'node:path';
import { groundOf, layEdit } from '../core/mounts/lay-mount';
import { mountOf } from '../core/mounts/mount-document';
import type { Mount } from '../core/mounts/mount';
import { PLAIN_LOOK } from '../core/mounts/plain-look';
import { SHIPPED_MOUNTS } from '../core/mounts/shipped/shipped-mounts';
import { dressed, type Wardrobe } from '../core/plumage/dress';
import type { Plumage, PlumageWith } from '../core/plumage/plumage';
import { SHIPPED_PLUMAGE } from '../core/plumage/shipped-plumage';
import { applyEdit, type ShowEdit } from '../core/show/edit';
import type { AssetFacts } from '../core/show/asset-facts';
import type { AssetId } from '../core/show/ids';
import { mainLayerOf, wordsOf, type Show } from '../core/show/show';
import { startedShow, type StartFile } from '../core/starting/start-show';
import { STARTING_POINTS, type StartingPoint } from '../core/starting/starting-points';
import { logoEdit } from '../core/studio/logo';
import { StrangeArchiveError } from '../server/archive/strange-archive';
import { hashOfFile } from '../server/blobs/content-hash';
import { factsOf } from './kept-facts';
import { readMountFile } from '../server/reuse/mount-file';
import { UsageError } from './usage-error';

/** What `make` was told of how the show looks, as it was typed. */
export interface Dressing {
  readonly start: string | undefined;
  readonly plumage: string | undefined;
  /** A name, or a mount file. */
  readonly opener: string | undefined;
  readonly closer: string | undefined;
  readonly logo: string | undefined;
  readonly credits: string | undefined;
}

export const DRESSING_OPTIONS = {
  start: { type: 'string' },
  plumage: { type: 'string' },
  opener: { type: 'string' },
  closer: { type: 'string' },
  logo: { type: 'string' },
  credits: { type: 'string' },
} as const;

/** A file that came with the look: a logo, what a mount carries. */
export interface FileOfLook {
  readonly id: AssetId;
  readonly link: string;
  /** Where the person has it; null for what came out of a mount's file, and lies where it was unpacked for now. */
  readonly file: string | null;
  readonly facts: AssetFacts;
}

export interface Readied {
  readonly start: StartingPoint | null;
  readonly plumage: Plumage | null;
  readonly opener: Mount | null;
  readonly closer: Mount | null;
  readonly logo: AssetId | null;
  readonly credits: string | null;
  readonly files: readonly FileOfLook[];
  readonly missing: readonly string[];
}

const called = <One extends { readonly id: string; readonly name: string }>(
  list: readonly One[],
  name: string,
): One | null => list.find((one) => one.id === name || one.name.toLowerCase() === name.toLowerCase()) ?? null;

/** Looks up what was named and reads what was given as files. @throws {UsageError} for names nobody knows */
export async function readied(
  dressing: Dressing,
  folder: string,
  link: (file: string) => Promise<string>,
): Promise<Readied> {
  const missing: string[] = [];
  const files: FileOfLook[] = [];
  const start = named(STARTING_POINTS, dressing.start, '--start');
  const plumage =
    named(SHIPPED_PLUMAGE, dressing.plumage, '--plumage') ??
    (start ? named(SHIPPED_PLUMAGE, start.plumage, '--plumage') : null);
  const mountNamed = async (name: string | undefined, option: string): Promise<Mount | null> => {
    if (name === undefined) return null;
    if (!name.toLowerCase().endsWith('.zip')) return named(SHIPPED_MOUNTS, name, option);
    const unpacked = path.join(folder, `mount-${option.slice(2)}`);
    await mkdir(unpacked, { recursive: true });
    try {
      const read = await readMountFile(name, unpacked);
      if (read.document.holds) throw new Error(`${name} holds a transition, and no slides.`);
      missing.push(...read.missing);
      for (const [id, { file }] of read.files) files.push({ id, link: file, file: null, facts: await factsOf(file) });
      return mountOf(path.basename(name), read.document);
    } catch (error) {
      if (error instanceof StrangeArchiveError) throw new Error(`${name} was not taken. ${error.message}`);
      throw error;
    }
  };
  const opener = await mountNamed(dressing.opener, '--opener');
  const closer = await mountNamed(dressing.closer, '--closer');
  let logo: AssetId | null = null;
  if (dressing.logo !== undefined) {
    const linked = await link(dressing.logo);
    const facts = await factsOf(linked).catch((error: unknown) => {
      throw new Error(
        `The logo ${dressing.logo} cannot be used. ${error instanceof Error ? error.message : ''}`.trim(),
      );
    });
    if (facts.kind !== 'picture') throw new Error(`The logo ${dressing.logo} is no picture.`);
    logo = await hashOfFile(linked);
    files.push({ id: logo, link: linked, file: dressing.logo, facts });
  }
  return { start, plumage, opener, closer, logo, credits: dressing.credits ?? null, files, missing };
}

function named<One extends { readonly id: string; readonly name: string }>(
  list: readonly One[],
  name: string | undefined,
  option: string,
): One | null {
  if (name === undefined) return null;
  const found = called(list, name);
  if (!found) throw new UsageError(`${option} knows ${list.map(({ id }) => id).join(', ')}; got ${name}.`);
  return found;
}

const isAsked = ({ start, plumage, opener, closer, logo, credits }: Readied) =>
  [start, plumage, opener, closer, logo, credits].some((one) => one !== null);

/** The show with what was asked for. @param title as typed; empty when it was not */
export function withLook(
  given: Show,
  files: readonly StartFile[],
  title: string,
  look: Readied,
  newId: () => string,
): { readonly show: Show; readonly missing: readonly string[] } {
  if (!isAsked(look)) return { show: given, missing: [] };
  const { start, plumage, opener, closer, logo, credits } = look;
  const own = new Map([opener, closer].flatMap((mount) => (mount ? [[mount.id, mount] as const] : [])));
  const wardrobe: Wardrobe = {
    facts: new Map([
      ...files.map((file) => [file.assetId, file.facts] as const),
      ...look.files.map((file) => [file.id, file.facts] as const),
    ]),
    studio: { name: '', contact: '', logo },
    mountOf: (id) => own.get(id) ?? SHIPPED_MOUNTS.find((mount) => mount.id === id) ?? null,
  };
  const missing = [...look.missing];
  const worn = plumage && {
    ...plumage,
    mounts: { ...plumage.mounts, ...(opener && { opener: opener.id }), ...(closer && { closer: closer.id }) },
  };
  let show = given;
  if (start && worn) {
    const begun = startedShow(
      { ...given, title: title || start.words.title },
      files,
      {
        point: start,
        plumage: worn,
        with: start.with,
        words: { ...start.words, ...(title && { title }) },
        most: start.most,
        credits: start.credits && credits === null,
      },
      wardrobe,
      newId,
    );
    show = begun.show;
    missing.push(...begun.missing.values());
  } else if (worn) {
    const parts: PlumageWith = {
      opener: title !== '' || opener !== null,
      chapters: true,
      closer: closer !== null,
      several: false,
    };
    const done = dressed(withoutTitle(given, parts.opener), { plumage: worn, with: parts, seed: 0 }, wardrobe);
    show = done.show;
    missing.push(...done.missing.values());
  }
  const parts = { look: worn ?? PLAIN_LOOK, facts: wardrobe.facts, studio: wardrobe.studio, newId };
  const lay = (mount: Mount, at: 'first' | 'last', said: Readonly<Record<string, string>> = {}) => {
    const slide = at === 'first' ? show.slides[0] : show.slides.at(-1);
    const laid = layEdit(show, groundOf(show, slide ? [slide.id] : [], newId), { ...parts, mount, said });
    if (laid.ok) show = done(show, laid.edit);
    else missing.push(laid.sentence);
  };
  if (!worn && opener) lay(opener, 'first');
  if (!worn && closer) lay(closer, 'last');
  if (credits !== null) {
    const roll = called(SHIPPED_MOUNTS, 'roll-call')!;
    lay(roll, 'last', { 'Credits, two columns by a tab': credits.replaceAll('\\n', '\n').replaceAll('\\t', '\t') });
  }
  for (const place of ['first', 'last'] as const) {
    const wanted = logo === null ? null : logoEdit(show, place, true, parts);
    if (wanted?.ok && wanted.edit) show = done(show, wanted.edit);
  }
  return { show, missing };
}

/** The title stands in the opener, not on the picture as well. */
function withoutTitle(show: Show, hasOpener: boolean): Show {
  const [first, ...rest] = show.slides;
  if (!hasOpener || !first || !wordsOf(first) || !mainLayerOf(first)) return show;
  return { ...show, slides: [{ ...first, layers: first.layers.filter(({ kind }) => kind !== 'words') }, ...rest] };
}

function done(show: Show, edit: ShowEdit): Show {
  const result = applyEdit(show, edit);
  if (!result.ok) throw new Error(result.sentence);
  return result.show;
}

import { createHash } from 'node:crypto';
import { mkdir, readFile, rename, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { formatOf } from '../core/film/film-formats';
import { faultOfFilm } from '../core/film/film-spec';
import { specFor, type PurposeName } from '../core/film/purposes/purposes';
import { filmNameOf } from '../core/series/film-name';
import type { Place } from '../core/series/places';
import { readRow, type Listing, type RowWants } from '../core/series/row';
import { showOfRow } from '../core/series/show-of-row';
import type { SeriesPlan } from '../core/series/series';
import type { AssetFacts } from '../core/show/asset-facts';
import { showId, type AssetId } from '../core/show/ids';
import { contentOf, type Show } from '../core/show/show';
import { hashOfFile } from '../server/blobs/content-hash';
import { whole } from '../server/blobs/whole';
import { createKeptFiles } from '../server/films/kept-files';
import { makeFilm } from '../server/films/make-film';
import { factsOf } from './kept-facts';
import { progressLine } from './progress-line';

/** What lies beside the films: which of them is of what, so that it goes on where it was. */
const STATE = '.series.json';
const KEPT = '.kept';

/** What became of a row. */
export interface MadeRow {
  readonly row: number;
  readonly title: string;
  readonly film: string | null;
  readonly state: 'made' | 'made before' | 'not made';
  readonly problem: string | null;
  readonly told: readonly string[];
}

/** Films that lie there, by what each was made of. */
type MadeBefore = Map<string, string>;

interface Making {
  /** Where its files are, and where its films go. */
  readonly files: string;
  readonly out: string;
  readonly purpose: PurposeName;
  readonly pattern: Show;
  readonly places: readonly Place[];
  readonly plan: SeriesPlan;
  readonly listing: Listing;
  readonly state: MadeBefore;
  /** How many rows that say the same there were. */
  readonly alike: Map<string, number>;
  /** The pattern's own files. */
  known(): Promise<{ readonly files: ReadonlyMap<AssetId, string>; readonly facts: ReadonlyMap<AssetId, AssetFacts> }>;
  readonly link: (file: string) => Promise<string>;
  readonly workFolder: string;
  readonly tell: (text: string) => void;
}

/** Makes the film of a row, unless it was made before of the same. What is wrong with it is told and stays with it. */
export async function makeRow(making: Making, number: number): Promise<MadeRow> {
  const { pattern, places, plan, listing, state, out, purpose } = making;
  const { wants, faults } = readRow(plan, places, pattern, number, listing);
  const no = (problem: string, told: readonly string[] = []): MadeRow => ({
    ...{ row: number, title: wants.title, film: null, state: 'not made', problem, told },
  });
  if (number > plan.rows.length) return no('There is no such row.');
  const grave = faults.find((fault) => fault.grave);
  if (grave) return no(grave.says);
  const told: string[] = [];
  try {
    const ids = new Map<string, AssetId>();
    for (const file of new Set([...(wants.folder ?? []), ...wants.files.values()]))
      ids.set(file, await hashOfFile(path.join(making.files, file)));
    const sum = sumOf(pattern, plan, wants, ids, purpose);
    // Rows that say the very same are films of their own.
    const alike = (making.alike.get(sum) ?? 0) + 1;
    making.alike.set(sum, alike);
    const from = alike === 1 ? sum : `${sum} ${alike}`;
    const before = state.get(from);
    if (before !== undefined && (await isThere(path.join(out, before)))) {
      // Its row may have been carried: the number in its name goes along.
      const film = filmNameOf(number, wants.title, path.extname(before).slice(1));
      if (film !== before && !(await isThere(path.join(out, film)))) {
        await rename(path.join(out, before), path.join(out, film));
        state.set(from, film);
        await writeState(out, state);
      }
      return {
        ...{ row: number, title: wants.title, film: state.get(from)!, state: 'made before', problem: null },
        told,
      };
    }
    const known = await making.known();
    const files = new Map(known.files);
    const facts = new Map(known.facts);
    for (const [file, id] of ids) {
      if (facts.has(id)) continue;
      const linked = await making.link(path.join(making.files, file));
      const looked = await factsOf(linked).catch((error: Error) => void told.push(`${file}: ${error.message}`));
      if (!looked) continue;
      facts.set(id, looked);
      files.set(id, linked);
    }
    let next = 0;
    const idOf = (file: string) => (facts.has(ids.get(file)!) ? ids.get(file)! : null);
    const made = showOfRow(pattern, plan, places, wants, idOf, facts, {
      id: showId(`row-${number}`),
      newId: () => `r${number}-${(next += 1)}`,
    });
    told.push(...made.told);
    const spec = specFor(made.show, purpose);
    const fault = faultOfFilm(made.show, spec);
    if (fault) return no(fault, told);
    const film = filmNameOf(number, wants.title, formatOf(spec.format).extension);
    await mkdir(out, { recursive: true });
    await makeFilm({
      ...{ show: made.show, spec, facts, files, outFile: path.join(out, film) },
      workFolder: path.join(making.workFolder, `row-${number}`),
      kept: createKeptFiles(path.join(out, KEPT)),
      onProgress: progressLine(making.tell),
    });
    making.tell('\n');
    for (const [other, of] of state) if (of === film) state.delete(other);
    state.set(from, film);
    await writeState(out, state);
    return { ...{ row: number, title: wants.title, film, state: 'made', problem: null }, told };
  } catch (error) {
    // Whatever it is, it stays with this row.
    return no((error as Error).message, told);
  }
}

/** Of all a film comes of: with the same, the same film. */
function sumOf(
  pattern: Show,
  { matches, spare }: SeriesPlan,
  wants: RowWants,
  ids: ReadonlyMap<string, AssetId>,
  purpose: PurposeName,
): string {
  const { title, words, files, folder, cells } = wants;
  const said = [
    contentOf(pattern),
    matches,
    spare,
    purpose,
    title,
    [...words],
    [...files],
    folder,
    [...cells],
    [...ids],
  ];
  return createHash('sha256').update(JSON.stringify(said)).digest('hex');
}

const isThere = (file: string): Promise<boolean> =>
  stat(file).then(
    () => true,
    () => false,
  );

/** Which films lie in a folder of films already, and of what. One that cannot be read is none: films are made anew. */
export async function readState(out: string): Promise<MadeBefore> {
  const text = await readFile(path.join(out, STATE), 'utf8').catch(() => '{}');
  try {
    const kept = JSON.parse(text) as Record<string, unknown>;
    return new Map(
      Object.entries(kept).flatMap(([from, film]) =>
        typeof film === 'string' && path.basename(film) === film ? [[from, film] as const] : [],
      ),
    );
  } catch {
    return new Map();
  }
}

const writeState = (out: string, state: MadeBefore): Promise<void> =>
  whole(path.join(out, STATE), (part) => writeFile(part, `${JSON.stringify(Object.fromEntries(state), null, 2)}\n`));

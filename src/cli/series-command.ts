import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import Papa from 'papaparse';
import { PURPOSE_NAMES, type PurposeName } from '../core/film/purposes/purposes';
import { guessedMatches, namedPlaces, placesOf, type Place } from '../core/series/places';
import { columnOfFolders, faultsOfSeries, listingOf, type RowFault } from '../core/series/row';
import { sameHead, tableOf, type Fill, type SeriesPlan } from '../core/series/series';
import type { AssetFacts } from '../core/show/asset-facts';
import type { AssetId } from '../core/show/ids';
import { assetIdsOf, type Show } from '../core/show/show';
import { faultOfTableFile, tableText } from '../core/tables/table-text';
import { lookAtFile } from '../server/assets/look-at-file';
import type { ShowFile } from '../server/schema/show-schema';
import { filesBelow } from '../server/assets/folder-intake';
import { filesOfShow } from './files-of-show';
import { linkedFiles } from './linked-files';
import { parsedArgs } from './parsed-args';
import { makeRow, readState, type MadeRow } from './series-row';
import { readShow } from './show-file';
import type { Surroundings } from './tanager';
import { UsageError } from './usage-error';

/** What the command ends with when some rows became no film. */
const SOME_MISSING = 3;
/** A film for each row of a table, after one saved show. What was made before of the same is not made again. */
export async function seriesCommand(args: readonly string[], { folder, out, tell }: Surroundings): Promise<number> {
  const asked = parse(args, folder);
  const workFolder = await mkdtemp(path.join(tmpdir(), 'tanager-series-'));
  try {
    const pattern = await readShow(asked.pattern);
    const link = linkedFiles(workFolder);
    const places = placesOf(pattern, await kindsOfFiles(pattern, asked.pattern));
    const paths = (await filesBelow(asked.files)).map((file) =>
      path.relative(asked.files, file).split(path.sep).join('/'),
    );
    const table = await tableIn(asked.table);
    const plan = planFor(asked, pattern, places, table, columnOfFolders(table, listingOf(paths)));
    const faults = faultsOfSeries(plan, places, pattern, paths);
    for (const fault of faults) tell(`${sentenceOf(fault)}\n`);
    if (asked.check) return report(asked, plan, places, faults, out);
    const broken = faults.find(({ row, grave }) => grave && row === 0);
    if (broken) throw new Error(broken.says);
    const listing = listingOf(paths);
    const state = await readState(asked.out);
    const rows: MadeRow[] = [];
    const alike = new Map<string, number>();
    // What pictures are about is found out once a film is made: it takes its time.
    let found: ReturnType<typeof filesOfShow> | null = null;
    const known = () => (found ??= filesOfShow(pattern, asked.pattern, link));
    const wanted = asked.rows ?? plan.rows.map((_, index) => index + 1);
    for (const number of wanted) {
      const making = { ...asked, alike, pattern, places, plan, listing, state, known, link, workFolder, tell };
      const made = await makeRow(making, number);
      rows.push(made);
      const what =
        made.film === null ? `not made. ${made.problem}` : `${made.film}${made.state === 'made' ? '' : ', as it was'}`;
      tell(`${number} of ${plan.rows.length}, ${made.title || 'no title'}: ${what}\n`);
      for (const says of made.told) tell(`  ${says}\n`);
    }
    if (asked.json) out(`${JSON.stringify({ rows })}\n`);
    return rows.every(({ film }) => film !== null) ? 0 : SOME_MISSING;
  } finally {
    await rm(workFolder, { recursive: true, force: true });
  }
}

interface SeriesOptions {
  readonly pattern: string;
  readonly table: string;
  readonly files: string;
  readonly out: string;
  readonly purpose: PurposeName;
  /** Overruling what is guessed: place and column, `folder` or `pattern`. */
  readonly matches: readonly (readonly [place: string, fill: string])[];
  readonly folderColumn: string | null;
  readonly spare: SeriesPlan['spare'];
  readonly rows: readonly number[] | null;
  readonly check: boolean;
  readonly json: boolean;
}

function parse(args: readonly string[], folder: string): SeriesOptions {
  const { values, positionals } = parsedArgs(args, {
    files: { type: 'string' },
    out: { type: 'string' },
    purpose: { type: 'string' },
    match: { type: 'string', multiple: true },
    folder: { type: 'string' },
    spare: { type: 'string' },
    row: { type: 'string', multiple: true },
    check: { type: 'boolean' },
    json: { type: 'boolean' },
  });
  const [pattern, table, ...more] = positionals;
  if (pattern === undefined || table === undefined || more.length > 0)
    throw new UsageError('Name one saved show, the pattern, and one table: series PATTERN.json ROWS.csv.');
  const check = values.check ?? false;
  if (!values.out && !check) throw new UsageError('Say which folder the films go to with --out FOLDER.');
  const purpose = PURPOSE_NAMES.find((name) => name === (values.purpose ?? 'web'));
  if (!purpose) throw new UsageError(`--purpose must be one of ${PURPOSE_NAMES.join(', ')}, got ${values.purpose}.`);
  const spare = values.spare ?? 'slides';
  if (spare !== 'slides' && spare !== 'best') throw new UsageError(`--spare must be slides or best, got ${spare}.`);
  const matches = (values.match ?? []).map((said) => {
    const at = said.indexOf('=');
    if (at < 1) throw new UsageError(`--match is a place and a column, as "slide 1 title=Name", got ${said}.`);
    return [said.slice(0, at).trim(), said.slice(at + 1).trim()] as const;
  });
  const rows = (values.row ?? []).map((said) => {
    if (!/^[1-9]\d*$/.test(said)) throw new UsageError(`--row is the number of a row, from 1, got ${said}.`);
    return Number(said);
  });
  return {
    pattern: path.resolve(folder, pattern),
    table: path.resolve(folder, table),
    files: path.resolve(folder, values.files ?? path.dirname(table)),
    out: path.resolve(folder, values.out ?? '.'),
    folderColumn: values.folder ?? null,
    rows: rows.length > 0 ? rows : null,
    json: values.json ?? false,
    ...{ purpose, spare, matches, check },
  };
}

/** What the pattern's files are at a glance. */
async function kindsOfFiles(pattern: ShowFile, file: string): Promise<Map<AssetId, AssetFacts>> {
  const facts = new Map<AssetId, AssetFacts>();
  for (const id of assetIdsOf(pattern)) {
    const named = pattern.files[id];
    if (named === undefined) throw new Error(`The show uses a file it does not name: ${id}.`);
    facts.set(id, (await lookAtFile(path.resolve(path.dirname(file), named))).facts);
  }
  return facts;
}

async function tableIn(file: string) {
  const bytes = await readFile(file).catch(() => {
    throw new Error(`${file}: there is no such file.`);
  });
  const fault = faultOfTableFile(path.basename(file), bytes);
  if (fault) throw new Error(fault);
  const { data } = Papa.parse<string[]>(tableText(bytes), { skipEmptyLines: false });
  const table = tableOf(data);
  if (table.fault) throw new Error(`${path.basename(file)}: ${table.fault}`);
  return table;
}

function planFor(
  { matches, folderColumn, spare }: SeriesOptions,
  pattern: Show,
  places: readonly Place[],
  { columns, rows }: Pick<SeriesPlan, 'columns' | 'rows'>,
  there: string | null,
): SeriesPlan {
  const columnOf = (name: string) => {
    const found = columns.find((column) => sameHead(column) === sameHead(name));
    if (found === undefined) throw new UsageError(`There is no column “${name}”. There are ${columns.join(', ')}.`);
    return found;
  };
  const guessed = guessedMatches(pattern, places, columns, there);
  const folder = folderColumn === null ? guessed.folderColumn : columnOf(folderColumn);
  const named = namedPlaces(places);
  const said: Record<string, Fill> = { ...guessed.matches };
  if (folderColumn !== null)
    for (const place of places)
      if (place.kind === 'picture' && !place.cutOut && !said[place.id]) said[place.id] = { by: 'folder' };
  for (const [name, fill] of matches) {
    const place = named.get(name);
    if (!place) throw new UsageError(`The pattern has no place “${name}”. It has ${[...named.keys()].join(', ')}.`);
    said[place.id] =
      fill === 'pattern'
        ? { by: 'pattern' }
        : fill === 'folder' && place.kind === 'picture'
          ? { by: 'folder' }
          : { by: 'column', column: columnOf(fill) };
  }
  return { columns, rows, matches: said, folderColumn: folder, spare };
}

const sentenceOf = ({ row, says }: RowFault): string => (row === 0 ? says : `Row ${row}: ${says}`);

/** What fills what, and what is wrong, without making anything. */
function report(
  { json }: SeriesOptions,
  plan: SeriesPlan,
  places: readonly Place[],
  faults: readonly RowFault[],
  out: (text: string) => void,
): number {
  const fills = [...namedPlaces(places)].map(([place, { id }]) => {
    const fill = plan.matches[id] ?? { by: 'pattern' };
    return { place, fill: fill.by === 'column' ? fill.column : fill.by };
  });
  out(
    json
      ? `${JSON.stringify({ rows: plan.rows.length, folderColumn: plan.folderColumn, fills, faults }, null, 2)}\n`
      : fills.map(({ place, fill }) => `${place}: ${fill}\n`).join(''),
  );
  return faults.some(({ grave }) => grave) ? SOME_MISSING : 0;
}

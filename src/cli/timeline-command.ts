import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { filmChapters } from '../core/film/chapters';
import { asFfmetadata } from '../core/film/ffmetadata';
import { prepareShow } from '../core/frame/plan-frame';
import { readTimeline } from '../core/interchange/otio-in';
import { timelineOf } from '../core/interchange/otio-out';
import type { AssetFacts } from '../core/show/asset-facts';
import { showId, type AssetId } from '../core/show/ids';
import { assetIdsOf, emptyShow } from '../core/show/show';
import { orderTable } from '../core/tables/order-table';
import { kindByName } from '../core/series/file-kinds';
import { showLengthMs } from '../core/timing/slide-span';
import { filesBelow } from '../server/assets/folder-intake';
import { lookAtFile } from '../server/assets/look-at-file';
import { hashOfFile } from '../server/blobs/content-hash';
import { whole } from '../server/blobs/whole';
import type { ShowFile } from '../server/schema/show-schema';
import { parsedContent } from '../server/shows/timelines';
import { filesOfShow } from './files-of-show';
import { linkedFiles } from './linked-files';
import { parsedArgs } from './parsed-args';
import { readShow, writeShow } from './show-file';
import type { Surroundings } from './tanager';
import { UsageError } from './usage-error';

/** What the command ends with when files a timeline names are not there. */
const SOME_MISSING = 3;

/** A saved show as a timeline, a table or chapters; a timeline as a saved show. */
export async function timelineCommand(args: readonly string[], { folder, out, tell }: Surroundings): Promise<number> {
  const { values, positionals } = parsedArgs(args, {
    out: { type: 'string' },
    files: { type: 'string' },
    json: { type: 'boolean' },
  });
  const [given, ...more] = positionals;
  if (given === undefined || more.length > 0) throw new UsageError('Name one saved show, or one timeline (.otio).');
  if (!values.out) throw new UsageError('Say where it goes with --out FILE.');
  const from = path.resolve(folder, given);
  const to = path.resolve(folder, values.out);
  if (path.extname(from).toLowerCase() === '.otio') {
    const files = path.resolve(folder, values.files ?? path.dirname(from));
    const { told, missing, slides } = await bringIn(from, to, files);
    for (const says of told) tell(`${says}\n`);
    for (const name of missing) tell(`${name}: it is not there, its slide is blank.\n`);
    if (values.json) out(`${JSON.stringify({ show: to, slides, told, missing })}\n`);
    return missing.length > 0 ? SOME_MISSING : 0;
  }
  const workFolder = await mkdtemp(path.join(tmpdir(), 'tanager-timeline-'));
  try {
    const text = await written(await readShow(from), from, to, workFolder);
    await whole(to, (part) => writeFile(part, text));
    if (values.json) out(`${JSON.stringify({ file: to, bytes: Buffer.byteLength(text) })}\n`);
    return 0;
  } finally {
    await rm(workFolder, { recursive: true, force: true });
  }
}

async function written(show: ShowFile, from: string, to: string, workFolder: string): Promise<string> {
  const place = (id: AssetId) => path.resolve(path.dirname(from), show.files[id] ?? '');
  switch (path.extname(to).toLowerCase()) {
    case '.otio': {
      const { facts } = await filesOfShow(show, from, linkedFiles(workFolder));
      const { files: _files, ...plain } = show;
      const urls = new Map(assetIdsOf(show).map((id): [AssetId, string] => [id, pathToFileURL(place(id)).href]));
      return `${JSON.stringify(timelineOf(plain, facts, urls), null, 2)}\n`;
    }
    case '.csv':
      return orderTable(show, new Map(assetIdsOf(show).map((id): [AssetId, string] => [id, path.basename(place(id))])));
    case '.ffmetadata':
      return asFfmetadata(show.title, filmChapters(prepareShow(show, new Map()), 0, showLengthMs(show)));
    default:
      throw new UsageError(`--out ends in .otio, .csv or .ffmetadata, got ${path.basename(to)}.`);
  }
}

/** Reads a timeline with the files of a folder, and saves it as a show. */
async function bringIn(from: string, to: string, folder: string) {
  if (path.extname(to).toLowerCase() !== '.json')
    throw new UsageError(`A show is saved as .json, got ${path.basename(to)}.`);
  const text = await readFile(from, 'utf8').catch(() => {
    throw new Error(`${from}: there is no such file.`);
  });
  let document: unknown;
  try {
    document = JSON.parse(text);
  } catch (cause) {
    throw new Error(`${from} is not JSON: ${(cause as Error).message}`, { cause });
  }
  const names = new Map<AssetId, string>();
  const places = new Map<AssetId, string>();
  const facts = new Map<AssetId, AssetFacts>();
  for (const file of (await filesBelow(folder)).filter((one) => kindByName(one) !== null)) {
    const looked = await lookAtFile(file).catch(() => null);
    if (!looked) continue;
    const id = await hashOfFile(file);
    names.set(id, path.basename(file));
    places.set(id, file);
    facts.set(id, looked.facts);
  }
  let next = 0;
  const show = emptyShow(showId('timeline'), path.basename(from, path.extname(from)));
  const read = readTimeline(document, {
    show,
    files: names,
    facts,
    parse: parsedContent,
    newId: () => `t${(next += 1)}`,
  });
  const whose = { ...show, ...read.content };
  const used = assetIdsOf(whose).flatMap((id) =>
    places.has(id) ? [[id, path.relative(path.dirname(to), places.get(id)!)]] : [],
  );
  await writeShow(to, { ...whose, files: Object.fromEntries(used) as Record<string, string> });
  return { ...read, slides: whose.slides.length };
}

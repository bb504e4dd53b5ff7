import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { BUTTON_PLACES, changedDisc, CHAPTERS_BY, faultOfPlan, usualDisc, type DiscPlan } from '../core/disc/disc-plan';
import { STANDARD_NAMES, STANDARDS } from '../core/disc/disc-standard';
import { shippedMount, SHIPPED_MOUNTS } from '../core/mounts/shipped/shipped-mounts';
import { DISC_STAGE_NAMES } from '../core/disc/disc-making';
import { createKeptFiles } from '../server/films/kept-files';
import { makeImage, plannedDisc, type DiscSource } from '../server/disc/make-image';
import type { Show } from '../core/show/show';
import { filesOfShow } from './files-of-show';
import { linkedFiles } from './linked-files';
import { parsedArgs } from './parsed-args';
import { readShow } from './show-file';
import type { Surroundings } from './tanager';
import { UsageError } from './usage-error';

/** Makes the image of a video disc from saved shows. */
export async function discCommand(args: readonly string[], { folder, out, tell }: Surroundings): Promise<number> {
  const asked = discOptions(args, folder);
  const workFolder = await mkdtemp(path.join(tmpdir(), 'tanager-disc-'));
  try {
    const sources: DiscSource[] = [];
    const link = linkedFiles(workFolder);
    for (const file of asked.names.map((name) => path.resolve(folder, name))) {
      const show = await readShow(file);
      if (show.slides.length === 0) throw new Error(`${file} has no slides yet.`);
      sources.push({ show, ...(await filesOfShow(show, file, link)) });
    }
    const plan = asked.plan(sources.map(({ show }) => show));
    const { pages, fit, told } = plannedDisc(plan, sources);
    if (fit.fault) throw new Error(fit.fault);
    for (const sentence of told) tell(`${sentence}\n`);
    tell(
      `${plan.films.length} films, ${pages.length} pages of a menu, ${STANDARDS[plan.standard].name}; pictures get ${fit.pictureKbits} kbit/s: ${fit.quality}\n`,
    );
    let last = '';
    const made = await makeImage({
      ...{ plan, sources, workFolder: path.join(workFolder, 'work'), outFile: asked.out },
      mount: shippedMount(plan.menu.mount)!,
      mountFiles: { facts: new Map(), files: new Map() },
      studio: { name: '', contact: '', logo: null },
      kept: createKeptFiles(asked.keep ?? path.join(workFolder, 'kept')),
      onProgress: ({ stage, share }) => {
        const line = `${DISC_STAGE_NAMES[stage]}  ${Math.round(share * 100)} %`;
        if (process.stderr.isTTY && line !== last) tell(`\r${line}      `);
        last = line;
      },
    });
    if (process.stderr.isTTY) tell('\n');
    const { walked, byteCount, pictureKbits } = made;
    const problems = made.problems.map(({ message }) => message);
    for (const problem of problems) tell(`${problem}\n`);
    if (asked.json)
      out(
        `${JSON.stringify({
          ...{ image: asked.out, bytes: byteCount, pictureKbits, quality: fit.quality, label: walked.label },
          ...{ titles: walked.titleCount, chapters: walked.chapterCount, pages: walked.pageCount },
          ...{ places: walked.placeCount, presses: walked.pressCount, told, problems },
        })}\n`,
      );
    else
      tell(
        `${asked.out}: ${(byteCount / 1e6).toFixed(1)} MB, ${walked.titleCount} titles, ${walked.chapterCount} chapters, ${walked.pageCount} pages; ${walked.pressCount} presses of the remote lead where they should\n`,
      );
    return 0;
  } finally {
    await rm(workFolder, { recursive: true, force: true });
  }
}

interface DiscOptions {
  /** Of shows, as they were typed. */
  readonly names: readonly string[];
  readonly out: string;
  readonly keep: string | null;
  readonly json: boolean;
  plan(shows: readonly Show[]): DiscPlan;
}

/** What was typed after `disc`. @throws {UsageError} */
export function discOptions(args: readonly string[], folder: string): DiscOptions {
  const { values, positionals } = parsedArgs(args, {
    out: { type: 'string' },
    standard: { type: 'string' },
    shape: { type: 'string' },
    layers: { type: 'string' },
    begins: { type: 'string' },
    afterwards: { type: 'string' },
    chapters: { type: 'string' },
    title: { type: 'string' },
    words: { type: 'string' },
    mount: { type: 'string' },
    buttons: { type: 'string' },
    'menu-seconds': { type: 'string' },
    silent: { type: 'boolean' },
    keep: { type: 'string' },
    json: { type: 'boolean' },
  });
  if (positionals.length === 0) throw new UsageError('Name one saved show, or several.');
  if (!values.out?.toLowerCase().endsWith('.iso'))
    throw new UsageError('Say where the image goes with --out FILE.iso.');
  const mount = values.mount ?? 'low-sun';
  if (!shippedMount(mount))
    throw new UsageError(`--mount knows ${SHIPPED_MOUNTS.map(({ id }) => id).join(', ')}; got ${mount}.`);
  const seconds = Number(values['menu-seconds'] ?? 24);
  if (!(seconds >= 6 && seconds <= 60)) throw new UsageError('--menu-seconds must be from 6 to 60.');
  const standard = oneOf('standard', values.standard, STANDARD_NAMES);
  const shape = oneOf('shape', values.shape, ['16:9', '4:3'] as const);
  const layers = oneOf('layers', values.layers, ['1', '2'] as const);
  const begins = oneOf('begins', values.begins, ['menu', 'film'] as const);
  const afterwards = oneOf('afterwards', values.afterwards, ['menu', 'again'] as const);
  const chaptersBy = oneOf('chapters', values.chapters, CHAPTERS_BY);
  const buttons = oneOf('buttons', values.buttons, BUTTON_PLACES);
  return {
    names: positionals,
    out: path.resolve(folder, values.out),
    keep: values.keep === undefined ? null : path.resolve(folder, values.keep),
    json: values.json ?? false,
    plan(shows) {
      const [show] = shows as [Show];
      const song = values.silent ? null : (show.cues.find(({ kind }) => kind === 'song')?.assetId ?? null);
      const wide = show.frame.widthPx / show.frame.heightPx > 1.5;
      const plan = changedDisc(usualDisc(show.title || 'Films', 'show-1', shape ?? (wide ? '16:9' : '4:3'), song), {
        films: shows.map((_, index) => ({ showId: `show-${index + 1}`, title: '' })),
        ...(values.title !== undefined && { title: values.title }),
        ...(values.words !== undefined && { words: values.words }),
        ...(standard && { standard }),
        ...(layers && { layers: layers === '2' ? 2 : 1 }),
        ...(begins && { begins }),
        ...(afterwards && { afterwards }),
        ...(chaptersBy && { chaptersBy }),
        menu: { mount, lengthMs: Math.round(seconds * 1000), ...(buttons && { buttons }) },
      });
      const fault = faultOfPlan(plan);
      if (fault) throw new UsageError(fault);
      return plan;
    },
  };
}

function oneOf<Name extends string>(option: string, value: string | undefined, names: readonly Name[]) {
  if (value === undefined) return undefined;
  const found = names.find((name) => name === value);
  if (!found) throw new UsageError(`--${option} must be one of ${names.join(', ')}, got ${value}.`);
  return found;
}

import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { prepareShow } from '../core/frame/plan-frame';
import type { AssetId, SlideId } from '../core/show/ids';
import { isShapeName, shapeName } from '../core/show/shape';
import { isLeft, kindOf, lookOver } from '../core/snags/look-over';
import type { SlideSeen } from '../core/snags/slide-seen';
import type { LookedOverFile, Snag, SnagLook } from '../core/snags/snag';
import { openChecking, seeSlide } from '../drawing/checking/checking';
import { createFileReader } from '../server/assets/file-reader';
import { storeFor } from '../server/films/draw-segment';
import { openNodeDrawing } from '../server/films/node-drawing';
import { filesThatAreThere } from './files-of-show';
import { linkedFiles } from './linked-files';
import { parsedArgs } from './parsed-args';
import { readShow } from './show-file';
import type { Surroundings } from './tanager';
import { UsageError } from './usage-error';

/** What the command ends with when something grave was found. */
const GRAVE = 3;

/** Looks a saved show over and tells what will embarrass. */
export async function checkCommand(args: readonly string[], { folder, out, tell }: Surroundings): Promise<number> {
  const { values, positionals } = parsedArgs(args, {
    json: { type: 'boolean' },
    shape: { type: 'string', multiple: true },
  });
  if (positionals.length !== 1) throw new UsageError('Name one saved show.');
  const shapes = (values.shape ?? []) as string[];
  for (const shape of shapes)
    if (!isShapeName(shape)) throw new UsageError(`--shape must be two numbers such as 9:16, got ${shape}.`);
  const file = path.resolve(folder, positionals[0]!);
  const workFolder = await mkdtemp(path.join(tmpdir(), 'tanager-check-'));
  try {
    const look = await lookAt(file, shapes, workFolder, values.json ? () => {} : tell);
    const snags = lookOver(look).filter((snag) => !isLeft(look, snag));
    out(
      values.json
        ? `${JSON.stringify({ snags: snags.map((snag) => told(look, snag)) }, null, 2)}\n`
        : lines(look, snags),
    );
    return snags.some(({ grave }) => grave) ? GRAVE : 0;
  } finally {
    await rm(workFolder, { recursive: true, force: true });
  }
}

async function lookAt(
  file: string,
  shapes: readonly string[],
  workFolder: string,
  tell: (text: string) => void,
): Promise<SnagLook> {
  const show = await readShow(file, 'keep');
  const { files, facts, names } = await filesThatAreThere(show, file, linkedFiles(workFolder));
  const prepared = prepareShow(show, facts);
  const known = new Map<AssetId, LookedOverFile>(
    [...names].map(([id, name]) => [
      id,
      { name, state: facts.has(id) ? ('ready' as const) : ('missing' as const), madeHere: false },
    ]),
  );
  const drawing = await openNodeDrawing();
  const reader = createFileReader((id) => files.get(id)!, facts);
  const store = storeFor(drawing, reader);
  const checking = openChecking(drawing.kernels, store, show.frame);
  const seen = new Map<SlideId, SlideSeen>();
  try {
    for (const [index, slide] of show.slides.entries()) {
      if (process.stderr.isTTY) tell(`\rlooking over slide ${index + 1} of ${show.slides.length} `);
      seen.set(slide.id, await seeSlide(checking, prepared, index));
    }
  } finally {
    if (process.stderr.isTTY) tell('\n');
    checking.close();
    store.close();
    reader.close();
  }
  return {
    prepared,
    files: known,
    seen,
    films: shapes
      .filter((shape) => shape !== shapeName(show.frame))
      .map((shape) => ({ shape: shape as never, purpose: 'by-hand' })),
    now: new Date().toISOString().slice(0, 19),
  };
}

function told({ prepared }: SnagLook, { kind, grave, slideId, fromMs, toMs, sentence, key }: Snag) {
  const slide = slideId === null ? null : prepared.show.slides.findIndex(({ id }) => id === slideId) + 1;
  return {
    kind,
    grave,
    slide,
    fromMs: Math.round(fromMs),
    toMs: Math.round(toMs),
    sentence,
    advice: kindOf(kind).advice,
    key,
  };
}

function lines(look: SnagLook, snags: readonly Snag[]): string {
  if (snags.length === 0) return 'No snags.\n';
  const grave = snags.filter((snag) => snag.grave).length;
  return [
    `${snags.length} ${snags.length === 1 ? 'snag' : 'snags'}, ${grave} grave`,
    ...snags.map((snag) => {
      const { slide, sentence } = told(look, snag);
      return `${snag.grave ? '!' : ' '} ${clock(snag.fromMs)}${slide ? ` slide ${slide}` : ''}: ${sentence}`;
    }),
    '',
  ].join('\n');
}

const clock = (ms: number) => `${Math.floor(ms / 60_000)}:${String(Math.floor((ms % 60_000) / 1000)).padStart(2, '0')}`;

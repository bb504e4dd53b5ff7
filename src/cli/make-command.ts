import { copyFile, mkdir, mkdtemp, readdir, rm, stat, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import PQueue from 'p-queue';
import { prepareShow } from '../core/frame/plan-frame';
import type { FilmSpec } from '../core/film/film-spec';
import { BY_HAND } from '../core/film/purposes/purposes';
import type { AssetFacts } from '../core/show/asset-facts';
import { cueId, layerId, showId, type AssetId } from '../core/show/ids';
import { LONGEST_SHOW_TITLE } from '../core/show/limits';
import { shapeName, widthFor } from '../core/show/shape';
import { rawTwins } from '../core/show/raw-twins';
import { slideFromAsset } from '../core/show/new-slide';
import { assetIdsOf, DEFAULT_FADE_OUT_MS, emptyShow, mainLayerOf, type Show } from '../core/show/show';
import { songAfter } from '../core/show/placed-sound';
import { rateName, type FrameRate } from '../core/timing/frame-rate';
import { lengthsByMusic } from '../core/timing/follow-music';
import { factsOf } from './kept-facts';
import { UnusableFileError } from '../server/assets/unusable-file-error';
import { hashOfFile } from '../server/blobs/content-hash';
import { createKeptFiles } from '../server/films/kept-files';
import { makeFilm } from '../server/films/make-film';
import { parsedArgs } from './parsed-args';
import type { Surroundings } from './tanager';
import { rateOf } from './export-command';
import { linkedFiles } from './linked-files';
import { lookingLine, progressLine } from './progress-line';
import { DRESSING_OPTIONS, readied, withLook, type Dressing, type FileOfLook } from './dress-made';
import { UsageError } from './usage-error';

interface MakeOptions {
  readonly pictures: readonly string[];
  readonly music: string | null;
  readonly out: string;
  readonly heightPx: number;
  readonly rate: FrameRate;
  /** Null: fit to the music. */
  readonly pictureMs: number | null;
  readonly title: string;
  readonly save: string | null;
  readonly json: boolean;
  readonly dressing: Dressing;
}

interface Problem {
  readonly file: string;
  readonly message: string;
}

interface Usable {
  readonly file: string;
  /** Where it is read from. */
  readonly link: string;
  readonly id: AssetId;
  readonly facts: AssetFacts;
}

/** Makes a film from files nobody prepared. */
export async function makeCommand(args: readonly string[], { folder, out, tell }: Surroundings): Promise<number> {
  const options = parse(args, folder);
  const workFolder = await mkdtemp(path.join(tmpdir(), 'tanager-film-'));
  try {
    return await made(options, workFolder, { folder, out, tell });
  } finally {
    await rm(workFolder, { recursive: true, force: true });
  }
}

async function made(options: MakeOptions, workFolder: string, { out, tell }: Surroundings): Promise<number> {
  const problems: Problem[] = [];
  const link = linkedFiles(workFolder);
  const files = await expanded(options.pictures, problems);
  const usable = await lookedAt(files, link, problems, tell);
  const twins = rawTwins(usable.map((entry) => ({ ...entry, fileName: path.basename(entry.file) })));
  const raws = new Set([...twins.keys()].map((entry) => entry.file));
  const pictures = usable.filter((entry) => {
    if (raws.has(entry.file)) return false;
    if (entry.facts.kind !== 'sound') return true;
    problems.push({ file: entry.file, message: 'This is a sound; give it as --music.' });
    return false;
  });
  const song = options.music
    ? await lookedAt([options.music], link, problems, tell).then(([first]) => first ?? null)
    : null;
  if (song && song.facts.kind !== 'sound' && !(song.facts.kind === 'clip' && song.facts.hasSound))
    throw new Error(`${options.music} holds no sound.`);
  for (const problem of problems) tell(`${problem.file}: ${problem.message}\n`);
  if (pictures.length === 0) throw new Error('No picture could be used, so there is nothing to make a film of.');
  if (options.music && !song) throw new Error('The music could not be used; no film was made.');

  const look = await readied(options.dressing, workFolder, link);
  const plain = buildShow(options, pictures, song);
  let counted = 0;
  const shownFiles = [...pictures, ...(song ? [song] : [])];
  const dressedShow = withLook(
    plain,
    shownFiles.map(({ id, file, facts: known }) => ({ assetId: id, fileName: path.basename(file), facts: known })),
    options.title,
    look,
    () => `laid-${(counted += 1)}`,
  );
  for (const sentence of dressedShow.missing) tell(`${sentence}\n`);
  const all: Usable[] = [...shownFiles, ...look.files.map((entry) => ({ ...entry, file: entry.file ?? entry.link }))];
  const show = paced(dressedShow.show, options, new Map(all.map((entry) => [entry.id, entry.facts])));
  const facts = new Map(all.map((entry) => [entry.id, entry.facts]));
  const spec: FilmSpec = {
    purpose: BY_HAND,
    format: 'mp4',
    shape: shapeName(show.frame),
    widthPx: show.frame.widthPx,
    heightPx: show.frame.heightPx,
    rate: options.rate,
    quality: 'good',
  };
  const film = await makeFilm({
    show,
    facts,
    files: new Map(all.map((entry) => [entry.id, entry.link])),
    spec,
    outFile: options.out,
    workFolder: path.join(workFolder, 'work'),
    kept: createKeptFiles(path.join(workFolder, 'kept')),
    onProgress: progressLine(tell),
  });
  tell('\n');
  const fileOf = new Map(all.map((entry) => [entry.id, entry.file]));
  const drawnProblems = film.problems.map((problem) => ({
    file: fileOf.get(problem.assetId) ?? problem.assetId,
    message: problem.message,
  }));
  for (const problem of drawnProblems) tell(`${problem.file}: ${problem.message}\n`);
  if (options.save) await saveShow(options.save, show, await besideShow(options.save, show, look.files, fileOf));
  const prepared = prepareShow(show, facts);
  if (options.json) {
    out(
      `${JSON.stringify({
        film: options.out,
        lengthMs: film.lengthMs,
        frames: film.plan.frameCount,
        widthPx: spec.widthPx,
        heightPx: spec.heightPx,
        fps: Number(rateName(spec.rate)),
        drawMs: Math.round(film.drawMs),
        encodeMs: Math.round(film.encodeMs),
        wallMs: Math.round(film.wallMs),
        slides: show.slides.map((slide, index) => {
          const layer = mainLayerOf(slide);
          const span = prepared.spans[index]!;
          const move = layer ? prepared.moves.get(slide.id)?.get(layer.id) : undefined;
          return {
            picture: layer ? fileOf.get(layer.assetId) : null,
            startMs: span.startMs,
            lengthMs: slide.lengthMs,
            transitionMs: span.transitionMs,
            from: move?.first ?? null,
            to: move?.last ?? null,
          };
        }),
        problems: [...problems, ...drawnProblems],
      })}\n`,
    );
  } else {
    tell(
      `${options.out}: ${film.plan.frameCount} frames, ${(film.lengthMs / 1000).toFixed(1)} s, made in ${(film.wallMs / 1000).toFixed(1)} s\n`,
    );
  }
  return 0;
}

function parse(args: readonly string[], folder: string): MakeOptions {
  const parsed = parsedArgs(args, {
    music: { type: 'string' },
    out: { type: 'string' },
    height: { type: 'string' },
    fps: { type: 'string' },
    'seconds-per-picture': { type: 'string' },
    fit: { type: 'string' },
    title: { type: 'string' },
    save: { type: 'string' },
    json: { type: 'boolean' },
    ...DRESSING_OPTIONS,
  });
  const { values, positionals } = parsed;
  if (positionals.length === 0) throw new UsageError('Name the pictures to make a film of.');
  if (!values.out) throw new UsageError('Say where the film goes with --out film.mp4.');
  if (!values.out.toLowerCase().endsWith('.mp4')) throw new UsageError(`--out must end in .mp4, got ${values.out}.`);
  const heightPx = number('height', values.height, 1080);
  if (heightPx !== 720 && heightPx !== 1080)
    throw new UsageError(`--height must be 720 or 1080, got ${values.height}.`);
  const rate = rateOf(values.fps ?? '30');
  if (values.fit !== undefined && values.fit !== 'music')
    throw new UsageError(`--fit takes “music”, got ${values.fit}.`);
  if (values.fit && values['seconds-per-picture'] !== undefined)
    throw new UsageError('Give --seconds-per-picture or --fit music, not both.');
  if (values.fit && !values.music) throw new UsageError('--fit music needs --music SONG.');
  const seconds = number('seconds-per-picture', values['seconds-per-picture'], 5);
  if (!(seconds >= 0.2 && seconds <= 3600))
    throw new UsageError(`--seconds-per-picture must be from 0.2 to 3600, got ${values['seconds-per-picture']}.`);
  const absolute = (file: string) => path.resolve(folder, file);
  return {
    pictures: positionals.map(absolute),
    music: values.music ? absolute(values.music) : null,
    out: absolute(values.out),
    heightPx,
    rate,
    pictureMs: values.fit ? null : Math.round(seconds * 1000),
    title: titleOf(values.title ?? ''),
    save: values.save ? absolute(values.save) : null,
    json: values.json ?? false,
    dressing: {
      start: values.start,
      plumage: values.plumage,
      opener: fileOr(values.opener, absolute),
      closer: fileOr(values.closer, absolute),
      logo: values.logo && absolute(values.logo),
      credits: values.credits,
    },
  };
}

/** A mount is named, or lies in a file. */
function fileOr(name: string | undefined, absolute: (file: string) => string): string | undefined {
  return name?.toLowerCase().endsWith('.zip') ? absolute(name) : name;
}

function titleOf(text: string): string {
  if (text.length > LONGEST_SHOW_TITLE)
    throw new UsageError(`--title can have ${LONGEST_SHOW_TITLE} letters at most, got ${text.length}.`);
  return text;
}

function number(name: string, text: string | undefined, otherwise: number): number {
  if (text === undefined) return otherwise;
  const value = Number(text);
  if (text.trim() === '' || !Number.isFinite(value)) throw new UsageError(`--${name} must be a number, got ${text}.`);
  return value;
}

/** Folders stand for the files in them and those that links in them lead to (not in folders below), by name with numbers in their order. */
async function expanded(names: readonly string[], problems: Problem[]): Promise<string[]> {
  const files: string[] = [];
  const natural = new Intl.Collator('en', { numeric: true });
  for (const name of names) {
    const found = await stat(name).catch(() => null);
    if (!found) problems.push({ file: name, message: 'There is no such file.' });
    else if (!found.isDirectory()) files.push(name);
    else {
      const names = (await readdir(name)).filter((entry) => !entry.startsWith('.')).sort(natural.compare);
      const inside: string[] = [];
      for (const entry of names) {
        const file = path.join(name, entry);
        // A link that leads nowhere is told as a file that is not there.
        if ((await stat(file).catch(() => null))?.isFile() !== false) inside.push(file);
      }
      if (inside.length === 0) problems.push({ file: name, message: 'There are no files in this folder.' });
      files.push(...inside);
    }
  }
  return files;
}

async function lookedAt(
  files: readonly string[],
  link: (file: string) => Promise<string>,
  problems: Problem[],
  tell: (text: string) => void,
): Promise<Usable[]> {
  const queue = new PQueue({ concurrency: 2 });
  let done = 0;
  const tellDone = lookingLine(tell, files.length);
  const looked = await Promise.all(
    files.map((file) =>
      queue.add(async () => {
        try {
          const linked = await link(file);
          return { file, link: linked, id: await hashOfFile(linked), facts: await factsOf(linked) };
        } catch (error) {
          if (error instanceof UnusableFileError) problems.push({ file, message: error.message });
          else if ((error as NodeJS.ErrnoException).code === 'ENOENT')
            problems.push({ file, message: 'There is no such file.' });
          else if ((error as NodeJS.ErrnoException).code === 'EACCES')
            problems.push({ file, message: 'The file may not be read.' });
          else throw error;
          return null;
        } finally {
          done += 1;
          tellDone(done);
        }
      }),
    ),
  );
  return looked.filter((entry): entry is Usable => entry !== null && entry !== undefined);
}

function buildShow(options: MakeOptions, pictures: readonly Usable[], song: Usable | null): Show {
  let counted = 0;
  const newId = () => `made-${(counted += 1)}`;
  const empty = emptyShow(showId('made'), options.title);
  const shape = {
    widthPx: widthFor(empty.frame, options.heightPx),
    heightPx: options.heightPx,
    rate: options.rate,
  };
  const lengthMs = options.pictureMs ?? empty.defaultLengthMs;
  const made = pictures.map((picture) => slideFromAsset(picture.id, picture.facts, lengthMs, newId));
  const cues = song ? [songAfter(cueId(newId()), song.id, DEFAULT_FADE_OUT_MS)] : [];
  const slides = made.map((slide, index) => ({
    ...slide,
    layers:
      index === 0 && options.title.trim() !== ''
        ? [
            ...slide.layers,
            {
              kind: 'words' as const,
              id: layerId(newId()),
              title: options.title,
              subtitle: '',
              place: 'bottom-left' as const,
            },
          ]
        : slide.layers,
  }));
  return { ...empty, frame: shape, defaultLengthMs: lengthMs, slides, cues };
}

/** The show with its pictures fitted to the music, where that was asked for or a starting point lets it lead. */
function paced(show: Show, options: MakeOptions, facts: ReadonlyMap<AssetId, AssetFacts>): Show {
  if (options.pictureMs !== null && !show.pace) return show;
  const fitted = lengthsByMusic(show, facts, show.pace ?? { by: 'music' });
  if (!fitted.ok) {
    if (options.pictureMs !== null) {
      const { pace: _pace, ...free } = show;
      return free;
    }
    const songMs = show.cues.reduce((sum, { assetId }) => {
      const known = facts.get(assetId);
      return sum + (known && known.kind !== 'picture' ? known.lengthMs : 0);
    }, 0);
    throw new Error(
      fitted.reason === 'music-too-short'
        ? `The music lasts ${(songMs / 1000).toFixed(1)} s; these pictures need at least ${(fitted.shortestMs / 1000).toFixed(1)} s. Leave some out or take a longer song.`
        : 'Only pictures can be fitted to the music, and there are none.',
    );
  }
  const lengths = new Map(fitted.lengths.map((entry) => [entry.slideId, entry.lengthMs]));
  return {
    ...show,
    pace: show.pace ?? { by: 'music' },
    slides: show.slides.map((slide) => ({ ...slide, lengthMs: lengths.get(slide.id) ?? slide.lengthMs })),
  };
}

/** Where the files of a saved show lie: what a mount's file brought along is put beside it, as long as it is shown. */
async function besideShow(
  save: string,
  show: Show,
  brought: readonly FileOfLook[],
  fileOf: ReadonlyMap<AssetId, string>,
): Promise<ReadonlyMap<AssetId, string>> {
  const used = new Set(assetIdsOf(show));
  const loose = brought.filter(({ id, file }) => file === null && used.has(id));
  if (loose.length === 0) return fileOf;
  const folder = `${save.replace(/\.json$/i, '')}-files`;
  await mkdir(folder, { recursive: true });
  const placed = new Map(fileOf);
  for (const { id, link } of loose) {
    const place = path.join(folder, path.basename(link));
    await copyFile(link, place);
    placed.set(id, place);
  }
  return placed;
}

async function saveShow(file: string, show: Show, fileOf: ReadonlyMap<AssetId, string>): Promise<void> {
  const files = Object.fromEntries([...fileOf].map(([id, name]) => [id, path.relative(path.dirname(file), name)]));
  await writeFile(file, `${JSON.stringify({ ...show, files }, null, 2)}\n`);
}

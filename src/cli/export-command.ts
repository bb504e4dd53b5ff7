import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { FORMAT_NAMES, formatOf, type FilmFormatName } from '../core/film/film-formats';
import { faultOfFilm, faultOfSpec, QUALITIES, type FilmQuality, type FilmSpec } from '../core/film/film-spec';
import { BY_HAND, PURPOSE_NAMES, specFor, type PurposeName } from '../core/film/purposes/purposes';
import { shapeName, widthFor } from '../core/show/shape';
import type { Show } from '../core/show/show';
import { FRAME_RATES, rateName, type FrameRate } from '../core/timing/frame-rate';
import { createKeptFiles } from '../server/films/kept-files';
import { makeFilm } from '../server/films/make-film';
import { filesOfShow } from './files-of-show';
import { linkedFiles } from './linked-files';
import { parsedArgs } from './parsed-args';
import { progressLine } from './progress-line';
import { readShow } from './show-file';
import type { Surroundings } from './tanager';
import { UsageError } from './usage-error';

/** Makes a film of a saved show: for a purpose, or by numbers. */
export async function exportCommand(args: readonly string[], { folder, out, tell }: Surroundings): Promise<number> {
  const asked = parse(args, folder);
  const show = await readShow(asked.show);
  const spec = asked.spec(show);
  const fault = faultOfFilm(show, spec);
  if (fault) throw new Error(fault);
  const workFolder = await mkdtemp(path.join(tmpdir(), 'tanager-export-'));
  try {
    const { files, facts } = await filesOfShow(show, asked.show, linkedFiles(workFolder));
    const made = await makeFilm({
      show,
      spec,
      facts,
      files,
      outFile: asked.out,
      workFolder: path.join(workFolder, 'work'),
      kept: createKeptFiles(asked.keep ?? path.join(workFolder, 'kept')),
      onProgress: progressLine(tell),
    });
    tell('\n');
    const problems = made.problems.map(({ assetId, message }) => ({ file: show.files[assetId] ?? assetId, message }));
    for (const { file, message } of problems) tell(`${file}: ${message}\n`);
    if (asked.json)
      out(
        `${JSON.stringify({
          film: asked.out,
          purpose: spec.purpose,
          format: spec.format,
          lengthMs: made.lengthMs,
          frames: made.plan.frameCount,
          framesKept: made.keptFrames,
          framesStill: made.stillFrames,
          widthPx: spec.widthPx,
          heightPx: spec.heightPx,
          fps: Number(rateName(spec.rate)),
          bytes: made.byteCount,
          drawMs: Math.round(made.drawMs),
          encodeMs: Math.round(made.encodeMs),
          wallMs: Math.round(made.wallMs),
          problems,
        })}\n`,
      );
    else
      tell(
        `${asked.out}: ${formatOf(spec.format).name}, ${(made.byteCount / 1e6).toFixed(1)} MB, ${made.plan.frameCount} frames, made in ${(made.wallMs / 1000).toFixed(1)} s\n`,
      );
    return 0;
  } finally {
    await rm(workFolder, { recursive: true, force: true });
  }
}

interface ExportOptions {
  readonly show: string;
  readonly out: string;
  readonly keep: string | null;
  readonly json: boolean;
  /** What is asked of a show. */
  spec(show: Show): FilmSpec;
}

function parse(args: readonly string[], folder: string): ExportOptions {
  const { values, positionals } = parsedArgs(args, {
    purpose: { type: 'string' },
    size: { type: 'string' },
    fps: { type: 'string' },
    format: { type: 'string' },
    quality: { type: 'string' },
    mb: { type: 'string' },
    from: { type: 'string' },
    to: { type: 'string' },
    keep: { type: 'string' },
    out: { type: 'string' },
    json: { type: 'boolean' },
  });
  if (positionals.length !== 1) throw new UsageError('Name one saved show.');
  if (!values.out) throw new UsageError('Say where the film goes with --out FILE.');
  const purpose = oneOf('purpose', values.purpose, PURPOSE_NAMES);
  const format = oneOf('format', values.format, FORMAT_NAMES);
  const quality = oneOf('quality', values.quality, QUALITIES);
  const size = values.size === undefined ? undefined : sizeOf(values.size);
  const rate = values.fps === undefined ? undefined : rateOf(values.fps);
  const megabytes = numberOf('mb', values.mb);
  const fromS = numberOf('from', values.from);
  const toS = numberOf('to', values.to);
  const out = path.resolve(folder, values.out);
  return {
    show: path.resolve(folder, positionals[0]!),
    out,
    keep: values.keep === undefined ? null : path.resolve(folder, values.keep),
    json: values.json ?? false,
    spec(show) {
      const spec = wanted(show, { purpose, format, quality, size, rate, megabytes, fromS, toS });
      const fault = faultOfSpec(spec);
      if (fault) throw new UsageError(`This film cannot be made: ${fault}.`);
      const { extension, name } = formatOf(spec.format);
      if (path.extname(out).toLowerCase() !== `.${extension}`)
        throw new UsageError(`${name} goes into a file that ends in .${extension}, got ${path.basename(out)}.`);
      return spec;
    },
  };
}

interface Wanted {
  readonly purpose: PurposeName | undefined;
  readonly format: FilmFormatName | undefined;
  readonly quality: FilmQuality | undefined;
  readonly size: { readonly widthPx: number; readonly heightPx: number } | undefined;
  readonly rate: FrameRate | undefined;
  readonly megabytes: number | undefined;
  readonly fromS: number | undefined;
  readonly toS: number | undefined;
}

function wanted(show: Show, { purpose, format, quality, size, rate, megabytes, fromS, toS }: Wanted): FilmSpec {
  const mostBytes = megabytes === undefined ? undefined : Math.round(megabytes * 1e6);
  const base = specFor(show, purpose ?? (mostBytes === undefined ? 'screen' : 'email'), mostBytes);
  const changed = size ?? format ?? quality ?? rate ?? fromS ?? toS;
  const span =
    fromS === undefined && toS === undefined
      ? base.span
      : { fromMs: Math.round((fromS ?? 0) * 1000), toMs: Math.round((toS ?? 12 * 3600) * 1000) };
  const { mostBytes: _mostBytes, span: _span, ...rest } = base;
  return {
    ...rest,
    purpose: changed === undefined && purpose !== undefined ? purpose : purpose && !size && !format ? purpose : BY_HAND,
    ...(size && { ...size, shape: shapeLike(size, show) }),
    ...(format && { format }),
    ...(quality && { quality }),
    ...(format && formatOf(format).discRate && { rate: formatOf(format).discRate! }),
    ...(rate && { rate }),
    ...(base.mostBytes !== undefined && { mostBytes: base.mostBytes }),
    ...(mostBytes !== undefined && { mostBytes }),
    ...(span && { span }),
  };
}

/** The shape of a size; the show's own when the size is that but for rounding. */
function shapeLike(size: { readonly widthPx: number; readonly heightPx: number }, show: Show): string {
  return Math.abs(widthFor(show.frame, size.heightPx) - size.widthPx) <= 2 ? shapeName(show.frame) : shapeName(size);
}

function oneOf<Name extends string>(option: string, value: string | undefined, names: readonly Name[]) {
  if (value === undefined) return undefined;
  const found = names.find((name) => name === value);
  if (!found) throw new UsageError(`--${option} must be one of ${names.join(', ')}, got ${value}.`);
  return found;
}

function sizeOf(text: string) {
  const [, widthPx, heightPx] = (/^(\d{2,4})[x×](\d{2,4})$/.exec(text) ?? []).map(Number);
  if (!widthPx || !heightPx) throw new UsageError(`--size must be two numbers such as 1920x1080, got ${text}.`);
  return { widthPx, heightPx };
}

/** One of the rates films are made at, by its name. */
export function rateOf(text: string): FrameRate {
  const rate = Object.hasOwn(FRAME_RATES, text) ? FRAME_RATES[text] : undefined;
  if (rate) return rate;
  // Teasers go slower.
  if (/^(10|12|15)$/.test(text)) return { frames: Number(text), seconds: 1 };
  const names = ['10', '12', '15', ...Object.keys(FRAME_RATES)].sort((a, b) => Number(a) - Number(b));
  throw new UsageError(`--fps must be one of ${names.join(', ')}, got ${text}.`);
}

function numberOf(option: string, text: string | undefined): number | undefined {
  if (text === undefined) return undefined;
  const value = Number(text);
  if (text.trim() === '' || !Number.isFinite(value) || value < 0)
    throw new UsageError(`--${option} must be a number, 0 or more, got ${text}.`);
  return value;
}

import { writeFile } from 'node:fs/promises';
import path from 'node:path';
import { BAND_WISHES } from '../core/sound/band/band-schema';
import { BAND_LENGTH_MS, BAND_MOODS, BAND_STYLES, type BandWishes } from '../core/sound/band/band-wishes';
import { bandFault } from '../core/sound/band/compose';
import { asMusicXml } from '../core/sound/band/music-xml';
import type { Piece } from '../core/sound/band/piece';
import { heardInScore, titleOfPiece } from '../core/sound/band/piece-facts';
import { playToFile } from '../server/band/play-to-file';
import { asMidi } from '../server/band/score-files';
import { parse } from '../server/schema/parse';
import { parsedArgs } from './parsed-args';
import type { Surroundings } from './tanager';
import { UsageError } from './usage-error';

/** Has the house band play a piece into a file, and its score into others. */
export async function bandCommand(args: readonly string[], surroundings: Surroundings): Promise<number> {
  const { out, tell } = surroundings;
  const { wishes, files, json } = asked(args, surroundings.folder);
  let tenth = 0;
  const piece = await playToFile(wishes, {
    as: files.out.toLowerCase().endsWith('.wav') ? 'wav' : 'opus',
    out: files.out,
    onProgress: (share) => {
      if (Math.floor(10 * share) > tenth) tell(`the band plays  ${10 * (tenth = Math.floor(10 * share))} %\n`);
    },
  });
  if (files.midi) await writeFile(files.midi, asMidi(piece));
  if (files.musicxml) await writeFile(files.musicxml, asMusicXml(piece));
  if (json) out(`${JSON.stringify(reportOf(piece))}\n`);
  else
    tell(
      `${files.out}: ${titleOfPiece(piece)}, ${(wishes.lengthMs / 1000).toFixed(1)} s, ${piece.form.bars} bars at ${piece.form.bpm.toFixed(1)} a minute\n`,
    );
  return 0;
}

function reportOf(piece: Piece): object {
  const { beats, sections } = heardInScore(piece);
  return {
    title: titleOfPiece(piece),
    lengthMs: piece.wishes.lengthMs,
    lastChordMs: piece.form.beatsMs.at(-1),
    tempoBpm: beats.tempoBpm,
    beatsABar: beats.beatsABar,
    beatsMs: piece.form.beatsMs,
    downbeatsMs: beats.firsts.map((beat) => piece.form.beatsMs[beat]),
    sections,
    instruments: [...new Set(piece.parts.map(({ instrument }) => instrument))],
  };
}

interface Asked {
  readonly wishes: BandWishes;
  readonly files: { readonly out: string; readonly midi: string | null; readonly musicxml: string | null };
  readonly json: boolean;
}

function asked(args: readonly string[], folder: string): Asked {
  const { values, positionals } = parsedArgs(args, {
    style: { type: 'string' },
    mood: { type: 'string' },
    bpm: { type: 'string' },
    energy: { type: 'string' },
    seconds: { type: 'string' },
    seed: { type: 'string' },
    without: { type: 'string', multiple: true },
    with: { type: 'string', multiple: true },
    out: { type: 'string' },
    midi: { type: 'string' },
    musicxml: { type: 'string' },
    json: { type: 'boolean' },
  });
  if (positionals.length > 0) throw new UsageError('band takes no files.');
  if (!BAND_STYLES.some((style) => style === values.style))
    throw new UsageError(`--style must be one of ${BAND_STYLES.join(', ')}, got ${values.style}.`);
  const mood = values.mood ?? 'warm';
  if (!BAND_MOODS.some((one) => one === mood))
    throw new UsageError(`--mood must be one of ${BAND_MOODS.join(', ')}, got ${mood}.`);
  if (!/\.(opus|wav)$/iu.test(values.out ?? ''))
    throw new UsageError(`--out must end in .opus or .wav, got ${values.out}.`);
  const numbered = (name: string, given: string | undefined, otherwise: number): number => {
    if (given === undefined) return otherwise;
    const value = Number(given);
    if (given.trim() === '' || !Number.isFinite(value))
      throw new UsageError(`--${name} must be a number, got ${given}.`);
    return value;
  };
  const seconds = numbered('seconds', values.seconds, 60);
  if (!(1000 * seconds >= BAND_LENGTH_MS.least && 1000 * seconds <= BAND_LENGTH_MS.most))
    throw new UsageError(
      `--seconds must be from ${BAND_LENGTH_MS.least / 1000} to ${BAND_LENGTH_MS.most / 1000}, got ${values.seconds}.`,
    );
  const wishes = {
    style: values.style,
    mood,
    energy: numbered('energy', values.energy, 0.6),
    lengthMs: Math.round(1000 * seconds),
    seed: numbered('seed', values.seed, 1),
    ...(values.bpm !== undefined && { bpm: numbered('bpm', values.bpm, 0) }),
    ...(values.without && { without: values.without }),
    ...(values.with && { and: values.with }),
  };
  const parsed = parse<BandWishes>(BAND_WISHES, wishes);
  if (!parsed.ok) throw new UsageError(`The band cannot play that: ${parsed.problem}.`);
  const fault = bandFault(parsed.value);
  if (fault !== null) throw new UsageError(fault);
  const at = (file: string | undefined) => (file === undefined ? null : path.resolve(folder, file));
  return {
    wishes: parsed.value,
    files: { out: path.resolve(folder, values.out!), midi: at(values.midi), musicxml: at(values.musicxml) },
    json: values.json ?? false,
  };
}

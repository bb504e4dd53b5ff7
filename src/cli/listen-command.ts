import path from 'node:path';
import { isDoubtful, type ListeningFacts } from '../core/sound/listening/listening-facts';
import { factsOf } from './kept-facts';
import { parsedArgs } from './parsed-args';
import type { Surroundings } from './tanager';
import { UsageError } from './usage-error';

/** Tells what is heard in a song: tempo, beats, bars, sections, loudness. */
export async function listenCommand(args: readonly string[], { folder, out }: Surroundings): Promise<number> {
  const { song, json } = parse(args);
  const known = await factsOf(path.resolve(folder, song));
  if (known.kind !== 'sound' || !known.listening) throw new Error(`${song} is not a song but a ${known.kind}.`);
  const { listening, lengthMs } = known;
  if (json) out(`${JSON.stringify(reportOf(listening, lengthMs))}\n`);
  else out(`${sentencesOf(listening, lengthMs).join('\n')}\n`);
  return 0;
}

function reportOf({ beats, sections, loudness }: ListeningFacts, lengthMs: number): object {
  return {
    lengthMs: Math.round(lengthMs),
    tempoBpm: beats?.tempoBpm ?? null,
    confidence: beats?.confidence ?? null,
    beatsABar: beats?.beatsABar ?? null,
    beatsMs: beats?.beatsMs ?? [],
    downbeatsMs: beats?.firsts.map((beat) => beats.beatsMs[beat]) ?? [],
    sections,
    loudnessLufs: loudness.integratedLufs,
    truePeakDb: loudness.truePeakDb,
  };
}

function sentencesOf({ beats, sections, loudness }: ListeningFacts, lengthMs: number): string[] {
  const seconds = (ms: number) => `${(ms / 1000).toFixed(1)} s`;
  return [
    `${seconds(lengthMs)} long`,
    beats
      ? `${beats.tempoBpm} beats a minute, ${beats.beatsABar} to a bar${isDoubtful(beats) ? ' (doubtful)' : ''}`
      : 'no beats found',
    loudness.integratedLufs === null
      ? 'silent'
      : `${loudness.integratedLufs.toFixed(1)} LUFS, peaks at ${loudness.truePeakDb!.toFixed(1)} dBTP`,
    ...sections.map(({ startMs, endMs, label }) => `${seconds(startMs)}–${seconds(endMs)}  ${label}`),
  ];
}

function parse(args: readonly string[]): { song: string; json: boolean } {
  const parsed = parsedArgs(args, { json: { type: 'boolean' } });
  const [song, ...more] = parsed.positionals;
  if (song === undefined || more.length > 0) throw new UsageError('listen takes one song.');
  return { song, json: parsed.values.json ?? false };
}

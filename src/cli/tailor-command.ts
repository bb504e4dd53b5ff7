import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { assetId, cueId, showId, slideId } from '../core/show/ids';
import { songAfter } from '../core/show/placed-sound';
import { emptyShow, type Show } from '../core/show/show';
import { MIX_SAMPLE_RATE } from '../core/sound/mix-plan';
import { planMix } from '../core/sound/plan-mix';
import { soundSpans } from '../core/sound/sound-spans';
import { tailoringOf } from '../core/sound/song-runs';
import { TAILORED_SHARE } from '../core/sound/tailor/tailor-song';
import { runFfmpeg } from '../server/ffmpeg/run-ffmpeg';
import { factsOf } from './kept-facts';
import { writeMix } from '../server/mixing/write-mix';
import { linkedFiles } from './linked-files';
import { parsedArgs } from './parsed-args';
import type { Surroundings } from './tanager';
import { UsageError } from './usage-error';

/** Makes a song longer or shorter by joining it where it goes on alike, as a WAV file. */
export async function tailorCommand(args: readonly string[], { folder, out, tell }: Surroundings): Promise<number> {
  const options = parse(args, folder);
  const workFolder = await mkdtemp(path.join(tmpdir(), 'tanager-tailor-'));
  try {
    const song = await linkedFiles(workFolder)(options.song);
    const known = await factsOf(song);
    if (known.kind !== 'sound') throw new Error(`${options.song} is not a song but a ${known.kind}.`);
    const id = assetId('0'.repeat(64));
    const facts = new Map([[id, known]]);
    const show: Show = {
      ...emptyShow(showId('tailored'), ''),
      mix: { loudness: 'as-it-is' },
      cues: [{ ...songAfter(cueId('song'), id, 0), ends: { at: 'show-end', beforeMs: 0 }, tailored: {} }],
      slides: [
        {
          id: slideId('room'),
          lengthMs: options.toMs,
          transition: { kind: 'cut' },
          backing: { kind: 'automatic' },
          layers: [],
          sounds: [],
        },
      ],
    };
    const [span] = soundSpans(show, facts);
    const tailored = span ? tailoringOf(span, facts) : null;
    if (!tailored) {
      const seconds = (share: number) => ((share * known.lengthMs) / 1000).toFixed(0);
      throw new Error(
        options.toMs < TAILORED_SHARE.least * known.lengthMs || options.toMs > TAILORED_SHARE.most * known.lengthMs
          ? `This song can be made from ${seconds(TAILORED_SHARE.least)} to ${seconds(TAILORED_SHARE.most)} s long.`
          : 'There are too few places in this song where it goes on alike.',
      );
    }
    const raw = path.join(workFolder, 'song.f32');
    const sampleCount = Math.round((options.toMs * MIX_SAMPLE_RATE) / 1000);
    await writeMix(planMix(show, facts), { fileOf: () => song, outFile: raw, sampleCount });
    await runFfmpeg([
      '-f',
      'f32le',
      '-ar',
      String(MIX_SAMPLE_RATE),
      '-ac',
      '2',
      '-i',
      raw,
      '-c:a',
      'pcm_s24le',
      '-f',
      'wav',
      '-y',
      options.out,
    ]);
    const lengthMs = (sampleCount * 1000) / MIX_SAMPLE_RATE;
    if (options.json) out(`${JSON.stringify({ lengthMs, speed: tailored.speed, joins: tailored.joins })}\n`);
    else
      tell(
        `${options.out}: ${(lengthMs / 1000).toFixed(1)} s, ${tailored.joins.length === 1 ? 'one join' : `${tailored.joins.length} joins`}\n`,
      );
    return 0;
  } finally {
    await rm(workFolder, { recursive: true, force: true });
  }
}

function parse(args: readonly string[], folder: string): { song: string; toMs: number; out: string; json: boolean } {
  const parsed = parsedArgs(args, { to: { type: 'string' }, out: { type: 'string' }, json: { type: 'boolean' } });
  const { values, positionals } = parsed;
  if (positionals.length !== 1) throw new UsageError('tailor takes one song.');
  const seconds = Number(values.to);
  if (values.to === undefined || values.to.trim() === '' || !(seconds >= 1 && seconds <= 7200))
    throw new UsageError(`--to must be a number of seconds from 1 to 7200, got ${values.to}.`);
  if (!values.out?.toLowerCase().endsWith('.wav')) throw new UsageError(`--out must end in .wav, got ${values.out}.`);
  return {
    song: path.resolve(folder, positionals[0]!),
    toMs: Math.round(1000 * seconds),
    out: path.resolve(folder, values.out),
    json: values.json ?? false,
  };
}

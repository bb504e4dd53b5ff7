import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { asSrt, asVtt } from '../core/captions/caption-files';
import { captionLanguages, captionsOfShow } from '../core/captions/show-captions';
import { USUAL_LANGUAGE } from '../core/show/caption';
import { whole } from '../server/blobs/whole';
import { linkedFiles } from './linked-files';
import { factsOfSounds, readShow } from './show-file';
import { parsedArgs } from './parsed-args';
import type { Surroundings } from './tanager';
import { UsageError } from './usage-error';

/** Writes the captions of a saved show as a WebVTT or SRT file. */
export async function captionsCommand(args: readonly string[], { folder, tell }: Surroundings): Promise<number> {
  const { show: file, out, language } = parse(args, folder);
  const show = await readShow(file);
  const workFolder = await mkdtemp(path.join(tmpdir(), 'tanager-captions-'));
  try {
    const facts = await factsOfSounds(show, file, linkedFiles(workFolder));
    const wanted = language ?? show.language ?? USUAL_LANGUAGE;
    const captions = captionsOfShow(show, facts, wanted);
    if (captions.length === 0) {
      const there = captionLanguages(show);
      throw new Error(
        there.length === 0
          ? 'There are no captions: no slide has a script and a voice, and none were set by hand.'
          : `There are no captions in ${wanted}; there are some in ${there.join(', ')}.`,
      );
    }
    const text = out.toLowerCase().endsWith('.vtt') ? asVtt(captions, wanted) : asSrt(captions);
    await whole(out, (part) => writeFile(part, text));
    tell(`${out}: ${captions.length} captions in ${wanted}\n`);
    return 0;
  } finally {
    await rm(workFolder, { recursive: true, force: true });
  }
}

function parse(args: readonly string[], folder: string): { show: string; out: string; language: string | null } {
  const parsed = parsedArgs(args, { out: { type: 'string' }, language: { type: 'string' } });
  const { values, positionals } = parsed;
  if (positionals.length !== 1) throw new UsageError('Name one saved show.');
  if (!values.out || !/\.(vtt|srt)$/i.test(values.out))
    throw new UsageError(`--out must end in .vtt or .srt, got ${values.out}.`);
  return {
    show: path.resolve(folder, positionals[0]!),
    out: path.resolve(folder, values.out),
    language: values.language ?? null,
  };
}

import { copyFile, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { captionsOfSlide } from '../core/captions/show-captions';
import { nextTakeName, takeKept } from '../core/narration/kept-take';
import { USUAL_LANGUAGE } from '../core/show/caption';
import { applyEdit, type ShowEdit } from '../core/show/edit';
import { cueId, type AssetId } from '../core/show/ids';
import { LONGEST_SCRIPT } from '../core/show/limits';
import type { Show } from '../core/show/show';
import { GENTLE, THOROUGH, type Cleaning } from '../core/sound/voice/cleaning';
import { trimmed } from '../core/sound/voice/phrases';
import { withItsLengths } from '../core/timing/follow-music';
import { hashOfFile } from '../server/blobs/content-hash';
import { whole } from '../server/blobs/whole';
import { factsOf } from './kept-facts';
import { cleanFile } from '../server/recording/clean-file';
import { linkedFiles } from './linked-files';
import { factsOfSounds, readShow, writeShow } from './show-file';
import { parsedArgs } from './parsed-args';
import type { Surroundings } from './tanager';
import { UsageError } from './usage-error';

const CLEANINGS: Readonly<Record<string, Cleaning | null>> = { gently: GENTLE, thoroughly: THOROUGH, no: null };

/** Lays a recorded voice on a slide of a saved show, cleaned and trimmed; the slide then waits for it. */
export async function voiceCommand(args: readonly string[], { folder, out, tell }: Surroundings): Promise<number> {
  const asked = parse(args, folder);
  const saved = await readShow(asked.show);
  const slide = saved.slides[asked.slide - 1];
  if (!slide) throw new UsageError(`--slide must be from 1 to ${saved.slides.length}, got ${asked.slide}.`);
  const workFolder = await mkdtemp(path.join(tmpdir(), 'tanager-voice-'));
  try {
    const link = linkedFiles(workFolder);
    const own = path.dirname(asked.show);
    const original = await link(asked.take);
    const originalId = await hashOfFile(original);
    const recorded = await factsOf(original);
    if (recorded.kind !== 'sound') throw new Error(`${asked.take} is not a sound but a ${recorded.kind}.`);
    const made = path.join(workFolder, 'cleaned.flac');
    const trim = asked.how
      ? (await cleanFile(original, made, asked.how)).trim
      : trimmed(recorded.listening?.phrases ?? [], recorded.lengthMs);
    const heardId = asked.how ? await hashOfFile(made) : originalId;
    const cleanedFile = asked.how ? await putBeside(made, heardId, asked.take, own) : null;
    const heard = cleanedFile ? await factsOf(await link(cleanedFile)) : recorded;
    if (heard.kind !== 'sound') throw new TypeError('a cleaned voice must be a sound');
    const facts = new Map([...(await factsOfSounds(saved, asked.show, link)), [heardId, heard]]);
    const name = nextTakeName(slide.sounds);
    const edits: ShowEdit[] = [
      ...(asked.script === null
        ? []
        : [{ kind: 'set-scripts' as const, scripts: [{ slideId: slide.id, script: asked.script }] }]),
      takeKept(saved, slide.id, cueId(`${slide.id}-${name.toLowerCase().replace(' ', '-')}`), {
        assetId: heardId,
        name,
        lengthMs: heard.lengthMs,
        fromMs: trim?.fromMs ?? 0,
        toMs: trim?.toMs ?? heard.lengthMs,
        ...(asked.how && { cleaned: { from: originalId, how: asked.how } }),
      })!,
    ];
    const show = edits.reduce<Show>((before, next) => {
      const { edit, unmet } = withItsLengths(before, facts, next);
      if (unmet) tell(`${unmet}\n`);
      const result = applyEdit(before, edit);
      if (!result.ok) throw new Error(result.sentence);
      return result.show;
    }, saved);
    const files = {
      ...saved.files,
      [originalId]: path.relative(own, asked.take),
      ...(cleanedFile && { [heardId]: path.relative(own, cleanedFile) }),
    };
    await writeShow(asked.show, { ...show, files });
    const changed = show.slides[asked.slide - 1]!;
    if (trim === null)
      tell('Nothing that sounds like speech was heard in this recording. It is laid on the slide all the same.\n');
    if (asked.json)
      out(
        `${JSON.stringify({
          slide: asked.slide,
          take: name,
          lengthMs: changed.lengthMs,
          voiceMs: Math.round((trim?.toMs ?? heard.lengthMs) - (trim?.fromMs ?? 0)),
          cleaned: cleanedFile,
          captions: captionsOfSlide(show, changed, facts, show.language ?? USUAL_LANGUAGE),
        })}\n`,
      );
    else tell(`${asked.show}: slide ${asked.slide} lasts ${(changed.lengthMs / 1000).toFixed(1)} s with this voice\n`);
    return 0;
  } finally {
    await rm(workFolder, { recursive: true, force: true });
  }
}

/** Puts a cleaned recording into a folder under a name that no other file there has; the very same one is there once. */
async function putBeside(made: string, hash: AssetId, take: string, folder: string): Promise<string> {
  const name = `${path.basename(take).replace(/\.[^.]+$/, '')}, cleaned`;
  for (let number = 1; ; number += 1) {
    const file = path.join(folder, `${name}${number > 1 ? ` ${number}` : ''}.flac`);
    const there = await hashOfFile(file).catch(() => null);
    if (there === null) await whole(file, (part) => copyFile(made, part));
    if (there === null || there === hash) return file;
  }
}

interface AskedVoice {
  readonly show: string;
  readonly slide: number;
  readonly take: string;
  readonly script: string | null;
  readonly how: Cleaning | null;
  readonly json: boolean;
}

function parse(args: readonly string[], folder: string): AskedVoice {
  const parsed = parsedArgs(args, {
    slide: { type: 'string' },
    take: { type: 'string' },
    script: { type: 'string' },
    clean: { type: 'string' },
    json: { type: 'boolean' },
  });
  const { values, positionals } = parsed;
  if (positionals.length !== 1) throw new UsageError('Name one saved show.');
  const slide = Number(values.slide);
  if (!Number.isInteger(slide) || slide < 1)
    throw new UsageError(`--slide must be the number of a slide, got ${values.slide}.`);
  if (!values.take) throw new UsageError('Say which recording with --take FILE.');
  const clean = values.clean ?? 'gently';
  if (!Object.hasOwn(CLEANINGS, clean))
    throw new UsageError(`--clean must be ${Object.keys(CLEANINGS).join(', ')}, got ${clean}.`);
  const script = values.script?.trim() ?? '';
  if (script.length > LONGEST_SCRIPT)
    throw new UsageError(`--script can have ${LONGEST_SCRIPT} letters at most, got ${script.length}.`);
  return {
    show: path.resolve(folder, positionals[0]!),
    slide,
    take: path.resolve(folder, values.take),
    script: script === '' ? null : script,
    how: CLEANINGS[clean]!,
    json: values.json ?? false,
  };
}

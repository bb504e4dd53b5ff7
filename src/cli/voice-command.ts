import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { captionsOfSlide } from '../core/captions/show-captions';
import { nextTakeName, takeKept } from '../core/narration/kept-take';
import { USUAL_LANGUAGE } from '../core/show/caption';
import { applyEdit, type ShowEdit } from '../core/show/edit';
import { cueId } from '../core/show/ids';
import { LONGEST_SCRIPT } from '../core/show/limits';
import type { Show } from '../core/show/show';
import { GENTLE, THOROUGH, type Cleaning } from '../core/sound/voice/cleaning';
import { trimmed } from '../core/sound/voice/phrases';
import { withItsLengths } from '../core/timing/follow-music';
import { hashOfFile } from '../server/blobs/content-hash';
import { lookAndFind } from '../server/focus/look-and-find';
import { cleanFile } from '../server/recording/clean-file';
import { linkedFiles } from './linked-files';
import { factsOfSounds, readShow, writeShow } from './show-file';
import type { Surroundings } from './tanager';
import { UsageError } from './usage-error';

const CLEANINGS: Readonly<Record<string, Cleaning | null>> = { gently: GENTLE, thoroughly: THOROUGH, no: null };

/** Lays a recorded voice on a slide of a saved show, cleaned and trimmed; the slide then waits for it. */
export async function voiceCommand(args: readonly string[], { folder, out, tell }: Surroundings): Promise<number> {
  const options = parse(args, folder);
  const saved = await readShow(options.show);
  const slide = saved.slides[options.slide - 1];
  if (!slide) throw new UsageError(`--slide must be from 1 to ${saved.slides.length}, got ${options.slide}.`);
  const workFolder = await mkdtemp(path.join(tmpdir(), 'tanager-voice-'));
  try {
    const link = linkedFiles(workFolder);
    const own = path.dirname(options.show);
    const original = await link(options.take);
    const originalId = await hashOfFile(original);
    const recorded = await lookAndFind(original);
    if (recorded.kind !== 'sound') throw new Error(`${options.take} is not a sound but a ${recorded.kind}.`);
    const cleanedFile = path.join(own, `${path.basename(options.take).replace(/\.[^.]+$/, '')}, cleaned.flac`);
    const trim = options.how
      ? (await cleanFile(original, cleanedFile, options.how)).trim
      : trimmed(recorded.listening?.phrases ?? [], recorded.lengthMs);
    const heardId = options.how ? await hashOfFile(cleanedFile) : originalId;
    const heard = options.how ? await lookAndFind(await link(cleanedFile)) : recorded;
    if (heard.kind !== 'sound') throw new TypeError('a cleaned voice must be a sound');
    const facts = new Map([...(await factsOfSounds(saved, options.show, link)), [heardId, heard]]);
    const name = nextTakeName(slide.sounds);
    const edits: ShowEdit[] = [
      ...(options.script === null
        ? []
        : [{ kind: 'set-scripts' as const, scripts: [{ slideId: slide.id, script: options.script }] }]),
      takeKept(saved, slide.id, cueId(`${slide.id}-${name.toLowerCase().replace(' ', '-')}`), {
        assetId: heardId,
        name,
        lengthMs: heard.lengthMs,
        fromMs: trim?.fromMs ?? 0,
        toMs: trim?.toMs ?? heard.lengthMs,
        ...(options.how && { cleaned: { from: originalId, how: options.how } }),
      }),
    ];
    const show = edits.reduce<Show>((before, asked) => {
      const { edit, unmet } = withItsLengths(before, facts, asked);
      if (unmet) tell(`${unmet}\n`);
      const result = applyEdit(before, edit);
      if (!result.ok) throw new Error(result.sentence);
      return result.show;
    }, saved);
    const files = {
      ...saved.files,
      [originalId]: path.relative(own, options.take),
      ...(options.how && { [heardId]: path.relative(own, cleanedFile) }),
    };
    await writeShow(options.show, { ...show, files });
    const changed = show.slides[options.slide - 1]!;
    if (trim === null)
      tell('Nothing that sounds like speech was heard in this recording. It is laid on the slide all the same.\n');
    if (options.json)
      out(
        `${JSON.stringify({
          slide: options.slide,
          take: name,
          lengthMs: changed.lengthMs,
          voiceMs: Math.round((trim?.toMs ?? heard.lengthMs) - (trim?.fromMs ?? 0)),
          cleaned: options.how ? cleanedFile : null,
          captions: captionsOfSlide(show, changed, facts, show.language ?? USUAL_LANGUAGE),
        })}\n`,
      );
    else
      tell(`${options.show}: slide ${options.slide} lasts ${(changed.lengthMs / 1000).toFixed(1)} s with this voice\n`);
    return 0;
  } finally {
    await rm(workFolder, { recursive: true, force: true });
  }
}

interface VoiceOptions {
  readonly show: string;
  readonly slide: number;
  readonly take: string;
  readonly script: string | null;
  readonly how: Cleaning | null;
  readonly json: boolean;
}

function parse(args: readonly string[], folder: string): VoiceOptions {
  let parsed;
  try {
    parsed = parseArgs({
      args: [...args],
      allowPositionals: true,
      options: {
        slide: { type: 'string' },
        take: { type: 'string' },
        script: { type: 'string' },
        clean: { type: 'string' },
        json: { type: 'boolean' },
      },
    });
  } catch (error) {
    throw new UsageError((error as Error).message);
  }
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

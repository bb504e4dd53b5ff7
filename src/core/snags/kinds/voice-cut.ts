import { soundSpans } from '../../sound/sound-spans';
import { leastLengthMs } from '../../timing/least-length';
import { clock, seconds, slidesOf } from '../helpers';
import type { SnagKind } from '../snag';

/** Shorter pieces of a breath are not missed. */
const LEAST_CUT_MS = 150;

export const voiceCut: SnagKind = {
  title: 'Voices cut off',
  advice: 'Give the slide the time its voice takes, or trim the take.',
  place: 'sound',
  *find({ prepared }) {
    const { show, facts } = prepared;
    const free = soundSpans(show, facts, true).filter(({ sound }) => sound.kind === 'voice' && !sound.resting);
    const holder = new Map(
      [...slidesOf(prepared)].flatMap((place) => place.slide.sounds.map((sound) => [sound, place] as const)),
    );
    const inTime = [...free].sort((a, b) => a.startMs - b.startMs);
    for (const [at, { sound, startMs, endMs }] of inTime.entries()) {
      const place = holder.get(sound);
      const common = {
        slideId: place?.slide.id ?? null,
        soundId: sound.id,
        assetId: sound.assetId,
        of: sound.id,
      };
      if (endMs > prepared.lengthMs + LEAST_CUT_MS) {
        yield {
          ...common,
          grave: true,
          fromMs: Math.max(0, prepared.lengthMs - 3000),
          toMs: prepared.lengthMs,
          sentence: `The show ends ${seconds(endMs - prepared.lengthMs)} before its voice does.`,
        };
        continue;
      }
      const next = inTime[at + 1];
      if (next && next.startMs < endMs - LEAST_CUT_MS && !goesOnFrom(sound, next.sound))
        yield {
          ...common,
          grave: true,
          fromMs: Math.max(startMs, next.startMs - 1500),
          toMs: endMs,
          sentence: `Two voices speak at once from ${clock(next.startMs)}, for ${seconds(endMs - next.startMs)}.`,
        };
      else if (place && !sound.runsOn && endMs > place.span.endMs + LEAST_CUT_MS)
        yield {
          ...common,
          grave: false,
          fromMs: Math.max(0, place.span.endMs - 2000),
          toMs: endMs,
          sentence: `The voice of slide ${place.index + 1} goes on for ${seconds(endMs - place.span.endMs)} over the next picture.`,
        };
    }
  },
  fixes({ prepared }, { slideId, soundId }) {
    const { show, facts } = prepared;
    const index = show.slides.findIndex((slide) => slide.id === slideId);
    const slide = show.slides[index];
    if (!slide || !soundId) return [];
    const lengthMs = leastLengthMs(slide, facts, show.slides[index - 1], show);
    return [
      ...(lengthMs > slide.lengthMs
        ? [
            {
              name: `Stay for ${seconds(lengthMs)}`,
              edit: { kind: 'set-lengths' as const, lengths: [{ slideId: slide.id, lengthMs, by: 'voice' as const }] },
            },
          ]
        : []),
      {
        name: 'Let it run on over the next slides',
        edit: { kind: 'set-sound', slideId: slide.id, soundId, properties: { runsOn: true } },
      },
    ];
  },
};

/** Parts of one recording. */
const goesOnFrom = (
  one: { readonly assetId: string; readonly trimEndMs?: number },
  next: { readonly assetId: string; readonly trimStartMs: number },
) => one.assetId === next.assetId && one.trimEndMs === next.trimStartMs;

import { onceThroughMs } from '../sound/song-runs';
import { breathOf } from './breath';
import type { FactsById } from './asset-facts';
import type { Caption, CaptionsByLanguage } from './caption';
import type { CueId } from './ids';
import { offsetHereMs, type PlacedSound } from './placed-sound';
import type { Show, Slide } from './show';

/** What is said over a slide, and read along with it. */
export type SpokenOver = Pick<Slide, 'sounds' | 'script' | 'captions' | 'breath'>;

/** A slide without what is said over it: for pictures that leave it. */
export function unspoken(slide: Slide): Slide {
  const { script: _script, captions: _captions, breath: _breath, chapter: _chapter, ...rest } = slide;
  return { ...rest, sounds: [] };
}

/** A slide with what is said over it as given. */
export function withSpoken(slide: Slide, { sounds, script, captions, breath }: SpokenOver): Slide {
  const { script: _script, captions: _captions, breath: _breath, ...rest } = slide;
  return {
    ...rest,
    sounds,
    ...(script !== undefined && { script }),
    ...(captions && { captions }),
    ...(breath && { breath }),
  };
}

/**
 * What is said over several slides, as it is said over one. Where more than one is spoken over, it is said one after the other, and the one lasts as long as all.
 */
export function spokenJoined(
  slides: readonly Slide[],
  newId: (id: CueId, of: Slide) => CueId,
): SpokenOver & Pick<Slide, 'lengthMs'> {
  const isRow = slides.filter((slide) => slide.sounds.length > 0 || slide.captions).length > 1;
  const taken = new Set<CueId>();
  let startMs = 0;
  const sounds: PlacedSound[] = [];
  const scripts: string[] = [];
  const captions: Record<string, readonly Caption[]> = {};
  for (const slide of slides) {
    for (const sound of slide.sounds) {
      const id = taken.has(sound.id) ? newId(sound.id, slide) : sound.id;
      taken.add(id);
      sounds.push({ ...sound, id, starts: { at: 'here', offsetMs: offsetHereMs(sound) + startMs } });
    }
    if (slide.script) scripts.push(slide.script);
    for (const [language, list] of Object.entries(slide.captions ?? {}))
      captions[language] = [...(captions[language] ?? []), ...list.map((one) => shifted(one, startMs))];
    if (isRow) startMs += slide.lengthMs;
  }
  const breath = slides.find((slide) => slide.sounds.length > 0)?.breath;
  return {
    lengthMs: isRow ? startMs : Math.max(...slides.map((slide) => slide.lengthMs)),
    sounds,
    ...(scripts.length > 0 && { script: scripts.join('\n') }),
    ...(Object.keys(captions).length > 0 && { captions: withoutOverlaps(captions) }),
    ...(breath && { breath }),
  };
}

/** What is said over a slide until a moment, and what is said from then on; a voice that is cut there goes on without a gap. The script stays with the first. */
export function spokenSplit(
  show: Pick<Show, 'breath'>,
  slide: Slide,
  atMs: number,
  facts: FactsById,
): { readonly before: SpokenOver; readonly after: SpokenOver } {
  const before: PlacedSound[] = [];
  const after: PlacedSound[] = [];
  let saidUntilMs = 0;
  for (const sound of slide.sounds) {
    const offsetMs = offsetHereMs(sound);
    const endMs = offsetMs + onceThroughMs(sound, facts);
    if (offsetMs >= atMs) after.push({ ...sound, starts: { at: 'here', offsetMs: offsetMs - atMs } });
    else if (sound.kind !== 'voice' || sound.loops || endMs <= atMs) {
      before.push(sound);
      if (sound.kind === 'voice') saidUntilMs = Math.max(saidUntilMs, endMs);
    } else {
      const cutMs = Math.round(sound.trimStartMs + atMs - offsetMs);
      before.push({ ...sound, trimEndMs: cutMs, fadeOutMs: 0 });
      after.push({ ...sound, trimStartMs: cutMs, fadeInMs: 0, starts: { at: 'here', offsetMs: 0 } });
      saidUntilMs = atMs;
    }
  }
  const breath = breathOf(show, slide);
  const speaks = slide.sounds.some((sound) => sound.kind === 'voice');
  return {
    before: {
      sounds: before,
      ...(slide.script !== undefined && { script: slide.script }),
      ...captionsWithin(slide.captions, (caption) => (caption.fromMs < atMs ? caption : null)),
      // It ends where it was cut, however close that is to what is said.
      ...(speaks && {
        breath: { ...breath, afterMs: Math.max(0, Math.min(breath.afterMs, Math.floor(atMs - saidUntilMs))) },
      }),
    },
    after: {
      sounds: after,
      ...captionsWithin(slide.captions, (caption) => (caption.fromMs < atMs ? null : shifted(caption, -atMs))),
      ...(after.some((sound) => sound.kind === 'voice') && { breath: { ...breath, beforeMs: 0 } }),
    },
  };
}

/** One that was read on over the next slide ends where that slide’s own begin. */
function withoutOverlaps(captions: CaptionsByLanguage): CaptionsByLanguage {
  const clipped = (list: readonly Caption[]) =>
    list.map((one, at) => ({ ...one, toMs: Math.min(one.toMs, list[at + 1]?.fromMs ?? Infinity) }));
  return Object.fromEntries(Object.entries(captions).map(([language, list]) => [language, clipped(list)]));
}

const shifted = (caption: Caption, byMs: number): Caption => ({
  ...caption,
  fromMs: Math.round(caption.fromMs + byMs),
  toMs: Math.round(caption.toMs + byMs),
});

function captionsWithin(
  captions: CaptionsByLanguage | undefined,
  kept: (caption: Caption) => Caption | null,
): Pick<Slide, 'captions'> {
  if (!captions) return {};
  return {
    captions: Object.fromEntries(
      Object.entries(captions).map(([language, list]) => [
        language,
        list.flatMap((caption) => {
          const one = kept(caption);
          return one ? [one] : [];
        }),
      ]),
    ),
  };
}

import { cueId } from '../show/ids';
import { MOST_CUES } from '../show/limits';
import { songAfter, type PlacedSound } from '../show/placed-sound';
import type { ShowContent, Slide } from '../show/show';
import { framesPerSecond } from '../timing/frame-rate';
import { keyOfSound, listOf, ours, rangeIn, schemaOf, type OtioThing } from './otio';
import type { FileFinder, Item, TimelineGiven } from './otio-given';

interface HeardNote {
  readonly sound?: string;
  /** The slide that holds it; null: the show. */
  readonly slide?: string | null;
  readonly pieces?: number;
  /** In frames: from the slide’s start, or the show’s. */
  readonly at?: number;
  readonly frames?: number;
  readonly start?: number;
}

interface Heard {
  readonly timeline: OtioThing;
  readonly heard: readonly Item[];
  readonly startsS: readonly number[];
  readonly fileOf: FileFinder;
  readonly given: TimelineGiven;
  readonly told: string[];
}

/**
 * Sounds as the timeline has them. Those we noted that lie as they lay are what they were; what was moved or cut elsewhere begins where it lies now; what was
 * heard and is gone is gone. What was never heard, as a take that rests, stays.
 */
export function withSounds(
  content: ShowContent,
  { timeline, heard, startsS, fileOf, given, told }: Heard,
): ShowContent {
  const { facts, newId } = given;
  const fps = framesPerSecond(content.frame.rate);
  const starts = new Map(content.slides.map(({ id }, index): [string, number] => [id, startsS[index]!]));
  const known = new Set([
    ...content.cues.map(({ id }) => keyOfSound(null, id)),
    ...content.slides.flatMap(({ id, sounds }) => sounds.map((sound) => keyOfSound(id, sound.id))),
  ]);
  const clips = heard.filter(({ thing }) => schemaOf(thing) === 'Clip' && thing.enabled !== false);
  const byKey = new Map<string, Item[]>();
  for (const item of clips) {
    const note = ours(item.thing) as HeardNote;
    const key = keyOfSound(note.slide, note.sound);
    if (known.has(key)) byKey.set(key, [...(byKey.get(key) ?? []), item]);
  }
  const lies = ({ thing, startS, durationS }: Item): boolean => {
    const { slide, at = Number.NaN, frames, start } = ours(thing) as HeardNote;
    const fromS = startS - (slide ? (starts.get(slide) ?? Number.NaN) : 0);
    return (
      Math.abs(fromS * fps - at) <= 1 &&
      Math.round(durationS * fps) === frames &&
      Math.round((rangeIn(thing.source_range)?.start ?? 0) * fps) === start
    );
  };
  const wasHeard = new Set(listOf(ours(timeline).heard));
  const stays = (key: string): boolean => {
    const items = byKey.get(key);
    if (!items) return !wasHeard.has(key);
    return items.length === (ours(items[0]!.thing) as HeardNote).pieces && items.every(lies);
  };
  const kept = new Set([...known].filter(stays));
  const slides = content.slides.map((slide): Slide => {
    const sounds = slide.sounds.filter(({ id }) => kept.has(keyOfSound(slide.id, id)));
    return sounds.length === slide.sounds.length ? slide : { ...slide, sounds };
  });
  const cues: PlacedSound[] = content.cues.filter(({ id }) => kept.has(keyOfSound(null, id)));
  for (const { thing, startS, durationS } of clips) {
    const note = ours(thing) as HeardNote;
    if (kept.has(keyOfSound(note.slide, note.sound))) continue;
    const file = fileOf(thing);
    const fact = file ? facts.get(file) : undefined;
    if (!file || !fact || fact.kind === 'picture') continue;
    if (cues.length >= MOST_CUES) {
      told.push(`There are more than ${MOST_CUES} sounds: the rest is left out.`);
      break;
    }
    const trimStartMs = Math.max(0, Math.round((rangeIn(thing.source_range)?.start ?? 0) * 1000));
    cues.push({
      ...songAfter(cueId(newId()), file, 0),
      starts: { at: 'moment', momentMs: Math.max(0, Math.round(startS * 1000)) },
      trimStartMs,
      trimEndMs: trimStartMs + Math.max(1, Math.round(durationS * 1000)),
    });
  }
  const there = new Set<string>(slides.map(({ id }) => id));
  const freed = (sound: PlacedSound): PlacedSound => withoutTies(sound, there);
  return {
    ...content,
    cues: cues.map(freed),
    slides: slides.map((slide) => {
      const sounds = slide.sounds.map(freed);
      return sounds.every((sound, index) => sound === slide.sounds[index]) ? slide : { ...slide, sounds };
    }),
  };
}

/** What began or ended with a slide that is gone begins after the one before it, or ends by itself. */
function withoutTies(sound: PlacedSound, there: ReadonlySet<string>): PlacedSound {
  const { starts, ends } = sound;
  const [from, to] = [starts, ends].map((anchor) => anchor.at === 'slide' && !there.has(anchor.slideId));
  if (!from && !to) return sound;
  return {
    ...sound,
    ...(from && { starts: { at: 'after' as const } }),
    ...(to && { ends: { at: 'own-end' as const } }),
  };
}

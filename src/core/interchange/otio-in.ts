import type { AssetId } from '../show/ids';
import { LONGEST_NAME, LONGEST_SHOW_TITLE, LONGEST_SLIDE_MS, MOST_SLIDES, SHORTEST_SLIDE_MS } from '../show/limits';
import { blankSlide, slideFromAsset } from '../show/new-slide';
import { contentOf, mainLayerOf, type Show, type ShowContent, type Slide } from '../show/show';
import { framesPerSecond, wholeRate } from '../timing/frame-rate';
import { slideSpans } from '../timing/slide-span';
import { isThing, listOf, ours, rangeIn, schemaOf, secondsOf, type OtioThing } from './otio';
import { withSounds } from './otio-sounds-in';
import type { FileFinder, Item, TimelineGiven } from './otio-given';

/** A timeline that cannot be read at all; for the person. */
export class NoTimelineError extends Error {
  override readonly name = 'NoTimelineError';
}

export interface ReadTimeline {
  readonly content: ShowContent;
  /** What was left out or understood otherwise, as sentences. */
  readonly told: readonly string[];
  /** Files it names that are not among those that are there. */
  readonly missing: readonly string[];
}

const MOST_DEEP = 20;
/** How fast clips can go. */
const SLOWEST = 0.05;
const FASTEST = 20;
/** A clip that does not say how long it is. */
const USUAL_S = 5;

/**
 * Reads a timeline as the content of a show. Clips that we wrote ourselves are the slides they were, with whatever was changed about them elsewhere: order,
 * length, transition, what is gone. Other clips become slides of the files they name; gaps become blank ones.
 *
 * @param document as it was parsed from JSON
 * @throws {NoTimelineError} when it is none, or nothing of it can be used
 */
export function readTimeline(document: unknown, given: TimelineGiven): ReadTimeline {
  const timeline = timelineIn(document);
  const told: string[] = [];
  const tracks = tracksOf(timeline.tracks, told);
  const [pictures, ...upper] = tracks.filter(({ kind }) => kind !== 'Audio');
  if (!pictures) throw new NoTimelineError('There is no picture track in this timeline.');
  const over = upper.reduce(
    (sum, { items }) => sum + items.filter(({ thing }) => schemaOf(thing) === 'Clip').length,
    0,
  );
  if (over > 0)
    told.push(
      `${counted(over, 'clip')} of upper tracks ${over === 1 ? 'is' : 'are'} left out: a slide shows the lowest track.`,
    );
  const noted = notedContent(timeline, pictures.items, given, told);
  const base = noted ?? { ...contentOf(given.show), frame: frameFor(given.show, pictures.items) };
  const missing = new Set<string>();
  const fileOf = fileFinder(given, missing);
  const read = slidesFrom(pictures.items, noted, base, fileOf, given, told);
  if (read.slides.length === 0) throw new NoTimelineError('There is nothing on the picture track of this timeline.');
  const title =
    typeof timeline.name === 'string' && timeline.name.trim() !== ''
      ? timeline.name.slice(0, LONGEST_SHOW_TITLE)
      : base.title;
  const chaptered = withMarkers(
    read.slides,
    read.startsS,
    [...pictures.markers, ...stackMarkers(timeline.tracks)],
    told,
  );
  const heard = tracks.filter(({ kind }) => kind === 'Audio').flatMap(({ items }) => items);
  const whole: ShowContent = { ...base, title, slides: chaptered, cues: noted?.cues ?? [] };
  const sounded = withSounds(whole, { timeline, heard, startsS: read.startsS, fileOf, given, told });
  return { content: sounded, told, missing: [...missing].sort() };
}

const counted = (count: number, what: string) => `${count} ${what}${count === 1 ? '' : 's'}`;

function timelineIn(document: unknown): OtioThing {
  const kind = schemaOf(document);
  if (kind === 'Timeline') return document as OtioThing;
  if (kind === 'SerializableCollection') {
    const found = listOf((document as OtioThing).children).find((child) => schemaOf(child) === 'Timeline');
    if (found) return found as OtioThing;
  }
  if (kind === 'Stack' || kind === 'Track') return { OTIO_SCHEMA: 'Timeline.1', name: '', tracks: document };
  throw new NoTimelineError('This is no timeline in OpenTimelineIO’s JSON.');
}

interface FlatTrack {
  readonly kind: string;
  readonly items: readonly Item[];
  readonly markers: readonly OtioThing[];
}

function tracksOf(stack: unknown, told: string[], depth = 0): FlatTrack[] {
  if (depth > MOST_DEEP || !isThing(stack)) return [];
  if (schemaOf(stack) === 'Track') {
    const kind = typeof stack.kind === 'string' ? stack.kind : 'Video';
    return [{ kind, items: itemsOf(stack, told), markers: listOf(stack.markers).filter(isThing) }];
  }
  return listOf(stack.children).flatMap((child) => tracksOf(child, told, depth + 1));
}

const stackMarkers = (stack: unknown): OtioThing[] => (isThing(stack) ? listOf(stack.markers).filter(isThing) : []);

/** What lies on a track, one after the other. */
function itemsOf(track: OtioThing, told: string[]): Item[] {
  const items: Item[] = [];
  let startS = 0;
  let transition: Item['transition'] = null;
  for (const thing of flat(track, 0)) {
    const kind = schemaOf(thing);
    if (kind === 'Transition') {
      const [inS, outS] = [secondsOf(thing.in_offset) ?? 0, secondsOf(thing.out_offset) ?? 0];
      const name = String(thing.name || thing.transition_type || '');
      transition = inS + outS > 0 ? { inS: Math.max(0, inS), outS: Math.max(0, outS), name } : null;
      continue;
    }
    const durationS = durationOf(thing, told);
    if (durationS <= 0) continue;
    items.push({ thing, startS, durationS, transition });
    transition = null;
    startS += durationS;
    if (items.length > MOST_SLIDES) throw new NoTimelineError(`It has more than ${MOST_SLIDES} clips.`);
  }
  return items;
}

/** Tracks within a track are as if their clips lay there. */
function flat(track: OtioThing, depth: number): OtioThing[] {
  return listOf(track.children)
    .filter(isThing)
    .flatMap((child) =>
      schemaOf(child) === 'Track' && (child.source_range ?? null) === null && depth < MOST_DEEP
        ? flat(child, depth + 1)
        : [child],
    );
}

function durationOf(thing: OtioThing, told: string[]): number {
  const own = rangeIn(thing.source_range) ?? rangeIn(mediaOf(thing)?.available_range);
  if (own) return own.duration;
  if (schemaOf(thing) === 'Clip') told.push(`“${nameOf(thing)}” does not say how long it is: ${USUAL_S} s.`);
  return schemaOf(thing) === 'Clip' ? USUAL_S : 0;
}

function mediaOf(clip: OtioThing): OtioThing | null {
  const { media_reference: single, media_references: several, active_media_reference_key: key } = clip;
  if (isThing(single)) return single;
  const named = (several ?? {}) as Record<string, unknown>;
  const active = named[typeof key === 'string' ? key : 'DEFAULT_MEDIA'] ?? Object.values(named)[0];
  return isThing(active) ? active : null;
}

const nameOf = (thing: OtioThing): string => String(thing.name ?? '').slice(0, LONGEST_NAME);

/** What we noted ourselves: the show without its slides at the timeline, a slide at each clip. Null when nothing was, or it is damaged. */
function notedContent(
  timeline: OtioThing,
  items: readonly Item[],
  { parse }: TimelineGiven,
  told: string[],
): ShowContent | null {
  const { formatVersion, show } = ours(timeline);
  if (typeof formatVersion !== 'number' || typeof show !== 'object' || show === null) return null;
  // One that was copied there is another slide.
  const seen = new Set<unknown>();
  const slides = items.flatMap(({ thing }) => {
    const slide = ours(thing).slide as { id?: unknown } | undefined;
    if (!slide || seen.has(slide.id)) return [];
    seen.add(slide.id);
    return [slide];
  });
  const content = parse({ ...show, slides, cues: [] }, formatVersion);
  const cues = content && parse({ ...show, slides }, formatVersion);
  if (!content) told.push('What was noted in it of a show is damaged: it is read as any other timeline.');
  return cues ?? content;
}

/** The rate most of its clips have, where it is one films are made at. */
function frameFor({ frame }: Show, items: readonly Item[]): Show['frame'] {
  const counts = new Map<number, number>();
  for (const { thing } of items) {
    const rate = ((thing.source_range as OtioThing | null)?.duration as { rate?: unknown } | undefined)?.rate;
    if (typeof rate === 'number' && rate >= 10 && rate <= 60) counts.set(rate, (counts.get(rate) ?? 0) + 1);
  }
  const [most] = [...counts].sort(([, one], [, other]) => other - one);
  return most ? { ...frame, rate: wholeRate(most[0]) } : frame;
}

/** By the hash we noted, else by the last part of its address, whatever its case. */
function fileFinder({ files }: TimelineGiven, missing: Set<string>): FileFinder {
  const byName = new Map([...files].map(([id, name]) => [name.normalize('NFC').toLowerCase(), id]));
  return (clip) => {
    const media = mediaOf(clip);
    if (!media || schemaOf(media) === 'GeneratorReference') return null;
    const hash = ours(media).file;
    if (typeof hash === 'string' && files.has(hash as AssetId)) return hash as AssetId;
    const name = fileName(typeof media.target_url === 'string' ? media.target_url : nameOf(media) || nameOf(clip));
    const found = byName.get(name.normalize('NFC').toLowerCase());
    if (found === undefined && name !== '') missing.add(name);
    return found ?? null;
  };
}

function fileName(url: string): string {
  const last =
    url
      .replace(/[?#].*$/, '')
      .split(/[/\\]/)
      .at(-1) ?? '';
  try {
    return decodeURIComponent(last);
  } catch {
    return last;
  }
}

interface ReadSlides {
  readonly slides: readonly Slide[];
  /** When each begins on the timeline. */
  readonly startsS: readonly number[];
}

function slidesFrom(
  items: readonly Item[],
  noted: ShowContent | null,
  base: ShowContent,
  fileOf: FileFinder,
  { facts, newId }: TimelineGiven,
  told: string[],
): ReadSlides {
  const known = new Map((noted?.slides ?? []).map((slide) => [slide.id as string, slide]));
  const fps = framesPerSecond(base.frame.rate);
  const slides: Slide[] = [];
  let others = 0;
  let off = 0;
  /** Whose transition is what the timeline says, not what it was. */
  const taken = new Set<number>();
  items.forEach((item, index) => {
    const { thing, durationS, transition } = item;
    const note = ours(thing) as { slide?: { id?: string }; frames?: number; start?: number; transition?: number };
    const isOff = thing.enabled === false;
    if (isOff) off += 1;
    const own = isOff ? undefined : known.get(note.slide?.id ?? '');
    const frames = Math.round(durationS * fps);
    // Room is made for a transition that begins before the cut.
    const laterS = (items[index + 1]?.transition?.inS ?? 0) - (transition?.inS ?? 0);
    const lengthMs = lengthIn(durationS - laterS, nameOf(thing), told);
    if (own) {
      known.delete(own.id);
      const isSame = note.frames === frames && laterS === 0;
      const before = transition ? Math.round((transition.inS + transition.outS) * fps) : 0;
      const isTaken = before !== (note.transition ?? 0);
      if (isTaken) taken.add(index);
      slides.push(
        withTransition(
          withTrim(
            isSame ? own : { ...own, lengthMs, chosen: { ...own.chosen, length: 'hand' } },
            thing,
            note.start,
            fps,
            told,
          ),
          isTaken ? transition : undefined,
        ),
      );
      return;
    }
    const file = schemaOf(thing) === 'Clip' && !isOff ? fileOf(thing) : null;
    const fact = file ? facts.get(file) : undefined;
    if (!['Clip', 'Gap'].includes(schemaOf(thing))) others += 1;
    const made =
      file && fact && fact.kind !== 'sound'
        ? { ...slideFromAsset(file, fact, lengthMs, newId), lengthMs, chosen: { length: 'hand' as const } }
        : { ...blankSlide(lengthMs, colourOf(thing), newId), chosen: { length: 'hand' as const } };
    taken.add(index);
    slides.push(withTransition(withTrim(made, thing, undefined, fps, told), transition));
  });
  if (off > 0)
    told.push(
      `${counted(off, 'clip')} that ${off === 1 ? 'is' : 'are'} switched off there ${off === 1 ? 'is a blank slide' : 'are blank slides'}.`,
    );
  if (others > 0)
    told.push(
      `${counted(others, 'sequence')} within the timeline ${others === 1 ? 'is a blank slide' : 'are blank slides'} of that length.`,
    );
  const short = slideSpans(slides).filter((span, index) => {
    const { transition } = slides[index]!;
    return taken.has(index) && index > 0 && transition.kind !== 'cut' && span.transitionMs < transition.lengthMs;
  }).length;
  if (short > 0)
    told.push(`${counted(short, 'transition')} longer than half a slide ${short === 1 ? 'is' : 'are'} shown shorter.`);
  return { slides, startsS: items.map(({ startS, transition }) => startS - (transition?.inS ?? 0)) };
}

function lengthIn(seconds: number, name: string, told: string[]): number {
  const lengthMs = Math.round(seconds * 1000);
  const held = Math.min(LONGEST_SLIDE_MS, Math.max(SHORTEST_SLIDE_MS, lengthMs));
  if (held !== lengthMs)
    told.push(`“${name}” lasts ${held / 1000} s: no slide is ${held > lengthMs ? 'shorter' : 'longer'}.`);
  return held;
}

function colourOf(thing: OtioThing): string {
  const { parameters } = (schemaOf(thing) === 'Clip' ? (mediaOf(thing) ?? {}) : {}) as {
    parameters?: Record<string, unknown>;
  };
  const colour = parameters?.color;
  return typeof colour === 'string' && /^#[0-9a-f]{6}$/i.test(colour) ? colour.toLowerCase() : '#000000';
}

/** Where in its clip a slide begins, and how fast it goes, where the timeline says otherwise than it did. @param was in frames; undefined: nothing is known */
function withTrim(slide: Slide, thing: OtioThing, was: number | undefined, fps: number, told: string[]): Slide {
  const effects = listOf(thing.effects).filter((effect) => schemaOf(effect) !== 'LinearTimeWarp').length;
  if (effects > 0)
    told.push(`${counted(effects, 'effect')} on “${nameOf(thing)}” ${effects === 1 ? 'is' : 'are'} left out.`);
  const main = mainLayerOf(slide);
  if (main?.kind !== 'clip') return slide;
  const range = rangeIn(thing.source_range);
  const media = rangeIn(mediaOf(thing)?.available_range);
  // Media may count from the hour they were shot at.
  const startS = Math.max(0, (range?.start ?? 0) - (media?.start ?? 0));
  const trimStartMs =
    was !== undefined && Math.round(startS * fps) === was ? main.trimStartMs : Math.round(startS * 1000);
  const warp = listOf(thing.effects).find((effect) => schemaOf(effect) === 'LinearTimeWarp') as
    { time_scalar?: unknown } | undefined;
  const wanted = typeof warp?.time_scalar === 'number' && Number.isFinite(warp.time_scalar) ? warp.time_scalar : 1;
  const scalar = Math.min(FASTEST, Math.max(SLOWEST, Math.abs(wanted)));
  const backwards = wanted < 0;
  if (scalar !== Math.abs(wanted))
    told.push(
      `“${nameOf(thing)}” goes ${wanted} × as fast there and ${backwards ? -scalar : scalar} × here: a clip goes ${SLOWEST} to ${FASTEST} × as fast, either way.`,
    );
  const { speed: before = 1, backwards: wasBackwards = false, ...rest } = main;
  if (trimStartMs === main.trimStartMs && scalar === before && backwards === wasBackwards) return slide;
  const changed = {
    ...rest,
    trimStartMs,
    ...(scalar !== 1 && { speed: scalar }),
    ...(backwards && { backwards, trimEndMs: main.trimEndMs ?? Math.round(trimStartMs + slide.lengthMs * scalar) }),
  };
  return { ...slide, layers: slide.layers.map((layer) => (layer.id === main.id ? changed : layer)) };
}

/** @param transition undefined: as it is */
function withTransition(slide: Slide, transition: Item['transition'] | undefined): Slide {
  if (transition === undefined) return slide;
  if (transition === null) return { ...slide, transition: { kind: 'cut' } };
  const lengthMs = Math.max(1, Math.round((transition.inS + transition.outS) * 1000));
  const { transition: own } = slide;
  return { ...slide, transition: own.kind === 'cut' ? { kind: 'dissolve', lengthMs } : { ...own, lengthMs } };
}

/** Markers that are not ours become chapters, where none begins yet. */
function withMarkers(
  slides: readonly Slide[],
  startsS: readonly number[],
  markers: readonly OtioThing[],
  told: string[],
): Slide[] {
  const named = new Map<number, string>();
  for (const marker of markers) {
    const at = rangeIn(marker.marked_range)?.start;
    const name = nameOf(marker).trim();
    if (at === undefined || name === '' || 'tanager' in ((marker.metadata ?? {}) as object)) continue;
    const index = startsS.findLastIndex((startS) => startS <= at + 1e-6);
    if (index >= 0 && !named.has(index) && slides[index]!.chapter === undefined) named.set(index, name);
  }
  if (named.size > 0)
    told.push(`${counted(named.size, 'marker')} became ${named.size === 1 ? 'a chapter' : 'chapters'}.`);
  return slides.map((slide, index) => (named.has(index) ? { ...slide, chapter: named.get(index)! } : slide));
}

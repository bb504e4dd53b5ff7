import { stableText } from '../stable-text';
import type { FactsById } from '../show/asset-facts';
import { FORMAT_VERSION } from '../show/format/version';
import type { AssetId, CueId, SlideId } from '../show/ids';
import { contentOf, mainLayerOf, wordsOf, type Show, type Slide } from '../show/show';
import { pieceRuns } from '../sound/song-runs';
import { soundSpans } from '../sound/sound-spans';
import { framesPerSecond } from '../timing/frame-rate';
import { frameCount, frameSeen } from '../timing/frames';
import { showLengthMs, slideSpans } from '../timing/slide-span';
import { keyOfSound, OURS, rangeOf, timeOf, type OtioThing } from './otio';

/** Where a file is for whoever reads the timeline, by its hash. */
export type FileNames = ReadonlyMap<AssetId, string>;

/** What a transition that is none of the standard’s is called there. */
const TRANSITION_TYPES = { dissolve: 'SMPTE_Dissolve' } as const;

/**
 * A show as a timeline in OpenTimelineIO: slides as clips of one video track, transitions between them, chapters and waits as markers, sounds as clips of as
 * many audio tracks as lie over each other. What the standard has no place for – moves, layers, words, light – is kept beside it under our name, so that read
 * in again it is the same show.
 *
 * @param urls of files, as their clips name them
 * @returns plain data; the same show gives the same text
 */
export function timelineOf(show: Show, facts: FactsById, urls: FileNames): OtioThing {
  const { slides: _slides, ...rest } = contentOf(show);
  const pieces = heardPieces(show, facts);
  const heard = new Set(pieces.map(({ slideId, soundId }) => keyOfSound(slideId, soundId)));
  const names = Object.fromEntries([...urls].sort(([one], [other]) => (one < other ? -1 : 1)));
  return {
    OTIO_SCHEMA: 'Timeline.1',
    name: show.title,
    global_start_time: null,
    tracks: {
      OTIO_SCHEMA: 'Stack.1',
      ...{ name: 'tracks', source_range: null, effects: [], markers: [], enabled: true, metadata: {} },
      children: [pictureTrack(show, facts, urls), ...soundTracks(show, pieces, facts, urls)],
    },
    metadata: { [OURS]: inOrder({ formatVersion: FORMAT_VERSION, show: rest, files: names, heard: [...heard] }) },
  };
}

/** With parts in the order of their names: however a show came to be what it is, its text is the same. */
const inOrder = (value: unknown): unknown => JSON.parse(stableText(value)) as unknown;

const ITEM = { effects: [] as unknown[], markers: [] as unknown[], enabled: true };

function pictureTrack(show: Show, facts: FactsById, urls: FileNames): OtioThing {
  const { rate } = show.frame;
  const fps = framesPerSecond(rate);
  const spans = slideSpans(show.slides);
  const end = show.slides.length === 0 ? 0 : frameCount(showLengthMs(show), rate);
  const children: OtioThing[] = [];
  const markers: OtioThing[] = [];
  show.slides.forEach((slide, index) => {
    const span = spans[index]!;
    const from = frameSeen(span.startMs, rate);
    const frames = (index + 1 < spans.length ? frameSeen(spans[index + 1]!.startMs, rate) : end) - from;
    const transition = frameSeen(span.startMs + span.transitionMs, rate) - from;
    if (span.transitionMs > 0)
      children.push({
        OTIO_SCHEMA: 'Transition.1',
        name: slide.transition.kind,
        transition_type: slide.transition.kind === 'dissolve' ? TRANSITION_TYPES.dissolve : 'Custom_Transition',
        in_offset: timeOf(0, fps),
        out_offset: timeOf(transition, fps),
        metadata: {},
      });
    children.push(clipOf(slide, index, { frames, transition, fps }, facts, urls));
    if (slide.chapter !== undefined) markers.push(markerOf(slide.chapter, from, fps, 'GREEN'));
    if (slide.waits) markers.push(markerOf('waits', from + frames - 1, fps, 'RED'));
  });
  return {
    OTIO_SCHEMA: 'Track.1',
    ...{ name: 'Pictures', kind: 'Video', source_range: null, effects: [], enabled: true, metadata: {}, markers },
    children,
  };
}

function clipOf(
  slide: Slide,
  index: number,
  { frames, transition, fps }: { readonly frames: number; readonly transition: number; readonly fps: number },
  facts: FactsById,
  urls: FileNames,
): OtioThing {
  const main = mainLayerOf(slide);
  const isClip = main?.kind === 'clip';
  const start = isClip ? Math.round((main.trimStartMs * fps) / 1000) : 0;
  const known = main ? facts.get(main.assetId) : undefined;
  const available = known?.kind === 'clip' ? rangeOf(0, Math.round((known.lengthMs * fps) / 1000), fps) : null;
  return {
    OTIO_SCHEMA: 'Clip.2',
    name: wordsOf(slide)?.title || (main && nameOf(urls, main.assetId)) || `Slide ${index + 1}`,
    source_range: rangeOf(start, frames, fps),
    ...ITEM,
    effects:
      isClip && ((main.speed !== undefined && main.speed !== 1) || main.backwards)
        ? [
            {
              OTIO_SCHEMA: 'LinearTimeWarp.1',
              name: '',
              effect_name: 'LinearTimeWarp',
              time_scalar: (main.backwards ? -1 : 1) * (main.speed ?? 1),
              metadata: {},
            },
          ]
        : [],
    active_media_reference_key: 'DEFAULT_MEDIA',
    media_references: { DEFAULT_MEDIA: main ? fileOf(urls, main.assetId, available) : colourOf(slide) },
    metadata: { [OURS]: inOrder({ slide, frames, start, transition }) },
  };
}

const nameOf = (urls: FileNames, id: AssetId): string =>
  decodeURIComponent(urls.get(id) ?? id.slice(0, 12))
    .split('/')
    .at(-1)!;

function fileOf(urls: FileNames, id: AssetId, available: unknown): OtioThing {
  const url = urls.get(id);
  const common = { name: nameOf(urls, id), available_range: available, available_image_bounds: null };
  return url === undefined
    ? { OTIO_SCHEMA: 'MissingReference.1', ...common, metadata: { [OURS]: { file: id } } }
    : { OTIO_SCHEMA: 'ExternalReference.1', ...common, target_url: url, metadata: { [OURS]: { file: id } } };
}

/** A slide without pictures is its colour. */
function colourOf({ backing }: Slide): OtioThing {
  return {
    OTIO_SCHEMA: 'GeneratorReference.1',
    ...{ name: 'colour', available_range: null, available_image_bounds: null, generator_kind: 'SolidColor' },
    ...{ parameters: { color: backing.kind === 'colour' ? backing.colour : '#000000' }, metadata: {} },
  };
}

function markerOf(name: string, frame: number, fps: number, color: string): OtioThing {
  return {
    OTIO_SCHEMA: 'Marker.2',
    ...{ name, color, marked_range: rangeOf(frame, 0, fps), comment: '', metadata: { [OURS]: {} } },
  };
}

interface HeardPiece {
  readonly assetId: AssetId;
  readonly soundId: CueId;
  readonly slideId: SlideId | null;
  readonly pieces: number;
  /** From the start of the slide that holds it, or of the show. */
  readonly at: number;
  readonly fromFrame: number;
  readonly frames: number;
  readonly startInFile: number;
}

/** All that is heard, in frames: songs that are joined or loop in several pieces. */
function heardPieces(show: Show, facts: FactsById): HeardPiece[] {
  const { rate } = show.frame;
  const fps = framesPerSecond(rate);
  const spans = slideSpans(show.slides);
  const holders = new Map(
    show.slides.flatMap(({ id, sounds }, index) =>
      sounds.map((sound) => [sound, { id, fromFrame: frameSeen(spans[index]!.startMs, rate) }] as const),
    ),
  );
  return soundSpans(show, facts).flatMap((span) => {
    const holder = holders.get(span.sound);
    const found = pieceRuns(span, facts).flatMap((run) => {
      const fromFrame = Math.round((run.startMs * fps) / 1000);
      const endMs = Math.min(span.endMs, run.startMs + (run.toMs - run.fromMs) / run.speed);
      const frames = Math.round((endMs * fps) / 1000) - fromFrame;
      const startInFile = Math.round((run.fromMs * fps) / 1000);
      return frames > 0 ? [{ fromFrame, frames, startInFile, at: fromFrame - (holder?.fromFrame ?? 0) }] : [];
    });
    const { id: soundId, assetId } = span.sound;
    return found.map((one): HeardPiece => ({
      ...one,
      assetId,
      soundId,
      slideId: holder?.id ?? null,
      pieces: found.length,
    }));
  });
}

/** As few tracks as hold everything without one clip over another. */
function soundTracks(show: Show, pieces: readonly HeardPiece[], facts: FactsById, urls: FileNames): OtioThing[] {
  const fps = framesPerSecond(show.frame.rate);
  const tracks: { endFrame: number; readonly children: OtioThing[] }[] = [];
  for (const heard of pieces.toSorted((one, other) => one.fromFrame - other.fromFrame)) {
    const { assetId, fromFrame, frames, startInFile } = heard;
    let track = tracks.find(({ endFrame }) => endFrame <= fromFrame);
    if (!track) tracks.push((track = { endFrame: 0, children: [] }));
    const gap = fromFrame - track.endFrame;
    if (gap > 0)
      track.children.push({
        OTIO_SCHEMA: 'Gap.1',
        name: '',
        source_range: rangeOf(0, gap, fps),
        ...ITEM,
        metadata: {},
      });
    const known = facts.get(assetId);
    const lengthMs = known && known.kind !== 'picture' ? known.lengthMs : null;
    const available = lengthMs === null ? null : rangeOf(0, Math.round((lengthMs * fps) / 1000), fps);
    const { soundId, slideId, at, pieces: count } = heard;
    track.children.push({
      OTIO_SCHEMA: 'Clip.2',
      name: nameOf(urls, assetId),
      source_range: rangeOf(startInFile, frames, fps),
      ...ITEM,
      active_media_reference_key: 'DEFAULT_MEDIA',
      media_references: { DEFAULT_MEDIA: fileOf(urls, assetId, available) },
      metadata: { [OURS]: { sound: soundId, slide: slideId, pieces: count, at, frames, start: startInFile } },
    });
    track.endFrame = fromFrame + frames;
  }
  return tracks.map(({ children }, index) => ({
    OTIO_SCHEMA: 'Track.1',
    ...{ name: `Sound ${index + 1}`, kind: 'Audio', source_range: null, effects: [], markers: [], enabled: true },
    ...{ metadata: {}, children },
  }));
}

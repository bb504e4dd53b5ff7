import { chooseBest } from '../choosing/choose';
import type { FactsById } from '../show/asset-facts';
import { takenAt } from '../show/camera-clock';
import { withChooser } from '../show/chosen';
import { applyEdit, type ShowEdit } from '../show/edit';
import type { AssetId, ShowId } from '../show/ids';
import { everyLayer, withoutClip, type ClipLayer, type Layer } from '../show/layer';
import { SHORTEST_SLIDE_MS } from '../show/limits';
import { copyOfSlide, slideFromAsset } from '../show/new-slide';
import { mapped } from '../show/pile';
import type { PlacedSound } from '../show/placed-sound';
import type { Show, Slide } from '../show/show';
import { withFilesChanged } from '../show/swap-file';
import { lengthsByMusic, whyUnmet } from '../timing/follow-music';
import { showLengthMs } from '../timing/slide-span';
import { picturesOf, type Place } from './places';
import { filledIn, type RowWants } from './row';
import type { SeriesPlan } from './series';

export interface ShowOfRow {
  readonly show: Show;
  /** What came out otherwise than one might think, as sentences. */
  readonly told: readonly string[];
}

/**
 * The pattern with what a row puts into it. Pictures of its folder take the places that are filled from it in order; slides of which nothing is left go, and
 * pictures for which there is no place get slides like those of the pattern, or the best are chosen. Where the pictures follow the music they follow the row's.
 *
 * @param idOf the file a path of the row became; null for one that cannot be used
 * @param facts of the pattern's files and the row's
 * @throws Error with a sentence when no show comes of it
 */
export function showOfRow(
  pattern: Show,
  plan: SeriesPlan,
  places: readonly Place[],
  wants: RowWants,
  idOf: (path: string) => AssetId | null,
  facts: FactsById,
  { id, newId }: { readonly id: ShowId; readonly newId: () => string },
): ShowOfRow {
  const told: string[] = [];
  const swaps = new Map<AssetId, AssetId>();
  const songs = new Map<AssetId, AssetId>();
  const empty = new Set<AssetId>();
  for (const place of places) {
    if (place.kind !== 'picture' && place.kind !== 'song') continue;
    const path = wants.files.get(place.id);
    if (path === undefined) continue;
    const file = idOf(path);
    if (file === null) throw new Error(`“${nameOf(path)}” cannot be used.`);
    (place.kind === 'song' ? songs : swaps).set(place.assetId, file);
  }
  let spare: AssetId[] = [];
  if (wants.folder !== null) {
    const usable = wants.folder.flatMap((path) => idOf(path) ?? []);
    const unusable = wants.folder.length - usable.length;
    if (unusable > 0) told.push(`${counted(unusable, 'file')} of its folder cannot be used.`);
    if (usable.length === 0) throw new Error('None of the pictures in its folder can be used.');
    const open = fromFolder(places, plan).map(({ assetId }) => assetId);
    const { shown, left } = dealt([...new Set(usable)], open.length, plan.spare, facts, pattern);
    if (left > 0)
      told.push(
        `${counted(left, 'picture')} of its folder ${left === 1 ? 'is' : 'are'} not shown: the best ${open.length} were chosen.`,
      );
    const kept = keptPlaces(places, plan, wants, shown.length);
    let next = 0;
    for (const from of open) {
      if (kept === null || kept.has(from)) swaps.set(from, shown[next++]!);
      else empty.add(from);
    }
    spare = shown.slice(open.length);
  }
  const worded = withWords(pattern, wants);
  const base: Show = { ...worded, id, title: wants.title };
  const { show: shorter, gone } = withoutEmpty(base, empty, swaps, facts);
  if (gone > 0) told.push(`Its folder has fewer pictures than the pattern: ${counted(gone, 'slide')} left out.`);
  const swapped = withSwaps(shorter, swaps, facts);
  const longer = withSpare(swapped, pattern, plan, places, spare, facts, newId);
  if (spare.length > 0)
    told.push(`Its folder has more pictures than the pattern: ${counted(spare.length, 'slide')} more.`);
  const sung: Show = { ...longer, cues: longer.cues.map((cue) => withSong(cue, songs)) };
  if (sung.slides.length === 0) throw new Error('No slide is left of the pattern.');
  return { show: followed(sung, facts, told), told };
}

/** The places that are filled with pictures of the row’s folder, in order. */
function fromFolder(places: readonly Place[], { matches }: SeriesPlan) {
  return places.flatMap((place) => (place.kind === 'picture' && matches[place.id]?.by === 'folder' ? [place] : []));
}

const nameOf = (path: string) => path.split('/').at(-1)!;
const counted = (count: number, what: string) => `${count} ${what}${count === 1 ? '' : 's'}`;

/**
 * Which places are filled when there are fewer pictures than places; null: all are. Slides whose words the row says stay, and so do the first and the last;
 * the others are taken evenly from the whole of the pattern.
 */
function keptPlaces(
  places: readonly Place[],
  plan: SeriesPlan,
  { words }: RowWants,
  count: number,
): ReadonlySet<AssetId> | null {
  const open = fromFolder(places, plan);
  if (count >= open.length) return null;
  const worded = new Set(
    places.flatMap((place) => (place.kind === 'words' && words.has(place.id) ? [place.slideId] : [])),
  );
  const first = open.filter(({ slideId }, at) => worded.has(slideId) || at === 0 || at === open.length - 1);
  const kept = new Set(first.slice(0, count).map(({ assetId }) => assetId));
  const rest = open.filter(({ assetId }) => !kept.has(assetId));
  const more = count - kept.size;
  for (let at = 0; at < more; at += 1) kept.add(rest[Math.floor(((at + 0.5) * rest.length) / more)]!.assetId);
  return kept;
}

/** Which pictures are shown, in order: all, or the best of them where there are more than places. */
function dealt(files: readonly AssetId[], count: number, spare: SeriesPlan['spare'], facts: FactsById, pattern: Show) {
  if (spare === 'slides' || files.length <= count) return { shown: [...files], left: 0 };
  const candidates = files.flatMap((id) => {
    const known = facts.get(id);
    return known?.kind === 'picture' ? [{ id, facts: known, takenAt: takenAt(known, pattern.clocks) }] : [];
  });
  const clips = files.filter((id) => facts.get(id)?.kind === 'clip').slice(0, count);
  const chosen = new Set<AssetId>([
    ...clips,
    ...chooseBest(candidates, count - clips.length, () => null).chosen.map(({ id }) => id),
  ]);
  // Too alike to be chosen, and yet there is a place.
  for (const id of files) if (chosen.size < count) chosen.add(id);
  const shown = files.filter((id) => chosen.has(id)).slice(0, count);
  return { shown, left: files.length - shown.length };
}

/** Words, scripts and chapters as the row has them. Words of which nothing is left are not seen. */
function withWords(pattern: Show, { words, cells }: RowWants): Show {
  const filled = (text: string) => filledIn(text, cells);
  const slides = pattern.slides.map((slide): Slide => {
    const layers = mapped(slide.layers, (layer): Layer => {
      if (layer.kind !== 'words') return layer;
      const title = words.get(`words ${slide.id} ${layer.id} title`) ?? layer.title;
      const subtitle = words.get(`words ${slide.id} ${layer.id} subtitle`) ?? layer.subtitle;
      if (title === layer.title && subtitle === layer.subtitle) return layer;
      const said = withChooser({ ...layer, title, subtitle }, 'words', 'hand');
      return title === '' && subtitle === '' ? { ...said, hidden: true } : said;
    });
    const script = slide.script === undefined ? undefined : filled(slide.script);
    const chapter = slide.chapter === undefined ? undefined : filled(slide.chapter);
    // Captions set for another script are of no use.
    const { captions, ...rest } = slide;
    const kept = script === slide.script && captions ? { captions } : {};
    return {
      ...rest,
      ...kept,
      layers,
      ...(script !== undefined && { script }),
      ...(chapter !== undefined && { chapter }),
    };
  });
  return { ...pattern, slides };
}

/** Slides all of whose pictures are without a file go; on the others what is there stands where something is missing. */
function withoutEmpty(show: Show, empty: ReadonlySet<AssetId>, swaps: Map<AssetId, AssetId>, facts: FactsById) {
  const gone = show.slides.filter((slide) => {
    const shown = picturesOf(slide, facts);
    return shown.length > 0 && shown.every((id) => empty.has(id));
  });
  if (gone.length === show.slides.length) throw new Error('No slide is left of the pattern.');
  const goes = new Set(gone.map(({ id }) => id));
  for (const slide of show.slides) {
    if (goes.has(slide.id)) continue;
    const shown = picturesOf(slide, facts);
    const own = shown.filter((id) => !empty.has(id));
    let next = 0;
    for (const id of shown)
      if (empty.has(id) && !swaps.has(id)) {
        const from = own[next++ % own.length]!;
        swaps.set(id, swaps.get(from) ?? from);
      }
  }
  const removed = gone.length === 0 ? show : apply(show, { kind: 'remove-slides', slideIds: gone.map(({ id }) => id) });
  return { show: removed, gone: gone.length };
}

function apply(show: Show, edit: ShowEdit): Show {
  const result = applyEdit(show, edit);
  if (!result.ok) throw new Error(result.sentence);
  return result.show;
}

function withSwaps(show: Show, swaps: ReadonlyMap<AssetId, AssetId>, facts: FactsById): Show {
  const marks = Object.entries(show.marks ?? {}).filter(([file]) => !swaps.has(file as AssetId));
  const { marks: _marks, ...rest } = show;
  return {
    ...rest,
    ...(marks.length > 0 && { marks: Object.fromEntries(marks) }),
    slides: show.slides.map((slide) => refitted(slide, swaps, facts)),
  };
}

/** A slide with other files. What was set for one picture alone – its crop, the way over it – is worked out for the other. */
function refitted(slide: Slide, swaps: ReadonlyMap<AssetId, AssetId>, facts: FactsById): Slide {
  const changed = withFilesChanged(slide, (id) => swaps.get(id) ?? id);
  if (changed === slide) return slide;
  const others = new Set(
    [...everyLayer(slide.layers)].flatMap((layer) =>
      'assetId' in layer && swaps.has(layer.assetId) ? [layer.id] : [],
    ),
  );
  let clipMs: number | null = null;
  const layers = mapped(changed.layers, (layer): Layer => {
    if (!others.has(layer.id) || (layer.kind !== 'picture' && layer.kind !== 'clip')) return layer;
    const known = facts.get(layer.assetId);
    if (known?.kind === 'clip') {
      clipMs ??= known.lengthMs;
      const { chosen: _chosen, ...parts } = layer;
      if (layer.kind === 'clip') {
        // Another clip: which part of it, which frames and how it is cropped were said of the first.
        const { trimEndMs: _end, freezes: _freezes, crop: _crop, move: _move, ...rest } = parts as ClipLayer;
        return { ...rest, trimStartMs: 0 };
      }
      const {
        move: _move,
        crop: _crop,
        back: _back,
        kind: _kind,
        ...rest
      } = parts as Extract<Layer, { kind: 'picture' }>;
      return { ...rest, kind: 'clip', trimStartMs: 0, soundGainDb: known.hasSound ? 0 : -60 };
    }
    if (layer.kind === 'clip') return { ...withoutClip(layer), kind: 'picture', move: { kind: 'automatic' } };
    const { crop: _crop, ...rest } = layer;
    return layer.move.kind === 'set' && !slide.mounted
      ? withChooser({ ...rest, move: { kind: 'automatic' as const } }, 'move', null)
      : rest;
  });
  const lengthMs =
    clipMs === null ? changed.lengthMs : Math.max(SHORTEST_SLIDE_MS, Math.min(changed.lengthMs, Math.round(clipMs)));
  return { ...changed, layers, lengthMs };
}

/** Further pictures on slides like those of the pattern, in turn, behind the last of these; words and sounds are not said again. */
function withSpare(
  show: Show,
  pattern: Show,
  plan: SeriesPlan,
  places: readonly Place[],
  spare: readonly AssetId[],
  facts: FactsById,
  newId: () => string,
): Show {
  if (spare.length === 0) return show;
  const open = new Set(fromFolder(places, plan).map(({ assetId }) => assetId));
  const holders = pattern.slides.filter((slide) => picturesOf(slide, facts).some((id) => open.has(id)));
  const models = holders.filter((slide) => picturesOf(slide, facts).length === 1);
  const added = spare.map((file, at): Slide => {
    const model = models[at % Math.max(1, models.length)];
    const known = facts.get(file)!;
    if (!model || known.kind === 'clip') return slideFromAsset(file, known, pattern.defaultLengthMs, newId);
    const {
      script: _script,
      chapter: _chapter,
      captions: _captions,
      mounted: _mounted,
      waits: _waits,
      ...rest
    } = copyOfSlide(model, newId);
    const bare: Slide = {
      ...rest,
      sounds: [],
      layers: mapped(rest.layers, (layer) => (layer.kind === 'words' ? { ...layer, hidden: true } : layer)),
    };
    return refitted(bare, new Map([[picturesOf(model, facts)[0]!, file]]), facts);
  });
  const last = holders.at(-1)!.id;
  return apply(show, { kind: 'add-slides', runs: [{ afterId: last, slides: added }] });
}

/** A picture that is seen longer than this is seen too long. */
const LONG_MS = 12_000;

/** What was set for one song alone – where it begins and ends in the file, its points on the way – is not for another. */
function withSong(cue: PlacedSound, songs: ReadonlyMap<AssetId, AssetId>): PlacedSound {
  const to = songs.get(cue.assetId);
  if (to === undefined || to === cue.assetId) return cue;
  const { cleaned: _cleaned, trimEndMs: _end, levels: _levels, tailored, ...rest } = cue;
  // Joins that were refused and sections that were left out are of one song.
  return { ...rest, assetId: to, trimStartMs: 0, ...(tailored && { tailored: {} }) };
}

function followed(show: Show, facts: FactsById, told: string[]): Show {
  if (!show.pace) return show;
  const fitted = lengthsByMusic(show, facts, show.pace);
  if (fitted.ok) {
    const after = apply(show, { kind: 'set-lengths', lengths: fitted.lengths });
    const eachMs = showLengthMs(after) / after.slides.length;
    if (eachMs > LONG_MS)
      told.push(
        `Few pictures for its song: each is seen for ${Math.round(eachMs / 1000)} s. More of them, or a shorter song, would help.`,
      );
    return after;
  }
  told.push(`Lengths are as in the pattern. ${whyUnmet(fitted)}`);
  return show;
}

import type { FactsById } from '../show/asset-facts';
import type { AssetId, LayerId, SlideId } from '../show/ids';
import { assetIdsOfLayer, everyLayer } from '../show/layer';
import { assetIdsOfSlides, type Show, type Slide } from '../show/show';
import { sameHead, type Fill, type Matches } from './series';

/** Where something of a row can stand in the pattern. */
export type Place =
  | { readonly id: string; readonly kind: 'title'; readonly says: string }
  | {
      readonly id: string;
      readonly kind: 'words';
      readonly slideId: SlideId;
      readonly layerId: LayerId;
      readonly part: 'title' | 'subtitle';
      /** Of the slide, from 1. */
      readonly number: number;
      /** What a mount calls it. */
      readonly name: string | null;
      readonly says: string;
    }
  /** A picture or clip, wherever it is used. */
  | {
      readonly id: string;
      readonly kind: 'picture';
      readonly assetId: AssetId;
      readonly slideId: SlideId;
      readonly number: number;
      /** It is cut out: an emblem, a logo. */
      readonly cutOut: boolean;
    }
  | { readonly id: string; readonly kind: 'song'; readonly assetId: AssetId };

export const TITLE_PLACE = 'title';

/** Every place of a pattern, in the order of its slides. @param facts of its files: sounds and what is not known of are no pictures */
export function placesOf(pattern: Show, facts: FactsById): Place[] {
  const places: Place[] = [{ id: TITLE_PLACE, kind: 'title', says: pattern.title }];
  const known = new Set<AssetId>();
  pattern.slides.forEach((slide, index) => {
    const number = index + 1;
    for (const assetId of picturesOf(slide, facts)) {
      if (known.has(assetId)) continue;
      known.add(assetId);
      const fact = facts.get(assetId);
      const cutOut = isLogoSlide(slide) || (fact?.kind === 'picture' && fact.hasTransparency);
      places.push({ id: `picture ${assetId}`, kind: 'picture', assetId, slideId: slide.id, number, cutOut });
    }
    for (const layer of everyLayer(slide.layers)) {
      if (layer.kind !== 'words') continue;
      for (const part of ['title', 'subtitle'] as const) {
        if (layer[part].trim() === '') continue;
        const id = `words ${slide.id} ${layer.id} ${part}`;
        const name = slide.mounted?.words?.find((one) => one.layerId === layer.id && one.part === part)?.name ?? null;
        places.push({
          ...{ id, kind: 'words', slideId: slide.id, layerId: layer.id, part, number, name },
          says: layer[part],
        });
      }
    }
  });
  const songs = new Set(pattern.cues.map(({ assetId }) => assetId));
  for (const assetId of songs) places.push({ id: `song ${assetId}`, kind: 'song', assetId });
  return places;
}

/** The pictures and clips a slide shows, the lowest first, once each; its transition's are its own. */
export function picturesOf(slide: Slide, facts: FactsById): AssetId[] {
  const own = new Set([...everyLayer(slide.layers)].flatMap(assetIdsOfLayer));
  if (slide.backing.kind === 'picture') own.add(slide.backing.assetId);
  return assetIdsOfSlides([slide]).filter((id) => {
    const kind = facts.get(id)?.kind;
    return own.has(id) && (kind === 'picture' || kind === 'clip');
  });
}

function isLogoSlide(slide: Slide): boolean {
  return slide.mounted?.mount.id.startsWith('logo-') ?? false;
}

/** A place as it is named on the command line: `title`, `slide 3 title`, `slide 3 picture`, `song`; a second one of a slide is `slide 3 picture 2`. */
export function namedPlaces(places: readonly Place[]): ReadonlyMap<string, Place> {
  const named = new Map<string, Place>();
  for (const place of places) {
    const base =
      place.kind === 'title' || place.kind === 'song'
        ? place.kind
        : `slide ${place.number} ${place.kind === 'picture' ? 'picture' : place.part}`;
    let name = base;
    for (let count = 2; named.has(name); count += 1) name = `${base} ${count}`;
    named.set(name, place);
  }
  return named;
}

const FOLDERS = ['folder', 'pictures', 'photos', 'files', 'directory', 'album'];
const SONGS = ['song', 'music', 'track', 'tune'];
const TITLES = ['title', 'film', 'name', 'show', 'house', 'graduate', 'couple', 'family'];

/** What a table's heads suggest for each place, as a beginning: words whose text or name is a head, in full or in braces, and the usual names. */
export function guessedMatches(
  pattern: Show,
  places: readonly Place[],
  columns: readonly string[],
  /** The column whose cells are names of folders that are there; null when none is, or it is not known. */
  folders: string | null = null,
): { readonly matches: Matches; readonly folderColumn: string | null } {
  const headFor = (names: readonly string[]) =>
    columns.find((column) => names.some((name) => sameHead(column) === name)) ??
    columns.find((column) =>
      names.some((name) =>
        sameHead(column)
          .split(/[^\p{L}\p{N}]+/u)
          .includes(name),
      ),
    );
  const folderColumn = folders ?? headFor(FOLDERS) ?? null;
  const rest = columns.filter((column) => column !== folderColumn);
  const song = headFor(SONGS);
  const named = (text: string) =>
    rest.find((column) => sameHead(column) === sameHead(text.replace(/^\{(.*)\}$/, '$1')));
  const titled = rest.find((column) => TITLES.includes(sameHead(column))) ?? rest[0];
  const matches: Record<string, Fill> = {};
  const column = (id: string, found: string | undefined) => {
    if (found !== undefined) matches[id] = { by: 'column', column: found };
  };
  for (const place of places) {
    if (place.kind === 'title') column(place.id, titled);
    else if (place.kind === 'words') {
      // What stands there as it does in the show's title changes with the title.
      const asTitle = place.says.trim() === pattern.title.trim() ? titled : undefined;
      column(place.id, named(place.says) ?? (place.name === null ? undefined : named(place.name)) ?? asTitle);
    } else if (place.kind === 'song') column(place.id, song);
    // An emblem is the same in every film.
    else if (folderColumn !== null && !place.cutOut) matches[place.id] = { by: 'folder' };
  }
  return { matches, folderColumn };
}

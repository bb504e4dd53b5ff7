import { aboutSong } from '../show/song-tags';
import { USUAL_LANGUAGE } from '../show/caption';
import type { FactsById } from '../show/asset-facts';
import { everyLayer } from '../show/layer';
import { picturesOf } from '../show/layout';
import type { Show, Slide } from '../show/show';
import { unreachable } from '../unreachable';
import type { MountWords } from './mount';

/** What a studio says of itself, where a mount asks for it. */
export interface StudioWords {
  readonly name: string;
  readonly contact: string;
}

/** What words are filled from. */
export interface WordsSource {
  readonly show: Show;
  readonly facts: FactsById;
  readonly studio: StudioWords;
  /** The slides whose pictures the run took, or that it goes before. */
  readonly slides: readonly Slide[];
  /** It speaks of the whole show. */
  readonly ofAll: boolean;
  /** What a person wrote, by name. */
  readonly said: Readonly<Record<string, string>>;
  /** As designed. */
  readonly own: string;
}

/** What a field of a mount says: what a person wrote, else what is known of it; empty where nothing is. */
export function wordsFor(field: MountWords, source: WordsSource): string {
  const said = source.said[field.name];
  if (said !== undefined) return said;
  const { show, slides, facts, studio } = source;
  switch (field.from) {
    case 'own':
      return source.own;
    case 'words':
      return wordsOn(slides, field.part) ?? captionIn(slides, facts) ?? '';
    case 'title':
      return wordsOn(slides, 'title') ?? show.title;
    case 'dates':
      return (
        (field.part === 'subtitle' && wordsOn(slides, 'subtitle')) ||
        datesOf(source.ofAll ? show.slides : slides, facts, show.language ?? USUAL_LANGUAGE)
      );
    case 'chapter':
      return slides.find((slide) => slide.chapter)?.chapter ?? wordsOn(slides, 'title') ?? '';
    case 'studio':
      return studio.name;
    case 'contact':
      return studio.contact;
    case 'credits':
      return creditsOf(show, facts, studio);
    default:
      return unreachable(field.from);
  }
}

function wordsOn(slides: readonly Slide[], part: 'title' | 'subtitle'): string | null {
  for (const slide of slides)
    for (const layer of everyLayer(slide.layers))
      if (layer.kind === 'words' && layer.title.trim() !== '') return layer[part];
  return null;
}

function captionIn(slides: readonly Slide[], facts: FactsById): string | null {
  for (const slide of slides)
    for (const { assetId } of picturesOf(slide)) {
      const known = facts.get(assetId);
      if (known?.kind === 'picture' && known.caption) return known.caption;
    }
  return null;
}

/** When pictures were taken, by day: “14 June 2025”, “14–16 June 2025”. Empty when none of them says. */
export function datesOf(slides: readonly Slide[], facts: FactsById, language: string): string {
  const days = slides
    .flatMap((slide) => picturesOf(slide))
    .flatMap(({ assetId }) => {
      const known = facts.get(assetId);
      return known && known.kind !== 'sound' && known.takenAt ? [known.takenAt.slice(0, 10)] : [];
    })
    .sort();
  const [first, last] = [days[0], days.at(-1)];
  if (first === undefined || last === undefined) return '';
  const format = new Intl.DateTimeFormat(language === 'en' ? 'en-GB' : language, {
    dateStyle: 'long',
    timeZone: 'UTC',
  });
  const [from, to] = [new Date(`${first}T00:00:00Z`), new Date(`${last}T00:00:00Z`)];
  return Number.isNaN(from.getTime()) || Number.isNaN(to.getTime()) ? '' : format.formatRange(from, to);
}

/** Credits in two columns: who took the pictures, whose music it is and by what right it is used. */
export function creditsOf(show: Show, facts: FactsById, studio: StudioWords): string {
  const lines: string[] = [];
  if (studio.name) lines.push(`Photographs\t${studio.name}`, '');
  const songs = [...new Set(show.cues.filter(({ kind }) => kind === 'song').map(({ assetId }) => assetId))];
  for (const song of songs) {
    const known = facts.get(song);
    const { title, artist } = aboutSong(known?.kind === 'sound' ? known : undefined, show.tags?.[song]);
    if (!title) continue;
    lines.push(`Music\t${artist ? `${title}, ${artist}` : title}`);
  }
  const licences = [...new Set(Object.values(show.licences ?? {}))];
  if (licences.length > 0) lines.push('', ...licences);
  if (studio.contact) lines.push('', studio.contact);
  return lines.join('\n').trim();
}

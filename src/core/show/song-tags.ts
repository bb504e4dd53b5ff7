import { HASH, maybe, object, record, text, type Schema } from '../schema/schema';
import type { SoundFacts } from './asset-facts';
import { LONGEST_NAME, MOST_TAGGED } from './limits';

/** What somebody says of a song; it counts instead of what stands in its file. What is left out is as the file says. */
export interface SongTags {
  readonly title?: string;
  readonly artist?: string;
  /** “march”, “quiet piano”. */
  readonly style?: string;
  readonly mood?: string;
}

/** By `AssetId`. */
export type SongTagsById = Readonly<Record<string, SongTags>>;

export const SONG_TAG_NAMES = ['title', 'artist', 'style', 'mood'] as const satisfies (keyof SongTags)[];

const TAG = maybe(text(LONGEST_NAME, 1));
export const SONG_TAGS: Schema = object<SongTags>({ title: TAG, artist: TAG, style: TAG, mood: TAG });
export const SONG_TAGS_BY_ID: Schema = record(HASH, SONG_TAGS, MOST_TAGGED, 1);

/** What is known of a song, from a hand where one said it, else from its file; null where nobody says. */
export interface SongAbout {
  readonly title: string | null;
  readonly artist: string | null;
  readonly style: string | null;
  readonly mood: string | null;
}

/** @param facts undefined while they are not known, or of a clip's sound */
export function aboutSong(
  facts: Partial<Pick<SoundFacts, 'title' | 'artist' | 'genre'>> | undefined,
  tags: SongTags | undefined,
): SongAbout {
  return {
    title: tags?.title ?? facts?.title ?? null,
    artist: tags?.artist ?? facts?.artist ?? null,
    style: tags?.style ?? facts?.genre ?? null,
    mood: tags?.mood ?? null,
  };
}

'use client';

import { useCallback } from 'react';
import type { AssetId } from '../../core/show/ids';
import { aboutSong, type SongAbout } from '../../core/show/song-tags';
import { useShow } from '../show/show-provider';

/** What is known of a song, and what it is called: by its title, else by its file. */
export function useSongAbout(): (id: AssetId) => SongAbout & { readonly name: string } {
  const entries = useShow((state) => state.entries);
  const tags = useShow((state) => state.show.tags);
  return useCallback(
    (id) => {
      const entry = entries.find((candidate) => candidate.assetId === id);
      const about = aboutSong(entry?.facts?.kind === 'sound' ? entry.facts : undefined, tags?.[id]);
      return { ...about, name: about.title ?? entry?.fileName ?? 'a sound' };
    },
    [entries, tags],
  );
}

'use client';

import { useRef } from 'react';
import { FilmPlayer } from './film-player';
import type { Shown } from '../../core/screening/shown-film';

/** The film alone, for another site’s page. */
export function EmbeddedFilm({ shown }: { shown: Shown }) {
  const video = useRef<HTMLVideoElement>(null);
  return (
    <div className="m-auto w-full">
      <FilmPlayer shown={shown} video={video} alone />
    </div>
  );
}

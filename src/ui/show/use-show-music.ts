'use client';

import { useMemo } from 'react';
import { musicOf, type ShowMusic } from '../../core/sound/show-beats';
import { useShow } from './show-provider';

/** What the music does along the show: its beats, its end, its energy. */
export function useShowMusic(): ShowMusic {
  const show = useShow((state) => state.show);
  const facts = useShow((state) => state.facts);
  return useMemo(() => musicOf(show, facts, true), [show, facts]);
}

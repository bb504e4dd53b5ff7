'use client';

import { useCallback, useEffect, useState } from 'react';
import type { ScreeningRow } from '../../server/screenings/screening-service';
import { callServer } from '../show/call-server';
import { told } from './use-films';

/** The screenings of a show, asked for anew whenever the server tells that something about its films has changed. Null until the first answer. */
export function useScreenings(showId: string): {
  readonly screenings: readonly ScreeningRow[] | null;
  refresh(): Promise<void>;
} {
  const [screenings, setScreenings] = useState<readonly ScreeningRow[] | null>(null);
  const refresh = useCallback(
    () =>
      callServer<{ screenings: ScreeningRow[] }>('GET', `/api/v1/shows/${showId}/screenings`).then(
        (answer) => setScreenings(answer.screenings),
        told,
      ),
    [showId],
  );
  useEffect(() => {
    void refresh();
    const hear = () => void refresh();
    window.addEventListener('tanager-films', hear);
    window.addEventListener('focus', hear);
    return () => {
      window.removeEventListener('tanager-films', hear);
      window.removeEventListener('focus', hear);
    };
  }, [refresh]);
  return { screenings, refresh };
}

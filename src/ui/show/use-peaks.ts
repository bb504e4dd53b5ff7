'use client';

import { useEffect, useState } from 'react';
import type { AssetId } from '../../core/show/ids';
import { useShow } from './show-provider';

/** The loudness of a file’s sound, `PEAKS_PER_SECOND` values of 0…255 a second; null until it is there. */
export function usePeaks(assetId: AssetId | null): Uint8Array | null {
  const show = useShow((state) => state.show.id);
  const [peaks, setPeaks] = useState<{ readonly of: AssetId; readonly values: Uint8Array } | null>(null);
  useEffect(() => {
    if (assetId === null) return;
    const gone = new AbortController();
    fetch(`/api/v1/shows/${show}/sounds/${assetId}/peaks`, { signal: gone.signal })
      .then(async (response) => {
        if (response.ok) setPeaks({ of: assetId, values: new Uint8Array(await response.arrayBuffer()) });
      })
      // Without them the strip shows a line; the sound itself is not touched.
      .catch(() => {});
    return () => gone.abort();
  }, [show, assetId]);
  return peaks?.of === assetId ? peaks.values : null;
}

'use client';

import { useEffect, useMemo, useState } from 'react';
import type { AssetId } from '../../core/show/ids';
import { PEAKS_PER_SECOND } from '../../core/sound/peaks';
import { cueStretches } from '../../core/sound/plan-mix';
import { useShow } from './show-provider';

export interface Music {
  /** Loudest peak within a stretch of the show, 0…1; 0 where no song plays. */
  loudness(fromMs: number, toMs: number): number;
  /** Changes when what `loudness` says changes. */
  readonly version: number;
}

const fetched = new Map<AssetId, Promise<Uint8Array>>();

/** The waveform of the show's songs, in show time. */
export function useMusic(): Music {
  const show = useShow((state) => state.show);
  const facts = useShow((state) => state.facts);
  const [peaks, setPeaks] = useState<ReadonlyMap<AssetId, Uint8Array>>(new Map());
  const ids = [...new Set(show.cues.map((cue) => cue.assetId))].join(' ');

  useEffect(() => {
    let gone = false;
    for (const id of ids.split(' ').filter(Boolean) as AssetId[]) {
      let loading = fetched.get(id);
      if (!loading) {
        loading = fetch(`/api/v1/shows/${show.id}/sounds/${id}/peaks`).then(
          async (response) => new Uint8Array(response.ok ? await response.arrayBuffer() : new ArrayBuffer(0)),
        );
        fetched.set(id, loading);
      }
      loading
        .then((values) => {
          if (!gone) setPeaks((before) => (before.get(id) === values ? before : new Map([...before, [id, values]])));
        })
        .catch(() => fetched.delete(id));
    }
    return () => {
      gone = true;
    };
  }, [ids, show.id]);

  return useMemo(() => {
    const stretches = cueStretches(show, facts);
    return {
      version: versionOf(),
      loudness(fromMs, toMs) {
        for (const stretch of stretches) {
          if (toMs <= stretch.startMs || fromMs >= stretch.endMs) continue;
          const cue = show.cues[stretch.cueIndex]!;
          const values = peaks.get(cue.assetId);
          if (!values) return 0;
          const at = (ms: number) =>
            ((Math.max(ms, stretch.startMs) - stretch.startMs + cue.trimStartMs) * PEAKS_PER_SECOND) / 1000;
          const first = Math.floor(at(fromMs));
          const end = Math.max(first + 1, Math.ceil(at(Math.min(toMs, stretch.endMs))));
          let loudest = 0;
          for (let index = first; index < end && index < values.length; index += 1)
            loudest = Math.max(loudest, values[index]!);
          return loudest / 255;
        }
        return 0;
      },
    };
  }, [show, facts, peaks]);
}

let versions = 0;
function versionOf(): number {
  return (versions += 1);
}

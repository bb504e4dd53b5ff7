'use client';

import { useEffect, useMemo, useState } from 'react';
import type { AssetId } from '../../core/show/ids';
import { PEAKS_PER_SECOND } from '../../core/sound/peaks';
import { fileMomentOf, pieceRuns, showMomentOf } from '../../core/sound/song-runs';
import { soundSpans } from '../../core/sound/sound-spans';
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
  const ids = [...new Set(show.cues.filter((cue) => cue.kind === 'song').map((cue) => cue.assetId))].join(' ');

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
    const runs = soundSpans(show, facts)
      .filter(({ sound }) => sound.kind === 'song')
      .flatMap((span) =>
        pieceRuns(span, facts).map((run) => ({
          run,
          assetId: span.sound.assetId,
          endMs: Math.min(span.endMs, showMomentOf(run, run.toMs)),
        })),
      );
    return {
      version: versionOf(),
      loudness(fromMs, toMs) {
        let loudest = 0;
        for (const { run, assetId, endMs } of runs) {
          if (toMs <= run.startMs || fromMs >= endMs) continue;
          const values = peaks.get(assetId);
          if (!values) continue;
          const at = (ms: number) => (fileMomentOf(run, Math.max(ms, run.startMs)) * PEAKS_PER_SECOND) / 1000;
          const first = Math.floor(at(fromMs));
          const end = Math.max(first + 1, Math.ceil(at(Math.min(toMs, endMs))));
          for (let index = first; index < end && index < values.length; index += 1)
            loudest = Math.max(loudest, values[index]!);
        }
        return loudest / 255;
      },
    };
  }, [show, facts, peaks]);
}

let versions = 0;
function versionOf(): number {
  return (versions += 1);
}

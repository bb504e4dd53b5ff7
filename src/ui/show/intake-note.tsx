'use client';

import { useEffect, useState } from 'react';
import { clock } from '../kit/clock';
import { callServer } from './call-server';
import { useShow } from './show-provider';
import { timeLeftMs, type Sample } from './time-left';
import { useUploadProgress, useUploads } from './uploads-provider';

/** How far the files that are coming in have got, and a way to stop them; nothing when none are. */
export function IntakeNote({ short = false }: { short?: boolean }) {
  const { stop } = useUploads();
  const progress = useUploadProgress();
  const folder = useShow((state) => state.folder);
  const showId = useShow((state) => state.show.id);
  const looking = useShow((state) =>
    state.entries.reduce((sum, entry) => sum + (entry.state === 'arrived' ? 1 : 0), 0),
  );
  const lookingLeftMs = useLookingLeft(looking);
  const coming = progress !== null && progress.filesDone < progress.fileCount;
  if (coming || folder) {
    const [done, count] = coming ? [progress.filesDone, progress.fileCount] : [folder!.filesDone, folder!.fileCount];
    const [share, whole] = coming ? [progress.bytesDone, progress.bytes || 1] : [done, count || 1];
    return (
      <span role="status" className="flex items-center gap-2.5 whitespace-nowrap" data-part="intake">
        <progress
          aria-label="Files coming in"
          max={whole}
          value={share}
          className="h-1 w-20 appearance-none overflow-hidden rounded-full [&::-webkit-progress-bar]:bg-rule [&::-webkit-progress-value]:bg-ink"
        />
        <span>
          {short ? '' : 'taking in '}
          <b className="tabular">{done}</b> of <b className="tabular">{count}</b>
          {!short && coming && progress.leftMs !== null && (
            <>
              {' '}
              · <span className="tabular">{clock(Math.max(1000, progress.leftMs))}</span> left
            </>
          )}
        </span>
        {!short && (
          <button
            type="button"
            className="underline underline-offset-2"
            onClick={() => {
              if (coming) stop();
              else void callServer('DELETE', `/api/v1/shows/${showId}/folder`).catch(() => {});
            }}
          >
            stop
          </button>
        )}
      </span>
    );
  }
  return looking > 0 ? (
    <span role="status" data-part="intake" className="whitespace-nowrap">
      looking at <b className="tabular">{looking}</b> more{lookingLeftMs === null && ' …'}
      {!short && lookingLeftMs !== null && (
        <>
          {' '}
          · about <span className="tabular">{clock(Math.max(1000, lookingLeftMs))}</span> left
        </>
      )}
    </span>
  ) : null;
}

/** How long the files that have arrived will still be looked at. */
function useLookingLeft(looking: number): number | null {
  const [samples, setSamples] = useState<readonly Sample[]>([]);
  useEffect(() => {
    // A clock is read when the count changes, and only then.
    // eslint-disable-next-line react-hooks/set-state-in-effect
    setSamples((before) => (looking === 0 ? [] : [...before.slice(-200), { atMs: performance.now(), left: looking }]));
  }, [looking]);
  return timeLeftMs(samples);
}

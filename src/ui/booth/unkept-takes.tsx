'use client';

import { nanoid } from 'nanoid';
import { useCallback, useEffect, useState } from 'react';
import { toast } from 'sonner';
import { takeKept } from '../../core/narration/kept-take';
import { cueId } from '../../core/show/ids';
import type { Cleaning } from '../../core/sound/voice/cleaning';
import type { UnkeptTake } from '../../server/recording/recording-service';
import { Button } from '../kit/button';
import { clockTenths } from '../kit/clock';
import { callServer } from '../show/call-server';
import { useShow, useShowStore } from '../show/show-provider';
import { keepTake, letGoOnceSaved, voiceOfTake } from './use-booth';

interface UnkeptTakesProps {
  readonly cleaning: Cleaning | null;
  /** One that is being recorded is none of these; when it is over the list is asked for anew. */
  readonly busy: boolean;
}

/** Recordings that were broken off, by a page that was closed or a server that ended, with what was said until then. */
export function UnkeptTakes({ cleaning, busy }: UnkeptTakesProps) {
  const store = useShowStore();
  const showId = useShow((state) => state.show.id);
  const slides = useShow((state) => state.show.slides);
  const anchor = useShow((state) => state.anchor);
  const [takes, setTakes] = useState<readonly UnkeptTake[]>([]);
  const [working, setWorking] = useState<string | null>(null);
  const ask = useCallback(
    () =>
      callServer<{ takes: UnkeptTake[] }>('GET', `/api/v1/shows/${showId}/takes`).then(
        (answer) => setTakes(answer.takes),
        () => {},
      ),
    [showId],
  );
  useEffect(() => {
    if (!busy) void ask();
  }, [ask, busy]);

  const keep = async (take: UnkeptTake) => {
    const slideId = slides.find((slide) => slide.id === take.slideId)?.id ?? anchor ?? slides[0]?.id;
    if (!slideId) return;
    setWorking(take.id);
    try {
      const kept = await keepTake(store, take.id, cleaning, []);
      const voice = voiceOfTake(kept, take.name, cleaning, { fromMs: 0, toMs: take.lengthMs });
      const { show, edit } = store.getState();
      const laid = takeKept(show, slideId, cueId(nanoid(10)), voice);
      if (laid && edit(laid)) await letGoOnceSaved(store, take.id);
    } catch (error) {
      toast(error instanceof Error ? error.message : String(error));
    }
    setWorking(null);
    await ask();
  };
  const throwAway = async (take: UnkeptTake) => {
    await callServer('DELETE', `/api/v1/shows/${showId}/takes/${take.id}`).catch(() => {});
    await ask();
  };

  if (busy || takes.length === 0) return null;
  return (
    <ul aria-label="Recordings that are not kept yet" className="flex flex-col gap-1.5">
      {takes.map((take) => {
        const on = slides.findIndex((slide) => slide.id === take.slideId);
        const tooShort = take.lengthMs < 300;
        return (
          <li
            key={take.id}
            data-part="unkept-take"
            className="flex flex-wrap items-center gap-2 rounded-lg border border-red/50 bg-red/5 px-3 py-2"
          >
            <span className="flex-1">
              A recording {on >= 0 ? `on slide ${on + 1} ` : take.slideId === null ? 'over several slides ' : ''}
              was broken off.{' '}
              {tooShort ? (
                'Nothing was said in it.'
              ) : (
                <>
                  What was said until then, <span className="tabular">{clockTenths(take.lengthMs)}</span>, is safe.
                </>
              )}
            </span>
            {!tooShort && (
              <Button className="h-7" disabled={working !== null} onClick={() => void keep(take)}>
                {working === take.id ? 'Being kept …' : 'Keep it'}
              </Button>
            )}
            <Button className="h-7" look="quiet" disabled={working !== null} onClick={() => void throwAway(take)}>
              Throw it away
            </Button>
          </li>
        );
      })}
    </ul>
  );
}

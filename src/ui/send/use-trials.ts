'use client';

import { useEffect, useState } from 'react';
import type { FilmSpec } from '../../core/film/film-spec';
import type { Show } from '../../core/show/show';
import type { FilmTrial } from '../../server/films/try-film';
import { callServer } from '../show/call-server';

/** What films would come to, by what is asked for as JSON. */
export type Trials = ReadonlyMap<string, FilmTrial>;

/** The hand has rested for so long. */
const RESTS_MS = 700;

/**
 * What the films that are asked for would come to, tried one after the other on the server; what was tried of another state of the show counts until the new trial
 * is there.
 *
 * @param may nothing is tried while the machine is at work on a film, or the server lacks what was done last
 */
export function useTrials(show: Show, specs: readonly FilmSpec[], may: boolean): Trials {
  const [trials, setTrials] = useState<Trials>(new Map());
  const wanted = JSON.stringify(specs);
  useEffect(() => {
    if (!may || show.slides.length === 0) return;
    let given = true;
    const timer = setTimeout(() => void tryAll(), RESTS_MS);
    return () => {
      given = false;
      clearTimeout(timer);
    };

    async function tryAll() {
      for (const spec of JSON.parse(wanted) as FilmSpec[]) {
        const trial = await callServer<FilmTrial>('POST', `/api/v1/shows/${show.id}/trials`, { spec }).catch(
          // An estimate that is not to be had is not shown; making the film says what is wrong.
          () => null,
        );
        if (!given) return;
        if (trial) setTrials((known) => new Map([...known, [JSON.stringify(spec), trial]]));
      }
    }
  }, [show, wanted, may]);
  return trials;
}

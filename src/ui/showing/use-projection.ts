'use client';

import { useCallback, useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import { prepareShow } from '../../core/frame/plan-frame';
import type { FactsById } from '../../core/show/asset-facts';
import type { Show } from '../../core/show/show';
import { looped } from '../../core/showing/looped';
import {
  afterCommand,
  afterStretch,
  BEFORE,
  type ShowingCommand,
  type ShowingMove,
  type ShowingState,
  type ShownShow,
} from '../../core/showing/showing';
import { useViewer, type ViewerHands } from '../viewer/use-viewer';

/** The parts of a show that a showing goes by. */
export function shownShow({ show, spans, lengthMs }: ReturnType<typeof prepareShow>): ShownShow {
  return { spans, waits: show.slides.map((slide) => slide.waits === true), lengthMs, rate: show.frame.rate };
}

interface Projection {
  readonly shown: ShownShow;
  readonly hands: ViewerHands;
  readonly state: ShowingState;
  run(command: ShowingCommand): void;
  /** Plays on from where it is, for when the window has only now been allowed to sound. */
  again(): void;
}

/** Carries out a showing: the show, drawn and heard, stretch by stretch. */
export function useProjection(place: RefObject<HTMLDivElement | null>, show: Show, facts: FactsById): Projection {
  const prepared = useMemo(() => prepareShow(show, facts), [show, facts]);
  const shown = useMemo(() => shownShow(prepared), [prepared]);
  const loop = useMemo(() => looped(prepared), [prepared]);
  const [state, setState] = useState(BEFORE);
  const now = useRef(state);
  const stretch = useRef<{ untilMs: number; meetsBeginning: boolean } | null>(null);
  const hands = useViewer(place, state.loops && loop ? loop.show : show, facts, 0, true);
  const { playing, momentMs, play, pause, seek } = hands;

  const set = useCallback((next: ShowingState) => {
    now.current = next;
    setState(next);
  }, []);

  const perform = useCallback(
    (next: ShowingState, move: ShowingMove, fromLoop = false) => {
      set(next);
      if (!move) {
        if (next.phase === 'ended') stretch.current = null;
        return;
      }
      if (move.kind === 'stand') {
        stretch.current = null;
        pause();
        seek(move.atMs);
        return;
      }
      const meetsBeginning = next.loops && loop !== null && move.untilMs >= shown.lengthMs;
      const untilMs = meetsBeginning ? loop.untilMs : move.untilMs;
      stretch.current = { untilMs, meetsBeginning };
      play(fromLoop && loop ? loop.againMs : move.fromMs, untilMs);
    },
    [loop, play, pause, seek, set, shown.lengthMs],
  );

  const run = useCallback(
    (command: ShowingCommand) => {
      const { state: next, move } = afterCommand(shown, now.current, command);
      perform(next, move);
    },
    [shown, perform],
  );

  // Where it ends has changed, once the show that is drawn has.
  const { loops } = state;
  useEffect(() => {
    if (now.current.phase !== 'running') return;
    const on = afterCommand(shown, { ...now.current, phase: 'held' }, { do: 'hold' });
    perform(on.state, on.move);
  }, [loops, shown, perform]);

  useEffect(() => {
    if (now.current.phase === 'running' && playing)
      set({ ...now.current, momentMs: Math.min(momentMs, shown.lengthMs - 1) });
  }, [momentMs, playing, set, shown.lengthMs]);

  const wasPlaying = useRef(false);
  useEffect(() => {
    const ended = wasPlaying.current && !playing;
    wasPlaying.current = playing;
    const done = stretch.current;
    if (!ended || !done || now.current.phase !== 'running') return;
    const { state: next, move } = afterStretch(shown, {
      ...now.current,
      momentMs: Math.min(done.untilMs, shown.lengthMs) - 1,
    });
    perform(next, move, done.meetsBeginning);
  }, [playing, shown, perform]);

  const again = useCallback(() => {
    const { phase, momentMs: atMs } = now.current;
    if (phase === 'running' && stretch.current) play(atMs, stretch.current.untilMs);
  }, [play]);

  return { shown, hands, state, run, again };
}

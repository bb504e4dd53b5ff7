'use client';

import { useEffect, useRef, useState } from 'react';
import type { SlideSpan } from '../../core/timing/slide-span';
import type { ViewerHands } from './use-viewer';

/** What Play plays: the show from where it stands, the slide, the transition into it, or a part that was chosen. */
export type Reach = 'show' | 'slide' | 'seam' | 'part';
export const REACHES: readonly { readonly value: Reach; readonly label: string }[] = [
  { value: 'show', label: 'show' },
  { value: 'slide', label: 'slide' },
  { value: 'seam', label: 'transition' },
  { value: 'part', label: 'part' },
];

export type Speed = '1' | '0.5' | '0.25';
export const SPEEDS: readonly { readonly value: Speed; readonly label: string }[] = [
  { value: '1', label: '1 ×' },
  { value: '0.5', label: '½ ×' },
  { value: '0.25', label: '¼ ×' },
];

/** Around a transition, so that one sees from where and to where. */
const ABOUT_SEAM_MS = 700;
const SHORTEST_PART_MS = 200;

interface Stretch {
  /** Undefined: from where it stands. */
  readonly fromMs: number | undefined;
  readonly untilMs: number;
}

/** Plays what was chosen to be played, over and over if wanted, at a speed. */
export function useReach(
  { playing, momentMs, play, pause }: ViewerHands,
  spans: readonly SlideSpan[],
  index: number | null,
  lengthMs: number,
) {
  const [reach, setReach] = useState<Reach>('show');
  const [speed, setSpeed] = useState<Speed>('1');
  const [loops, setLoops] = useState(false);
  const [chosen, setChosen] = useState<readonly [number, number] | null>(null);
  const part: readonly [number, number] = chosen
    ? [Math.min(chosen[0], Math.max(0, lengthMs - SHORTEST_PART_MS)), Math.min(chosen[1], lengthMs)]
    : [index === null ? 0 : spans[index]!.startMs, index === null ? lengthMs : spans[index]!.endMs];
  const stretch = useRef<Stretch | null>(null);

  const wanted = (): Stretch => {
    const span = index === null ? null : spans[index]!;
    if (reach === 'part') return { fromMs: part[0], untilMs: part[1] };
    if (!span || reach === 'show') return { fromMs: undefined, untilMs: lengthMs };
    if (reach === 'slide') return { fromMs: span.startMs, untilMs: span.endMs };
    // The first slide has none: the one out of it is meant.
    const seam = span.transitionMs > 0 ? span : (spans[span.slideIndex + 1] ?? span);
    return {
      fromMs: Math.max(0, seam.startMs - ABOUT_SEAM_MS),
      untilMs: Math.min(lengthMs, seam.startMs + seam.transitionMs + ABOUT_SEAM_MS),
    };
  };

  const toggle = () => {
    if (playing) {
      stretch.current = null;
      return pause();
    }
    const now = wanted();
    stretch.current = now;
    play(now.fromMs, now.untilMs, Number(speed));
  };

  const was = useRef(false);
  useEffect(() => {
    const ended = was.current && !playing;
    was.current = playing;
    const done = stretch.current;
    if (!ended || !done || !loops || momentMs < done.untilMs - 120) return;
    play(done.fromMs ?? 0, done.untilMs, Number(speed));
  }, [playing, momentMs, loops, play, speed]);

  return {
    reach,
    setReach,
    speed,
    setSpeed: (next: Speed) => {
      setSpeed(next);
      if (playing) play(momentMs, stretch.current?.untilMs, Number(next));
    },
    loops,
    setLoops,
    part,
    setPart: ([from, to]: readonly [number, number]) =>
      setChosen([Math.min(from, to - SHORTEST_PART_MS), Math.max(to, from + SHORTEST_PART_MS)]),
    toggle,
  };
}

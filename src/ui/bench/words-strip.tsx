'use client';

import { Play } from 'lucide-react';
import { Slider } from 'radix-ui';
import type { WordsCome } from '../../core/show/words';
import type { SlideSpan } from '../../core/timing/slide-span';
import { Button } from '../kit/button';
import { useKeptMoment } from '../show/kept-moment';

interface WordsStripProps {
  readonly come: WordsCome;
  readonly span: SlideSpan;
  readonly onChange: (come: WordsCome) => void;
}

const STEP_MS = 50;
const NAMES = ['Words begin to come', 'Words are there', 'Words begin to go', 'Words are gone'];

/** The slide’s time as a strip: when its words come and go, dragged at their ends, and played. */
export function WordsStrip({ come, span, onChange }: WordsStripProps) {
  const kept = useKeptMoment();
  const lengthMs = span.endMs - span.startMs;
  const { entrance, exit } = come;
  const values = [entrance.atMs, entrance.atMs + entrance.lengthMs].concat(
    exit ? [lengthMs - exit.atMs - exit.lengthMs, lengthMs - exit.atMs] : [],
  );
  const share = (ms: number) => `${(100 * Math.min(lengthMs, Math.max(0, ms))) / lengthMs}%`;
  const change = (next: readonly number[]) => {
    const [comes, there, goes, gone] = next.map(Math.round) as [number, number, number?, number?];
    onChange({
      entrance: { ...entrance, atMs: comes, lengthMs: there - comes },
      exit:
        exit && goes !== undefined && gone !== undefined
          ? { ...exit, atMs: Math.max(0, lengthMs - gone), lengthMs: gone - goes }
          : exit,
    });
  };
  const [comes, there, goes = lengthMs, gone = lengthMs] = values as [number, number, number?, number?];
  return (
    <div className="flex items-center gap-2" data-part="words-strip">
      <Button
        square
        className="size-7"
        aria-label="Play the slide"
        onClick={() => kept.getState().play(span.startMs, span.endMs)}
      >
        <Play size={12} fill="currentColor" />
      </Button>
      <Slider.Root
        value={values}
        min={0}
        max={lengthMs}
        step={STEP_MS}
        onValueChange={change}
        className="relative flex h-7 flex-1 touch-none items-center select-none"
      >
        <Slider.Track className="relative h-5 grow overflow-hidden rounded-sm bg-surround">
          {span.transitionMs > 0 && (
            <span
              aria-hidden="true"
              title="The slide is coming in"
              className="absolute inset-y-0 left-0 bg-white/15"
              style={{ width: share(span.transitionMs) }}
            />
          )}
          <svg
            className="absolute inset-0 h-full w-full"
            viewBox="0 0 100 10"
            preserveAspectRatio="none"
            aria-hidden="true"
          >
            <polygon
              points={trapezium([comes, there, goes, gone].map((ms) => (100 * ms) / lengthMs))}
              className="fill-lamp/80"
            />
          </svg>
        </Slider.Track>
        {values.map((value, index) => (
          <Slider.Thumb
            key={index}
            aria-label={NAMES[index]}
            aria-valuetext={`${(value / 1000).toFixed(2)} seconds in`}
            className="block h-7 w-2 rounded-[3px] border border-ink bg-field"
          />
        ))}
      </Slider.Root>
      <span className="tabular w-12 text-right text-soft">{(lengthMs / 1000).toFixed(1)} s</span>
    </div>
  );
}

/** Rises while they come, stands while they are there, falls while they go. */
function trapezium([comes, there, goes, gone]: readonly number[]): string {
  return `${comes},10 ${there},0 ${goes},0 ${gone},${gone === 100 && goes === 100 ? 0 : 10} ${gone},10`;
}

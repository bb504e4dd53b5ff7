'use client';

import { Slider } from 'radix-ui';
import { clockTenths } from '../kit/clock';

interface MomentSliderProps {
  readonly momentMs: number;
  readonly lengthMs: number;
  readonly stepMs: number;
  readonly onSeek: (momentMs: number) => void;
}

/** The line of a show's time, with where one is on it. */
export function MomentSlider({ momentMs, lengthMs, stepMs, onSeek }: MomentSliderProps) {
  return (
    <Slider.Root
      value={[Math.min(momentMs, lengthMs)]}
      min={0}
      max={Math.max(1, lengthMs)}
      step={stepMs}
      onValueChange={([value]) => onSeek(value!)}
      className="relative flex h-5 min-w-0 flex-1 touch-none items-center select-none"
    >
      <Slider.Track className="relative h-[3px] w-full rounded-full bg-white/25">
        <Slider.Range className="absolute h-full rounded-full bg-red" />
      </Slider.Track>
      <Slider.Thumb
        aria-label="Moment"
        aria-valuetext={clockTenths(momentMs)}
        className="block h-4 w-1.5 rounded-sm bg-red"
      />
    </Slider.Root>
  );
}

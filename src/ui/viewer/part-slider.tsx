'use client';

import { Slider } from 'radix-ui';
import { clockTenths } from '../kit/clock';

interface PartSliderProps {
  readonly part: readonly [number, number];
  readonly lengthMs: number;
  readonly stepMs: number;
  readonly onPart: (part: readonly [number, number]) => void;
}

/** The two ends of the part that is played, on the line of the moment. */
export function PartSlider({ part, lengthMs, stepMs, onPart }: PartSliderProps) {
  return (
    <Slider.Root
      value={[...part]}
      min={0}
      max={Math.max(1, lengthMs)}
      step={stepMs}
      onValueChange={([from, to]) => onPart([from!, to!])}
      data-part="part-slider"
      className="pointer-events-none absolute inset-x-0 -top-1 flex h-3 touch-none items-center select-none"
    >
      <Slider.Track className="relative h-[3px] w-full">
        <Slider.Range className="absolute h-full rounded-full bg-lamp/70" />
      </Slider.Track>
      {(['Beginning', 'End'] as const).map((name, at) => (
        <Slider.Thumb
          key={name}
          aria-label={`${name} of the part`}
          aria-valuetext={clockTenths(part[at]!)}
          className="pointer-events-auto block h-3 w-2.5 rounded-b-sm bg-lamp"
        />
      ))}
    </Slider.Root>
  );
}

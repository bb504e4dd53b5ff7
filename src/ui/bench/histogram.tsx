'use client';

import { useMemo } from 'react';
import { lostOf, toneCounts, type ToneCounts } from '../../core/light/tone-counts';

/** Two values beside each other are one point of the curve. */
const POINTS = 128;
const [WIDTH, HEIGHT] = [POINTS - 1, 48];
/** Less is a glint or a pupil. */
const WORTH_SAYING = 0.002;
const COLOURS = [
  ['red', '#c8402f'],
  ['green', '#4f9a4c'],
  ['blue', '#4273c2'],
] as const;

/** How often each brightness is there, from black to white, and what is lost at either end, marked on the picture. */
export function Histogram({ pixels }: { readonly pixels: ImageData }) {
  const counts = useMemo(() => toneCounts(pixels.data), [pixels]);
  const [blown, drowned] = [counts.blown / counts.pixels, counts.drowned / counts.pixels];
  const most = useMemo(() => highest(counts), [counts]);
  return (
    <div className="flex items-stretch gap-3" data-part="histogram" data-blown={blown} data-drowned={drowned}>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        preserveAspectRatio="none"
        role="img"
        aria-label={`Histogram. ${said(blown, drowned)}`}
        className="h-16 min-w-0 flex-1 rounded-sm bg-surround"
      >
        <path d={curve(counts.luma, most, true)} className="fill-lamp-soft/50" />
        {COLOURS.map(([name, stroke]) => (
          <path
            key={name}
            d={curve(counts[name], most, false)}
            fill="none"
            stroke={stroke}
            strokeWidth="1.5"
            vectorEffect="non-scaling-stroke"
          />
        ))}
      </svg>
      <LostPlaces pixels={pixels} />
      <p className="w-28 self-center leading-snug text-soft" data-part="lost">
        {said(blown, drowned)}
      </p>
    </div>
  );
}

/** The picture, pale, with what is blown striped dark and what is drowned striped light. */
function LostPlaces({ pixels }: { readonly pixels: ImageData }) {
  return (
    <canvas
      aria-hidden="true"
      className="h-16 rounded-sm bg-surround object-contain"
      style={{ width: Math.min(112, Math.round((64 * pixels.width) / pixels.height)) }}
      ref={(canvas) => {
        if (!canvas) return;
        [canvas.width, canvas.height] = [pixels.width, pixels.height];
        const marked = new ImageData(Uint8ClampedArray.from(pixels.data), pixels.width, pixels.height);
        const { data } = marked;
        for (let at = 0; at < data.length; at += 4) {
          const lost = lostOf(data[at]!, data[at + 1]!, data[at + 2]!);
          const pixel = at / 4;
          const stripe = ((pixel % pixels.width) + Math.floor(pixel / pixels.width)) % 6 < 3;
          if (lost !== 0 && stripe) data.set(lost > 0 ? [196, 52, 38] : [240, 196, 92], at);
        }
        canvas.getContext('2d')?.putImageData(marked, 0, 0);
      }}
    />
  );
}

function said(blown: number, drowned: number): string {
  const parts = [
    ...(blown >= WORTH_SAYING ? [`${percent(blown)} blown`] : []),
    ...(drowned >= WORTH_SAYING ? [`${percent(drowned)} drowned`] : []),
  ];
  return parts.length === 0 ? 'Nothing is lost at either end.' : `${parts.join(', ')}.`;
}

const percent = (share: number) => `${(100 * share).toFixed(share < 0.1 ? 1 : 0)} %`;

/** The ends are left out: a border of pure black would press all else flat. */
function highest({ luma, red, green, blue }: ToneCounts): number {
  return Math.max(1, ...[luma, red, green, blue].flatMap((of) => paired(of).slice(1, -1)));
}

function paired(counts: Uint32Array): number[] {
  return Array.from({ length: POINTS }, (_, point) => counts[2 * point]! + counts[2 * point + 1]!);
}

/** By the square root, so that what is rare is seen too. */
function curve(counts: Uint32Array, most: number, closed: boolean): string {
  const points = paired(counts).map(
    (count, x) => `${x} ${(HEIGHT * (1 - Math.min(1, Math.sqrt(count / most)))).toFixed(1)}`,
  );
  return closed ? `M0 ${HEIGHT}L${points.join('L')}L${WIDTH} ${HEIGHT}z` : `M${points.join('L')}`;
}

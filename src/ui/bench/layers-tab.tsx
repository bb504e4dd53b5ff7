'use client';

import { Maximize2 } from 'lucide-react';
import { everyLayer } from '../../core/show/layer';
import type { Slide } from '../../core/show/show';
import { runCommand, useOffered } from '../commands/use-commands';
import { Button } from '../kit/button';

const BUILDS = [
  {
    id: 'loupe',
    name: 'Loupe over the picture',
    says: 'travels from face to face and enlarges each',
    sketch: LoupeSketch,
  },
  { id: 'turnover', name: 'Picture that turns over', says: 'and shows another on its back', sketch: TurnoverSketch },
  { id: 'lanterns', name: 'Lanterns', says: 'boxes with pictures that rise, turn and gather', sketch: LanternsSketch },
] as const;

/** Where layers and keys begin: ready-made builds, and the bench opened wide. */
export function LayersTab({ slide }: { slide: Slide }) {
  const count = [...everyLayer(slide.layers)].length;
  const offered = useOffered();
  return (
    <div className="flex flex-col gap-3" data-part="layers-tab">
      <div className="flex flex-wrap items-center gap-3">
        <Button data-part="open-wide" onClick={() => runCommand('open-wide')}>
          <Maximize2 size={14} /> Open wide
        </Button>
        <span className="text-soft">
          <span className="tabular">{count}</span> {count === 1 ? 'layer' : 'layers'}: lay them on each other, let them
          move by keys, cut and follow each other. Enter or a double-click on the slide opens it too.
        </span>
      </div>
      <ul className="grid grid-cols-3 gap-2.5">
        {BUILDS.map(({ id, name, says, sketch: Sketch }) => (
          <li key={id}>
            <button
              type="button"
              data-part={`open-${id}`}
              disabled={!offered.has(id)}
              onClick={() => runCommand(id)}
              className="flex h-full w-full flex-col items-start gap-1 rounded-lg border border-rule bg-field p-2.5 text-left hover:border-soft disabled:opacity-50"
            >
              <Sketch />
              <span className="leading-tight font-semibold">{name}</span>
              <span className="text-xs leading-tight text-soft">{says}</span>
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}

function LoupeSketch() {
  return (
    <svg aria-hidden="true" viewBox="0 0 96 40" className="h-10 w-24">
      <path d="M2 38c6-14 14-14 20 0M22 38c6-14 14-14 20 0M62 38c6-14 14-14 20 0" className="fill-rule" />
      <circle cx="12" cy="22" r="4" className="fill-soft" />
      <circle cx="32" cy="22" r="4" className="fill-soft" />
      <circle cx="72" cy="22" r="4" className="fill-soft" />
      <path
        d="M12 10Q32 -2 52 14"
        fill="none"
        className="stroke-slate"
        strokeDasharray="1 4"
        strokeWidth="2"
        strokeLinecap="round"
      />
      <circle cx="52" cy="22" r="15" className="fill-card stroke-ink" strokeWidth="2.5" />
      <circle cx="52" cy="20" r="7" className="fill-soft" />
      <path d="M40 34c5-9 19-9 24 0" className="fill-soft" />
    </svg>
  );
}

function TurnoverSketch() {
  return (
    <svg aria-hidden="true" viewBox="0 0 96 40" className="h-10 w-24">
      <path d="M4 8h30v24H4z" className="fill-rule" />
      <path d="M44 4l8 5v22l-8 5z" className="fill-soft" />
      <path d="M62 8h30v24H62z" className="fill-slate" />
      <path d="M34 38q14 4 26 0m-5-3l5 3l-4 3" fill="none" className="stroke-ink" strokeWidth="1.5" />
    </svg>
  );
}

function LanternsSketch() {
  const box = (x: number, y: number) => (
    <g key={`${x} ${y}`}>
      <path d={`M${x} ${y}h12v12h-12z`} className="fill-soft" />
      <path d={`M${x} ${y}l4 -4h12l-4 4z`} className="fill-saffron" />
      <path d={`M${x + 12} ${y}l4 -4v12l-4 4z`} className="fill-rule" />
    </g>
  );
  return (
    <svg aria-hidden="true" viewBox="0 0 96 40" className="h-10 w-24">
      {[box(8, 26), box(18, 12), box(38, 5), box(58, 12), box(70, 26)]}
    </svg>
  );
}

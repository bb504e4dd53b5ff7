'use client';

import { useMemo, useState } from 'react';
import { seenInShape } from '../../core/builds/in-shape';
import { prepareShow } from '../../core/frame/plan-frame';
import { lostInShape } from '../../core/film/lost-in-shape';
import type { ShapeName } from '../../core/show/shape';
import { usePrepared } from '../show/show-provider';
import { LostPrint } from './lost-print';
import { ShapeDialog } from './shape-dialog';

const SHOWN = 4;

/** Pictures that lose something in a shape a film is asked for in, and the way to correct them. */
export function LostPictures({ shape, name }: { readonly shape: ShapeName; readonly name: string }) {
  const own = usePrepared();
  const [open, setOpen] = useState(false);
  const shaped = useMemo(() => prepareShow(seenInShape(own.show, own.facts, shape), own.facts), [own, shape]);
  const all = useMemo(() => lostInShape(own, shaped), [own, shaped]);
  const lost = all.filter(({ corrected }) => !corrected);
  const corrected = all.length - lost.length;
  return (
    <section data-part="lost" data-shape={shape} data-lost={lost.length}>
      <p className="flex items-baseline gap-1.5">
        <span className="font-semibold">
          {lost.length === 0
            ? `Nothing that matters is lost in ${shape}`
            : lost.length === 1
              ? `One picture loses something in ${shape}`
              : `${lost.length} pictures lose something in ${shape}`}
        </span>
        <button type="button" className="text-slate underline-offset-2 hover:underline" onClick={() => setOpen(true)}>
          {all.length === 0 ? 'see it' : 'show me'}
        </button>
        {corrected > 0 && <span className="text-soft">· {corrected} corrected</span>}
      </p>
      {lost.length > 0 && (
        <span className="mt-1.5 flex gap-1.5 overflow-hidden">
          {lost
            .toSorted((one, other) => Number(other.cutsFocus) - Number(one.cutsFocus) || one.seen - other.seen)
            .slice(0, SHOWN)
            .map((entry) => (
              <LostPrint key={entry.layerId} entry={entry} shaped={shaped} widthPx={89} heightPx={56} />
            ))}
        </span>
      )}
      {open && (
        <ShapeDialog shape={shape} name={name} own={own} shaped={shaped} all={all} onClose={() => setOpen(false)} />
      )}
    </section>
  );
}

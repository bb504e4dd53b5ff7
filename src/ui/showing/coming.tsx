'use client';

import type { PreparedShow } from '../../core/frame/plan-frame';
import { wordsOf } from '../../core/show/show';
import type { ShowingState } from '../../core/showing/showing';
import { slideIndexAt } from '../../core/timing/slide-span';
import { clock } from '../kit/clock';
import { MomentStill } from './moment-still';

/** So many are looked forward to. */
const COMING = 3;
const WIDTHS = ['w-[56%]', 'w-[40%]', 'w-[30%]'] as const;

/** What comes next, read downwards as in the running order, the nearest largest, with how long until then. */
export function Coming({ prepared, state }: { prepared: PreparedShow; state: ShowingState }) {
  const { show, spans } = prepared;
  const now = slideIndexAt(spans, state.momentMs) ?? 0;
  const first = state.phase === 'before' ? 0 : now + 1;
  const coming = spans.slice(first, first + COMING);
  // From where somebody has to say so, nobody knows when.
  const waitsFrom = spans.findIndex(
    (span, index) =>
      index >= now && (state.byHand || show.slides[index]!.waits === true) && span.endMs > state.momentMs,
  );
  if (coming.length === 0)
    return <p className="grid min-h-32 place-items-center bg-black/40 text-lamp-soft">The end comes next.</p>;
  return (
    <ol data-part="coming" className="flex min-h-0 flex-col gap-2.5 overflow-hidden">
      {coming.map((span, at) => {
        const slide = show.slides[span.slideIndex]!;
        const asked = waitsFrom >= 0 && span.slideIndex > waitsFrom;
        return (
          <li key={slide.id} className="flex items-start gap-3">
            <div className={`shrink-0 ${WIDTHS[at]}`}>
              <MomentStill
                prepared={prepared}
                index={span.slideIndex}
                label={`${at === 0 ? 'Next' : 'Then'}: slide ${span.slideIndex + 1}`}
              />
            </div>
            <p className="min-w-0">
              <span className="tabular block">
                {asked ? 'when you say so' : `in ${clock(Math.max(0, span.startMs - state.momentMs))}`}
              </span>
              <span className="text-lamp-soft">
                <span className="tabular">{span.slideIndex + 1}</span>
                {slide.waits && ' · waits'}
                {wordsOf(slide)?.title && ` · ${wordsOf(slide)!.title}`}
              </span>
            </p>
          </li>
        );
      })}
    </ol>
  );
}

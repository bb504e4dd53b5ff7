import { clsx } from 'clsx';
import type { Mark } from '../../core/show/mark';

/** The wax pencil's sign over a print: a ring, two rings, a cross. Neighbours get different hands. */
export function PencilMark({ mark, hand, className }: { mark: Mark; hand: number; className?: string }) {
  return (
    // A drawing of its own, already small.
    // eslint-disable-next-line @next/next/no-img-element
    <img
      src={`/marks/${mark}-${(hand % 3) + 1}.svg`}
      alt=""
      aria-hidden="true"
      draggable={false}
      className={clsx('pointer-events-none absolute max-w-none', className)}
    />
  );
}

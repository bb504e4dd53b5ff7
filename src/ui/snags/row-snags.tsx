'use client';

import { clsx } from 'clsx';
import type { SlideId } from '../../core/show/ids';
import type { Snag } from '../../core/snags/snag';
import { openSnags } from './room-store';
import { SnagSign } from './snag-sign';

/** In the margin of the running order: how many snags a slide has; opens the room at the first of them. */
export function RowSnags({ snags, slideId, small }: { snags: readonly Snag[]; slideId: SlideId; small: boolean }) {
  const grave = snags.some((snag) => snag.grave);
  const name = `${snags.length} ${snags.length === 1 ? 'snag' : 'snags'}: ${snags.map(({ sentence }) => sentence).join(' ')}`;
  return (
    <button
      type="button"
      data-part="row-snags"
      aria-label={name}
      title={snags.map(({ sentence }) => sentence).join('\n')}
      onClick={(event) => {
        event.stopPropagation();
        openSnags(slideId);
      }}
      className={clsx(
        'flex items-center gap-1 rounded-md py-0.5 hover:bg-rule/60',
        small ? 'absolute top-2 left-[44px]' : 'mt-1.5 -ml-1 px-1',
        grave ? 'text-red-deep' : 'text-soft',
      )}
    >
      <SnagSign grave={grave} />
      {!small && <span className="tabular text-xs">{snags.length}</span>}
    </button>
  );
}

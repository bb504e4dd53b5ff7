'use client';

import { X } from 'lucide-react';
import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import { marksOfRatings } from '../../core/interchange/xmp';
import { MARK_NAMES, MARKS } from '../../core/show/mark';
import { Button } from '../kit/button';
import { useShow } from '../show/show-provider';

/** Offers to take ratings that pictures carry from elsewhere over as marks; nothing when there are none for pictures without a mark. */
export function RatingsNote() {
  const entries = useShow((state) => state.entries);
  const marks = useShow((state) => state.show.marks);
  const edit = useShow((state) => state.edit);
  /** How many there were when the line was put away. */
  const [away, setAway] = useState(0);
  const fresh = useMemo(() => marksOfRatings(entries).filter(({ assetId }) => !marks?.[assetId]), [entries, marks]);
  if (fresh.length === 0 || fresh.length <= away) return null;
  const counts = MARKS.map((mark) => [mark, fresh.filter((one) => one.mark === mark).length] as const).filter(
    ([, count]) => count > 0,
  );
  return (
    <p
      className="flex shrink-0 items-center gap-3 border-b border-rule bg-card px-4 py-1.5"
      role="status"
      data-part="ratings"
    >
      <span>
        {fresh.length === 1 ? 'One picture was' : `${fresh.length} pictures were`} rated elsewhere:{' '}
        <span className="text-soft">
          {counts.map(([mark, count]) => `${MARK_NAMES[mark]} ${count}`).join(', ')} – five lingers, three and four are
          kept, what was refused is left out
        </span>
      </span>
      <Button
        className="ml-auto h-7"
        onClick={() => {
          edit({ kind: 'set-marks', marks: fresh });
          toast('The ratings are marks now, as one step to undo.');
        }}
        data-part="take-ratings"
      >
        Take them over as marks
      </Button>
      <Button
        look="quiet"
        square
        className="size-7"
        aria-label="Leave the ratings"
        onClick={() => setAway(fresh.length)}
      >
        <X size={14} />
      </Button>
    </p>
  );
}

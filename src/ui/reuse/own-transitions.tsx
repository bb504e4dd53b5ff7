'use client';

import { useEffect, useMemo, useState } from 'react';
import { toast } from 'sonner';
import { filesOfMount } from '../../core/mounts/mount-document';
import type { KeptTransition } from '../../core/mounts/kept-transition';
import type { SlideId } from '../../core/show/ids';
import type { TransitionOverTime } from '../../core/show/transition';
import { Dialog } from '../kit/dialog';
import { MovingSeam } from '../arrange/moving-seam';
import { useShowStore } from '../show/show-provider';
import { lendFiles, transitionsOf, useStudio } from './studio-store';

/** The studio's own transitions, each moving between the two real pictures. */
export function OwnTransitions({
  slideId,
  onChoose,
  onClose,
}: {
  slideId: SlideId;
  onChoose: (transition: TransitionOverTime) => void;
  onClose: () => void;
}) {
  const store = useShowStore();
  const { kept } = useStudio();
  const own = useMemo(() => transitionsOf(kept), [kept]);
  // What they are made of is put onto the show's sheet, so that they can be drawn.
  const [ready, setReady] = useState(false);
  useEffect(() => {
    const files = kept
      .filter(({ removed, document }) => !removed && document.holds)
      .flatMap(({ document }) => filesOfMount(document));
    void lendFiles(store.getState().show.id, files)
      .then((entries) => entries && store.getState().setEntries(entries))
      .catch(() => toast('Their pictures could not be brought here.'))
      .finally(() => setReady(true));
  }, [kept, store]);
  return (
    <Dialog title="Your own transitions" open onClose={onClose} className="w-[760px]">
      {own.length === 0 ? (
        <p className="text-soft">
          None yet. Change a transition as you like it and keep it; or build one as a slide of two pictures with keys
          and masks, and keep that as a transition (Shift A).
        </p>
      ) : (
        <ul className="grid grid-cols-3 gap-4" data-part="own-transitions">
          {own.map((one) => (
            <li key={one.id}>
              {ready && <MovingPoster kept={one} slideId={slideId} onChoose={() => onChoose(one.transition)} />}
            </li>
          ))}
        </ul>
      )}
    </Dialog>
  );
}

function MovingPoster({ kept, slideId, onChoose }: { kept: KeptTransition; slideId: SlideId; onChoose: () => void }) {
  return (
    <button
      type="button"
      onClick={onChoose}
      data-transition={kept.id}
      className="block w-full text-left outline-offset-2"
    >
      <MovingSeam slideId={slideId} transition={kept.transition} />
      <span className="mt-1 block truncate text-base font-medium">{kept.name}</span>
      <span className="block text-xs text-soft">
        {kept.shelf} · {(kept.transition.lengthMs / 1000).toFixed(1)} s
      </span>
    </button>
  );
}

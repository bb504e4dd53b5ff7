'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import { toast } from 'sonner';
import { filesOfMount } from '../../core/mounts/mount-document';
import type { KeptTransition } from '../../core/mounts/kept-transition';
import type { SlideId } from '../../core/show/ids';
import type { TransitionOverTime } from '../../core/show/transition';
import { Dialog } from '../kit/dialog';
import { usePrepared, useShowStore } from '../show/show-provider';
import { makePrint } from '../viewer/print-maker';
import { lendFiles, transitionsOf, useStudio } from './studio-store';

const FRAMES = 9;
const EACH_MS = 160;
const HIGH_PX = 128;

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
  const prepared = usePrepared();
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const { show, facts } = prepared;
    const at = show.slides.findIndex(({ id }) => id === slideId);
    const [before, slide] = [show.slides[at - 1], show.slides[at]];
    if (!before || !slide) return;
    const pair = {
      ...show,
      cues: [],
      slides: [
        { ...before, transition: { kind: 'cut' as const }, sounds: [] },
        { ...slide, transition: kept.transition, sounds: [] },
      ],
    };
    let gone = false;
    let timer: ReturnType<typeof setInterval> | null = null;
    const draw = async () => {
      const frames: ImageBitmap[] = [];
      const lengthMs = Math.min(kept.transition.lengthMs, before.lengthMs / 2, slide.lengthMs / 2);
      for (let frame = 0; frame < FRAMES && !gone; frame += 1) {
        const made = await makePrint({
          show: pair,
          facts,
          momentMs: before.lengthMs + (lengthMs * (frame + 0.5)) / FRAMES,
          widthPx: 16 * Math.max(1, Math.round((HIGH_PX * show.frame.widthPx) / show.frame.heightPx / 16)),
          heightPx: HIGH_PX,
        });
        if (made) frames.push(made);
      }
      const still = matchMedia('(prefers-reduced-motion: reduce)').matches;
      let turn = still ? Math.floor(FRAMES / 2) : 0;
      const show1 = () => {
        const bitmap = frames[turn % frames.length];
        const place = canvas.current;
        if (!bitmap || !place) return;
        if (place.width !== bitmap.width) [place.width, place.height] = [bitmap.width, bitmap.height];
        place.getContext('2d')?.drawImage(bitmap, 0, 0);
        turn += 1;
      };
      if (gone) return;
      show1();
      if (!still) timer = setInterval(show1, EACH_MS);
    };
    void draw();
    return () => {
      gone = true;
      if (timer) clearInterval(timer);
    };
    // Drawn as the show was when the window opened.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [kept, slideId]);
  return (
    <button
      type="button"
      onClick={onChoose}
      data-transition={kept.id}
      className="block w-full text-left outline-offset-2"
    >
      <canvas ref={canvas} aria-hidden="true" className="aspect-video w-full bg-field object-contain" />
      <span className="mt-1 block truncate text-base font-medium">{kept.name}</span>
      <span className="block text-xs text-soft">
        {kept.shelf} · {(kept.transition.lengthMs / 1000).toFixed(1)} s
      </span>
    </button>
  );
}

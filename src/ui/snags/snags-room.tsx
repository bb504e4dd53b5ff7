'use client';

import { Dialog } from 'radix-ui';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { applyEdit } from '../../core/show/edit';
import { showLengthMs } from '../../core/timing/slide-span';
import type { SlideId } from '../../core/show/ids';
import type { Snag, SnagFix } from '../../core/snags/snag';
import { FullWindow } from '../kit/full-window';
import { useShow } from '../show/show-provider';
import type { ViewerHands } from '../viewer/use-viewer';
import { Viewer } from '../viewer/viewer';
import { SnagFixes } from './snag-fixes';
import { SnagList } from './snag-list';
import { useMeasured, useSnags } from './snags-provider';

/** The room where a show is looked over: what is found at the left, the moment and the ways out at the right. */
export function SnagsRoom({ at, onClose }: { at: SlideId | null; onClose: () => void }) {
  const show = useShow((state) => state.show);
  const endMs = showLengthMs(show);
  const { open, left, isLooking } = useSnags();
  const measured = useMeasured();
  const [key, setKey] = useState<string | null>(null);
  const [trial, setTrial] = useState<SnagFix | null>(null);
  const viewer = useRef<ViewerHands>(null);
  // The window is laid over the page a moment after this is drawn.
  const [ready, setReady] = useState(false);
  const hold = useCallback((hands: ViewerHands | null) => {
    viewer.current = hands;
    if (hands) setReady(true);
  }, []);
  const chosen =
    [...open, ...left].find((snag) => snag.key === key) ??
    (key === null ? (open.find((snag) => at !== null && snag.slideId === at) ?? open[0]) : open[0]) ??
    null;
  const tried = useMemo(() => {
    const result = trial && applyEdit(show, trial.edit);
    return result?.ok ? result.show : null;
  }, [trial, show]);
  // What plays belongs to the snag that is looked at; a fix taken changes the show, and with it what is looked at.
  const chosenKey = chosen?.key ?? null;
  const stretch = useRef<Snag | null>(chosen);
  useEffect(() => {
    stretch.current = chosen;
  });
  useEffect(() => {
    const now = stretch.current;
    if (ready && now && chosenKey !== null) viewer.current?.play(now.fromMs, Math.max(now.fromMs + 400, now.toMs));
  }, [chosenKey, trial, ready]);
  const { atMs, toMs } = chosen ?? {};
  const rest = useMemo(
    () => (atMs === undefined || toMs === undefined ? undefined : { afterMs: Math.min(toMs, endMs), atMs }),
    [atMs, toMs, endMs],
  );
  const choose = (snag: Snag) => {
    setTrial(null);
    if (snag.key === chosenKey) viewer.current?.play(snag.fromMs, snag.toMs);
    setKey(snag.key);
  };
  const grave = open.filter((snag) => snag.grave).length;

  return (
    <FullWindow
      part="snags-room"
      closeName="Back to work"
      onClose={onClose}
      className="grid grid-cols-[minmax(420px,46%)_minmax(0,1fr)] bg-paper"
    >
      <section aria-label="What was found" className="flex min-h-0 flex-col border-r border-rule">
        <header className="flex h-14 shrink-0 items-center gap-4 border-b border-rule bg-card px-5">
          <Dialog.Title className="font-display text-lg font-semibold">Looked over</Dialog.Title>
          <p role="status" data-part="snags-said" className="text-soft">
            {open.length === 0 ? 'nothing that would embarrass' : said(open.length, grave)}
            {isLooking && measured && (
              <span className="tabular">
                {' '}
                · {measured.done} of {measured.of} slides measured
              </span>
            )}
          </p>
        </header>
        <SnagList open={open} left={left} chosen={chosen} onChoose={choose} />
      </section>
      <section aria-label="The moment, and what can be done" className="flex min-h-0 flex-col">
        <div className="relative h-[62%] shrink-0">
          <Viewer ref={hold} show={tried ?? show} rest={rest} />
          <p
            data-part="seen-as"
            className="absolute top-4 left-4 rounded-md bg-black/75 px-2.5 py-1 font-medium text-lamp"
          >
            {tried ? 'as it would be' : 'as it is'}
          </p>
        </div>
        {chosen && (
          <SnagFixes
            key={chosen.key}
            snag={chosen}
            isLeft={left.includes(chosen)}
            open={open}
            trial={trial}
            onTry={setTrial}
            onClose={onClose}
          />
        )}
        {!chosen && (
          <p className="grid flex-1 place-items-center p-8 text-center text-base text-soft">
            {isLooking
              ? 'Slides are still being drawn and looked at.'
              : 'Nothing is soft, cut, too short or too quiet. The evening can come.'}
          </p>
        )}
      </section>
    </FullWindow>
  );
}

function said(count: number, grave: number): string {
  const all = `${count} ${count === 1 ? 'snag' : 'snags'}`;
  return grave === 0 ? `${all}, none grave` : `${all}, ${grave} grave`;
}

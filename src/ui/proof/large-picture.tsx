'use client';

import { ChevronLeft, ChevronRight, X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { useRef } from 'react';
import { LONGEST_PROOF_NOTE } from '../../core/proof/proof';
import { MARKS, MARK_NAMES, type Mark } from '../../core/show/mark';
import type { ShownProof } from '../../server/proofs/shown-proof';
import type { MarkSaid } from './client-marks';
import { proofPictureUrl } from './proof-picture-url';

interface LargePictureProps {
  readonly token: string;
  readonly pictures: ShownProof['pictures'];
  readonly longestPx: number;
  readonly at: string;
  readonly said: ReadonlyMap<string, MarkSaid>;
  readonly locked: boolean;
  readonly onSay: (id: string, change: Partial<MarkSaid>) => void;
  readonly onGo: (id: string) => void;
  readonly onClose: () => void;
}

const SWIPE_PX = 48;
const KEYS: Readonly<Record<string, Mark | null>> = { k: 'keep', l: 'linger', o: 'leave-out', u: null };
const STEP = 'grid size-11 shrink-0 place-items-center rounded-full hover:bg-white/10 disabled:opacity-30';

/** One picture over the page: by swipe, arrow and letter from one to the next, with its marks and a note. */
export function LargePicture({
  token,
  pictures,
  longestPx,
  at,
  said,
  locked,
  onSay,
  onGo,
  onClose,
}: LargePictureProps) {
  const index = pictures.findIndex(({ id }) => id === at);
  const { mark, note } = said.get(at) ?? { mark: null, note: '' };
  const from = useRef<number | null>(null);
  const noteField = useRef<HTMLTextAreaElement>(null);
  /** What is being written belongs to the picture it was begun at. */
  const keepNote = () => {
    const words = noteField.current?.value.trim() ?? note;
    if (words !== note && !locked) onSay(at, { note: words });
  };
  const go = (by: number) => {
    const next = pictures[index + by];
    if (!next) return;
    keepNote();
    onGo(next.id);
  };
  const after = pictures[index + 1];
  return (
    <Dialog.Root
      open
      onOpenChange={(open) => {
        if (open) return;
        keepNote();
        onClose();
      }}
    >
      <Dialog.Portal>
        <Dialog.Content
          aria-describedby={undefined}
          data-part="large-picture"
          className="fixed inset-0 z-50 flex flex-col bg-black text-white outline-none"
          onKeyDown={(event) => {
            const typing = (event.target as HTMLElement).tagName === 'TEXTAREA';
            if (typing || event.ctrlKey || event.metaKey || event.altKey) return;
            if (event.key === 'ArrowLeft') go(-1);
            else if (event.key === 'ArrowRight') go(1);
            else if (!locked && event.key in KEYS) onSay(at, { mark: KEYS[event.key] ?? null });
          }}
        >
          <div className="flex items-center justify-between px-2 pt-1">
            <Dialog.Title className="pl-2 text-sm font-normal">
              {index + 1} of {pictures.length}
            </Dialog.Title>
            <Dialog.Close aria-label="Close" className={STEP}>
              <X size={20} />
            </Dialog.Close>
          </div>
          <div
            className="relative min-h-0 flex-1 touch-pan-y select-none"
            onPointerDown={(event) => {
              from.current = event.clientX;
            }}
            onPointerUp={(event) => {
              const moved = event.clientX - (from.current ?? event.clientX);
              from.current = null;
              if (Math.abs(moved) > SWIPE_PX) go(moved < 0 ? 1 : -1);
            }}
          >
            {/* Sized by the server. */}
            {/* eslint-disable-next-line @next/next/no-img-element */}
            <img
              key={at}
              src={proofPictureUrl(token, at, longestPx)}
              alt={`Picture ${index + 1}`}
              draggable={false}
              className="absolute inset-0 h-full w-full object-contain"
            />
            {/* The next one is there before it is asked for. */}
            {after && <link rel="prefetch" as="image" href={proofPictureUrl(token, after.id, longestPx)} />}
          </div>
          <div className="flex flex-col gap-2 px-2 py-3 sm:mx-auto sm:w-full sm:max-w-2xl">
            <div className="flex items-center gap-1.5">
              <button
                type="button"
                aria-label="Picture before"
                className={STEP}
                disabled={index <= 0}
                onClick={() => go(-1)}
              >
                <ChevronLeft size={22} />
              </button>
              {MARKS.map((one) => (
                <button
                  key={one}
                  type="button"
                  disabled={locked}
                  aria-pressed={mark === one}
                  onClick={() => onSay(at, { mark: mark === one ? null : one })}
                  className="h-11 flex-1 rounded-md border border-white/40 text-sm disabled:opacity-60 aria-pressed:border-white aria-pressed:bg-white aria-pressed:text-black"
                >
                  {MARK_NAMES[one]}
                </button>
              ))}
              <button type="button" aria-label="Next picture" className={STEP} disabled={!after} onClick={() => go(1)}>
                <ChevronRight size={22} />
              </button>
            </div>
            <textarea
              key={at}
              ref={noteField}
              aria-label="A note on this picture"
              placeholder={locked ? 'no note' : 'a note on this picture'}
              defaultValue={note}
              disabled={locked}
              maxLength={LONGEST_PROOF_NOTE}
              rows={1}
              onBlur={keepNote}
              className="field-sizing-content max-h-24 min-h-11 resize-none rounded-md border border-white/40 bg-transparent px-3 py-2.5 text-base placeholder:text-white/70"
            />
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

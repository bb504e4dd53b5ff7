'use client';

import { clsx } from 'clsx';
import { useEffect, useRef } from 'react';
import { useStore } from 'zustand';
import type { Booth } from './booth-store';

/** The script while it is read: the sentence that is being said stands out, and the page moves with it. */
export function PrompterPage({ booth }: { readonly booth: Booth }) {
  const recording = useStore(booth, (state) => state.recording);
  const sentence = useStore(booth, (state) => state.sentence);
  const phase = useStore(booth, (state) => state.phase);
  const countdown = useStore(booth, (state) => state.countdown);
  const now = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    const calm = window.matchMedia('(prefers-reduced-motion: reduce)').matches;
    now.current?.scrollIntoView({ block: 'center', behavior: calm ? 'auto' : 'smooth' });
  }, [sentence]);
  if (!recording) return null;
  // What is said on one slide stands together.
  const parts = recording.firstOf
    .map((first, index) => ({ first, texts: recording.sentences.slice(first, recording.firstOf[index + 1]) }))
    .filter(({ texts }) => texts.length > 0);
  const waits =
    phase === 'room' ? 'Quiet, please: the room is listened to …' : phase === 'countdown' ? countdown : null;
  return (
    <div data-part="prompter" className="relative min-h-24 flex-1 overflow-y-auto rounded-lg bg-field p-4 scroll-thin">
      {waits !== null && (
        <p
          role="status"
          className={clsx(
            'absolute inset-0 z-10 grid place-items-center bg-field/90 font-display',
            phase === 'countdown' ? 'text-[72px] leading-none text-red-deep' : 'text-base',
          )}
        >
          {waits}
        </p>
      )}
      {recording.sentences.length === 0 ? (
        <p className="text-base text-soft">There is no script here: say what comes to mind.</p>
      ) : (
        parts.map(({ first, texts }, part) => (
          <p key={part} className="mb-3 font-display text-[22px] leading-8">
            {texts.map((text, at) => (
              <Sentence
                key={at}
                text={text}
                place={Math.sign(first + at - sentence)}
                here={first + at === sentence ? now : undefined}
                onGo={() => booth.hands.goTo(first + at)}
              />
            ))}
          </p>
        ))
      )}
    </div>
  );
}

interface SentenceProps {
  readonly text: string;
  /** -1: it was said; 0: it is being said; 1: it comes. */
  readonly place: number;
  readonly here: React.Ref<HTMLButtonElement> | undefined;
  readonly onGo: () => void;
}

function Sentence({ text, place, here, onGo }: SentenceProps) {
  return (
    <button
      ref={here}
      type="button"
      aria-current={place === 0 || undefined}
      title="Go on from here"
      onClick={onGo}
      className={clsx(
        'mr-1.5 inline text-left',
        place === 0
          ? 'text-ink underline decoration-moss decoration-2 underline-offset-4'
          : place < 0
            ? 'text-soft/70'
            : 'text-soft',
      )}
    >
      {text}
    </button>
  );
}

'use client';

import { clsx } from 'clsx';
import { useMemo, useState } from 'react';
import { useStore } from 'zustand';
import { proofTally, tallySentence, type ProofTally } from '../../core/proof/proof';
import { MARKS, MARK_NAMES, type Mark } from '../../core/show/mark';
import type { ShownProof } from '../../server/proofs/shown-proof';
import { PencilMark } from '../gather/pencil-mark';
import { momentOf } from '../people/day-of';
import { callServer } from '../show/call-server';
import { createClientMarks } from './client-marks';
import { LargePicture } from './large-picture';
import { proofPictureUrl } from './proof-picture-url';
import { SendChoice } from './send-choice';

type Shown = 'all' | 'unmarked' | Mark;

const SHOWN: readonly (readonly [Shown, string])[] = [
  ['all', 'all'],
  ['unmarked', 'not marked'],
  ...MARKS.map((mark) => [mark, MARK_NAMES[mark]] as const),
];
const CHOICE = 'aria-pressed:border-(--accent) aria-pressed:bg-(--accent) aria-pressed:text-(--on-accent)';

/** A client’s pictures, to be marked: keep, linger, leave out, a note each; on a phone as on a table. */
export function ProofPage({ proof }: { proof: ShownProof }) {
  const { token, pictures } = proof;
  const [marks] = useState(() =>
    createClientMarks(proof.marks, (id, said) => callServer('PATCH', `/api/v1/proofs/${token}/marks/${id}`, said)),
  );
  const { said, state, refusal } = useStore(marks);
  const [shown, setShown] = useState<Shown>('all');
  const [large, setLarge] = useState<string | null>(null);
  const [sentAt, setSentAt] = useState(proof.sentAt);
  const locked = sentAt !== null || refusal !== null;
  const tally = useMemo(() => proofTally([...said.values()], pictures.length), [said, pictures.length]);
  const numbers = useMemo(() => new Map(pictures.map(({ id }, index) => [id, index + 1])), [pictures]);
  const through = pictures.filter(({ id }) => {
    const mark = said.get(id)?.mark ?? null;
    return shown === 'all' || (shown === 'unmarked' ? mark === null : mark === shown);
  });
  const saving = { kept: 'saved', sending: 'saving …', unsent: 'not connected; trying again' }[state];
  return (
    <div className="flex flex-1 flex-col" data-part="proof" data-saving={state}>
      <div className="px-4 pt-6 sm:px-8">
        <h1 className="font-(family-name:--titles) text-xl">{proof.label}</h1>
        <p className="mt-1 max-w-2xl text-base text-(--soft)">
          {sentAt !== null
            ? `Your choice was sent on ${momentOf(sentAt)}. Thank you.`
            : `${pictures.length} pictures. Mark those to keep, those the film may linger on, and those to leave out; what you do not mark is left to us.`}
          {sentAt === null && proof.endsAt !== null && ` Open until ${momentOf(proof.endsAt)}.`}
        </p>
      </div>
      <div
        role="group"
        aria-label="Which pictures"
        className="sticky top-0 z-10 flex gap-1.5 overflow-x-auto bg-(--ground) px-4 py-3 sm:px-8"
      >
        {SHOWN.map(([value, name]) => (
          <button
            key={value}
            type="button"
            aria-pressed={shown === value}
            onClick={() => setShown(value)}
            className={clsx(
              'h-9 shrink-0 rounded-full border border-(--rule) px-3.5 text-sm whitespace-nowrap',
              CHOICE,
            )}
          >
            {name} {countOf(value, tally, pictures.length)}
          </button>
        ))}
      </div>
      <ul className="grid grid-cols-2 gap-3 px-4 pb-6 sm:grid-cols-[repeat(auto-fill,minmax(220px,1fr))] sm:gap-5 sm:px-8">
        {through.map(({ id }) => {
          const { mark, note } = said.get(id) ?? { mark: null, note: '' };
          const number = numbers.get(id)!;
          return (
            <li
              key={id}
              data-part="proof-picture"
              data-mark={mark ?? undefined}
              className="[contain-intrinsic-size:auto_220px] [content-visibility:auto]"
            >
              <button
                type="button"
                aria-label={`Picture ${number}${mark ? `, ${MARK_NAMES[mark]}` : ''}${note ? `: ${note}` : ''}`}
                onClick={() => setLarge(id)}
                className="relative block aspect-[4/3] w-full overflow-hidden bg-black/25"
              >
                {/* Sized by the server. */}
                {/* eslint-disable-next-line @next/next/no-img-element */}
                <img
                  src={proofPictureUrl(token, id, 480)}
                  alt=""
                  loading="lazy"
                  decoding="async"
                  className={clsx('h-full w-full object-contain', mark === 'leave-out' && 'opacity-45')}
                />
                {mark && <PencilMark mark={mark} hand={number} className="inset-0 m-auto h-4/5" />}
                {note && (
                  <span className="absolute inset-x-0 bottom-0 truncate bg-black/75 px-2 py-1 text-left text-sm text-white">
                    {note}
                  </span>
                )}
              </button>
              <div className="mt-1.5 flex gap-1" role="group" aria-label={`Mark picture ${number}`}>
                {MARKS.map((one) => (
                  <button
                    key={one}
                    type="button"
                    disabled={locked}
                    aria-pressed={mark === one}
                    onClick={() => marks.getState().say(id, { mark: mark === one ? null : one })}
                    className={clsx(
                      'h-11 flex-1 rounded-md border border-(--rule) px-0.5 text-sm leading-tight disabled:opacity-60 sm:h-9',
                      CHOICE,
                    )}
                  >
                    {MARK_NAMES[one]}
                  </button>
                ))}
              </div>
            </li>
          );
        })}
      </ul>
      {through.length === 0 && <p className="px-4 py-10 text-center text-base text-(--soft)">None of them.</p>}
      <div className="sticky bottom-0 z-10 mt-auto flex flex-wrap items-center gap-x-5 gap-y-2 border-t border-(--rule) bg-(--ground) px-4 py-3 sm:px-8">
        <p className="text-sm" data-part="proof-tally">
          {tallySentence(tally)}
        </p>
        <p role="status" className="text-sm text-(--soft)" data-part="proof-saving">
          {refusal ?? (locked ? '' : saving)}
        </p>
        {!locked && (
          <SendChoice
            tally={tally}
            send={async (name) => {
              if (!(await marks.getState().settled()))
                throw new Error('Not all of it has reached the studio yet. Try again in a moment.');
              await callServer('POST', `/api/v1/proofs/${token}/choice`, { name });
              setSentAt(Date.now());
            }}
          />
        )}
      </div>
      {large !== null && (
        <LargePicture
          token={token}
          // What is marked meanwhile stays beside what was beside it.
          pictures={pictures}
          longestPx={proof.longestPx}
          at={large}
          said={said}
          locked={locked}
          onSay={(id, change) => marks.getState().say(id, change)}
          onGo={setLarge}
          onClose={() => setLarge(null)}
        />
      )}
    </div>
  );
}

function countOf(shown: Shown, { keep, linger, leaveOut, unmarked }: ProofTally, all: number): number {
  return { all, unmarked, keep, linger, 'leave-out': leaveOut }[shown];
}

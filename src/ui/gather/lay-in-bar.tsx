'use client';

import { nanoid } from 'nanoid';
import { useRouter } from 'next/navigation';
import { useState, type ReactNode } from 'react';
import { toast } from 'sonner';
import { slideFromAsset } from '../../core/show/new-slide';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { useCommands } from '../commands/use-commands';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { clock } from '../kit/clock';
import { useShow } from '../show/show-provider';
import { usePictureUrl } from '../show/file-url';

interface LayInBarProps {
  readonly entries: readonly SheetEntry[];
  readonly why: 'chosen' | 'kept' | 'unused';
  /** How many prints are in no order and neither kept nor left out. */
  readonly leftOver: number;
  /** Stands before the way into the order. */
  readonly children?: ReactNode;
}

const WHY = { chosen: 'chosen', kept: 'kept, not in the order yet', unused: 'not in the order yet' } as const;

/** What would go into the order, how long it would be, where it goes, and the button that does it. */
export function LayInBar({ entries, why, leftOver, children }: LayInBarProps) {
  const pictureUrl = usePictureUrl();
  const show = useShow((state) => state.show);
  const caret = useShow((state) => state.anchor);
  const edit = useShow((state) => state.edit);
  const select = useShow((state) => state.select);
  const router = useRouter();
  const [atCaret, setAtCaret] = useState(true);
  const caretNumber = show.slides.findIndex((slide) => slide.id === caret) + 1;
  const beforeEnd = caretNumber > 0 && caretNumber < show.slides.length;
  const clipsMs = entries.reduce(
    (sum, entry) => sum + (entry.facts?.kind === 'clip' ? entry.facts.lengthMs - show.defaultLengthMs : 0),
    0,
  );
  const layIn = () => {
    const slides = entries.map((entry) =>
      slideFromAsset(entry.assetId, entry.facts!, show.defaultLengthMs, () => nanoid(10)),
    );
    const afterId = beforeEnd && atCaret ? caret : (show.slides.at(-1)?.id ?? null);
    edit({ kind: 'add-slides', runs: [{ afterId, slides }] });
    // The next ones go after these.
    if (beforeEnd && atCaret) select([slides.at(-1)!.id], slides.at(-1)!.id);
    toast(`${slides.length === 1 ? 'One picture was' : `${slides.length} pictures were`} laid into the order.`, {
      action: {
        label: 'See it',
        onClick: () => {
          select([slides[0]!.id], slides[0]!.id);
          router.push(`/shows/${show.id}/arrange`);
        },
      },
    });
  };
  useCommands({ 'lay-in': entries.length > 0 ? layIn : undefined });
  return (
    <div className="flex h-[76px] shrink-0 items-center gap-5 border-t border-rule bg-card px-4">
      <div className="shrink-0">
        <p className="text-base">
          {entries.length === 0 ? (
            'All that is kept is in the order'
          ) : (
            <>
              <b className="tabular">{entries.length}</b> {WHY[why]}
            </>
          )}
        </p>
        <p className="text-soft">
          {entries.length === 0 ? (
            leftOver === 0 ? (
              'choose prints to lay them in again'
            ) : leftOver === 1 ? (
              'one unmarked print is not: keep it or choose it to lay it in'
            ) : (
              `${leftOver} unmarked prints are not: keep or choose those to lay in`
            )
          ) : (
            <>
              about <span className="tabular">{clock(entries.length * show.defaultLengthMs + clipsMs)}</span> at{' '}
              <span className="tabular">{(show.defaultLengthMs / 1000).toFixed(1)}</span> s a picture
            </>
          )}
        </p>
      </div>
      <ul className="flex min-w-0 flex-1 gap-1.5 overflow-hidden" aria-hidden="true">
        {entries.slice(0, 12).map((entry) => (
          <li key={entry.id} className="h-11 w-16 shrink-0 bg-print p-[3px] shadow-print">
            {/* eslint-disable-next-line @next/next/no-img-element */}
            <img src={pictureUrl(entry.assetId, 320)} alt="" className="h-full w-full object-cover" />
          </li>
        ))}
      </ul>
      {beforeEnd && (
        <Choice
          label="Where they go"
          value={atCaret ? 'caret' : 'end'}
          onChange={(where) => setAtCaret(where === 'caret')}
          options={[
            { value: 'caret', label: `after slide ${caretNumber}` },
            { value: 'end', label: 'at the end' },
          ]}
        />
      )}
      {children}
      <Button
        look="main"
        className="h-10 px-5 text-base"
        disabled={entries.length === 0}
        onClick={layIn}
        data-part="lay-in"
      >
        Lay into the order
      </Button>
    </div>
  );
}

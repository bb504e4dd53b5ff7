'use client';

import { nanoid } from 'nanoid';
import { useMemo, useState } from 'react';
import { layText, partsOfText, type TextAs, type TextParts } from '../../core/words/pasted-text';
import type { SlideId } from '../../core/show/ids';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { Dialog } from '../kit/dialog';
import { useShow } from '../show/show-provider';

const PARTS: readonly { readonly value: TextParts; readonly label: string }[] = [
  { value: 'paragraphs', label: 'a paragraph a slide' },
  { value: 'lines', label: 'a line a slide' },
  { value: 'whole', label: 'all on one slide' },
];
const AS: readonly { readonly value: TextAs; readonly label: string }[] = [
  { value: 'first-line', label: 'first line large, the rest small' },
  { value: 'title', label: 'large' },
  { value: 'subtitle', label: 'small' },
];
const MOST_SHOWN = 60;

interface PasteDialogProps {
  /** The slides it goes to, in the order of the show. */
  readonly slideIds: readonly SlideId[];
  readonly onClose: () => void;
}

/** A text from elsewhere laid on slides, with its line breaks: what goes where is seen before it is done. */
export function PasteDialog({ slideIds, onClose }: PasteDialogProps) {
  const show = useShow((state) => state.show);
  const edit = useShow((state) => state.edit);
  const [text, setText] = useState('');
  const [parts, setParts] = useState<TextParts>('paragraphs');
  const [as, setAs] = useState<TextAs>('first-line');
  const pieces = useMemo(() => partsOfText(text, parts), [text, parts]);
  const laid = useMemo(
    () => layText(show, slideIds, { text, parts, as }, () => nanoid(10)),
    [show, slideIds, text, parts, as],
  );
  const first = show.slides.findIndex(({ id }) => id === slideIds[0]);
  const numbers = show.slides.flatMap(({ id }, index) => (slideIds.includes(id) ? [index + 1] : []));
  return (
    <Dialog title="A text on the slides" open onClose={onClose} className="w-[720px]">
      <div className="flex flex-col gap-3" data-part="paste-dialog">
        <label className="flex flex-col gap-1">
          Paste it here; its line breaks stay
          <textarea
            rows={9}
            autoFocus
            value={text}
            onChange={(event) => setText(event.target.value)}
            className="resize-y rounded-md border border-rule bg-field px-2 py-1 text-base scroll-thin"
          />
        </label>
        <div className="flex flex-wrap items-center gap-3">
          <Choice label="How it is dealt out" value={parts} options={PARTS} onChange={setParts} />
          <Choice label="How it is written" value={as} options={AS} onChange={setAs} />
        </div>
        {pieces.length > 0 && (
          <ol
            className="max-h-44 overflow-y-auto rounded-md border border-rule scroll-thin"
            aria-label="What goes where"
          >
            {pieces.slice(0, MOST_SHOWN).map((piece, index) => (
              <li key={index} className="flex gap-3 border-b border-rule/60 px-3 py-1 last:border-0">
                <span className="tabular w-16 shrink-0 text-soft">
                  {numbers[index] === undefined ? 'new slide' : `slide ${numbers[index]}`}
                </span>
                <span className="min-w-0 truncate">{piece.replaceAll('\n', ' / ')}</span>
              </li>
            ))}
            {pieces.length > MOST_SHOWN && (
              <li className="px-3 py-1 text-soft">and {pieces.length - MOST_SHOWN} more</li>
            )}
          </ol>
        )}
        <div className="flex items-center justify-end gap-3">
          <p className="flex-1 text-soft" role="status" data-part="paste-says">
            {typeof laid === 'string' ? (text === '' ? `It begins on slide ${first + 1}.` : laid) : saysOf(laid)}
          </p>
          <Button onClick={onClose}>Not now</Button>
          <Button
            look="main"
            disabled={typeof laid === 'string'}
            data-part="lay-text"
            onClick={() => {
              if (typeof laid === 'string') return;
              if (edit(laid.edit)) onClose();
            }}
          >
            {typeof laid === 'string' || laid.slides === 1 ? 'Lay it on the slide' : `Lay it on ${laid.slides} slides`}
          </Button>
        </div>
      </div>
    </Dialog>
  );
}

function saysOf({ replaced, added }: { readonly replaced: number; readonly added: number }): string {
  return [
    ...(replaced > 0
      ? [`${counted(replaced, 'slide has', 'slides have')} words already: the new ones take their place.`]
      : []),
    ...(added > 0 ? [`${counted(added, 'blank slide is', 'blank slides are')} added for what is left.`] : []),
  ].join(' ');
}

function counted(count: number, one: string, several: string): string {
  return `${count === 1 ? 'One' : count} ${count === 1 ? one : several}`;
}

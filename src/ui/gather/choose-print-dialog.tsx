'use client';

import { useMemo, useState, type ReactNode } from 'react';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { Dialog } from '../kit/dialog';
import { useShow } from '../show/show-provider';
import { prints } from './sheet-view';
import { usePictureUrl } from '../show/file-url';

interface ChoosePrintDialogProps {
  readonly title: string;
  readonly kind: 'picture' | 'clip';
  /** A file that cannot be chosen. */
  readonly without?: string;
  /** Name of each button for scripts. */
  readonly part: string;
  readonly children?: ReactNode;
  readonly onChoose: (entry: SheetEntry) => void;
  readonly onClose: () => void;
}

const MOST_SHOWN = 200;

/** One print of the contact sheet is chosen, the latest first, found by a part of its name. */
export function ChoosePrintDialog({ title, kind, without, part, children, onChoose, onClose }: ChoosePrintDialogProps) {
  const pictureUrl = usePictureUrl();
  const entries = useShow((state) => state.entries);
  const [name, setName] = useState('');
  const others = useMemo(() => {
    const arrived = prints(entries, 'arrived').filter((other) => other.facts!.kind === kind && other.id !== without);
    return name === '' ? arrived : arrived.filter((other) => other.fileName.toLowerCase().includes(name.toLowerCase()));
  }, [entries, kind, without, name]);
  return (
    <Dialog title={title} open onClose={onClose} className="w-[720px]">
      {children}
      <input
        aria-label="Part of the file’s name"
        placeholder="part of its name"
        value={name}
        onChange={(event) => setName(event.target.value)}
        className="mt-3 h-8 w-60 rounded-md border border-rule bg-field px-2.5"
      />
      <ul
        className="mt-3 grid max-h-[52vh] grid-cols-4 gap-3 overflow-y-auto p-1 scroll-thin"
        aria-label="Prints to choose from"
      >
        {others.slice(0, MOST_SHOWN).map((other) => (
          <li key={other.id}>
            <button
              type="button"
              data-part={part}
              onClick={() => {
                onChoose(other);
                onClose();
              }}
              className="block w-full text-left"
            >
              <span className="grid h-24 place-items-center bg-field p-1 shadow-print">
                {/* eslint-disable-next-line @next/next/no-img-element */}
                <img src={pictureUrl(other.assetId, 320)} alt="" loading="lazy" className="max-h-[88px] max-w-full" />
              </span>
              <span className="mt-1 block truncate text-xs">{other.fileName}</span>
            </button>
          </li>
        ))}
        {others.length === 0 && (
          <li className="col-span-4 py-6 text-center text-soft">
            There is no other {kind} {name === '' ? 'on the sheet' : 'of that name'}.
          </li>
        )}
      </ul>
    </Dialog>
  );
}

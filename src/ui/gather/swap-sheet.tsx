'use client';

import { useMemo, useState } from 'react';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { Sheet } from '../kit/sheet';
import { useShow } from '../show/show-provider';
import { prints } from './sheet-view';

interface SwapSheetProps {
  readonly entry: SheetEntry;
  readonly onClose: () => void;
}

/** Choosing the file that takes another's place wherever that is used. */
export function SwapSheet({ entry, onClose }: SwapSheetProps) {
  const entries = useShow((state) => state.entries);
  const edit = useShow((state) => state.edit);
  const [part, setPart] = useState('');
  const others = useMemo(() => {
    const arrived = prints(entries, 'arrived').filter((other) => other.facts!.kind === entry.facts!.kind && other.id !== entry.id);
    return part === '' ? arrived : arrived.filter((other) => other.fileName.toLowerCase().includes(part.toLowerCase()));
  }, [entries, entry, part]);
  return (
    <Sheet title={`Swap ${entry.fileName}`} open onClose={onClose} className="w-[720px]">
      <p className="text-soft">The file you choose stands wherever this one is used; crop, move, light and edge stay. A file that is not here yet: bring it in first, it is then the first in this list.</p>
      <input aria-label="Part of the file’s name" placeholder="part of its name" value={part} onChange={(event) => setPart(event.target.value)} className="mt-3 h-8 w-60 rounded-md border border-rule bg-white px-2.5" />
      <ul className="mt-3 grid max-h-[52vh] grid-cols-4 gap-3 overflow-y-auto p-1 scroll-thin" aria-label="Files to put in its place">
        {others.slice(0, 200).map((other) => (
          <li key={other.id}>
            <button type="button" data-part="swap-with" onClick={() => { edit({ kind: 'swap-file', from: entry.assetId, to: other.assetId }); onClose(); }} className="block w-full text-left">
              {/* eslint-disable-next-line @next/next/no-img-element */}
              <span className="grid h-24 place-items-center bg-white p-1 shadow-print"><img src={`/api/pictures/${other.assetId}?width=320`} alt="" loading="lazy" className="max-h-[88px] max-w-full" /></span>
              <span className="mt-1 block truncate text-xs">{other.fileName}</span>
            </button>
          </li>
        ))}
        {others.length === 0 && <li className="col-span-4 py-6 text-center text-soft">There is no other {entry.facts!.kind} {part === '' ? 'on the sheet' : 'of that name'}.</li>}
      </ul>
    </Sheet>
  );
}

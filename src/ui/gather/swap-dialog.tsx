'use client';

import type { SheetEntry } from '../../server/assets/contact-sheet';
import { useShow } from '../show/show-provider';
import { ChoosePrintDialog } from './choose-print-dialog';

/** Choosing the file that takes another's place wherever that is used. */
export function SwapDialog({ entry, onClose }: { entry: SheetEntry; onClose: () => void }) {
  const edit = useShow((state) => state.edit);
  const kind = entry.facts!.kind;
  if (kind === 'sound') return null;
  return (
    <ChoosePrintDialog
      title={`Swap ${entry.fileName}`}
      kind={kind}
      without={entry.id}
      part="swap-with"
      onChoose={(other) => edit({ kind: 'swap-file', from: entry.assetId, to: other.assetId })}
      onClose={onClose}
    >
      <p className="text-soft">
        The file you choose stands wherever this one is used; crop, move, light and edge stay. A file that is not here
        yet: bring it in first, it is then the first in this list.
      </p>
    </ChoosePrintDialog>
  );
}

'use client';

import { Trash2 } from 'lucide-react';
import { AlertDialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import type { Unused } from '../../server/shows/clearing';
import { Button } from '../kit/button';
import { megabytes } from '../kit/clock';
import { callServer } from '../show/call-server';

interface ClearAwayProps {
  /** Changes when something was taken off the shelf or brought back. */
  readonly count: number;
  readonly onClear: (said: (unused: Unused) => string, work: () => Promise<Unused>) => void;
}

/** Frees the room of shows that were taken off the shelf. It is the one thing that cannot be undone, so it is asked. */
export function ClearAway({ count, onClear }: ClearAwayProps) {
  const [unused, setUnused] = useState<Unused | null>(null);
  useEffect(() => {
    let gone = false;
    callServer<Unused>('GET', '/api/v1/unused')
      .then((found) => {
        if (!gone) setUnused(found);
      })
      .catch(() => {});
    return () => {
      gone = true;
    };
  }, [count]);
  if (!unused || unused.showCount === 0) return null;
  const room = megabytes(unused.byteCount);
  return (
    <div className="mb-8 flex flex-wrap items-center gap-3 text-base text-soft" data-part="clear-away">
      <p>
        These can be brought back as they were. They, their films and the files that no other show uses take{' '}
        <b className="tabular text-ink">{room}</b>.
      </p>
      <AlertDialog.Root>
        <AlertDialog.Trigger asChild>
          <Button>
            <Trash2 size={14} /> Clear them away for good
          </Button>
        </AlertDialog.Trigger>
        <AlertDialog.Portal>
          <AlertDialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
          <AlertDialog.Content className="fixed top-1/2 left-1/2 z-50 w-[440px] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 rounded-xl bg-card p-6 shadow-raised">
            <AlertDialog.Title className="text-lg">Clear away for good?</AlertDialog.Title>
            <AlertDialog.Description className="mt-2 text-base text-soft">
              {counted(unused.showCount, 'show')}, {counted(unused.filmCount, 'film')} and{' '}
              {counted(unused.fileCount, 'file')} go, and links to those films end. This cannot be undone.
            </AlertDialog.Description>
            <div className="mt-5 flex justify-end gap-2">
              <AlertDialog.Cancel asChild>
                <Button>Keep them</Button>
              </AlertDialog.Cancel>
              <AlertDialog.Action asChild>
                <Button
                  look="main"
                  onClick={() =>
                    onClear(
                      (gone) => `${megabytes(gone.byteCount)} are free again.`,
                      () => callServer<Unused>('DELETE', '/api/v1/unused'),
                    )
                  }
                >
                  Clear away {room}
                </Button>
              </AlertDialog.Action>
            </div>
          </AlertDialog.Content>
        </AlertDialog.Portal>
      </AlertDialog.Root>
    </div>
  );
}

function counted(count: number, one: string): string {
  return `${count} ${count === 1 ? one : `${one}s`}`;
}

'use client';

import { clsx } from 'clsx';
import { X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';
import { Button } from './button';

interface FullWindowProps {
  /** Its `data-part`. */
  readonly part: string;
  readonly closeName: string;
  readonly onClose: () => void;
  readonly className?: string;
  /** With a `Dialog.Title` in it. */
  readonly children: ReactNode;
}

/** All of the window for one thing, with the way back in its corner. What it holds is drawn once it is there. */
export function FullWindow({ part, closeName, onClose, className, children }: FullWindowProps) {
  return (
    <Dialog.Root
      open
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
    >
      <Dialog.Portal>
        <Dialog.Content aria-describedby={undefined} data-part={part} className={clsx('fixed inset-0 z-50', className)}>
          {children}
          <Dialog.Close asChild>
            <Button look="dark" square aria-label={closeName} className="absolute top-3 right-3 bg-black/50">
              <X size={18} />
            </Button>
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

'use client';

import { clsx } from 'clsx';
import { X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';
import { Button } from './button';

interface SheetProps {
  readonly title: string;
  readonly open: boolean;
  readonly onClose: () => void;
  readonly children: ReactNode;
  readonly className?: string;
}

/** A sheet of paper laid over the page: a title, what it holds, a way out. */
export function Sheet({ title, open, onClose, children, className }: SheetProps) {
  return (
    <Dialog.Root
      open={open}
      onOpenChange={(next) => {
        if (!next) onClose();
      }}
    >
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className={clsx(
            'fixed top-1/2 left-1/2 z-50 flex max-h-[92vh] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 flex-col overflow-y-auto rounded-xl bg-card p-6 shadow-raised scroll-thin',
            className,
          )}
        >
          <div className="mb-4 flex items-center justify-between gap-6">
            <Dialog.Title className="text-lg">{title}</Dialog.Title>
            <Dialog.Close asChild>
              <Button look="quiet" square aria-label="Close">
                <X size={16} />
              </Button>
            </Dialog.Close>
          </div>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

'use client';

import { clsx } from 'clsx';
import { X } from 'lucide-react';
import { Dialog as RadixDialog } from 'radix-ui';
import type { ReactNode } from 'react';
import { Button } from './button';

interface DialogProps {
  readonly title: string;
  readonly open: boolean;
  readonly onClose: () => void;
  readonly children: ReactNode;
  readonly className?: string;
}

/** A window over the page: a title, what it holds, a way out. */
export function Dialog({ title, open, onClose, children, className }: DialogProps) {
  return (
    <RadixDialog.Root
      open={open}
      onOpenChange={(next) => {
        if (!next) onClose();
      }}
    >
      <RadixDialog.Portal>
        <RadixDialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <RadixDialog.Content
          aria-describedby={undefined}
          className={clsx(
            'fixed top-1/2 left-1/2 z-50 flex max-h-[92vh] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 flex-col overflow-y-auto rounded-xl bg-card p-6 shadow-raised scroll-thin',
            className,
          )}
        >
          <div className="mb-4 flex items-center justify-between gap-6">
            <RadixDialog.Title className="text-lg">{title}</RadixDialog.Title>
            <RadixDialog.Close asChild>
              <Button look="quiet" square aria-label="Close">
                <X size={16} />
              </Button>
            </RadixDialog.Close>
          </div>
          {children}
        </RadixDialog.Content>
      </RadixDialog.Portal>
    </RadixDialog.Root>
  );
}

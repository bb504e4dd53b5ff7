'use client';

import { X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import type { Show } from '../../core/show/show';
import { Button } from '../kit/button';
import { Viewer } from './viewer';

/** The whole window for watching, from the start: the open show, or another such as a version of it. */
export function WatchRoom({ show, onClose }: { show?: Show; onClose: () => void }) {
  return (
    <Dialog.Root
      open
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
    >
      <Dialog.Portal>
        <Dialog.Content
          aria-describedby={undefined}
          data-part="watch-room"
          className="fixed inset-0 z-50 flex flex-col bg-surround"
        >
          <Dialog.Title className="sr-only">Watch the show</Dialog.Title>
          <div className="min-h-0 flex-1">
            <Viewer autoPlay show={show} />
          </div>
          <Dialog.Close asChild>
            <Button look="dark" square aria-label="Back to work" className="absolute top-3 right-3 bg-black/50">
              <X size={18} />
            </Button>
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

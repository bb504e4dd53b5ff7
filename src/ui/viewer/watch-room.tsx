'use client';

import { Dialog } from 'radix-ui';
import type { Show } from '../../core/show/show';
import { FullWindow } from '../kit/full-window';
import { Viewer } from './viewer';

/** The whole window for watching, from the start: the open show, or another such as a version of it. */
export function WatchRoom({ show, onClose }: { show?: Show; onClose: () => void }) {
  return (
    <FullWindow part="watch-room" closeName="Back to work" onClose={onClose} className="flex flex-col bg-surround">
      <Dialog.Title className="sr-only">Watch the show</Dialog.Title>
      <div className="min-h-0 flex-1">
        <Viewer autoPlay show={show} />
      </div>
    </FullWindow>
  );
}

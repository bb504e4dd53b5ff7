'use client';

import { Keyboard, X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { Button } from '../kit/button';
import { useTypedKey } from '../kit/use-typed-key';

/** Every key of the editor; the README lists the same. */
const KEYS: readonly (readonly [string, readonly (readonly [string, string])[]])[] = [
  ['Everywhere', [['Ctrl Z', 'undo'], ['Ctrl Shift Z', 'redo'], ['?', 'this map']]],
  ['Running order and contact sheet', [['↑ ↓', 'next, previous'], ['Shift ↑ ↓', 'stretch the selection'], ['Ctrl A', 'select all'], ['Esc', 'select nothing']]],
  ['Running order', [['Alt ↑ ↓', 'move the slides'], ['Alt Home, End', 'move to start, end'], ['T', 'type a title'], ['− +', 'half a second shorter, longer'], ['Ctrl D', 'duplicate'], ['B', 'blank slide after'], ['Delete', 'remove']]],
  ['Contact sheet', [['Enter', 'lay into the order']]],
  ['Viewer', [['Space', 'play, pause'], ['← →', 'one frame'], ['Shift ← →', 'one second'], ['F', 'full screen']]],
];

export function KeyMap() {
  const [open, setOpen] = useState(false);
  useTypedKey(['?'], () => setOpen(true));
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild><Button look="quiet" square aria-label="Keys"><Keyboard size={16} /></Button></Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Content aria-describedby={undefined} className="fixed top-1/2 left-1/2 z-50 w-[640px] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 rounded-xl bg-card p-6 shadow-raised">
          <div className="mb-4 flex items-center justify-between">
            <Dialog.Title className="text-lg">Keys</Dialog.Title>
            <Dialog.Close asChild><Button look="quiet" square aria-label="Close"><X size={16} /></Button></Dialog.Close>
          </div>
          <div className="columns-2 gap-8">
            {KEYS.map(([where, keys]) => (
              <section key={where} className="mb-4 break-inside-avoid">
                <h3 className="mb-1 text-base">{where}</h3>
                <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1">
                  {keys.map(([key, what]) => [
                    <dt key={key} className="tabular rounded border border-rule bg-paper px-1.5 text-xs leading-5">{key}</dt>,
                    <dd key={what} className="text-soft">{what}</dd>,
                  ])}
                </dl>
              </section>
            ))}
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

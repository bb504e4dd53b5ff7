'use client';

import { Keyboard } from 'lucide-react';
import { useState } from 'react';
import { commandsOf, PLACES } from '../commands/commands';
import { useCommands } from '../commands/use-commands';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';

/** Every key of the editor. */
export function KeyMap() {
  const [open, setOpen] = useState(false);
  useCommands({ keys: () => setOpen(true) });
  return (
    <>
      <Button look="quiet" square aria-label="Keys" onClick={() => setOpen(true)}>
        <Keyboard size={16} />
      </Button>
      <Dialog title="Keys" open={open} onClose={() => setOpen(false)} className="w-[940px]">
        <div className="columns-3 gap-8">
          {PLACES.map((where) => (
            <section key={where} className="mb-4">
              <h3 className="mb-1 text-base">{where}</h3>
              <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1">
                {commandsOf(where).map(({ keys, name }) => [
                  <dt
                    key={name}
                    className="tabular h-[22px] rounded border border-rule bg-paper px-1.5 text-xs leading-5 whitespace-nowrap"
                  >
                    {keys}
                  </dt>,
                  <dd key={`${name} does`} className="text-soft">
                    {name}
                  </dd>,
                ])}
              </dl>
            </section>
          ))}
        </div>
        <p className="mt-2 text-soft">
          On a Mac, Cmd stands for Ctrl. Every command is also found by its name with Ctrl K.
        </p>
      </Dialog>
    </>
  );
}

'use client';

import { Command } from 'cmdk';
import { useState } from 'react';
import { useStore } from 'zustand';
import { COMMANDS, PLACES, type CommandId, type CommandInfo } from './commands';
import { openActions, useCommands } from './use-commands';

/** What is wanted for what cannot be done now. */
const NOT_NOW: Record<CommandInfo['where'], string> = {
  Everywhere: 'nothing to do it to yet',
  'Contact sheet': 'on Gather, with prints chosen',
  'Running order': 'on Arrange, with slides chosen',
  Sound: 'on Sound',
  Booth: 'on Sound, in the booth',
  'Wide bench': 'on the bench opened wide',
  Viewer: 'where the viewer is',
  Send: 'on Send, with slides in the order',
};

/** Everything that can be done here, found by typing a part of its name. */
export function Palette() {
  const [open, setOpen] = useState(false);
  const actions = useStore(openActions);
  useCommands({ palette: () => setOpen(true) });
  const offered = (Object.entries(COMMANDS) as [CommandId, CommandInfo][]).filter(([, info]) => !info.byKeyOnly);
  const choose = (id: CommandId) => {
    setOpen(false);
    // After the palette has given the focus back, so that what the command opens keeps it.
    setTimeout(() => actions.get(id)?.(), 0);
  };
  return (
    <Command.Dialog
      open={open}
      onOpenChange={setOpen}
      label="Find a command"
      loop
      overlayClassName="fixed inset-0 z-40 bg-black/40"
      contentClassName="fixed top-[14vh] left-1/2 z-50 w-[540px] max-w-[94vw] -translate-x-1/2 overflow-hidden rounded-xl bg-card shadow-raised"
    >
      <Command.Input
        placeholder="What do you want to do?"
        className="h-12 w-full border-b border-rule bg-transparent px-4 text-base outline-none placeholder:text-soft"
      />
      <Command.List className="max-h-[52vh] overflow-y-auto p-2 scroll-thin" aria-label="Commands">
        <Command.Empty className="px-3 py-6 text-center text-soft">
          Nothing of that name can be done here.
        </Command.Empty>
        {PLACES.map((place) => {
          const here = offered.filter(([, info]) => info.where === place);
          return here.length === 0 ? null : (
            <Command.Group
              key={place}
              heading={place}
              className="[&_[cmdk-group-heading]]:px-3 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:pb-1 [&_[cmdk-group-heading]]:text-xs [&_[cmdk-group-heading]]:text-soft"
            >
              {here.map(([id, info]) => (
                <Command.Item
                  key={id}
                  value={`${info.name} ${id}`}
                  keywords={info.also?.split(' ')}
                  disabled={!actions.has(id)}
                  onSelect={() => choose(id)}
                  className="data-[disabled=true]:text-soft flex h-8 cursor-default items-center rounded-md px-3 data-[selected=true]:bg-rule/60"
                >
                  {info.name}
                  {!actions.has(id) && <span className="ml-2 text-xs">{NOT_NOW[info.where]}</span>}
                  <kbd className="tabular ml-auto rounded border border-rule bg-paper px-1.5 text-xs leading-5 text-soft">
                    {info.keys}
                  </kbd>
                </Command.Item>
              ))}
            </Command.Group>
          );
        })}
      </Command.List>
    </Command.Dialog>
  );
}

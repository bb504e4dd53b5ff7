'use client';

import { useEffect, useMemo, useRef } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { createStore, useStore } from 'zustand';
import { TYPED_IN } from '../kit/typed-in';
import { useTypedKey } from '../kit/use-typed-key';
import { COMMANDS, type CommandId, type CommandInfo } from './commands';

/** What can be done now; an action that is missing or undefined cannot. The event is the key's, when a key asked for it. */
export type Actions = Partial<Record<CommandId, ((event?: KeyboardEvent) => void) | undefined>>;

/** The actions of every part of the page that is open. */
export const openActions = createStore<ReadonlyMap<CommandId, () => void>>(() => new Map());

/** Does what a command does, if it can be done now. */
export function runCommand(id: CommandId): void {
  openActions.getState().get(id)?.();
}

/** The commands that can be done now. */
export function useOffered(): ReadonlySet<CommandId> {
  const actions = useStore(openActions);
  return useMemo(() => new Set(actions.keys()), [actions]);
}

/** What can be done now is also told to scripts that drive the page, which would else press keys before they are bound. */
function offer(actions: ReadonlyMap<CommandId, () => void>): void {
  openActions.setState(actions, true);
  document.body.dataset.commands = [...actions.keys()].join(' ');
}

/** Binds actions to their keys and offers them in the palette for as long as the component is there. */
export function useCommands(actions: Actions): void {
  const latest = useRef(actions);
  useEffect(() => {
    latest.current = actions;
  });
  const ids = (Object.keys(actions) as CommandId[]).filter((id) => actions[id]);
  const key = ids.join(' ');

  useEffect(() => {
    const mine = key.split(' ').filter(Boolean) as CommandId[];
    offer(new Map([...openActions.getState(), ...mine.map((id) => [id, () => latest.current[id]?.()] as const)]));
    return () => offer(new Map([...openActions.getState()].filter(([id]) => !mine.includes(id))));
  }, [key]);

  const run = (id: CommandId | undefined, event: KeyboardEvent) => {
    const action = id && latest.current[id];
    if (!action || belongsElsewhere(event)) return;
    event.preventDefault();
    action(event);
  };
  const combos = ids.flatMap(
    (id) =>
      infoOf(id)
        .combos?.split(', ')
        .map((combo) => ({ id, combo })) ?? [],
  );
  useHotkeys(
    combos.map((entry) => entry.combo).join(',') || 'f24',
    (event, { hotkey }) => run(combos.find((entry) => entry.combo === hotkey)?.id, event),
    // Which keys belong to which control is decided in one place, below: undo works while a slider has the focus.
    { enableOnFormTags: true },
  );
  const signs = ids.flatMap((id) => [...(infoOf(id).signs ?? '')].map((sign) => ({ id, sign })));
  useTypedKey(
    signs.map((entry) => entry.sign),
    (sign, event) => run(signs.find((entry) => entry.sign === sign)?.id, event),
  );
}

function infoOf(id: CommandId): CommandInfo {
  return COMMANDS[id];
}

const SLIDER_KEYS = new Set(['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown', 'Home', 'End', 'PageUp', 'PageDown']);

function isUndo(event: KeyboardEvent): boolean {
  return (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z';
}

/** Keys within a window that lies over the page are that window's; Enter, Space and arrows belong to the control they are pressed on. */
function belongsElsewhere(event: KeyboardEvent): boolean {
  if (event.defaultPrevented || !(event.target instanceof Element)) return event.defaultPrevented;
  if (event.target.closest('[role=dialog], [role=menu], [data-radix-popper-content-wrapper]')) return true;
  // In a field signs are text, and undo takes back what was typed there. One in which nothing was typed lets the page have it.
  if (event.target.closest(TYPED_IN)) return !(isUndo(event) && event.target.closest('[data-untyped]'));
  if (SLIDER_KEYS.has(event.key) && event.target.closest('[role=slider], input[type=range]')) return true;
  if (event.key === 'Enter' || event.key === ' ')
    return event.target.closest('button, a, [role=tab], [role=slider], [role=radio]') !== null;
  return (
    event.key.startsWith('Arrow') &&
    !event.altKey &&
    event.target.closest(
      '[data-part=viewer], [role=tab], [role=tabpanel], [role=slider], [role=radio], [role=separator], [role=combobox]',
    ) !== null
  );
}

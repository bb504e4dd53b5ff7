'use client';

import { useMemo, useState } from 'react';
import { stacksOf, type Candidate } from '../../core/choosing/stacks';
import { takenAt, type CameraClocks } from '../../core/show/camera-clock';
import type { SheetEntry } from '../../server/assets/contact-sheet';

/** How a print lies in a stack. */
export interface InStack {
  readonly count: number;
  /** In front of a closed one, in front of an open one, or further back in an open one. */
  readonly as: 'front' | 'open' | 'back';
}

/** The pictures among the prints, as choosing looks at them. */
export function candidatesOf(
  sheet: readonly SheetEntry[],
  clocks: CameraClocks | undefined,
): readonly Candidate<string>[] {
  return sheet.flatMap(({ id, facts }) =>
    facts?.kind === 'picture' ? [{ id, facts, takenAt: takenAt(facts, clocks) }] : [],
  );
}

/**
 * The prints with bursts and near-twins stacked: of a closed stack only the best is shown, of an open one all, side by side.
 *
 * @param on when not, every print lies by itself
 */
export function useStacks(shown: readonly SheetEntry[], clocks: CameraClocks | undefined, on: boolean) {
  const [open, setOpen] = useState<ReadonlySet<string>>(new Set());
  const stacks = useMemo(
    () => stacksOf(candidatesOf(shown, clocks)).filter((stack) => stack.length > 1),
    [shown, clocks],
  );
  const { entries, places } = useMemo(() => laid(shown, on ? stacks : [], open), [shown, stacks, on, open]);
  const toggle = (id: string) => {
    const stack = stacks.find((one) => one.some((member) => member.id === id));
    if (!stack) return;
    const next = new Set(open);
    const isOpen = stack.some((member) => next.has(member.id));
    for (const member of stack) next.delete(member.id);
    if (!isOpen) next.add(stack[0]!.id);
    setOpen(next);
  };
  return { entries, places, toggle, stackCount: stacks.length };
}

function laid(
  shown: readonly SheetEntry[],
  stacks: readonly (readonly Candidate<string>[])[],
  open: ReadonlySet<string>,
): { readonly entries: readonly SheetEntry[]; readonly places: ReadonlyMap<string, InStack> } {
  if (stacks.length === 0) return { entries: shown, places: new Map() };
  const byId = new Map(shown.map((entry) => [entry.id, entry]));
  const places = new Map<string, InStack>();
  /** What stands in the place of each member that is met. */
  const instead = new Map<string, readonly string[]>();
  for (const stack of stacks) {
    const isOpen = stack.some(({ id }) => open.has(id));
    const ids = stack.map(({ id }) => id);
    ids.forEach((id, at) => {
      if (at === 0) places.set(id, { count: ids.length, as: isOpen ? 'open' : 'front' });
      else if (isOpen) places.set(id, { count: ids.length, as: 'back' });
      instead.set(id, []);
    });
    // The stack lies where its first print lies in this order.
    const first = shown.find((entry) => instead.has(entry.id) && ids.includes(entry.id))!;
    instead.set(first.id, isOpen ? ids : [ids[0]!]);
  }
  return {
    entries: shown.flatMap((entry) => (instead.get(entry.id) ?? [entry.id]).map((id) => byId.get(id)!)),
    places,
  };
}

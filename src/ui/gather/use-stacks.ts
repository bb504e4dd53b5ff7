'use client';

import { useDeferredValue, useMemo, useState } from 'react';
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
 * @param sheet all prints; stacks are worked out of them, so that marking one does not ask for it again
 * @param shown those that are let through
 * @param on when not, every print lies by itself
 */
export function useStacks(
  sheet: readonly SheetEntry[],
  shown: readonly SheetEntry[],
  clocks: CameraClocks | undefined,
  on: boolean,
) {
  const [open, setOpen] = useState<ReadonlySet<string>>(new Set());
  // While files come in by the hundred the prints go first.
  const settled = useDeferredValue(sheet);
  const all = useMemo(
    () => stacksOf(candidatesOf(settled, clocks)).filter((stack) => stack.length > 1),
    [settled, clocks],
  );
  const stacks = useMemo(() => {
    const there = new Set(shown.map((entry) => entry.id));
    return all.map((stack) => stack.filter(({ id }) => there.has(id))).filter((stack) => stack.length > 1);
  }, [all, shown]);
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

/** The prints in their order, with those of a stack together where the first of them lies: the best alone while it is closed. */
export function laid(
  shown: readonly SheetEntry[],
  stacks: readonly (readonly Candidate<string>[])[],
  open: ReadonlySet<string>,
): { readonly entries: readonly SheetEntry[]; readonly places: ReadonlyMap<string, InStack> } {
  if (stacks.length === 0) return { entries: shown, places: new Map() };
  const byId = new Map(shown.map((entry) => [entry.id, entry]));
  const placeOf = new Map(shown.map((entry, place) => [entry.id, place]));
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
    const first = ids.reduce((before, id) => (placeOf.get(id)! < placeOf.get(before)! ? id : before));
    instead.set(first, isOpen ? ids : [ids[0]!]);
  }
  return {
    entries: shown.flatMap((entry) => (instead.get(entry.id) ?? [entry.id]).map((id) => byId.get(id)!)),
    places,
  };
}

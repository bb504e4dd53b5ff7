'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import { applyEdit, type ShowEdit } from '../../core/show/edit';
import { kindOf } from '../../core/snags/look-over';
import type { Snag } from '../../core/snags/snag';
import { useShowStore } from '../show/show-provider';
import { useSnagsStore } from './snags-provider';

/** Sees to all snags of a kind in one step, each by the first of its ways out. */
export function useFixForAll(snags: readonly Snag[]): {
  readonly running: boolean;
  readonly done: number;
  run(): void;
} {
  const store = useSnagsStore();
  const show = useShowStore();
  const [done, setDone] = useState<number | null>(null);
  const run = async () => {
    if (!store || snags.length === 0) return;
    setDone(0);
    const edits: ShowEdit[] = [];
    let without = 0;
    let now = show.getState().show;
    for (const [index, snag] of snags.entries()) {
      // One that could not be tried is one that needs a hand.
      const [fix] = await store.fixesOf(snag.key).catch(() => []);
      // A fix may have taken away what the next was about.
      const result = fix && applyEdit(now, fix.edit);
      if (fix && result?.ok) {
        edits.push(fix.edit);
        now = result.show;
      } else without += 1;
      setDone(index + 1);
    }
    setDone(null);
    const title = kindOf(snags[0]!.kind).title.toLowerCase();
    if (edits.length > 0)
      show.getState().edit({ kind: 'together', name: `see to ${edits.length} snags: ${title}`, edits });
    if (without > 0)
      toast(
        edits.length === 0
          ? 'None of them has a way out that Tanager can take.'
          : `${edits.length} seen to. ${without} ${without === 1 ? 'needs' : 'need'} a hand of yours.`,
      );
  };
  return { running: done !== null, done: done ?? 0, run: () => void run() };
}

'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import { isAsKept, transitionDocument } from '../../core/mounts/kept-transition';
import type { Transition, TransitionOverTime } from '../../core/show/transition';
import type { KeptMount } from '../../server/reuse/studio-service';
import { Button } from '../kit/button';
import { callServer } from '../show/call-server';
import { useShowStore } from '../show/show-provider';
import { studioStore, transitionsOf, useStudio } from './studio-store';
import { sayFault } from '../show/say-fault';

/** Keeps a transition under a name, or what was changed about one that is kept already; others of it in the show are changed only when that is wanted. */
export function KeepTransition({
  transition,
  onChange,
}: {
  transition: TransitionOverTime;
  onChange: (next: Transition) => void;
}) {
  const store = useShowStore();
  const { kept, profile } = useStudio();
  const [draft, setDraft] = useState<{ name: string; shelf: string } | null>(null);
  const own = transitionsOf(kept).find(({ id }) => id === transition.kept) ?? null;
  const changed = own !== null && !isAsKept(transition, own);
  const keep = async (name: string, shelf: string, replaces: string | null) => {
    const { show, entries, edit } = store.getState();
    const names = new Map(entries.map(({ assetId, fileName }) => [assetId, fileName]));
    const mount = transitionDocument({ name, author: profile.name, shelf }, transition, show.frame, names);
    try {
      const { id } = await callServer<KeptMount>('POST', '/api/v1/mounts', { from: show.id, mount });
      if (replaces && replaces !== id) await callServer('DELETE', `/api/v1/mounts/${replaces}`);
      await studioStore.getState().load();
      setDraft(null);
      const next: TransitionOverTime = { ...transition, kept: id };
      onChange(next);
      const others = show.slides.filter(
        (slide) =>
          slide.transition.kind !== 'cut' &&
          replaces !== null &&
          slide.transition.kept === replaces &&
          slide.transition !== transition,
      );
      toast(`“${name}” is kept.`, {
        duration: 12_000,
        ...(others.length > 0 && {
          action: {
            label: `Change ${others.length} more ${others.length === 1 ? 'seam' : 'seams'}`,
            onClick: () =>
              edit({
                kind: 'set-transitions',
                transitions: others.map(({ id: slideId, transition: was }) => ({
                  slideId,
                  transition: { ...next, lengthMs: was.kind === 'cut' ? next.lengthMs : was.lengthMs },
                })),
              }),
          },
        }),
      });
    } catch (error) {
      sayFault(error);
    }
  };
  if (draft === null)
    return (
      <div className="flex gap-2">
        {changed && (
          <Button className="h-7" onClick={() => void keep(own.name, own.shelf, own.id)} data-part="keep-change">
            Keep the change to “{own.name}”
          </Button>
        )}
        <Button
          className="h-7"
          onClick={() => setDraft({ name: '', shelf: own?.shelf ?? 'Our own' })}
          data-part="keep-transition"
        >
          Keep it as your own
        </Button>
      </div>
    );
  const field = 'h-7 min-w-0 flex-1 rounded-md border border-rule bg-field px-2';
  return (
    <form
      className="flex items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (draft.name.trim()) void keep(draft.name.trim(), draft.shelf.trim() || 'Our own', null);
      }}
    >
      <input
        autoFocus
        aria-label="Name of the transition"
        placeholder="called"
        className={field}
        maxLength={200}
        value={draft.name}
        onChange={(event) => setDraft({ ...draft, name: event.target.value })}
      />
      <input
        aria-label="Shelf of the transition"
        className={field}
        maxLength={200}
        value={draft.shelf}
        onChange={(event) => setDraft({ ...draft, shelf: event.target.value })}
      />
      <Button type="submit" className="h-7" disabled={draft.name.trim() === ''} data-part="keep-transition-do">
        Keep
      </Button>
    </form>
  );
}

'use client';

import { clsx } from 'clsx';
import { Play, Redo2, Undo2 } from 'lucide-react';
import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { editSentence } from '../../core/show/edit-sentence';
import { Bird } from '../kit/bird';
import { Button } from '../kit/button';
import { WatchRoom } from '../viewer/watch-room';
import { KeyMap } from './key-map';
import { useShow } from './show-provider';

const STATIONS = [['gather', 'Gather'], ['arrange', 'Arrange'], ['sound', 'Sound'], ['send', 'Send']] as const;

const SAVING = { saved: 'saved', saving: 'saving …', offline: 'not connected; your work is kept here' } as const;

/** The bar above every station: where one is, undo, what is saved, and Watch. */
export function ShowHeader() {
  const show = useShow((state) => state.show);
  const saving = useShow((state) => state.saving);
  const undoStep = useShow((state) => state.undoSteps.at(-1));
  const redoStep = useShow((state) => state.redoSteps.at(-1));
  const undo = useShow((state) => state.undo);
  const redo = useShow((state) => state.redo);
  const edit = useShow((state) => state.edit);
  const path = usePathname();
  const [watching, setWatching] = useState(false);
  const [title, setTitle] = useState<string | null>(null);
  useHotkeys('mod+z', (event) => { event.preventDefault(); undo(); });
  useHotkeys('mod+shift+z, mod+y', (event) => { event.preventDefault(); redo(); });

  const commitTitle = () => {
    if (title !== null && title.trim() !== '' && title !== show.title) edit({ kind: 'rename-show', title: title.trim().slice(0, 300) });
    setTitle(null);
  };

  return (
    <header className="flex h-12 shrink-0 items-center gap-3 border-b border-rule bg-card pr-4 pl-3.5" data-part="header">
      <Link href="/" aria-label="Shelf" className="flex items-center gap-2.5 text-soft hover:text-ink">
        <Bird className="size-8" />
        <span>Shelf <span aria-hidden="true" className="ml-0.5">╱</span></span>
      </Link>
      <input
        aria-label="Title of the show"
        data-part="show-title"
        value={title ?? show.title}
        onChange={(event) => setTitle(event.target.value)}
        onBlur={commitTitle}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'Enter') event.currentTarget.blur();
          if (event.key === 'Escape') { setTitle(null); event.currentTarget.blur(); }
        }}
        className="max-w-80 min-w-24 truncate [field-sizing:content] rounded-md border border-transparent bg-transparent px-1.5 py-0.5 font-display text-lg leading-tight font-semibold hover:border-rule focus:border-rule"
      />
      <nav aria-label="Stations" className="flex h-full items-stretch gap-1">
        {STATIONS.map(([segment, name]) => {
          const here = path?.endsWith(`/${segment}`) ?? false;
          return (
            <Link key={segment} href={`/shows/${show.id}/${segment}`} aria-current={here ? 'page' : undefined} className={clsx('relative flex items-center px-3 text-base font-medium', here ? 'text-ink after:absolute after:inset-x-2 after:bottom-1 after:h-[3px] after:rounded-full after:bg-red' : 'text-soft hover:text-ink')}>
              {name}
            </Link>
          );
        })}
      </nav>
      <div className="ml-auto flex items-center gap-1.5">
        <Button look="quiet" square aria-label={undoStep ? `Undo: ${editSentence(undoStep.edit)}` : 'Nothing to undo'} disabled={!undoStep} onClick={undo}><Undo2 size={16} /></Button>
        <Button look="quiet" square aria-label={redoStep ? `Redo: ${editSentence(redoStep.edit)}` : 'Nothing to redo'} disabled={!redoStep} onClick={redo}><Redo2 size={16} /></Button>
        <span role="status" data-part="saving" data-state={saving} className={clsx('mx-2 text-sm', saving === 'offline' ? 'font-semibold text-red-deep' : 'text-soft')}>{SAVING[saving]}</span>
        <KeyMap />
        <Button look="main" onClick={() => setWatching(true)} disabled={show.slides.length === 0} data-part="watch"><Play size={14} fill="currentColor" /> Watch</Button>
      </div>
      {watching && <WatchRoom onClose={() => setWatching(false)} />}
    </header>
  );
}

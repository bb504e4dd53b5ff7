'use client';

import { clsx } from 'clsx';
import { History, Play, Projector, Redo2, Undo2 } from 'lucide-react';
import Link from 'next/link';
import { usePathname, useRouter } from 'next/navigation';
import { useState } from 'react';
import { editSentence } from '../../core/show/edit-sentence';
import { Palette } from '../commands/palette';
import { useCommands } from '../commands/use-commands';
import { Bird } from '../kit/bird';
import { Button } from '../kit/button';
import { RoomSwitch, switchRoom } from '../kit/room-switch';
import { useIsGuest } from '../people/me';
import { WatchRoom } from '../viewer/watch-room';
import { SnagsButton } from '../snags/snags-button';
import { IntakeNote } from './intake-note';
import { KeyMap } from './key-map';
import { SavingNote } from './saving-note';
import { useShow } from './show-provider';
import { VersionsDialog } from './versions-dialog';

const STATIONS = [
  ['gather', 'Gather'],
  ['arrange', 'Arrange'],
  ['sound', 'Sound'],
  ['send', 'Send'],
] as const;

/** The bar above every station: where one is, undo, what is saved, and Watch. */
export function ShowHeader() {
  const show = useShow((state) => state.show);
  const undoStep = useShow((state) => state.undoSteps.at(-1));
  const redoStep = useShow((state) => state.redoSteps.at(-1));
  const undo = useShow((state) => state.undo);
  const redo = useShow((state) => state.redo);
  const edit = useShow((state) => state.edit);
  // What leaves the house is the studio’s own business.
  const isGuest = useIsGuest();
  const stations = STATIONS.filter(([segment]) => !(isGuest && segment === 'send'));
  const path = usePathname();
  const router = useRouter();
  const [versionsOpen, setVersionsOpen] = useState(false);
  const [watching, setWatching] = useState(false);
  const [title, setTitle] = useState<string | null>(null);
  const go = (station: string) => () => router.push(`/shows/${show.id}/${station}`);
  const watch = () => setWatching(true);
  // What is shown is what is stored: what was done last is saved first.
  const whenSaved = useShow((state) => state.whenSaved);
  const showLive = () => void whenSaved().then(() => router.push(`/showing/${show.id}`));
  useCommands({
    undo: undoStep && undo,
    redo: redoStep && redo,
    versions: () => setVersionsOpen(true),
    room: switchRoom,
    watch: show.slides.length > 0 ? watch : undefined,
    'show-live': show.slides.length > 0 ? showLive : undefined,
    gather: go('gather'),
    arrange: go('arrange'),
    sound: go('sound'),
    send: isGuest ? undefined : go('send'),
  });

  const commitTitle = () => {
    const typed = title?.trim() ?? '';
    const taken = typed === '' || typed === show.title || edit({ kind: 'rename-show', title: typed });
    // What was refused stays to be shortened.
    if (taken) setTitle(null);
  };

  return (
    <header
      className="flex h-12 shrink-0 items-center gap-3 border-b border-rule bg-card pr-4 pl-3.5"
      data-part="header"
    >
      <Link href="/" aria-label="Shelf" className="flex items-center gap-2.5 text-soft hover:text-ink">
        <Bird className="size-8" />
        <span>
          Shelf{' '}
          <span aria-hidden="true" className="ml-0.5">
            ╱
          </span>
        </span>
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
          if (event.key === 'Escape') {
            setTitle(null);
            event.currentTarget.blur();
          }
        }}
        className="max-w-80 min-w-24 truncate [field-sizing:content] rounded-md border border-transparent bg-transparent px-1.5 py-0.5 font-display text-lg leading-tight font-semibold hover:border-rule focus:border-rule"
      />
      <nav aria-label="Stations" className="flex h-full items-stretch gap-1">
        {stations.map(([segment, name]) => {
          const here = path?.endsWith(`/${segment}`) ?? false;
          return (
            <Link
              key={segment}
              href={`/shows/${show.id}/${segment}`}
              aria-current={here ? 'page' : undefined}
              className={clsx(
                'relative flex items-center px-3 text-base font-medium',
                here
                  ? 'text-ink after:absolute after:inset-x-2 after:bottom-1 after:h-[3px] after:rounded-full after:bg-red'
                  : 'text-soft hover:text-ink',
              )}
            >
              {name}
            </Link>
          );
        })}
      </nav>
      <div className="ml-auto flex items-center gap-1.5">
        <Button
          look="quiet"
          square
          aria-label={undoStep ? `Undo: ${editSentence(undoStep.edit)}` : 'Nothing to undo'}
          disabled={!undoStep}
          onClick={undo}
        >
          <Undo2 size={16} />
        </Button>
        <Button
          look="quiet"
          square
          aria-label={redoStep ? `Redo: ${editSentence(redoStep.edit)}` : 'Nothing to redo'}
          disabled={!redoStep}
          onClick={redo}
        >
          <Redo2 size={16} />
        </Button>
        <Button look="quiet" square aria-label="Versions" onClick={() => setVersionsOpen(true)} data-part="versions">
          <History size={16} />
        </Button>
        <RoomSwitch />
        <SavingNote />
        {!path?.endsWith('/gather') && <IntakeNote short />}
        <SnagsButton />
        <Palette />
        <KeyMap />
        <Button
          look="quiet"
          square
          aria-label="Show it in a hall"
          onClick={showLive}
          disabled={show.slides.length === 0}
          data-part="show-live"
        >
          <Projector size={16} />
        </Button>
        <Button look="main" onClick={watch} disabled={show.slides.length === 0} data-part="watch">
          <Play size={14} fill="currentColor" /> Watch
        </Button>
      </div>
      {versionsOpen && <VersionsDialog onClose={() => setVersionsOpen(false)} />}
      {watching && <WatchRoom onClose={() => setWatching(false)} />}
    </header>
  );
}

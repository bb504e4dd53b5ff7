'use client';

import { format } from 'date-fns';
import { Columns2, Eye, ShieldCheck, Trash2, Undo2 } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import type { Show, ShowContent } from '../../core/show/show';
import type { VersionEntry } from '../../server/shows/versions';
import { Button } from '../kit/button';
import { clock } from '../kit/clock';
import { Dialog } from '../kit/dialog';
import { BesideRoom } from '../viewer/beside-room';
import { WatchRoom } from '../viewer/watch-room';
import { callServer } from './call-server';
import { useShowStore } from './show-provider';
import { sayFault } from './say-fault';
import { useAnswer } from './use-answer';

/** The show as it once was: keep it now under a name, look at a version, go back to one. */
export function VersionsDialog({ onClose }: { onClose: () => void }) {
  const store = useShowStore();
  const { id } = store.getState().show;
  const { answer, refresh } = useAnswer<{ versions: readonly VersionEntry[] }>(`/api/v1/shows/${id}/versions`);
  const entries = answer?.versions ?? null;
  const [name, setName] = useState('');
  const [looking, setLooking] = useState<Show | null>(null);
  const [beside, setBeside] = useState<{ readonly name: string; readonly show: Show } | null>(null);

  const saved = () =>
    new Promise<void>((resolve, reject) => {
      if (store.getState().saving === 'saved') return resolve();
      const stop = store.subscribe(({ saving }) => {
        if (saving === 'saving') return;
        stop();
        if (saving === 'saved') resolve();
        else reject(new Error('The server cannot be reached; a version can be kept when it is back.'));
      });
      store.getState().pull();
    });
  const keep = async (as: string) => {
    await saved();
    await callServer('POST', `/api/v1/shows/${id}/versions`, { name: as });
  };
  const keepNow = async () => {
    await keep(name.trim() || `Kept ${format(new Date(), 'd MMM, HH:mm')}`);
    setName('');
    await refresh();
  };
  const contentOfVersion = async (entry: VersionEntry) =>
    (await callServer<{ content: ShowContent }>('GET', `/api/v1/shows/${id}/versions/${entry.id}`)).content;
  const goBack = async (entry: VersionEntry) => {
    const content = await contentOfVersion(entry);
    await keep(`Before going back to “${entry.name.slice(0, 150)}”`);
    store.getState().edit({ kind: 'set-content', content });
    onClose();
    toast(
      `The show is as it was in “${entry.name}”. How it was before is kept under Versions, and Undo goes there too.`,
    );
  };
  const setRemoved = async (entry: VersionEntry, removed: boolean) => {
    await callServer('PATCH', `/api/v1/shows/${id}/versions/${entry.id}`, { removed });
    await refresh();
    if (removed)
      toast(`“${entry.name}” was taken off the list.`, {
        action: { label: 'Undo', onClick: () => void setRemoved(entry, false).catch(sayFault) },
      });
  };

  return (
    <>
      <Dialog title="Versions" open={!looking && !beside} onClose={onClose} className="w-[720px]">
        <form
          className="flex items-center gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            void keepNow().catch(sayFault);
          }}
        >
          <input
            aria-label="Name of the version"
            value={name}
            maxLength={200}
            onChange={(event) => setName(event.target.value)}
            placeholder="Name, such as “for the bride’s parents”"
            className="h-8 flex-1 rounded-md border border-rule bg-field px-2.5"
          />
          <Button look="main" type="submit" data-part="keep-version">
            Keep the show as it is now
          </Button>
        </form>
        <p className="mt-2 text-soft">
          Everything is saved as you work. A version is a place to come back to, for ever.
        </p>
        <ul className="mt-4 flex flex-col divide-y divide-rule border-t border-rule" aria-label="Kept versions">
          {entries?.length === 0 && <li className="py-5 text-center text-soft">No version is kept yet.</li>}
          {entries?.map((entry) => (
            <li key={entry.id} className="flex items-center gap-3 py-2.5" data-part="version">
              <span className="min-w-0 flex-1">
                <span className="flex items-center gap-1.5 truncate text-base font-semibold">
                  {entry.why === 'safety' && (
                    <ShieldCheck size={14} className="shrink-0 text-moss" aria-label="kept by itself" />
                  )}
                  {entry.name}
                </span>
                <span className="text-soft">
                  {format(entry.createdAt, 'd MMM yyyy, HH:mm')} · <span className="tabular">{entry.slideCount}</span>{' '}
                  {entry.slideCount === 1 ? 'slide' : 'slides'} ·{' '}
                  <span className="tabular">{clock(entry.lengthMs)}</span>
                </span>
              </span>
              <Button
                aria-label={`Look at “${entry.name}”`}
                disabled={entry.slideCount === 0}
                onClick={() =>
                  void contentOfVersion(entry)
                    .then((content) => setLooking({ ...store.getState().show, ...content }))
                    .catch(sayFault)
                }
              >
                <Eye size={14} /> Look
              </Button>
              <Button
                aria-label={`See “${entry.name}” beside the show as it is now`}
                disabled={entry.slideCount === 0 || store.getState().show.slides.length === 0}
                data-part="beside"
                onClick={() =>
                  void contentOfVersion(entry)
                    .then((content) => setBeside({ name: entry.name, show: { ...store.getState().show, ...content } }))
                    .catch(sayFault)
                }
              >
                <Columns2 size={14} /> Beside
              </Button>
              <Button aria-label={`Go back to “${entry.name}”`} onClick={() => void goBack(entry).catch(sayFault)}>
                <Undo2 size={14} /> Go back
              </Button>
              <Button
                look="quiet"
                square
                aria-label={`Take “${entry.name}” off the list`}
                onClick={() => void setRemoved(entry, true).catch(sayFault)}
              >
                <Trash2 size={15} />
              </Button>
            </li>
          ))}
        </ul>
      </Dialog>
      {beside && <BesideRoom before={beside.show} name={beside.name} onClose={() => setBeside(null)} />}
      {looking && <WatchRoom show={looking} onClose={() => setLooking(null)} />}
    </>
  );
}

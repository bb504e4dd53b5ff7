'use client';

import { CornerLeftUp, Folder } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { FolderListing } from '../../server/assets/folder-intake';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { callServer } from '../show/call-server';
import { faultSentence, sayFault } from '../show/say-fault';

/** Choosing a folder of the server's own disk, below the one that was opened for this. */
export function ServerFolderDialog({
  onTake,
  onClose,
}: {
  onTake: (folder: string) => Promise<unknown>;
  onClose: () => void;
}) {
  const [place, setPlace] = useState('');
  const [listing, setListing] = useState<FolderListing | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    let gone = false;
    callServer<FolderListing>('GET', `/api/v1/folders?folder=${encodeURIComponent(place)}`)
      .then((answer) => {
        if (!gone) {
          setListing(answer);
          setProblem(null);
        }
      })
      .catch((error: unknown) => {
        if (!gone) setProblem(faultSentence(error));
      });
    return () => {
      gone = true;
    };
  }, [place]);
  const take = async () => {
    try {
      await onTake(place);
      onClose();
    } catch (error) {
      sayFault(error);
    }
  };
  const above = place.split('/').slice(0, -1).join('/');
  return (
    <Dialog title="A folder on the server" open onClose={onClose} className="w-[520px]">
      {problem !== null ? (
        <p role="alert" className="rounded-lg border border-rule bg-paper p-4">
          {problem}
        </p>
      ) : (
        <>
          <p className="tabular truncate text-soft">{place === '' ? 'the opened folder' : place}</p>
          <ul
            className="mt-2 max-h-[46vh] overflow-y-auto rounded-lg border border-rule scroll-thin"
            aria-label="Folders"
          >
            {place !== '' && (
              <li>
                <button
                  type="button"
                  onClick={() => setPlace(above)}
                  className="flex w-full items-center gap-2 px-3 py-1.5 text-left -outline-offset-2 hover:bg-rule/40"
                >
                  <CornerLeftUp size={15} className="text-soft" /> one up
                </button>
              </li>
            )}
            {listing?.folders.map((name) => (
              <li key={name}>
                <button
                  type="button"
                  onClick={() => setPlace(place === '' ? name : `${place}/${name}`)}
                  className="flex w-full items-center gap-2 px-3 py-1.5 text-left -outline-offset-2 hover:bg-rule/40"
                >
                  <Folder size={15} className="text-soft" /> {name}
                </button>
              </li>
            ))}
            {listing?.folders.length === 0 && <li className="px-3 py-2 text-soft">no folders in it</li>}
          </ul>
          <div className="mt-4 flex items-center justify-between gap-4">
            <p className="text-soft">
              {listing && (
                <>
                  <b className="tabular text-ink">{listing.fileCount}</b> {listing.fileCount === 1 ? 'file' : 'files'}{' '}
                  here{listing.folders.length > 0 && ', and what is in its folders'}
                </>
              )}
            </p>
            <Button
              look="main"
              onClick={() => void take()}
              disabled={!listing || (listing.fileCount === 0 && listing.folders.length === 0)}
              data-part="take-folder"
            >
              Take it in
            </Button>
          </div>
        </>
      )}
    </Dialog>
  );
}

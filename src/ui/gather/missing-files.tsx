'use client';

import { FolderSearch, HardDrive } from 'lucide-react';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { mayBe, usesSentence, type MissingFile } from '../../core/show/file-uses';
import type { MissingSearch } from '../../server/assets/missing-files';
import { useIsGuest } from '../people/me';
import { Button } from '../kit/button';
import { megabytes } from '../kit/clock';
import { Dialog } from '../kit/dialog';
import { useFolderPicker } from '../kit/use-folder-picker';
import { callServer } from '../show/call-server';
import { useShow } from '../show/show-provider';
import { useUploadProgress, useUploads } from '../show/uploads-provider';
import { useAnswer } from '../show/use-answer';
import { hashOf } from './hash-of';
import { ServerFolderDialog } from './server-folder-dialog';

interface Missing {
  readonly missing: readonly MissingFile[];
  readonly search: MissingSearch | null;
}

const LOOK_EVERY_MS = 400;
const MOST_LISTED = 200;

/** Files of the open show that are not there any more; asked anew when its sheet changes. */
function useMissing() {
  const showId = useShow((state) => state.show.id);
  const entries = useShow((state) => state.entries);
  const { answer, refresh } = useAnswer<Missing>(`/api/v1/shows/${showId}/missing`, { hears: 'focus', quiet: true });
  const sheet = entries.map(({ assetId, state }) => `${assetId.slice(0, 8)}${state[0]}`).join();
  // One that comes back to its place leaves the sheet as it was.
  const arrived = useUploadProgress()?.filesDone ?? 0;
  useEffect(() => void refresh(), [sheet, arrived, refresh]);
  return { answer, refresh };
}

/** A line that says how many files are missing, with the way to look for them; nothing when none are. */
export function MissingFiles({ className = '' }: { className?: string }) {
  const { answer, refresh } = useMissing();
  const [open, setOpen] = useState(false);
  const missing = answer?.missing ?? [];
  const used = missing.filter(({ uses }) => usesSentence(uses) !== '').length;
  if (missing.length === 0 && !open) return null;
  return (
    <>
      <p className={`flex items-center gap-3 bg-red-wash/60 px-4 py-2 ${className}`} role="status" data-part="missing">
        <span>
          <b className="font-semibold">
            {missing.length === 1 ? 'One file is' : `${missing.length} files are`} not there any more
          </b>
          {used > 0 && `; ${used === 1 ? 'one is' : `${used} are`} used in the show and would be missing from a film`}.
        </span>
        <Button className="ml-auto h-7" onClick={() => setOpen(true)} data-part="open-missing">
          <FolderSearch size={14} /> Look for {missing.length === 1 ? 'it' : 'them'}
        </Button>
      </p>
      {open && (
        <MissingDialog
          missing={missing}
          search={answer?.search ?? null}
          onDone={refresh}
          onClose={() => setOpen(false)}
        />
      )}
    </>
  );
}

interface MissingDialogProps extends Missing {
  readonly onDone: () => Promise<void>;
  readonly onClose: () => void;
}

/** What is missing and where it is used; one search for all, by what is in files, whatever they are called now. */
function MissingDialog({ missing, search, onDone, onClose }: MissingDialogProps) {
  const showId = useShow((state) => state.show.id);
  const isGuest = useIsGuest();
  const uploads = useUploads();
  const [serverOpen, setServerOpen] = useState(false);
  const [said, setSaid] = useState<string | null>(null);
  const searching = search !== null && !search.ended;
  useEffect(() => {
    if (!searching) return;
    const timer = setInterval(() => void onDone(), LOOK_EVERY_MS);
    return () => clearInterval(timer);
  }, [searching, onDone]);
  const lookIn = async (files: readonly File[]) => {
    const wanted = new Map(missing.map((file) => [file.assetId as string, file]));
    const candidates = files.filter((file) => missing.some((one) => mayBe(one, file)));
    let found = 0;
    for (const [index, file] of candidates.entries()) {
      setSaid(`looking at ${index + 1} of ${candidates.length} that may be one of them …`);
      const hash = await hashOf(file).catch(() => null);
      if (hash === null || !wanted.delete(hash)) continue;
      found += 1;
      uploads.add([file]);
    }
    setSaid(
      found === 0
        ? `None of the ${files.length} files there is one of them.`
        : `${found} of ${missing.length} found${found < missing.length ? '' : ', all of them'}; ${found === 1 ? 'it comes' : 'they come'} back to their places.`,
    );
  };
  const { pick, picker } = useFolderPicker('A folder to look in', 'missing-picker', (files) => void lookIn(files));
  return (
    <Dialog title="Files that are not there any more" open onClose={onClose} className="w-[680px]">
      <div data-part="missing-dialog">
        <p className="text-soft">
          They are found again in whatever folder they are now, by what is in them – under another name too.
        </p>
        <div className="mt-3 flex flex-wrap items-center gap-2">
          <Button onClick={pick} disabled={missing.length === 0} data-part="look-in-folder">
            <FolderSearch size={14} /> Look in a folder
          </Button>
          {!isGuest && (
            <Button onClick={() => setServerOpen(true)} disabled={missing.length === 0 || searching}>
              <HardDrive size={14} /> In one on the server
            </Button>
          )}
          {picker}
          <span role="status" className="text-soft" data-part="missing-said">
            {searching
              ? `looked at ${search.looked} of ${search.fileCount}, ${search.found} found`
              : (said ??
                (search?.ended ? `The last search found ${search.found} among ${search.fileCount} files.` : ''))}
          </span>
        </div>
        {missing.length === 0 ? (
          <p className="mt-4 border-t border-rule pt-4">Everything is there.</p>
        ) : (
          <ul
            className="mt-4 max-h-80 overflow-y-auto border-t border-rule scroll-thin"
            tabIndex={0}
            aria-label="Missing files"
          >
            {missing.slice(0, MOST_LISTED).map(({ assetId, fileName, byteCount, uses }) => (
              <li
                key={assetId}
                className="flex items-baseline gap-3 border-b border-rule py-1.5"
                data-part="missing-file"
              >
                <b className="min-w-0 truncate font-medium">{fileName ?? 'a file whose name is not known'}</b>
                {byteCount !== null && <span className="text-soft">{megabytes(byteCount)}</span>}
                <span className="ml-auto shrink-0 text-soft">{usesSentence(uses) || 'not used'}</span>
              </li>
            ))}
            {missing.length > MOST_LISTED && (
              <li className="py-1.5 text-soft">and {missing.length - MOST_LISTED} more</li>
            )}
          </ul>
        )}
      </div>
      {serverOpen && (
        <ServerFolderDialog
          onTake={async (folder) => {
            await callServer('POST', `/api/v1/shows/${showId}/missing`, { folder });
            setSaid(null);
            toast('The server looks through that folder.');
            await onDone();
          }}
          onClose={() => setServerOpen(false)}
        />
      )}
    </Dialog>
  );
}

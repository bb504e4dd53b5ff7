'use client';

import { X } from 'lucide-react';
import { toast } from 'sonner';
import { Button } from '../kit/button';
import { callServer } from '../show/call-server';
import { useShow } from '../show/show-provider';
import { useUploadProgress, useUploads } from '../show/uploads-provider';

/** Files that could not be used, and why; those that were there before are counted. Nothing when there are none. */
export function Arrivals() {
  const { dismiss } = useUploads();
  const progress = useUploadProgress();
  const showId = useShow((state) => state.show.id);
  const entries = useShow((state) => state.entries);
  const refused = entries.filter((entry) => entry.state === 'refused');
  const failed = progress?.failed ?? [];
  const already = progress !== null && progress.filesDone === progress.fileCount ? progress.already : 0;
  if (refused.length + failed.length + already === 0) return null;
  return (
    <ul
      className="max-h-32 shrink-0 overflow-y-auto border-b border-rule bg-red-wash/60 px-4 py-2 scroll-thin"
      data-part="refused"
      aria-label="Files that could not be used"
    >
      {refused.map((entry) => (
        <li key={entry.id} className="flex items-baseline gap-2 leading-6">
          <span className="max-w-2/5 shrink-0 truncate font-semibold" title={entry.fileName}>
            {entry.fileName}
          </span>{' '}
          <span className="min-w-0">{entry.problem}</span>
          <Button
            look="quiet"
            square
            className="ml-auto size-6 self-center"
            aria-label={`Put away the line about ${entry.fileName}`}
            onClick={() =>
              void callServer('DELETE', `/api/v1/shows/${showId}/sheet/${entry.id}`).catch((error: unknown) =>
                toast(String(error)),
              )
            }
          >
            <X size={13} />
          </Button>
        </li>
      ))}
      {failed.map((failure) => (
        <li key={failure.fileName} className="leading-6">
          <span className="font-semibold">{failure.fileName}</span> {failure.problem}
        </li>
      ))}
      {already > 0 && (
        <li className="flex items-center leading-6">
          {already === 1 ? 'One file was' : `${already} files were`} already on the sheet and{' '}
          {already === 1 ? 'is' : 'are'} there once.
          <Button look="quiet" square className="ml-auto size-6" aria-label="Put this away" onClick={dismiss}>
            <X size={13} />
          </Button>
        </li>
      )}
    </ul>
  );
}

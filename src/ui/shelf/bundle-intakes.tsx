'use client';

import { X } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useRef, useState } from 'react';
import { intakeSentence, type BundleIntake } from '../../core/bundles/bundle';
import { createUploadQueue, type UploadProgress, type UploadQueue } from '../gather/upload-queue';
import { Button } from '../kit/button';
import { callServer } from '../show/call-server';
import { sayFault } from '../show/say-fault';
import { useAnswer } from '../show/use-answer';

const LOOK_EVERY_MS = 700;
const MOST_NAMED = 5;

export interface BundleIntakesKnown {
  readonly bundles: readonly BundleIntake[];
  readonly upload: UploadProgress | null;
  /** Takes whole shows in; one that was cut off goes on where it stopped when it is given again. */
  take(files: readonly File[]): void;
  dismiss(id: string): Promise<void>;
  dismissUpload(): void;
}

/** Whole shows on their way onto the shelf. @param asks guests do not */
export function useBundleIntakes(asks: boolean): BundleIntakesKnown {
  const router = useRouter();
  const { answer, refresh } = useAnswer<{ bundles: BundleIntake[] }>(asks ? '/api/v1/bundles' : null, {
    hears: 'focus',
    quiet: true,
  });
  const [upload, setUpload] = useState<UploadProgress | null>(null);
  const queue = useRef<UploadQueue | null>(null);
  const bundles = answer?.bundles ?? NONE;
  const taking = bundles.filter(({ state }) => state === 'taking').length;
  const arrived = upload?.filesDone ?? 0;
  useEffect(() => {
    if (arrived > 0) void refresh();
  }, [arrived, refresh]);
  useEffect(() => {
    if (taking === 0) return;
    const timer = setInterval(() => void refresh(), LOOK_EVERY_MS);
    return () => {
      clearInterval(timer);
      // One of them has ended: it may stand on the shelf now.
      router.refresh();
    };
  }, [taking, refresh, router]);
  const take = useCallback((files: readonly File[]) => {
    queue.current ??= createUploadQueue({ bundle: '1' }, setUpload);
    queue.current.add(files);
  }, []);
  return {
    bundles,
    upload,
    take,
    dismissUpload: () => queue.current?.stop(),
    async dismiss(id) {
      try {
        await callServer('DELETE', `/api/v1/bundles/${id}`);
        await refresh();
      } catch (error) {
        sayFault(error);
      }
    },
  };
}

const NONE: readonly BundleIntake[] = [];

/** A line for each whole show that comes, and what became of it. */
export function BundleIntakes({ known }: { known: BundleIntakesKnown }) {
  const { bundles, upload, dismiss, dismissUpload } = known;
  const coming = upload !== null && (upload.filesDone < upload.fileCount || upload.failed.length > 0);
  if (bundles.length === 0 && !coming) return null;
  return (
    <ul className="mb-8 border-t border-rule" aria-label="Shows that come as one file" data-part="bundles">
      {coming && (
        <li className="flex items-center gap-4 border-b border-rule py-2.5" data-part="bundle-upload">
          {upload.failed.length > 0 ? (
            <span className="text-red-deep">
              {upload.failed[0]!.fileName}: {upload.failed[0]!.problem}
            </span>
          ) : (
            <>
              <span>arriving, {Math.floor((100 * upload.bytesDone) / Math.max(1, upload.bytes))} %</span>
              <progress
                max={1}
                value={upload.bytesDone / Math.max(1, upload.bytes)}
                aria-label="How much has arrived"
                className="h-1.5 w-72 accent-red"
              />
            </>
          )}
          <Button
            look="quiet"
            square
            className="ml-auto"
            aria-label="Stop it, or put this line away"
            onClick={dismissUpload}
          >
            <X size={15} />
          </Button>
        </li>
      )}
      {bundles.map((bundle) => (
        <li
          key={bundle.id}
          className="flex items-start gap-4 border-b border-rule py-2.5"
          data-part="bundle"
          data-state={bundle.state}
        >
          <span className="min-w-0 flex-1">
            <b className="font-semibold">{bundle.title ?? bundle.fileName}</b>{' '}
            <span className={bundle.state === 'failed' || bundle.bad.length > 0 ? 'text-red-deep' : 'text-soft'}>
              {intakeSentence(bundle)}
            </span>
            {bundle.state === 'taking' && bundle.fileCount !== null && (
              <progress
                max={Math.max(1, bundle.fileCount)}
                value={bundle.filesDone}
                aria-label={`How far ${bundle.fileName} is`}
                className="ml-3 h-1.5 w-56 accent-red"
              />
            )}
            {bundle.bad.slice(0, MOST_NAMED).map(({ name, problem }) => (
              <span key={name} className="block text-soft">
                {name}: {problem}
              </span>
            ))}
            {bundle.bad.length > MOST_NAMED && (
              <span className="block text-soft">
                and {bundle.bad.length - MOST_NAMED} more, marked on its contact sheet
              </span>
            )}
            {bundle.bad.length > 0 && (
              <span className="block text-soft">
                Bring the right files into its contact sheet: they take their places again.
              </span>
            )}
          </span>
          {bundle.showId && (
            <Link
              href={`/shows/${bundle.showId}`}
              className="inline-flex h-8 items-center rounded-md border border-rule bg-card px-3 hover:border-soft"
              data-part="open-bundle"
            >
              Open it
            </Link>
          )}
          <Button
            look="quiet"
            square
            aria-label={
              bundle.state === 'taking' ? `Stop ${bundle.fileName}` : `Put the line of ${bundle.fileName} away`
            }
            onClick={() => void dismiss(bundle.id)}
          >
            <X size={15} />
          </Button>
        </li>
      ))}
    </ul>
  );
}

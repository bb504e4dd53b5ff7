'use client';

import { createContext, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { toast } from 'sonner';
import { ratingInXmp } from '../../core/interchange/xmp';
import { droppedFiles } from '../gather/dropped-files';
import { createUploadQueue, type UploadProgress, type UploadQueue } from '../gather/upload-queue';
import { callServer } from './call-server';
import { takeCarriedFiles } from './carried-files';
import { sayFault } from './say-fault';

const QueueContext = createContext<UploadQueue | null>(null);
// Apart from the queue: it changes many times a second, and few want to know.
const ProgressContext = createContext<UploadProgress | null>(null);

const isXmp = ({ name }: File): boolean => /\.xmp$/i.test(name);
/** Larger ones hold more than a rating. */
const LARGEST_XMP_BYTES = 4_000_000;

async function readRatings(files: readonly File[]): Promise<Record<string, number>> {
  const found: Record<string, number> = {};
  for (const file of files) {
    const rating = file.size > LARGEST_XMP_BYTES ? null : ratingInXmp(await file.text());
    if (rating !== null) found[file.name] = rating;
  }
  return found;
}

/** The files that are coming in, whatever station is open meanwhile. Files dropped or pasted anywhere are taken in. */
export function UploadsProvider({ showId, children }: { showId: string; children: ReactNode }) {
  const [progress, setProgress] = useState<UploadProgress | null>(null);
  const [over, setOver] = useState(false);
  /** Of files beside pictures that may still be on their way, by name. */
  const pending = useRef<Record<string, number>>({});
  const [read, setRead] = useState(0);
  const queue = useMemo(() => {
    const own = createUploadQueue({ show: showId }, setProgress);
    return {
      ...own,
      // Files with ratings that lie beside pictures are read here: they are no files of a show.
      add(files: readonly File[]) {
        own.add(files.filter((file) => !isXmp(file)));
        const beside = files.filter(isXmp);
        if (beside.length > 0)
          void readRatings(beside).then((found) => {
            Object.assign(pending.current, found);
            setRead((before) => before + 1);
          });
      },
    };
  }, [showId]);

  useEffect(() => queue.add(takeCarriedFiles(showId)), [queue, showId]);
  const arrived = progress === null || progress.filesDone === progress.fileCount;
  useEffect(() => {
    const ratings = pending.current;
    if (!arrived || Object.keys(ratings).length === 0) return;
    pending.current = {};
    callServer('POST', `/api/v1/shows/${showId}/ratings`, { ratings }).catch(sayFault);
  }, [arrived, read, showId]);
  useEffect(() => {
    const bringsFiles = (event: DragEvent) => event.dataTransfer?.types.includes('Files') ?? false;
    const allow = (event: DragEvent) => {
      if (!bringsFiles(event)) return;
      event.preventDefault();
      setOver(true);
    };
    const leave = (event: DragEvent) => {
      if (event.relatedTarget === null) setOver(false);
    };
    const drop = (event: DragEvent) => {
      setOver(false);
      if (!bringsFiles(event)) return;
      event.preventDefault();
      void droppedFiles(event.dataTransfer!).then((files) => {
        queue.add(files);
        if (!location.pathname.endsWith('/gather'))
          toast(`${files.length === 1 ? 'One file comes' : `${files.length} files come`} onto the contact sheet.`);
      });
    };
    const paste = (event: ClipboardEvent) => queue.add([...(event.clipboardData?.files ?? [])]);
    window.addEventListener('dragenter', allow);
    window.addEventListener('dragover', allow);
    window.addEventListener('dragleave', leave);
    window.addEventListener('drop', drop);
    window.addEventListener('paste', paste);
    return () => {
      window.removeEventListener('dragenter', allow);
      window.removeEventListener('dragover', allow);
      window.removeEventListener('dragleave', leave);
      window.removeEventListener('drop', drop);
      window.removeEventListener('paste', paste);
    };
  }, [queue]);

  return (
    <QueueContext value={queue}>
      <ProgressContext value={progress}>{children}</ProgressContext>
      {over && (
        <div className="pointer-events-none fixed inset-3 z-50 grid place-items-center rounded-xl border-2 border-dashed border-red bg-red-wash/90">
          <p className="font-display text-xl font-semibold">Let go to take them in</p>
        </div>
      )}
    </QueueContext>
  );
}

export function useUploads(): UploadQueue {
  const queue = useContext(QueueContext);
  if (!queue) throw new Error('useUploads needs an UploadsProvider above it');
  return queue;
}

/** How far it has got; null when nothing is coming in. */
export function useUploadProgress(): UploadProgress | null {
  return useContext(ProgressContext);
}

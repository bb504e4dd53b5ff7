'use client';

import { useMemo, useState } from 'react';
import { createUploadQueue, type UploadProgress, type UploadQueue } from './upload-queue';

/** An upload queue for a show, with its progress as state. */
export function useUploads(showId: string): UploadQueue & { readonly progress: UploadProgress | null } {
  const [progress, setProgress] = useState<UploadProgress | null>(null);
  const queue = useMemo(() => createUploadQueue(showId, setProgress), [showId]);
  return { ...queue, progress };
}

'use client';

import { useCallback } from 'react';
import { CLIP_FRAMES_PER_SECOND } from '../../core/frame/frame-plan';
import type { AssetId, ShowId } from '../../core/show/ids';
import { CLIP_FRAME_MS } from '../../core/timing/clip-time';
import { useShow } from './show-provider';

/** Where a picture of a show is had, at least so wide. Files are had by way of a show that has them on its contact sheet. */
export const pictureUrl = (show: ShowId, asset: AssetId | string, widthPx: number): string =>
  `/api/v1/shows/${show}/pictures/${asset}?width=${widthPx}`;

export const soundUrl = (show: ShowId, asset: AssetId): string => `/api/v1/shows/${show}/sounds/${asset}`;

/** Where pictures of the open show are had. */
export function usePictureUrl(): (asset: AssetId | string, widthPx: number) => string {
  const show = useShow((state) => state.show.id);
  return useCallback((asset, widthPx) => pictureUrl(show, asset, widthPx), [show]);
}

/** Where a frame of a clip of the open show is had as a picture, by its moment in the clip. */
export function useClipFrameUrl(): (asset: AssetId, clipMs: number) => string {
  const show = useShow((state) => state.show.id);
  return useCallback(
    (asset, clipMs) => {
      const frame = Math.max(0, Math.floor(clipMs / CLIP_FRAME_MS + 0.01));
      const second = Math.floor(frame / CLIP_FRAMES_PER_SECOND);
      return `/api/v1/shows/${show}/clips/${asset}/${second}?frame=${frame % CLIP_FRAMES_PER_SECOND}`;
    },
    [show],
  );
}

'use client';

import { useCallback } from 'react';
import { CLIP_FRAMES_PER_SECOND } from '../../core/frame/frame-plan';
import type { AssetId, ShowId } from '../../core/show/ids';
import { CLIP_FRAME_MS } from '../../core/timing/clip-time';
import { useShow } from './show-provider';

/**
 * Where a picture of a show is had, at least so wide. Files are had by way of a show that has them on its contact sheet.
 *
 * @param posterMs of a clip: the frame that stands for it; its first when it is not said
 */
export const pictureUrl = (show: ShowId, asset: AssetId | string, widthPx: number, posterMs?: number | null): string =>
  typeof posterMs === 'number'
    ? clipFrameUrl(show, asset, posterMs)
    : `/api/v1/shows/${show}/pictures/${asset}?width=${widthPx}`;

/** Where a frame of a clip is had as a picture, by its moment in the clip. */
function clipFrameUrl(show: ShowId, asset: AssetId | string, clipMs: number): string {
  const frame = Math.max(0, Math.floor(clipMs / CLIP_FRAME_MS + 0.01));
  const second = Math.floor(frame / CLIP_FRAMES_PER_SECOND);
  return `/api/v1/shows/${show}/clips/${asset}/${second}?frame=${frame % CLIP_FRAMES_PER_SECOND}`;
}

export const soundUrl = (show: ShowId, asset: AssetId): string => `/api/v1/shows/${show}/sounds/${asset}`;

/** Where pictures of the open show are had. */
export function usePictureUrl(): (asset: AssetId | string, widthPx: number) => string {
  const show = useShow((state) => state.show.id);
  const posters = useShow((state) => state.show.posters);
  return useCallback((asset, widthPx) => pictureUrl(show, asset, widthPx, posters?.[asset]), [show, posters]);
}

/** Where frames of clips of the open show are had as pictures, by their moment in the clip. */
export function useClipFrameUrl(): (asset: AssetId, clipMs: number) => string {
  const show = useShow((state) => state.show.id);
  return useCallback((asset, clipMs) => clipFrameUrl(show, asset, clipMs), [show]);
}

'use client';

import { useCallback } from 'react';
import type { AssetId, ShowId } from '../../core/show/ids';
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

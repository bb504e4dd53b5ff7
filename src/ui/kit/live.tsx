'use client';

import { useEffect } from 'react';

/** Marks the page once it can be worked on; drawn by the server it is seen a little before. A station of a show comes to life by itself. */
export function Live({ station }: { readonly station?: string }) {
  useEffect(() => {
    const { dataset } = document.documentElement;
    if (station === undefined) dataset.live = '';
    else dataset.station = station;
    return () => {
      if (dataset.station === station) delete dataset.station;
    };
  }, [station]);
  return null;
}

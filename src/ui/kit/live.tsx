'use client';

import { useEffect } from 'react';

/** Marks the page once it can be worked on; drawn by the server it is seen a little before. */
export function Live() {
  useEffect(() => {
    document.documentElement.dataset.live = '';
  }, []);
  return null;
}

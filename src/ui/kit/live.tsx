'use client';

import { useEffect } from 'react';
import { toast } from 'sonner';
import { lettersLeftOut } from './cut-paste';

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

/** Says, wherever something is pasted, that a field holds less than that: browsers leave out the rest without a word. */
export function CutPasteNote() {
  useEffect(() => {
    const onPaste = ({ target, clipboardData }: ClipboardEvent) => {
      if (!(target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement)) return;
      const left = lettersLeftOut(target, clipboardData?.getData('text') ?? '');
      if (left > 0)
        toast(
          `${target.maxLength.toLocaleString('en')} letters fit here; the last ${left.toLocaleString('en')} were left out.`,
        );
    };
    document.addEventListener('paste', onPaste);
    return () => document.removeEventListener('paste', onPaste);
  }, []);
  return null;
}

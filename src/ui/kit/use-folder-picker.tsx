'use client';

import { useRef, type ReactNode } from 'react';

interface FolderPicker {
  /** Has the person choose a folder. */
  pick(): void;
  /** To be put into the page. */
  readonly picker: ReactNode;
}

/** Choosing a folder of this computer. @param onFiles gets every file in it but hidden ones */
export function useFolderPicker(label: string, part: string, onFiles: (files: File[]) => void): FolderPicker {
  const input = useRef<HTMLInputElement>(null);
  return {
    pick: () => input.current?.click(),
    picker: (
      <input
        ref={input}
        type="file"
        multiple
        {...{ webkitdirectory: '' }}
        aria-label={label}
        className="sr-only"
        tabIndex={-1}
        data-part={part}
        onChange={({ target }) => {
          onFiles([...(target.files ?? [])].filter(({ name }) => !name.startsWith('.')));
          target.value = '';
        }}
      />
    ),
  };
}

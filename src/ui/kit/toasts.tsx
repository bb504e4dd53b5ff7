'use client';

import { Toaster, type ToasterProps } from 'sonner';

/** Where the page says what has happened. */
export function Toasts({ offset }: Pick<ToasterProps, 'offset'>) {
  return (
    <Toaster
      position="bottom-center"
      offset={offset}
      toastOptions={{
        style: {
          background: 'var(--color-black)',
          color: 'var(--color-lamp)',
          border: 'none',
          fontFamily: 'var(--font-sans)',
        },
      }}
    />
  );
}

'use client';

import { Toaster, type ToasterProps } from 'sonner';

/** Where the page says what has happened. What lies under a message that asks nothing is pressed through it. */
export function Toasts({ offset }: Pick<ToasterProps, 'offset'>) {
  return (
    <Toaster
      position="bottom-center"
      offset={offset}
      toastOptions={{
        className: 'not-has-[button]:pointer-events-none!',
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

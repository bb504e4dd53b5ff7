'use client';

import { Toaster, type ToasterProps } from 'sonner';

/** Long enough to read two lines twice. */
const SEEN_MS = 6000;

/** Where the page says what has happened. What lies under a message that asks nothing is pressed through it. */
export function Toasts({ offset, position = 'bottom-center' }: Pick<ToasterProps, 'offset' | 'position'>) {
  return (
    <Toaster
      position={position}
      offset={offset}
      duration={SEEN_MS}
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

import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import '@fontsource-variable/bricolage-grotesque';
import '@fontsource-variable/instrument-sans';
import '@fontsource-variable/spline-sans-mono';
import './globals.css';

/** Pages are made when they are asked for: each carries the nonce of its own policy. */
export const dynamic = 'force-dynamic';

export const metadata: Metadata = {
  title: 'Tanager',
  description: 'Photos, clips and music become a film.',
  icons: { icon: '/tanager.svg' },
};

export default function RootLayout({ children }: { children: ReactNode }) {
  return (
    <html lang="en">
      <body>{children}</body>
    </html>
  );
}

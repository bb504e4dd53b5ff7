import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import '@fontsource-variable/bricolage-grotesque';
import '@fontsource-variable/instrument-sans';
import '@fontsource-variable/spline-sans-mono';
import '@fontsource-variable/noto-sans';
import '@fontsource-variable/noto-sans-arabic';
import '@fontsource-variable/noto-sans-devanagari';
import '@fontsource-variable/noto-sans-hebrew';
import '@fontsource-variable/noto-sans-kr';
import '@fontsource-variable/noto-sans-sc';
import '@fontsource-variable/noto-sans-thai';
import '@fontsource/noto-color-emoji';
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

import type { Metadata } from 'next';
import { cookies } from 'next/headers';
import type { ReactNode } from 'react';
import { CutPasteNote, Live } from '@/ui/kit/live';
import { ROOM_COOKIE, roomOf } from '@/ui/kit/room';
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

export default async function RootLayout({ children }: { children: ReactNode }) {
  const room = roomOf((await cookies()).get(ROOM_COOKIE)?.value);
  return (
    <html lang="en" data-room={room}>
      <body>
        {children}
        <Live />
        <CutPasteNote />
      </body>
    </html>
  );
}

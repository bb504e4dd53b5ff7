'use client';

import PageFailed from './error';
import './globals.css';

/** When even the frame around the pages fails. */
export default function EverythingFailed(props: { error: Error & { digest?: string }; reset: () => void }) {
  return (
    <html lang="en">
      <body>
        <PageFailed {...props} />
      </body>
    </html>
  );
}

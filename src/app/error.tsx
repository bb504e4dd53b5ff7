'use client';

import Link from 'next/link';
import { useEffect } from 'react';
import { Bird } from '@/ui/kit/bird';
import { Button } from '@/ui/kit/button';

/** A page that could not be shown: what was made is safe, and there is a way on. */
export default function PageFailed({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  useEffect(() => console.error(error), [error]);
  return (
    <main className="grid min-h-dvh place-items-center p-8 text-center">
      <div>
        <Bird className="mx-auto mb-4 size-16" />
        <h1 className="text-xl">This page could not be shown</h1>
        <p className="mt-2 max-w-md text-base text-soft">
          Nothing you made is lost: every change was saved when you made it. Try again; if it stays like this, the
          server’s log says what happened{error.digest ? ` (${error.digest})` : ''}.
        </p>
        <p className="mt-4 flex justify-center gap-3">
          <Button look="main" onClick={reset}>
            Try again
          </Button>
          <Link href="/" className="self-center text-base text-red-deep underline">
            Go to the shelf
          </Link>
        </p>
      </div>
    </main>
  );
}

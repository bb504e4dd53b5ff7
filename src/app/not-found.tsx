import Link from 'next/link';
import { Bird } from '@/ui/kit/bird';

export default function NotFound() {
  return (
    <main className="grid min-h-dvh place-items-center p-8 text-center">
      <div>
        <Bird className="mx-auto mb-4 size-16" />
        <h1 className="text-xl">There is nothing here</h1>
        <p className="mt-2 text-base text-soft">
          The show may have been taken off the shelf, or the link is not whole.
        </p>
        <Link href="/" className="mt-4 inline-block text-base text-red-deep underline">
          Go to the shelf
        </Link>
      </div>
    </main>
  );
}

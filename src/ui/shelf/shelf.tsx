'use client';

import { formatDistance } from 'date-fns';
import { Plus, Trash2 } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { toast, Toaster } from 'sonner';
import type { ShelfEntry } from '../../server/shows/show-service';
import { Bird } from '../kit/bird';
import { Button } from '../kit/button';
import { clock } from '../kit/clock';
import { callServer } from '../show/call-server';

/** All the shows, as prints on a shelf. */
export function Shelf({ entries, now }: { entries: readonly ShelfEntry[]; now: number }) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const failed = (error: unknown) => void toast(error instanceof Error ? error.message : 'The server cannot be reached.');

  const create = async () => {
    setBusy(true);
    try {
      const { id } = await callServer<{ id: string }>('POST', '/api/shows', { title: 'New show' });
      router.push(`/shows/${id}/gather`);
    } catch (error) {
      setBusy(false);
      failed(error);
    }
  };
  const remove = async (entry: ShelfEntry) => {
    try {
      await callServer('DELETE', `/api/shows/${entry.id}`);
      router.refresh();
      toast(`“${entry.title}” was taken off the shelf.`, {
        duration: 12_000,
        action: { label: 'Undo', onClick: () => void callServer('DELETE', `/api/shows/${entry.id}/removal`).then(() => router.refresh()).catch(failed) },
      });
    } catch (error) {
      failed(error);
    }
  };

  return (
    <div className="flex min-h-dvh flex-col">
      <header className="flex h-16 items-center gap-3 border-b border-rule bg-card px-6">
        <Bird className="size-10" />
        <h1 className="text-lg">Shelf</h1>
        <p className="ml-1 text-soft">{entries.length === 0 ? 'no shows yet' : entries.length === 1 ? '1 show' : `${entries.length} shows`}</p>
        <Button look="main" className="ml-auto" onClick={() => void create()} disabled={busy} data-part="new-show"><Plus size={15} /> New show</Button>
      </header>
      <main className="mx-auto w-full max-w-[1240px] flex-1 px-6 py-8">
        {entries.length === 0 ? (
          <div className="mt-20 text-center">
            <h2 className="text-xl">An evening’s pictures become a film</h2>
            <p className="mx-auto mt-2 max-w-md text-base text-soft">Start a show, drop your pictures and a song into it, put them in order, watch it and send it.</p>
            <Button look="main" className="mt-5 h-10 px-5" onClick={() => void create()} disabled={busy}>Start the first show</Button>
          </div>
        ) : (
          <ul className="grid grid-cols-[repeat(auto-fill,minmax(264px,1fr))] gap-x-7 gap-y-9" data-part="shelf">
            {entries.map((entry) => (
              <li key={entry.id} className="group relative">
                <Link href={`/shows/${entry.id}`} className="block">
                  <span className="block bg-white p-2 shadow-print transition-transform group-hover:-translate-y-0.5">
                    <span className="block aspect-[16/9] overflow-hidden bg-surround">
                      {/* The print is already as small as it is shown. */}
                      {/* eslint-disable-next-line @next/next/no-img-element */}
                      {entry.posterAssetId ? <img src={`/api/pictures/${entry.posterAssetId}?width=960`} alt="" className="h-full w-full object-cover" /> : <span className="grid h-full place-items-center text-lamp-soft">no pictures yet</span>}
                    </span>
                  </span>
                  <span className="mt-3 line-clamp-2 font-display text-lg leading-snug font-semibold">{entry.title}</span>
                </Link>
                <p className="mt-0.5 flex items-center gap-3 text-soft">
                  <span><span className="tabular text-ink">{entry.slideCount}</span> {entry.slideCount === 1 ? 'slide' : 'slides'}</span>
                  <span className="tabular text-ink">{clock(entry.lengthMs)}</span>
                  <span>changed {formatDistance(entry.changedAt, now, { addSuffix: true })}</span>
                </p>
                <Button look="quiet" square aria-label={`Take “${entry.title}” off the shelf`} className="absolute right-0 -bottom-1 opacity-0 group-hover:opacity-100 focus-visible:opacity-100" onClick={() => void remove(entry)}><Trash2 size={15} /></Button>
              </li>
            ))}
          </ul>
        )}
      </main>
      <Toaster position="bottom-center" toastOptions={{ style: { background: 'var(--color-black)', color: 'var(--color-lamp)', border: 'none', fontFamily: 'var(--font-sans)' } }} />
    </div>
  );
}

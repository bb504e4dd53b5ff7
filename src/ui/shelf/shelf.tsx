'use client';

import { ChevronDown, Plus, Search } from 'lucide-react';
import Link from 'next/link';
import { DropdownMenu } from 'radix-ui';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import { STARTING_POINTS } from '../../core/starting/starting-points';
import type { Unused } from '../../server/shows/clearing';
import type { ShelfEntry } from '../../server/shows/show-service';
import { droppedFiles } from '../gather/dropped-files';
import { Bird } from '../kit/bird';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { RoomSwitch } from '../kit/room-switch';
import { Pick } from '../kit/pick';
import { whenIdle } from '../kit/when-idle';
import { useIsGuest } from '../people/me';
import { WhoMenu } from '../people/who-menu';
import { callServer } from '../show/call-server';
import { carryFiles } from '../show/carried-files';
import { BundleIntakes, useBundleIntakes } from './bundle-intakes';
import { ClearAway } from './clear-away';
import { DiscLines } from './disc-lines';
import { SeriesLines } from './series-lines';
import { SHELF_ORDERS, shelfView, titleFromFiles, type ShelfOrder } from './shelf-view';
import { ShelfShow } from './shelf-show';
import { sayFault } from '../show/say-fault';
import { Toasts } from '../kit/toasts';

type Place = ShelfEntry['place'];

const EMPTY: Readonly<Record<Place, string>> = {
  shelf: 'No show is called that.',
  archive: 'Nothing is in the archive. A show that is put there keeps everything and stands out of the way.',
  removed: 'Nothing was taken off the shelf.',
};

const isBundle = ({ name }: File): boolean => /\.zip$/i.test(name);

/** What a show is opened with is there by the time somebody opens one. */
async function warmUp(): Promise<void> {
  await import('../show/show-header');
  await import('../gather/gather-station');
}

/** All the shows, as prints on a shelf; files dropped on it become a new show. */
export function Shelf({ entries, now }: { entries: readonly ShelfEntry[]; now: number }) {
  const router = useRouter();
  const isGuest = useIsGuest();
  const [busy, setBusy] = useState(false);
  const [over, setOver] = useState(false);
  const [part, setPart] = useState('');
  const [order, setOrder] = useState<ShelfOrder>('changed');
  const [place, setPlace] = useState<Place>('shelf');
  const bundles = useBundleIntakes(!isGuest);
  const picker = useRef<HTMLInputElement>(null);
  const counts = { shelf: 0, archive: 0, removed: 0 };
  for (const entry of entries) counts[entry.place] += 1;
  const shown = shelfView(entries, place, part, order);

  useEffect(() => whenIdle(() => void warmUp().catch(() => {})), []);

  const create = async (title: string, files: readonly File[], start: string | null = null) => {
    setBusy(true);
    try {
      const { id } = await callServer<{ id: string }>('POST', '/api/v1/shows', { title });
      carryFiles(id, files);
      router.push(`/shows/${id}/gather${start === null ? '' : `?start=${start}`}`);
    } catch (error) {
      setBusy(false);
      sayFault(error);
    }
  };
  /** Does something to a show and says it, with the way back. */
  const change = async (work: () => Promise<unknown>, said: string | null, undo: (() => Promise<unknown>) | null) => {
    try {
      await work();
      router.refresh();
      if (said)
        toast(said, {
          duration: 12_000,
          ...(undo && { action: { label: 'Undo', onClick: () => void change(undo, null, null) } }),
        });
    } catch (error) {
      sayFault(error);
    }
  };
  const clearAway = async (said: (gone: Unused) => string, work: () => Promise<Unused>) => {
    try {
      toast(said(await work()));
      router.refresh();
    } catch (error) {
      sayFault(error);
    }
  };
  const drop = async (transfer: DataTransfer) => {
    setOver(false);
    const top =
      [...transfer.items].map((item) => item.webkitGetAsEntry()).find((entry) => entry?.isDirectory)?.name ?? null;
    const files = await droppedFiles(transfer);
    if (files.length > 0 && files.every(isBundle)) return bundles.take(files);
    if (files.length > 0) await create(titleFromFiles(top, files, new Date(now)), files);
  };

  return (
    <div
      className="flex min-h-dvh flex-col"
      onDragEnter={(event) => {
        if (!isGuest && event.dataTransfer.types.includes('Files')) setOver(true);
      }}
      onDragOver={(event) => {
        if (event.dataTransfer.types.includes('Files')) event.preventDefault();
      }}
      onDragLeave={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget as Node | null)) setOver(false);
      }}
      onDrop={(event) => {
        event.preventDefault();
        if (!isGuest) void drop(event.dataTransfer).catch(sayFault);
      }}
      data-part="shelf-page"
    >
      <header className="flex min-h-16 flex-wrap items-center gap-x-3 gap-y-2 border-b border-rule bg-card px-6 py-3">
        <Bird className="size-10" />
        <h1 className="text-lg">Shelf</h1>
        {entries.length > 0 && (
          <>
            <label className="relative ml-2">
              <Search size={14} aria-hidden="true" className="absolute top-1/2 left-2.5 -translate-y-1/2 text-soft" />
              <input
                type="search"
                aria-label="Find a show"
                placeholder="find a show"
                value={part}
                onChange={(event) => setPart(event.target.value)}
                className="h-8 w-44 rounded-md border border-rule bg-field pr-2 pl-8"
              />
            </label>
            <Choice
              label="Where"
              value={place}
              onChange={setPlace}
              options={[
                { value: 'shelf', label: `shelf ${counts.shelf}` },
                { value: 'archive', label: `archive ${counts.archive}` },
                ...(counts.removed > 0 ? [{ value: 'removed' as const, label: `taken off ${counts.removed}` }] : []),
              ]}
            />
            <Pick
              label="Order of the shows"
              value={order}
              groups={[{ name: null, options: SHELF_ORDERS.map(({ value, label }) => ({ value, label })) }]}
              onChange={setOrder}
            />
          </>
        )}
        <span className="ml-auto">
          <RoomSwitch />
        </span>
        {!isGuest && (
          <Link href="/studio" className="px-2 text-base text-soft hover:text-ink">
            Studio
          </Link>
        )}
        <WhoMenu />
        {!isGuest && (
          <>
            <DropdownMenu.Root>
              <DropdownMenu.Trigger asChild>
                <Button disabled={busy} data-part="begin-with">
                  Begin with … <ChevronDown size={13} />
                </Button>
              </DropdownMenu.Trigger>
              <DropdownMenu.Portal>
                <DropdownMenu.Content
                  align="end"
                  sideOffset={4}
                  className="z-30 w-72 rounded-lg border border-rule bg-card p-1.5 shadow-raised"
                >
                  {STARTING_POINTS.map(({ id, name, description, words }) => (
                    <DropdownMenu.Item
                      key={id}
                      onSelect={() => void create(words.title, [], id)}
                      className="cursor-default rounded-md px-2.5 py-1.5 outline-none data-[highlighted]:bg-rule/60"
                    >
                      {name}
                      <span className="block text-xs text-soft">{description}</span>
                    </DropdownMenu.Item>
                  ))}
                  <DropdownMenu.Item
                    onSelect={() => picker.current?.click()}
                    className="cursor-default rounded-md border-t border-rule px-2.5 py-1.5 outline-none data-[highlighted]:bg-rule/60"
                    data-part="take-bundle"
                  >
                    A show that was saved as one file
                    <span className="block text-xs text-soft">
                      From another Tanager, or kept by you: slides, files, versions.
                    </span>
                  </DropdownMenu.Item>
                </DropdownMenu.Content>
              </DropdownMenu.Portal>
            </DropdownMenu.Root>
            <input
              ref={picker}
              type="file"
              multiple
              accept=".zip,application/zip"
              hidden
              aria-label="Shows that were saved as one file"
              data-part="bundle-picker"
              onChange={({ target }) => {
                bundles.take([...(target.files ?? [])]);
                target.value = '';
              }}
            />
            <Button look="main" onClick={() => void create('New show', [])} disabled={busy} data-part="new-show">
              <Plus size={15} /> New show
            </Button>
          </>
        )}
      </header>
      <main className="mx-auto w-full max-w-[1240px] flex-1 px-6 py-8">
        <BundleIntakes known={bundles} />
        {place === 'shelf' && part === '' && <SeriesLines asks={!isGuest} />}
        {place === 'shelf' && part === '' && <DiscLines asks={!isGuest} />}
        {place === 'removed' && (
          <ClearAway count={counts.removed} onClear={(said, work) => void clearAway(said, work)} />
        )}
        {entries.length === 0 && isGuest ? (
          <p className="mt-20 text-center text-base text-soft">Nobody has let you into a show yet.</p>
        ) : entries.length === 0 ? (
          <div className="mt-20 text-center">
            <h2 className="text-xl">An evening’s pictures become a film</h2>
            <p className="mx-auto mt-2 max-w-md text-base text-soft">
              Drop a folder of pictures anywhere here, and a song with it. Put them in order, watch it and send it.
            </p>
            <Button look="main" className="mt-5 h-10 px-5" onClick={() => void create('New show', [])} disabled={busy}>
              Start the first show
            </Button>
          </div>
        ) : (
          <ul className="grid grid-cols-[repeat(auto-fill,minmax(264px,1fr))] gap-x-7 gap-y-9" data-part="shelf">
            {shown.map((entry) => (
              <ShelfShow key={entry.id} entry={entry} now={now} onChange={change} />
            ))}
            {place === 'shelf' && part === '' && !isGuest && (
              <li>
                <button
                  type="button"
                  onClick={() => void create('New show', [])}
                  disabled={busy}
                  className="grid aspect-[16/9] w-full place-items-center border-2 border-dashed border-soft/40 text-center text-soft hover:border-red hover:text-ink"
                >
                  <span>
                    Drop pictures here
                    <br />
                    to begin a show
                  </span>
                </button>
              </li>
            )}
          </ul>
        )}
        {entries.length > 0 && shown.length === 0 && (place !== 'shelf' || part !== '') && (
          <p className="mt-16 text-center text-base text-soft">{part === '' ? EMPTY[place] : EMPTY.shelf}</p>
        )}
      </main>
      {over && (
        <div className="pointer-events-none fixed inset-3 z-50 grid place-items-center rounded-xl border-2 border-dashed border-red bg-red-wash/90">
          <p className="font-display text-xl font-semibold">Let go to begin a show with them</p>
        </div>
      )}
      <Toasts />
    </div>
  );
}

'use client';

import { clsx } from 'clsx';
import { FolderOpen, ImagePlus, X } from 'lucide-react';
import { nanoid } from 'nanoid';
import { useMemo, useRef, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { toast } from 'sonner';
import { slideFromAsset } from '../../core/show/new-slide';
import { assetIdsOfLayer, everyLayer } from '../../core/show/layer';
import type { Slide } from '../../core/show/show';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { clock } from '../kit/clock';
import { selectionAfterClick, selectionAfterStep } from '../kit/selection';
import { callServer } from '../show/call-server';
import { useShow } from '../show/show-provider';
import { ContactSheet } from './contact-sheet';
import { droppedFiles } from './dropped-files';
import { FactsPanel } from './facts-panel';
import { useUploads } from './use-uploads';

type Filter = 'all' | 'unused' | 'used';
type Order = 'taken' | 'name';

const ACCEPT = '.jpg,.jpeg,.png,.gif,.webp,.avif,.tif,.tiff,.mp4,.mov,.webm,.mkv,.avi,.mp3,.m4a,.wav,.flac,.ogg,.opus,image/*,video/*,audio/*';
const natural = new Intl.Collator('en', { numeric: true });

/** Where files come in and are chosen: the contact sheet, the facts of what is under the hand, and the way into the order. */
export function GatherStation() {
  const show = useShow((state) => state.show);
  const entries = useShow((state) => state.entries);
  const edit = useShow((state) => state.edit);
  const uploads = useUploads(show.id);
  const picker = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  const [filter, setFilter] = useState<Filter>('all');
  const [order, setOrder] = useState<Order>('taken');
  const [selection, setSelection] = useState<ReadonlySet<string>>(new Set());
  const [anchor, setAnchor] = useState<string | null>(null);
  const [focus, setFocus] = useState<string | null>(null);

  const usedOn = useMemo(() => slidesByAsset(show.slides), [show.slides]);
  const prints = useMemo(() => entries.filter((entry) => entry.facts?.kind === 'picture' || entry.facts?.kind === 'clip').sort(order === 'taken' ? byTime : byName), [entries, order]);
  const shown = useMemo(() => prints.filter((entry) => filter === 'all' || usedOn.has(entry.assetId) === (filter === 'used')), [prints, filter, usedOn]);
  const sounds = entries.filter((entry) => entry.facts?.kind === 'sound');
  const refused = entries.filter((entry) => entry.state === 'refused');
  const looking = entries.filter((entry) => entry.state === 'arrived').length;
  const ids = useMemo(() => shown.map((entry) => entry.id), [shown]);
  const chosen = shown.filter((entry) => selection.has(entry.id));
  const toLay = chosen.length > 0 ? chosen : prints.filter((entry) => !usedOn.has(entry.assetId));
  const clips = toLay.reduce((sum, entry) => sum + (entry.facts?.kind === 'clip' ? entry.facts.lengthMs - show.defaultLengthMs : 0), 0);

  const take = (selected: { ids: readonly string[]; anchor: string | null }, focused: string | null) => {
    setSelection(new Set(selected.ids));
    setAnchor(selected.anchor);
    setFocus(focused);
  };
  const layIn = () => {
    if (toLay.length === 0) return;
    const slides = toLay.map((entry) => slideFromAsset(entry.assetId, entry.facts!, show.defaultLengthMs, () => nanoid(10)));
    edit({ kind: 'add-slides', runs: [{ afterId: show.slides.at(-1)?.id ?? null, slides }] });
    toast(`${slides.length === 1 ? 'One picture was' : `${slides.length} pictures were`} laid into the order.`);
  };
  const step = (by: number, stretch: boolean) => {
    const next = selectionAfterStep(ids, anchor, focus, by, stretch);
    if (next) take(next, next.focus);
  };
  useHotkeys('right, shift+right, left, shift+left', (event) => { event.preventDefault(); step(event.key === 'ArrowRight' ? 1 : -1, event.shiftKey); });
  useHotkeys('mod+a', (event) => { event.preventDefault(); take({ ids, anchor: ids[0] ?? null }, focus); });
  useHotkeys('escape', () => take({ ids: [], anchor: null }, null));
  useHotkeys('enter', (event) => { if (!(event.target as HTMLElement).closest('button, a, input')) layIn(); });

  const { progress } = uploads;
  const coming = progress !== null && progress.filesDone < progress.fileCount;
  return (
    <div
      className="relative flex min-w-0 flex-1"
      onDragEnter={(event) => { if (event.dataTransfer.types.includes('Files')) setOver(true); }}
      onDragOver={(event) => { if (event.dataTransfer.types.includes('Files')) event.preventDefault(); }}
      onDragLeave={(event) => { if (!event.currentTarget.contains(event.relatedTarget as Node | null)) setOver(false); }}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        void droppedFiles(event.dataTransfer).then(uploads.add);
      }}
      onPaste={(event) => uploads.add([...event.clipboardData.files])}
      data-part="gather"
    >
      <input ref={picker} type="file" multiple accept={ACCEPT} aria-label="Files for this show" className="sr-only" tabIndex={-1} data-part="file-picker" onChange={(event) => { uploads.add([...(event.target.files ?? [])]); event.target.value = ''; }} />
      <div className="flex min-w-0 flex-1 flex-col">
        <div className="flex h-11 shrink-0 items-center gap-3 border-b border-rule px-4 whitespace-nowrap">
          <span data-part="tally"><Count n={prints.filter((entry) => entry.facts?.kind === 'picture').length} one="picture" /> <Count n={prints.filter((entry) => entry.facts?.kind === 'clip').length} one="clip" optional /> <Count n={sounds.length} one="sound" optional /></span>
          {coming && (
            <span role="status" className="flex items-center gap-2.5" data-part="intake">
              <progress aria-label="Files coming in" max={progress.bytes || 1} value={progress.bytesDone} className="h-1 w-20 appearance-none overflow-hidden rounded-full [&::-webkit-progress-bar]:bg-rule [&::-webkit-progress-value]:bg-ink" />
              <span>taking in <b className="tabular">{progress.filesDone}</b> of <b className="tabular">{progress.fileCount}</b>{progress.leftMs !== null && <> · <span className="tabular">{clock(Math.max(1000, progress.leftMs))}</span> left</>}</span>
              <button type="button" className="underline underline-offset-2" onClick={uploads.stop}>stop</button>
            </span>
          )}
          {!coming && looking > 0 && <span role="status" data-part="intake">looking at {looking} more …</span>}
          <span className="ml-auto flex items-center gap-2.5">
            <Choice label="Order of the prints" value={order} onChange={setOrder} options={[{ value: 'taken', label: 'by time' }, { value: 'name', label: 'by name' }]} />
            <Choice label="Which prints" value={filter} onChange={setFilter} options={[{ value: 'all', label: 'all' }, { value: 'unused', label: 'not used' }, { value: 'used', label: 'used' }]} />
            <Button onClick={() => picker.current?.click()} data-part="choose-files"><FolderOpen size={15} /> Choose files</Button>
          </span>
        </div>
        {(refused.length > 0 || (progress?.failed.length ?? 0) > 0 || (progress?.already ?? 0) > 0) && (
          <ul className="max-h-32 shrink-0 overflow-y-auto border-b border-rule bg-red-wash/60 px-4 py-2 scroll-thin" data-part="refused" aria-label="Files that could not be used">
            {refused.map((entry) => (
              <li key={entry.id} className="flex items-center gap-2 leading-6">
                <span className="font-semibold">{entry.fileName}</span> <span className="truncate">{entry.problem}</span>
                <Button look="quiet" square className="ml-auto size-6" aria-label={`Put away the line about ${entry.fileName}`} onClick={() => void callServer('DELETE', `/api/shows/${show.id}/sheet/${entry.id}`).catch((error: unknown) => toast(String(error)))}><X size={13} /></Button>
              </li>
            ))}
            {progress?.failed.map((failure) => <li key={failure.fileName} className="leading-6"><span className="font-semibold">{failure.fileName}</span> {failure.problem}</li>)}
            {(progress?.already ?? 0) > 0 && !coming && (
              <li className="flex items-center leading-6">{progress!.already === 1 ? 'One file was' : `${progress!.already} files were`} already on the sheet and {progress!.already === 1 ? 'is' : 'are'} there once.
                <Button look="quiet" square className="ml-auto size-6" aria-label="Put this away" onClick={uploads.dismiss}><X size={13} /></Button>
              </li>
            )}
          </ul>
        )}
        {prints.length === 0 ? (
          <div className="grid min-h-0 flex-1 place-items-center">
            <button type="button" onClick={() => picker.current?.click()} className="grid h-72 w-[560px] place-items-center rounded-xl border-2 border-dashed border-soft/40 text-center hover:border-red">
              <span>
                <ImagePlus className="mx-auto mb-3 text-soft" size={34} strokeWidth={1.4} />
                <span className="block font-display text-lg font-semibold">{looking > 0 ? 'Your files have arrived and are being looked at' : 'Drop pictures, clips and a song here'}</span>
                <span className="mt-1.5 block text-soft">a whole folder is fine · or choose files</span>
                <span className="mt-3 block text-xs text-soft">JPEG, PNG, GIF, WebP, AVIF, TIFF · MP4, MOV, WebM, MKV, AVI · MP3, M4A, WAV, FLAC, OGG, Opus</span>
              </span>
            </button>
          </div>
        ) : (
          <ContactSheet
            entries={shown}
            usedOn={usedOn}
            selection={selection}
            focus={focus}
            onClick={(entry, keys) => take(selectionAfterClick(ids, selection, anchor, entry.id, keys), entry.id)}
            onStep={step}
            onBand={(picked) => take({ ids: picked, anchor: picked[0] ?? null }, picked.at(-1) ?? null)}
          />
        )}
        <div className={clsx('flex h-[76px] shrink-0 items-center gap-5 border-t border-rule bg-card px-4', prints.length === 0 && 'hidden')}>
          <div>
            <p className="text-base"><b className="tabular">{toLay.length}</b> {chosen.length > 0 ? 'chosen' : 'not yet used'}</p>
            <p className="text-soft">about <span className="tabular">{clock(toLay.length * show.defaultLengthMs + clips)}</span> at <span className="tabular">{(show.defaultLengthMs / 1000).toFixed(1)}</span> s a picture</p>
          </div>
          <ul className="flex min-w-0 flex-1 gap-1.5 overflow-hidden" aria-hidden="true">
            {toLay.slice(0, 12).map((entry) => (
              <li key={entry.id} className="h-11 w-16 shrink-0 bg-white p-[3px] shadow-print">
                {/* eslint-disable-next-line @next/next/no-img-element */}
                <img src={`/api/pictures/${entry.assetId}?width=320`} alt="" className="h-full w-full object-cover" />
              </li>
            ))}
          </ul>
          <Button look="main" className="h-10 px-5 text-base" disabled={toLay.length === 0} onClick={layIn} data-part="lay-in">Lay into the order</Button>
        </div>
      </div>
      <FactsPanel entry={shown.find((entry) => entry.id === focus) ?? null} sounds={sounds} usedOn={usedOn} />
      {over && (
        <div className="pointer-events-none absolute inset-3 z-20 grid place-items-center rounded-xl border-2 border-dashed border-red bg-red-wash/90">
          <p className="font-display text-xl font-semibold">Let go to take them in</p>
        </div>
      )}
    </div>
  );
}

function Count({ n, one, optional = false }: { n: number; one: string; optional?: boolean }) {
  if (n === 0 && optional) return null;
  return <span className="mr-3"><b className="tabular">{n}</b> {n === 1 ? one : `${one}s`}</span>;
}

function slidesByAsset(slides: readonly Slide[]): ReadonlyMap<string, readonly number[]> {
  const found = new Map<string, number[]>();
  slides.forEach((slide, index) => {
    const assets = new Set([...everyLayer(slide.layers)].flatMap(assetIdsOfLayer));
    for (const asset of assets) found.set(asset, [...(found.get(asset) ?? []), index + 1]);
  });
  return found;
}

function byTime(a: SheetEntry, b: SheetEntry): number {
  return timeOf(a).localeCompare(timeOf(b)) || byName(a, b);
}

/** Files that do not say when they were taken come after those that do. */
function timeOf(entry: SheetEntry): string {
  return (entry.facts && 'takenAt' in entry.facts && entry.facts.takenAt) || '9999';
}

function byName(a: SheetEntry, b: SheetEntry): number {
  return natural.compare(a.fileName, b.fileName);
}

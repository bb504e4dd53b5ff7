'use client';

import { format, parseISO } from 'date-fns';
import { Music2, Pause, Play, Plus } from 'lucide-react';
import { nanoid } from 'nanoid';
import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import { cueId } from '../../core/show/ids';
import { DEFAULT_FADE_OUT_MS } from '../../core/show/show';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { Button } from '../kit/button';
import { clock, megabytes } from '../kit/clock';
import { useShow } from '../show/show-provider';

interface FactsPanelProps {
  readonly entry: SheetEntry | null;
  readonly sounds: readonly SheetEntry[];
  readonly usedOn: ReadonlyMap<string, readonly number[]>;
}

/** The facts of the print under the hand, and the sounds that came in. */
export function FactsPanel({ entry, sounds, usedOn }: FactsPanelProps) {
  return (
    <aside aria-label="Facts" className="flex w-[312px] shrink-0 flex-col gap-5 overflow-y-auto border-l border-rule bg-card p-4 scroll-thin">
      {entry?.facts && entry.facts.kind !== 'sound' ? <PictureFactsList entry={entry} facts={entry.facts} slides={usedOn.get(entry.assetId) ?? []} /> : (
        <p className="rounded-lg border border-dashed border-rule p-4 text-soft">Click a print to see what is known about it. Shift, Ctrl and dragging across the paper choose several.</p>
      )}
      <section aria-labelledby="sounds">
        <h2 id="sounds" className="mb-2 text-base">Sounds</h2>
        {sounds.length === 0 ? <p className="text-soft">Songs and spoken words you bring in are listed here.</p> : <ul className="flex flex-col gap-2">{sounds.map((sound) => <SoundRow key={sound.id} entry={sound} />)}</ul>}
      </section>
    </aside>
  );
}

function PictureFactsList({ entry, facts, slides }: { entry: SheetEntry; facts: Extract<NonNullable<SheetEntry['facts']>, { kind: 'picture' | 'clip' }>; slides: readonly number[] }) {
  const frameWidth = useShow((state) => state.show.frame.widthPx);
  const rows: [string, string][] = [
    ['taken', facts.takenAt ? format(parseISO(facts.takenAt), 'd MMM yyyy, HH:mm:ss') : 'the file does not say'],
    ['size', `${facts.widthPx} × ${facts.heightPx}`],
    ...(facts.kind === 'clip' ? [['length', clock(facts.lengthMs)], ['sound', facts.hasSound ? 'yes' : 'none']] as [string, string][] : [['sharp up to', sharpness(facts.widthPx, frameWidth)]] as [string, string][]),
    ...(facts.kind === 'picture' && facts.camera ? [['camera', facts.camera]] as [string, string][] : []),
    ['file', megabytes(entry.byteCount)],
  ];
  return (
    <section aria-label={entry.fileName}>
      <div className="grid h-44 place-items-center bg-surround p-2.5">
        {/* eslint-disable-next-line @next/next/no-img-element */}
        <img src={`/api/pictures/${entry.assetId}?width=960`} alt="" className="max-h-[156px] max-w-full object-contain" />
      </div>
      <h2 className="mt-3 truncate text-base" title={entry.fileName}>{entry.fileName}</h2>
      <p className="text-soft">{slides.length === 0 ? 'not in the order' : slides.length === 1 ? `on slide ${slides[0]}` : `on slides ${slides.slice(0, 8).join(', ')}`}</p>
      <dl className="mt-2 grid grid-cols-[92px_1fr] gap-y-1">
        {rows.map(([name, value]) => [<dt key={name} className="text-soft">{name}</dt>, <dd key={`${name} value`} className="tabular">{value}</dd>])}
      </dl>
    </section>
  );
}

/** How far the picture can be zoomed before one of its pixels has to serve for more than one of the frame's. */
function sharpness(widthPx: number, frameWidthPx: number): string {
  const zoom = widthPx / frameWidthPx;
  return zoom >= 1 ? `${zoom.toFixed(1)} × zoom in full HD` : `${Math.round(zoom * 100)} % of the frame's width`;
}

function SoundRow({ entry }: { entry: SheetEntry }) {
  const cues = useShow((state) => state.show.cues);
  const edit = useShow((state) => state.edit);
  const audio = useRef<HTMLAudioElement>(null);
  const [playing, setPlaying] = useState(false);
  useEffect(() => {
    const element = audio.current;
    return () => element?.pause();
  }, []);
  if (entry.facts?.kind !== 'sound') return null;
  const used = cues.some((cue) => cue.assetId === entry.assetId);
  const name = entry.facts.title ?? entry.fileName;
  const addAsMusic = () => {
    edit({ kind: 'set-cues', cues: [...cues, { id: cueId(nanoid(10)), assetId: entry.assetId, trimStartMs: 0, gainDb: 0, fadeInMs: 0, fadeOutMs: DEFAULT_FADE_OUT_MS }] });
    toast(`“${name}” plays under the show.`);
  };
  return (
    <li className="rounded-lg border border-rule bg-paper/50 p-2.5">
      <div className="flex items-center gap-2">
        <Button look="quiet" square aria-label={playing ? `Stop ${name}` : `Listen to ${name}`} onClick={() => { if (playing) audio.current?.pause(); else void audio.current?.play(); }}>{playing ? <Pause size={15} className="text-saffron-deep" fill="currentColor" /> : <Play size={15} className="text-saffron" fill="currentColor" />}</Button>
        <span className="min-w-0">
          <span className="block truncate font-semibold">{name}</span>
          <span className="block truncate text-soft"><span className="tabular">{clock(entry.facts.lengthMs)}</span>{entry.facts.artist && ` · ${entry.facts.artist}`}</span>
        </span>
      </div>
      <div className="mt-1.5 pl-10">
        {used ? <span className="inline-flex items-center gap-1 text-saffron-deep"><Music2 size={13} /> plays under the show</span> : <Button className="h-7" onClick={addAsMusic} data-part="use-as-music"><Plus size={13} /> Play under the show</Button>}
      </div>
      <audio ref={audio} src={`/api/sounds/${entry.assetId}`} preload="none" onPlay={() => setPlaying(true)} onPause={() => setPlaying(false)} />
    </li>
  );
}

'use client';

import { format, parseISO } from 'date-fns';
import { Clock, Music2, Pause, Play, Plus, Replace } from 'lucide-react';
import Link from 'next/link';
import { useEffect, useMemo, useRef, useState } from 'react';
import { sharpUpTo } from '../../core/motion/softness';
import type { ClipFacts, PictureFacts } from '../../core/show/asset-facts';
import { cameraOf, shiftOf, takenAt } from '../../core/show/camera-clock';
import { rawTwins } from '../../core/show/raw-twins';
import type { Mark } from '../../core/show/mark';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { Button } from '../kit/button';
import { clock, megabytes } from '../kit/clock';
import { useShow } from '../show/show-provider';
import { ClientSaysList } from '../proof/client-says';
import type { ClientSays } from '../proof/use-proofs';
import { usePlayUnder } from './use-play-under';
import { MarkButtons } from './mark-buttons';
import { soundUrl, usePictureUrl } from '../show/file-url';
import { useSongAbout } from '../sound/use-song-about';

interface FactsPanelProps {
  readonly entry: SheetEntry | null;
  /** How many prints are chosen; what is done here is done to all of them. */
  readonly chosenCount: number;
  readonly mark: Mark | null;
  /** What clients said of the print under the hand. */
  readonly says: readonly ClientSays[];
  readonly warning: string | null;
  readonly onMark: (mark: Mark | null) => void;
  readonly onSwap: () => void;
  readonly onClocks: () => void;
  readonly sounds: readonly SheetEntry[];
  readonly usedOn: ReadonlyMap<string, readonly number[]>;
}

/** The facts of the print under the hand, and the sounds that came in. */
export function FactsPanel({
  entry,
  chosenCount,
  mark,
  says,
  warning,
  sounds,
  usedOn,
  onMark,
  onSwap,
  onClocks,
}: FactsPanelProps) {
  return (
    <aside
      aria-label="Facts"
      className="flex w-[312px] shrink-0 flex-col gap-5 overflow-y-auto border-l border-rule bg-card p-4 scroll-more"
    >
      {entry?.facts && entry.facts.kind !== 'sound' ? (
        <div>
          <PictureFactsList
            entry={entry}
            facts={entry.facts}
            warning={warning}
            slides={usedOn.get(entry.assetId) ?? []}
            onSwap={onSwap}
            onClocks={onClocks}
          />
          {chosenCount > 1 && (
            <p className="mt-3 text-soft">
              for all <b className="tabular text-ink">{chosenCount}</b> chosen:
            </p>
          )}
          <div className="mt-2">
            <MarkButtons mark={mark} onMark={onMark} />
          </div>
          <ClientSaysList says={says} />
        </div>
      ) : (
        <p className="rounded-lg border border-dashed border-rule p-4 text-soft">
          Click a print to see what is known about it. Shift, Ctrl and dragging across the paper choose several.{' '}
          <b className="text-ink">K</b> keeps, <b className="text-ink">L</b> lets linger, <b className="text-ink">O</b>{' '}
          leaves out.
        </p>
      )}
      <section aria-labelledby="sounds">
        <h2 id="sounds" className="mb-2 text-base">
          Sounds
        </h2>
        {sounds.length === 0 ? (
          <p className="text-soft">Songs and spoken words you bring in are listed here.</p>
        ) : (
          <ul className="flex flex-col gap-2">
            {sounds.map((sound) => (
              <SoundRow key={sound.id} entry={sound} />
            ))}
          </ul>
        )}
      </section>
    </aside>
  );
}

interface PictureFactsListProps {
  readonly entry: SheetEntry;
  readonly facts: PictureFacts | ClipFacts;
  readonly warning: string | null;
  readonly slides: readonly number[];
  readonly onSwap: () => void;
  readonly onClocks: () => void;
}

function PictureFactsList({ entry, facts, warning, slides, onSwap, onClocks }: PictureFactsListProps) {
  const pictureUrl = usePictureUrl();
  const frame = useShow((state) => state.show.frame);
  const showId = useShow((state) => state.show.id);
  const select = useShow((state) => state.select);
  const order = useShow((state) => state.show.slides);
  const clocks = useShow((state) => state.show.clocks);
  const taken = takenAt(facts, clocks);
  const entries = useShow((state) => state.entries);
  const twin = useMemo(() => [...rawTwins(entries)].find(([, finished]) => finished === entry)?.[0], [entries, entry]);
  const rows: [string, string][] = [
    ['taken', taken ? format(parseISO(taken), 'd MMM yyyy, HH:mm:ss') : 'the file does not say'],
    ['size', `${facts.widthPx} × ${facts.heightPx}`],
    ...(facts.kind === 'clip'
      ? ([
          ['length', clock(facts.lengthMs)],
          ['sound', facts.hasSound ? 'yes' : 'none'],
        ] as [string, string][])
      : ([['sharp up to', sharpness(sharpUpTo(facts, frame))]] as [string, string][])),
    ...(facts.kind === 'picture' && facts.camera ? ([['camera', facts.camera]] as [string, string][]) : []),
    [
      'file',
      `${megabytes(entry.byteCount)}${facts.kind === 'picture' && facts.raw ? ', RAW: shown by the picture in it, or developed where that is small' : ''}`,
    ],
    ...(twin ? ([['RAW beside it', twin.fileName]] as [string, string][]) : []),
    ...(facts.kind === 'clip' && facts.hdr
      ? ([['light', `HDR (${facts.hdr === 'pq' ? 'PQ' : 'HLG'}), toned down`]] as [string, string][])
      : []),
  ];
  return (
    <section aria-label={entry.fileName}>
      <div className="grid h-44 place-items-center bg-surround p-2.5">
        {/* The small print is there at once, under the larger one that may have to be made. */}
        {/* eslint-disable-next-line @next/next/no-img-element */}
        <img
          key={entry.assetId}
          src={pictureUrl(entry.assetId, 960)}
          alt=""
          width={facts.widthPx}
          height={facts.heightPx}
          style={{
            backgroundImage: `url(${pictureUrl(entry.assetId, 320)})`,
            aspectRatio: facts.widthPx / facts.heightPx,
          }}
          className="h-auto max-h-[156px] w-auto max-w-full bg-contain object-contain"
        />
      </div>
      <h2 className="mt-3 truncate text-base" title={entry.fileName}>
        {entry.fileName}
      </h2>
      <p className="flex flex-wrap items-center gap-x-1.5 text-soft">
        {slides.length === 0 ? 'not in the order' : slides.length === 1 ? 'on slide' : 'on slides'}
        {slides.slice(0, 8).map((number) => (
          <Link
            key={number}
            href={`/shows/${showId}/arrange`}
            onClick={() => {
              const { id } = order[number - 1]!;
              select([id], id);
            }}
            className="tabular text-ink underline underline-offset-2"
          >
            {number}
          </Link>
        ))}
        {slides.length > 0 && (
          <button
            type="button"
            onClick={onSwap}
            className="ml-auto inline-flex items-center gap-1 text-ink underline underline-offset-2"
            data-part="swap"
          >
            <Replace size={13} aria-hidden="true" /> swap the file
          </button>
        )}
      </p>
      {warning && <p className="mt-1.5 rounded-md bg-saffron/15 px-2 py-1 text-saffron-deep">{warning}</p>}
      {facts.kind === 'picture' && facts.caption && (
        <p className="mt-1.5 border-l-2 border-plum pl-2 text-plum">{facts.caption}</p>
      )}
      <dl className="mt-2 grid grid-cols-[92px_1fr] gap-y-1">
        {rows.map(([name, value]) => [
          <dt key={name} className="text-soft">
            {name}
          </dt>,
          <dd key={`${name} value`} className="tabular">
            {value}
          </dd>,
        ])}
      </dl>
      {taken && (
        <button
          type="button"
          onClick={onClocks}
          className="mt-1.5 inline-flex items-center gap-1 underline underline-offset-2"
          data-part="clocks"
        >
          <Clock size={13} aria-hidden="true" />
          {shiftOf(clocks, cameraOf(facts)) ? 'its camera’s clock was put right' : 'was the camera’s clock wrong?'}
        </button>
      )}
    </section>
  );
}

/** How far the picture can be zoomed before one of its pixels has to serve for more than one of the frame's. */
function sharpness(zoom: number): string {
  return zoom >= 1 ? `${zoom.toFixed(1)} × zoom in full HD` : `${Math.round(zoom * 100)} % of the frame`;
}

function SoundRow({ entry }: { entry: SheetEntry }) {
  const showId = useShow((state) => state.show.id);
  const cues = useShow((state) => state.show.cues);
  const playUnder = usePlayUnder();
  const about = useSongAbout();
  const audio = useRef<HTMLAudioElement>(null);
  const [playing, setPlaying] = useState(false);
  useEffect(() => {
    const element = audio.current;
    return () => element?.pause();
  }, []);
  if (entry.facts?.kind !== 'sound') return null;
  const used = cues.some((cue) => cue.assetId === entry.assetId);
  const { name, artist } = about(entry.assetId);
  return (
    <li className="rounded-lg border border-rule bg-paper/50 p-2.5">
      <div className="flex items-center gap-2">
        <Button
          look="quiet"
          square
          aria-label={playing ? `Stop ${name}` : `Listen to ${name}`}
          onClick={() => {
            if (playing) audio.current?.pause();
            else void audio.current?.play();
          }}
        >
          {playing ? (
            <Pause size={15} className="text-saffron-deep" fill="currentColor" />
          ) : (
            <Play size={15} className="text-saffron" fill="currentColor" />
          )}
        </Button>
        <span className="min-w-0">
          <span className="block truncate font-semibold">{name}</span>
          <span className="block truncate text-soft">
            <span className="tabular">{clock(entry.facts.lengthMs)}</span>
            {artist && ` · ${artist}`}
          </span>
        </span>
      </div>
      <div className="mt-1.5 pl-10">
        {used ? (
          <span className="inline-flex items-center gap-1 text-saffron-deep">
            <Music2 size={13} /> plays under the show
          </span>
        ) : (
          <Button className="h-7" onClick={() => playUnder(entry)} data-part="use-as-music">
            <Plus size={13} /> Play under the show
          </Button>
        )}
      </div>
      <audio
        ref={audio}
        src={soundUrl(showId, entry.assetId)}
        preload="none"
        onPlay={() => setPlaying(true)}
        onPause={() => setPlaying(false)}
      />
    </li>
  );
}

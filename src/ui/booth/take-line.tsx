'use client';

import { clsx } from 'clsx';
import { Music2, Pause, Play, Trash2 } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { takeChosen } from '../../core/narration/kept-take';
import type { SoundProperties } from '../../core/show/edits/set-sound';
import type { SlideId } from '../../core/show/ids';
import { LONGEST_NAME } from '../../core/show/limits';
import type { PlacedSound } from '../../core/show/placed-sound';
import { onceThroughMs } from '../../core/sound/song-runs';
import type { Cleaning } from '../../core/sound/voice/cleaning';
import { Button } from '../kit/button';
import { clock, clockTenths } from '../kit/clock';
import { useShow, useShowStore } from '../show/show-provider';
import { CleaningFields, CleaningPick, nameOfCleaning } from './cleaning-fields';
import { useCleaning } from './use-cleaning';

/** Less is over before it is read. */
const SAID_FROM_MS = 2000;

interface TakeLineProps {
  readonly slideId: SlideId;
  readonly take: PlacedSound;
  readonly name: string;
  /** Plays the slide with pictures and music. */
  readonly onPlayAll: () => void;
}

/** One take of a slide: listened to, chosen, named, cleaned another way, taken away. */
export function TakeLine({ slideId, take, name, onPlayAll }: TakeLineProps) {
  const store = useShowStore();
  const show = useShow((state) => state.show);
  const facts = useShow((state) => state.facts);
  const edit = useShow((state) => state.edit);
  const player = useRef<HTMLAudioElement>(null);
  const [playing, setPlaying] = useState<'heard' | 'as recorded' | null>(null);
  const cleaning = useCleaning();
  /** What is being set, before it is worked out. */
  const [wanted, setWanted] = useState<Cleaning | null>(null);
  const later = useRef<ReturnType<typeof setTimeout> | null>(null);
  useEffect(() => {
    const audio = player.current;
    return () => audio?.pause();
  }, []);
  const lengthMs = onceThroughMs(take, facts);
  const original = take.cleaned?.from ?? take.assetId;
  const how = wanted ?? take.cleaned?.how ?? null;
  const set = (properties: SoundProperties) => edit({ kind: 'set-sound', slideId, soundId: take.id, properties });

  const listen = (what: 'heard' | 'as recorded') => {
    const audio = player.current!;
    if (playing === what) {
      audio.pause();
      setPlaying(null);
      return;
    }
    audio.src = `/api/v1/shows/${show.id}/sounds/${what === 'heard' ? take.assetId : original}`;
    audio.currentTime = take.trimStartMs / 1000;
    void audio.play().then(
      () => setPlaying(what),
      () => setPlaying(null),
    );
  };
  const clean = (next: Cleaning | null) => {
    if (later.current) clearTimeout(later.current);
    if (!next) {
      setWanted(null);
      if (take.cleaned) set({ assetId: original, cleaned: null });
      return;
    }
    setWanted(next);
    // Once the hand rests.
    later.current = setTimeout(() => void cleanNow(next), take.cleaned ? 500 : 0);
  };
  const cleanNow = async (next: Cleaning) => {
    const { facts: known } = store.getState();
    const recorded = known.get(original);
    const cleaned = await cleaning.clean(original, recorded?.kind === 'sound' ? recorded.lengthMs : lengthMs, next);
    if (cleaned) set({ assetId: cleaned.entry.assetId, cleaned: { from: original, how: next } });
    // What was asked for since is being worked out.
    setWanted((now) => (now === next ? null : now));
  };

  return (
    <li
      data-part="take"
      className={clsx(
        'flex flex-col gap-2 rounded-lg border p-2',
        take.resting ? 'border-rule' : 'border-moss bg-moss/5',
      )}
    >
      <audio
        ref={player}
        onEnded={() => setPlaying(null)}
        onTimeUpdate={(event) => {
          if (event.currentTarget.currentTime * 1000 < take.trimStartMs + lengthMs) return;
          event.currentTarget.pause();
          setPlaying(null);
        }}
      />
      <div className="flex flex-wrap items-center gap-2">
        <label className="flex items-center gap-2">
          <input
            type="radio"
            name={`take of ${slideId}`}
            className="accent-moss"
            checked={!take.resting}
            aria-label={`${name} is heard`}
            onChange={() => {
              const chosen = takeChosen(show, slideId, take.id);
              if (chosen) edit(chosen);
            }}
          />
          <span className="sr-only">is heard</span>
        </label>
        <input
          key={name}
          aria-label={`Name of ${name}`}
          defaultValue={name}
          maxLength={LONGEST_NAME}
          onKeyDown={(event) => {
            event.stopPropagation();
            if (event.key === 'Enter') event.currentTarget.blur();
          }}
          onBlur={(event) => {
            const typed = event.target.value.trim();
            if (typed !== '' && typed !== name) set({ name: typed });
          }}
          className="h-7 w-26 min-w-0 rounded-md border border-transparent bg-transparent px-1.5 font-semibold hover:border-rule focus:border-rule"
        />
        <span className="tabular text-soft">{clockTenths(lengthMs)}</span>
        <span className="flex items-center">
          <Button
            look="quiet"
            square
            className="size-7"
            aria-label={`Listen to ${name} alone`}
            onClick={() => listen('heard')}
          >
            {playing === 'heard' ? <Pause size={14} /> : <Play size={14} />}
          </Button>
          {!take.resting && (
            <Button
              look="quiet"
              square
              className="size-7"
              aria-label={`Listen to ${name} with pictures and music`}
              onClick={onPlayAll}
            >
              <Music2 size={14} />
            </Button>
          )}
        </span>
        <CleaningPick label={`How ${name} is cleaned`} how={how} onChange={clean} />
        {take.cleaned && (
          <Button
            look="quiet"
            className="h-7 px-2 text-xs"
            aria-pressed={playing === 'as recorded'}
            onClick={() => listen('as recorded')}
          >
            {playing === 'as recorded' ? 'stop' : 'before'}
          </Button>
        )}
        <Button
          look="quiet"
          square
          className="ml-auto size-7"
          aria-label={`Take ${name} away`}
          onClick={() => edit({ kind: 'remove-sounds', slideId, soundIds: [take.id] })}
        >
          <Trash2 size={14} />
        </Button>
      </div>
      {how && nameOfCleaning(how) === 'own' && <CleaningFields how={how} onChange={clean} />}
      {cleaning.leftMs !== null && (
        <p className="flex items-center gap-2 text-xs text-soft" data-part="being-cleaned">
          <span role="status">being cleaned …</span>
          {cleaning.leftMs >= SAID_FROM_MS && <span className="tabular">about {clock(cleaning.leftMs)} left</span>}
          <Button look="quiet" className="h-7 px-2 text-xs" onClick={cleaning.stop}>
            Stop
          </Button>
        </p>
      )}
      {cleaning.problem && (
        <p role="alert" className="text-xs text-red-deep">
          {cleaning.problem}
        </p>
      )}
      <label className="flex items-center gap-1.5 text-xs text-soft">
        <input
          type="checkbox"
          className="accent-ink"
          checked={take.runsOn === true}
          onChange={(event) => set({ runsOn: event.target.checked ? true : null })}
        />
        goes on over the slides after it; this one does not wait for it
      </label>
    </li>
  );
}

'use client';

import { clsx } from 'clsx';
import { Circle, CornerDownLeft, Mic, RotateCcw, Square } from 'lucide-react';
import { useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { sentencesOf } from '../../core/captions/sentences';
import { nextTakeName } from '../../core/narration/kept-take';
import { USUAL_LANGUAGE } from '../../core/show/caption';
import { takesIn } from '../../core/show/placed-sound';
import type { Slide } from '../../core/show/show';
import { GENTLE, type Cleaning } from '../../core/sound/voice/cleaning';
import { showLengthMs, slideSpans } from '../../core/timing/slide-span';
import { useCommands } from '../commands/use-commands';
import { Button } from '../kit/button';
import { clockTenths } from '../kit/clock';
import { Pick } from '../kit/pick';
import { useKept } from '../kit/use-kept';
import { useShow } from '../show/show-provider';
import type { ViewerHands } from '../viewer/use-viewer';
import { roomSentence, type Booth } from './booth-store';
import { BreathFields } from './breath-fields';
import { BringNarration } from './bring-narration';
import { cleaningNamed, CleaningPick, nameOfCleaning, type CleaningName } from './cleaning-fields';
import { LevelMeter } from './level-meter';
import { microphones } from './microphone';
import { PrompterPage } from './prompter-page';
import { ScriptField } from './script-field';
import { TakeLine } from './take-line';
import { UnkeptTakes } from './unkept-takes';
import { slidesFrom, useBooth } from './use-booth';

interface BoothPanelProps {
  readonly viewer: React.RefObject<ViewerHands | null>;
  readonly nameOf: (id: string) => string;
}

/** Pictures may jump a little; sound must not. */
const FOLLOWS_EVERY_MS = 250;

const isCleaningName = (kept: unknown): kept is CleaningName =>
  kept === 'none' || kept === 'gentle' || kept === 'thorough';

/** Where a voice is recorded: the script to read from, the microphone, and the takes of the chosen slide. */
export function BoothPanel({ viewer, nameOf }: BoothPanelProps) {
  const show = useShow((state) => state.show);
  const anchor = useShow((state) => state.anchor);
  const entries = useShow((state) => state.entries);
  const select = useShow((state) => state.select);
  const [usual, setUsual] = useKept<CleaningName>('tanager-cleaning', 'gentle', isCleaningName);
  const cleaning: Cleaning | null = cleaningNamed(usual, GENTLE);
  const booth = useBooth();
  const phase = useStore(booth, (state) => state.phase);
  const problem = useStore(booth, (state) => state.problem);
  const slideAt = useStore(booth, (state) => state.slideAt);
  const recording = useStore(booth, (state) => state.recording);
  const index = Math.max(
    0,
    show.slides.findIndex((slide) => slide.id === anchor),
  );
  const slide: Slide | undefined = show.slides[index];
  const busy = phase === 'room' || phase === 'countdown' || phase === 'recording' || phase === 'keeping';

  const begin = (isRun: boolean) => {
    if (!slide) return;
    viewer.current?.pause();
    const ids = isRun
      ? slidesFrom(
          show.slides.map((one) => one.id),
          slide.id,
        )
      : [slide.id];
    const language = show.language ?? USUAL_LANGUAGE;
    const scripts = ids.map((id) => sentencesOf(show.slides.find((one) => one.id === id)?.script ?? '', language));
    let count = 0;
    const firstOf = scripts.map((own) => {
      const first = count;
      count += own.length;
      return first;
    });
    const name = isRun ? `Run from slide ${index + 1}` : nextTakeName(slide.sounds);
    void booth.hands.record({ name, slideIds: ids, isRun, sentences: scripts.flat(), firstOf, cleaning });
  };
  const recordOrStop = () => {
    if (busy) void booth.hands.stop();
    else if (phase === 'ready') begin(false);
    else void booth.hands.open(null);
  };
  useCommands({
    record: slide && phase !== 'keeping' ? recordOrStop : undefined,
    'record-run': slide && phase === 'ready' ? () => begin(true) : undefined,
    'record-next':
      phase === 'recording' && recording?.isRun ? () => void (booth.hands.next() || booth.hands.stop()) : undefined,
    'record-again': phase === 'recording' ? () => booth.hands.again() : undefined,
    'record-drop': busy && phase !== 'keeping' ? () => void booth.hands.discard() : undefined,
  });

  // The viewer shows the slide that is spoken over.
  const seenId = busy && recording ? recording.slideIds[slideAt] : undefined;
  useEffect(() => {
    if (!seenId) return;
    const span = slideSpans(show.slides).find((one) => one.slideId === seenId);
    if (!span) return;
    select([seenId], seenId);
    const startedMs = performance.now();
    const lastMs = Math.min(span.endMs, showLengthMs(show)) - 1;
    const timer = setInterval(() => {
      viewer.current?.seek(Math.min(lastMs, span.startMs + span.transitionMs + performance.now() - startedMs));
    }, FOLLOWS_EVERY_MS);
    return () => clearInterval(timer);
    // While it is spoken over, nothing changes the slides.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [seenId]);

  if (!slide)
    return (
      <p className="text-soft">A voice is spoken over slides. Lay some pictures into the order first, on Arrange.</p>
    );
  const takes = takesIn(slide);
  const spoken = new Set(show.slides.flatMap((one) => one.sounds.map((sound) => sound.assetId)));
  const songs = new Set(show.cues.filter((cue) => cue.kind === 'song').map((cue) => cue.assetId));
  // What is spoken nowhere yet is meant sooner than what is.
  const files = entries
    .filter((entry) => entry.facts?.kind === 'sound' && entry.made === null && !songs.has(entry.assetId))
    .toSorted((a, b) => Number(spoken.has(a.assetId)) - Number(spoken.has(b.assetId)));
  return (
    <section
      aria-label="Booth"
      data-part="booth"
      data-phase={phase}
      className={clsx('flex flex-col gap-3', busy ? 'h-full' : 'min-h-full')}
    >
      <UnkeptTakes cleaning={cleaning} busy={busy} />
      {problem && (
        <p role="alert" data-part="booth-problem" className="rounded-lg border border-red/60 bg-red/5 px-3 py-2">
          {problem}
        </p>
      )}
      <MicrophoneLine booth={booth} />
      <div className="flex items-baseline gap-3">
        <h2 className="text-base">
          {recording?.isRun
            ? `Slide ${index + 1}, ${slideAt + 1} of ${recording.slideIds.length} in this run`
            : `Slide ${index + 1}`}
        </h2>
        {busy && <Elapsed booth={booth} />}
      </div>
      {busy ? (
        <PrompterPage booth={booth} />
      ) : (
        <ScriptField slide={slide} index={index}>
          <span className="ml-auto flex items-center gap-1.5">
            recordings are
            <CleaningPick
              label="How recordings are cleaned"
              how={cleaning}
              onChange={(how) => setUsual(nameOfCleaning(how))}
            />
          </span>
        </ScriptField>
      )}
      <div className="flex flex-wrap items-center gap-2">
        {busy ? (
          <>
            <Button look="main" data-part="stop" disabled={phase === 'keeping'} onClick={() => void booth.hands.stop()}>
              <Square size={13} fill="currentColor" />{' '}
              {phase === 'keeping' ? <KeepingFor booth={booth} /> : 'Stop and keep'}
            </Button>
            {recording?.isRun && (
              <Button disabled={phase !== 'recording'} onClick={() => void (booth.hands.next() || booth.hands.stop())}>
                <CornerDownLeft size={14} /> {slideAt + 1 < recording.slideIds.length ? 'Next slide' : 'End'}
              </Button>
            )}
            <Button disabled={phase !== 'recording'} onClick={() => booth.hands.again()}>
              <RotateCcw size={14} /> Say this sentence again
            </Button>
            <Button look="quiet" disabled={phase === 'keeping'} onClick={() => void booth.hands.discard()}>
              Keep nothing
            </Button>
          </>
        ) : (
          <>
            <Button
              look="main"
              data-part="record"
              disabled={phase !== 'ready'}
              title={phase === 'ready' ? undefined : 'Open the microphone first'}
              onClick={() => begin(false)}
            >
              <Circle size={12} fill="currentColor" /> Record for slide {index + 1}
            </Button>
            <Button
              disabled={phase !== 'ready'}
              onClick={() => begin(true)}
              title="Speak on while the show goes by; each press of Enter brings the next slide and sets how long the one before lasts"
            >
              Run through the show from here
            </Button>
          </>
        )}
      </div>
      {!busy && takes.length > 0 && (
        <ul aria-label={`Takes of slide ${index + 1}`} className="flex flex-col gap-1.5">
          {takes.map((take, at) => (
            <TakeLine
              key={take.id}
              slideId={slide.id}
              take={take}
              name={take.name ?? (nameOf(take.assetId) || `Take ${at + 1}`)}
              onPlayAll={() => {
                const span = slideSpans(show.slides)[index]!;
                viewer.current?.play(span.startMs, span.endMs);
              }}
            />
          ))}
        </ul>
      )}
      {!busy && (
        <>
          <BreathFields slide={slide} />
          {files.length > 0 && (
            <BringNarration
              first={slide.id}
              sounds={files.map((entry) => ({ id: entry.assetId, name: nameOf(entry.assetId) }))}
            />
          )}
        </>
      )}
    </section>
  );
}

/** Cleaning goes about so many times as fast as the recording plays. */
const CLEANED_TIMES = 10;

/** How long keeping will take: reading through takes as long as the recording is. */
function KeepingFor({ booth }: { readonly booth: Booth }) {
  const recordedMs = useStore(booth, (state) => state.recordedMs);
  const [leftS, setLeftS] = useState(() => Math.ceil(recordedMs / 1000 / CLEANED_TIMES) + 2);
  useEffect(() => {
    const timer = setInterval(() => setLeftS((left) => Math.max(1, left - 1)), 1000);
    return () => clearInterval(timer);
  }, []);
  return <>Being kept and cleaned, about {leftS} s …</>;
}

function Elapsed({ booth }: { readonly booth: Booth }) {
  const phase = useStore(booth, (state) => state.phase);
  const recordedMs = useStore(booth, (state) => Math.floor(state.recordedMs / 100) * 100);
  const unsafe = useStore(booth, (state) => state.unsafeMs > 2000);
  const again = useStore(booth, (state) => state.againCount);
  if (phase !== 'recording') return null;
  return (
    <span role="timer" className="tabular flex items-center gap-2 text-red-deep">
      <span aria-hidden="true" className="size-2.5 rounded-full bg-red" />
      {clockTenths(recordedMs)}
      {again > 0 && <span className="text-soft">{again === 1 ? 'one sentence again' : `${again} times again`}</span>}
      {unsafe && <span className="text-soft">kept here until the server can be reached</span>}
    </span>
  );
}

/** The microphone: opened when asked for, which one, how loud, and what the room is like. */
function MicrophoneLine({ booth }: { readonly booth: Booth }) {
  const phase = useStore(booth, (state) => state.phase);
  const deviceId = useStore(booth, (state) => state.deviceId);
  const label = useStore(booth, (state) => state.label);
  const roomDb = useStore(booth, (state) => state.roomDb);
  const [devices, setDevices] = useState<readonly MediaDeviceInfo[]>([]);
  useEffect(() => {
    const look = () => void microphones().then(setDevices);
    look();
    if (!('mediaDevices' in navigator)) return;
    navigator.mediaDevices.addEventListener('devicechange', look);
    return () => navigator.mediaDevices.removeEventListener('devicechange', look);
  }, [label]);
  if (phase === 'away' || phase === 'opening')
    return (
      <div className="flex flex-wrap items-center gap-3">
        <Button data-part="open-microphone" disabled={phase === 'opening'} onClick={() => void booth.hands.open(null)}>
          <Mic size={14} /> {phase === 'opening' ? 'Waiting for the microphone …' : 'Open the microphone'}
        </Button>
        <span className="flex-1 text-xs text-soft">
          Nothing is recorded before you say so. Wear headphones, so that what is played is not heard by the microphone.
        </span>
      </div>
    );
  const room = roomDb === null ? null : roomSentence(roomDb);
  const named = devices.filter((device) => device.label !== '' && device.deviceId !== '');
  return (
    <div className="flex flex-col gap-1">
      <div className="flex items-center gap-3">
        {named.length > 1 ? (
          <Pick
            label="Which microphone"
            value={named.some((device) => device.deviceId === deviceId) ? deviceId! : named[0]!.deviceId}
            groups={[{ name: null, options: named.map((device) => ({ value: device.deviceId, label: device.label })) }]}
            onChange={(next) => void booth.hands.open(next)}
          />
        ) : (
          <span className="max-w-44 truncate text-soft" title={label ?? undefined}>
            {label}
          </span>
        )}
        <LevelMeter booth={booth} />
      </div>
      <p data-part="room" className={room && !room.fine ? 'text-red-deep' : 'text-xs text-soft'}>
        {room ? room.text : 'The room is listened to first, for a second, when you record.'}
      </p>
    </div>
  );
}

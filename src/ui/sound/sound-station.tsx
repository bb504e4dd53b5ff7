'use client';

import { ArrowDown, ArrowUp, Music2, Plus, Trash2 } from 'lucide-react';
import { nanoid } from 'nanoid';
import Link from 'next/link';
import { useCallback, useMemo, useRef } from 'react';
import { Group, Panel, Separator } from 'react-resizable-panels';
import { cueId, type AssetId } from '../../core/show/ids';
import { songAdded } from '../../core/show/edits/add-sounds';
import { songAfter, voiceHere, type PlacedSound } from '../../core/show/placed-sound';
import { DEFAULT_FADE_OUT_MS } from '../../core/show/show';
import type { SoundProperties } from '../../core/show/edits/set-sound';
import { soundSpans } from '../../core/sound/sound-spans';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { Button } from '../kit/button';
import { clock, clockTenths } from '../kit/clock';
import { NumberField } from '../kit/number-field';
import { LengthsLine } from '../show/lengths-line';
import { usePrepared, useShow } from '../show/show-provider';
import type { ViewerHands } from '../viewer/use-viewer';
import { Viewer } from '../viewer/viewer';
import { SoundColumn, type SoundColumnHands } from './sound-column';

/** Where the show gets its music and its spoken words. */
export function SoundStation() {
  const prepared = usePrepared();
  const { show, facts } = prepared;
  const entries = useShow((state) => state.entries);
  const edit = useShow((state) => state.edit);
  const viewer = useRef<ViewerHands>(null);
  const column = useRef<SoundColumnHands>(null);
  const showMoment = useCallback((momentMs: number) => column.current?.showMoment(momentMs), []);
  const sounds = entries.filter((entry) => entry.facts?.kind === 'sound');
  const heard = useMemo(() => soundSpans(show, facts), [show, facts]);
  const nameOf = (id: AssetId) => {
    const entry = entries.find((candidate) => candidate.assetId === id);
    return entry?.facts?.kind === 'sound' ? (entry.facts.title ?? entry.fileName) : (entry?.fileName ?? 'a sound');
  };
  const change = (cue: PlacedSound, properties: SoundProperties, joins?: string) =>
    edit({ kind: 'set-sound', slideId: null, soundId: cue.id, properties }, joins);
  /** A song that begins at its end is none. */
  const lastBeginningS = (cue: PlacedSound) => {
    const known = facts.get(cue.assetId);
    return known?.kind === 'sound' ? Math.max(0, known.lengthMs / 1000 - 1) : 36_000;
  };
  const swap = (index: number, by: -1 | 1) => {
    const cues = [...show.cues];
    [cues[index], cues[index + by]] = [cues[index + by]!, cues[index]!];
    edit({ kind: 'set-cues', cues });
  };
  const free = sounds.filter((sound) => !show.cues.some((cue) => cue.assetId === sound.assetId));

  return (
    <Group orientation="horizontal" className="min-w-0 flex-1" data-part="sound">
      <Panel defaultSize="56%" minSize="38%" className="flex flex-col">
        <div className="flex h-11 shrink-0 items-center border-b border-rule px-4">
          <LengthsLine />
        </div>
        <SoundColumn ref={column} prepared={prepared} onGo={(momentMs) => viewer.current?.seek(momentMs)} />
      </Panel>
      <Separator
        aria-label="Width of the sound column"
        className="w-[5px] bg-rule/70 outline-none hover:bg-soft/60 focus-visible:bg-red"
      />
      <Panel minSize="30%" className="flex flex-col">
        <div className="h-[42%] shrink-0">
          <Viewer ref={viewer} onMoment={showMoment} />
        </div>
        <div className="min-h-0 flex-1 overflow-y-auto bg-card p-4 scroll-thin">
          <section aria-labelledby="music">
            <h2 id="music" className="text-base">
              Music
            </h2>
            {show.cues.length === 0 && (
              <p className="mt-1 text-soft">
                No song plays yet.{' '}
                {sounds.length === 0 ? (
                  <>
                    Bring one in on the{' '}
                    <Link className="text-red-deep underline" href={`/shows/${show.id}/gather`}>
                      contact sheet
                    </Link>
                    .
                  </>
                ) : (
                  'Choose one below.'
                )}
              </p>
            )}
            <ol className="mt-2 flex flex-col gap-2">
              {show.cues.map((cue, index) => {
                const span = heard.find((candidate) => candidate.sound === cue);
                return (
                  <li key={cue.id} className="rounded-lg border border-rule bg-paper/50 p-3" data-part="cue">
                    <div className="flex items-center gap-2">
                      <Music2 size={15} className="text-saffron" />
                      <span className="min-w-0 truncate font-semibold">{nameOf(cue.assetId)}</span>
                      <span className="tabular ml-auto text-soft">
                        {span ? `${clock(span.startMs)}–${clock(span.endMs)}` : 'not reached'}
                      </span>
                      {index > 0 && (
                        <Button
                          look="quiet"
                          square
                          className="size-7"
                          aria-label="Play it earlier"
                          onClick={() => swap(index, -1)}
                        >
                          <ArrowUp size={14} />
                        </Button>
                      )}
                      {index < show.cues.length - 1 && (
                        <Button
                          look="quiet"
                          square
                          className="size-7"
                          aria-label="Play it later"
                          onClick={() => swap(index, 1)}
                        >
                          <ArrowDown size={14} />
                        </Button>
                      )}
                      <Button
                        look="quiet"
                        square
                        className="size-7"
                        aria-label={`Take out ${nameOf(cue.assetId)}`}
                        onClick={() => edit({ kind: 'remove-sounds', slideId: null, soundIds: [cue.id] })}
                      >
                        <Trash2 size={14} />
                      </Button>
                    </div>
                    <div className="mt-2 flex flex-wrap gap-x-5 gap-y-2">
                      <label className="flex items-center gap-2">
                        volume
                        <input
                          type="range"
                          min={-30}
                          max={6}
                          step={0.5}
                          value={cue.gainDb}
                          onChange={(event) => change(cue, { gainDb: Number(event.target.value) }, `gain ${cue.id}`)}
                          className="w-28 accent-saffron"
                        />
                        <span className="tabular w-16 text-soft">
                          {cue.gainDb > 0 ? '+' : ''}
                          {cue.gainDb.toFixed(1)} dB
                        </span>
                      </label>
                      <span className="flex items-center gap-1.5">
                        begins at{' '}
                        <NumberField
                          label="Where in the song it begins, seconds"
                          value={cue.trimStartMs / 1000}
                          min={0}
                          max={lastBeginningS(cue)}
                          step={0.5}
                          unit="s"
                          onCommit={(seconds) => change(cue, { trimStartMs: Math.round(seconds * 1000) })}
                        />
                      </span>
                      <span className="flex items-center gap-1.5">
                        fades in{' '}
                        <NumberField
                          label="Fade in, seconds"
                          value={cue.fadeInMs / 1000}
                          min={0}
                          max={60}
                          step={0.5}
                          unit="s"
                          onCommit={(seconds) => change(cue, { fadeInMs: Math.round(seconds * 1000) })}
                        />
                      </span>
                      <span className="flex items-center gap-1.5">
                        fades out{' '}
                        <NumberField
                          label="Fade out, seconds"
                          value={cue.fadeOutMs / 1000}
                          min={0}
                          max={60}
                          step={0.5}
                          unit="s"
                          onCommit={(seconds) => change(cue, { fadeOutMs: Math.round(seconds * 1000) })}
                        />
                      </span>
                    </div>
                  </li>
                );
              })}
            </ol>
            {show.cues.length > 0 && (
              <p className="mt-2 text-soft">
                The fade-out stays at the end of the show, however long it gets. Music goes down under voices and clips
                by itself.
              </p>
            )}
          </section>
          {free.length > 0 && (
            <section aria-labelledby="more-sounds" className="mt-5">
              <h2 id="more-sounds" className="text-base">
                Other sounds
              </h2>
              <ul className="mt-2 flex flex-col gap-1.5">
                {free.map((sound) => (
                  <FreeSound
                    key={sound.id}
                    sound={sound}
                    name={nameOf(sound.assetId)}
                    onMusic={() =>
                      edit(songAdded(show.cues, songAfter(cueId(nanoid(10)), sound.assetId, DEFAULT_FADE_OUT_MS)))
                    }
                  />
                ))}
              </ul>
            </section>
          )}
        </div>
      </Panel>
    </Group>
  );
}

function FreeSound({ sound, name, onMusic }: { sound: SheetEntry; name: string; onMusic: () => void }) {
  const slides = useShow((state) => state.show.slides);
  const anchor = useShow((state) => state.anchor);
  const edit = useShow((state) => state.edit);
  const spokenOn = slides.findIndex((slide) => slide.sounds.some((placed) => placed.assetId === sound.assetId));
  const chosen = slides.findIndex((slide) => slide.id === anchor);
  const lengthMs = sound.facts?.kind === 'sound' ? sound.facts.lengthMs : 0;
  return (
    <li className="flex items-center gap-2 rounded-lg border border-rule p-2.5">
      <span className="min-w-0 flex-1">
        <span className="block truncate font-semibold">{name}</span>
        <span className="tabular text-soft">{clockTenths(lengthMs)}</span>
      </span>
      {spokenOn >= 0 ? (
        <span className="text-moss">spoken on slide {spokenOn + 1}</span>
      ) : (
        <>
          <Button className="h-7" onClick={onMusic}>
            <Plus size={13} /> Music
          </Button>
          <Button
            className="h-7"
            disabled={chosen < 0}
            title={chosen < 0 ? 'Choose a slide on the left first' : undefined}
            onClick={() =>
              edit({
                kind: 'add-sounds',
                slideId: slides[chosen]!.id,
                runs: [{ afterId: null, sounds: [voiceHere(cueId(nanoid(10)), sound.assetId, 500)] }],
              })
            }
          >
            {chosen < 0 ? 'Speak on a slide' : `Speak on slide ${chosen + 1}`}
          </Button>
        </>
      )}
    </li>
  );
}

'use client';

import { clsx } from 'clsx';
import { Dices, Music4, Play, Square } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import type { FactsById } from '../../core/show/asset-facts';
import type { PlacedSound } from '../../core/show/placed-sound';
import type { Show } from '../../core/show/show';
import { bandSpans, wishesFor, type BandOrder } from '../../core/sound/band/band-order';
import {
  BAND_BPM,
  BAND_INSTRUMENTS,
  BAND_INSTRUMENT_NAMES,
  BAND_MOODS,
  BAND_STYLE_NAMES,
  BAND_STYLES,
  MOST_SEED,
  type BandInstrument,
} from '../../core/sound/band/band-wishes';
import { instrumentsOf } from '../../core/sound/band/compose';
import { styleNamed } from '../../core/sound/band/styles';
import { soundSpans } from '../../core/sound/sound-spans';
import { showLengthMs } from '../../core/timing/slide-span';
import { Amount } from '../kit/amount';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { clock } from '../kit/clock';
import { NumberField } from '../kit/number-field';
import { Pick } from '../kit/pick';
import { ServerRefusal } from '../show/call-server';
import { usePrepared, useShowStore } from '../show/show-provider';
import type { PlannedPiece } from './band-messages';
import { bandSong, playedByBand, underShow } from './played-by-band';
import { usePlannedPiece, useRehearsal } from './use-band';

const BEGINNING: BandOrder = { style: 'quiet-piano', mood: 'warm', energy: 0.6, seed: 1, turns: true };

/** What a style sounds like, in a few words. */
const STYLE_WORDS: Readonly<Record<BandOrder['style'], string>> = {
  'quiet-piano': 'a tune over broken chords',
  'string-quartet': 'four that listen to each other',
  'folk-guitar': 'picked, then strummed',
  'brass-band': 'warm, on a village square',
  'jazz-trio': 'piano, bass and brushes',
  ambient: 'comes and goes, hardly a beat',
  'light-electronic': 'plucks and a soft beat',
  lullaby: 'a music box in three',
  march: 'left, right, left',
  latin: 'off the beat, with congas',
  organ: 'four voices in a large room',
  'hand-drums': 'drums, and a marimba',
};

/** Where a piece has to play: to the end of the show, or as long as it is where the pictures follow it. */
function spanOf(cue: PlacedSound, show: Show, facts: FactsById) {
  const spans = cue.ends.at === 'own-end' || show.pace ? soundSpans(show, facts) : bandSpans(show, facts);
  return spans.find(({ sound }) => sound.id === cue.id);
}

interface BandPanelProps {
  /** A song of the show that the band plays already; null for another one. */
  readonly cue: PlacedSound | null;
  /** The same one each time: told what the music would be like, to be drawn beside the slides before it is made. */
  readonly onPlanned: (piece: PlannedPiece | null, fromMs: number) => void;
  readonly onDone: (cue: PlacedSound['id'] | null) => void;
}

/** Music made to measure: chosen by style and mood, heard at once, and played for exactly as long as the show needs it. */
export function BandPanel({ cue, onPlanned, onDone }: BandPanelProps) {
  const store = useShowStore();
  const { show, facts } = usePrepared();
  const [order, setOrder] = useState<BandOrder>(cue?.band ?? BEGINNING);
  const [share, setShare] = useState<number | null>(null);
  const playing = useRef<AbortController | null>(null);
  useEffect(() => () => playing.current?.abort(), []);
  const rehearsal = useRehearsal();

  const songs = show.cues.filter(({ kind }) => kind === 'song');
  const heard = soundSpans(show, facts);
  const span = cue ? spanOf(cue, show, facts) : undefined;
  const showMs = showLengthMs(show);
  const afterMs = heard.reduce((end, one) => (one.sound.kind === 'song' ? Math.max(end, one.endMs) : end), 0);
  const hasRoom = !cue && songs.length > 0 && wishesFor(order, show, afterMs, showMs) !== null;
  const fromMs = span?.startMs ?? (hasRoom ? afterMs : 0);
  const wishes = wishesFor(order, show, fromMs, span?.endMs ?? showMs);
  const piece = usePlannedPiece(wishes);
  const shown = wishes ? (piece ?? null) : null;
  useEffect(() => onPlanned(shown, fromMs), [onPlanned, shown, fromMs]);
  useEffect(() => () => onPlanned(null, 0), [onPlanned]);

  const set = (more: Partial<BandOrder>) => {
    rehearsal.stop();
    setOrder((before) => {
      const next = { ...before, ...more };
      const kept = Object.entries(next).filter(
        ([, value]) => value !== undefined && !(Array.isArray(value) && value.length === 0),
      );
      return Object.fromEntries(kept) as unknown as BandOrder;
    });
  };
  const own = instrumentsOf(styleNamed(order.style));
  const out = (instrument: BandInstrument) => order.without?.includes(instrument) ?? false;
  const others = BAND_INSTRUMENTS.filter((instrument) => !own.includes(instrument) && !order.and?.includes(instrument));

  const letPlay = async (instead: boolean) => {
    if (!wishes) return;
    rehearsal.stop();
    const asked = new AbortController();
    playing.current = asked;
    setShare(0);
    try {
      const from = instead ? wishesFor(order, show, 0, showMs)! : wishes;
      const entry = await playedByBand(store, from, { signal: asked.signal, onProgress: setShare });
      const now = store.getState();
      if (cue) {
        now.edit({
          kind: 'set-sound',
          slideId: null,
          soundId: cue.id,
          properties: { band: order, assetId: entry.assetId, trimStartMs: 0, trimEndMs: null },
        });
        onDone(cue.id);
      } else {
        const song = bandSong(entry, order, now.show.pace !== undefined);
        if (now.edit(underShow(now.show.cues, song, instead))) onDone(song.id);
      }
    } catch (error) {
      if (!asked.signal.aborted)
        toast(
          error instanceof ServerRefusal
            ? error.message
            : 'The server cannot be reached. Nothing was changed; try again.',
        );
    } finally {
      if (playing.current === asked) playing.current = null;
      setShare(null);
    }
  };

  if (showMs === 0)
    return (
      <p className="text-soft" data-part="band">
        The band plays for as long as the show: once there are slides in the order, it can begin.
      </p>
    );
  return (
    <section aria-labelledby="band-heading" data-part="band" className="flex flex-col gap-3">
      <div className="flex flex-wrap items-baseline gap-x-3">
        <h2 id="band-heading" className="text-base">
          {cue ? 'What the band plays' : 'Music made to measure'}
        </h2>
        <span className="text-xs text-soft">
          {wishes && piece ? (
            <>
              {STYLE_WORDS[order.style]}; <b className="tabular font-semibold text-ink">{clock(wishes.lengthMs)}</b>{' '}
              long, {piece.bars} bars of {piece.beatsABar} at{' '}
              <span className="tabular">{piece.bpm.toFixed(piece.bpm % 1 < 0.05 ? 0 : 1)}</span> a minute; the last
              chord at <span className="tabular">{clock(fromMs + piece.lastChordMs)}</span>, to ring out with the show
            </>
          ) : wishes && piece === null ? (
            'nobody is left to play: put one of the instruments back'
          ) : wishes ? (
            ''
          ) : (
            'a piece can be from 8 seconds to 20 minutes long'
          )}
        </span>
      </div>
      <div role="group" aria-label="Style" className="grid grid-cols-3 gap-1.5 xl:grid-cols-4">
        {BAND_STYLES.map((style) => (
          <button
            key={style}
            type="button"
            data-style={style}
            aria-pressed={order.style === style}
            title={STYLE_WORDS[style]}
            onClick={() => set({ style, without: undefined, and: undefined, bpm: undefined })}
            className={clsx(
              'h-8 truncate rounded-md border px-2.5 text-left',
              order.style === style
                ? 'border-saffron-deep bg-saffron/15 font-semibold'
                : 'border-rule bg-field hover:border-soft',
            )}
          >
            {BAND_STYLE_NAMES[style]}
          </button>
        ))}
      </div>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <Choice
          label="Mood"
          value={order.mood}
          options={BAND_MOODS.map((mood) => ({ value: mood, label: mood }))}
          onChange={(mood) => set({ mood })}
        />
        <span className="w-56">
          <Amount
            label="energy"
            narrow
            value={order.energy}
            min={0}
            max={1}
            rest={BEGINNING.energy}
            shown={`${Math.round(100 * order.energy)} %`}
            onChange={(energy) => set({ energy })}
          />
        </span>
        <span className="flex items-center gap-1.5">
          tempo
          <NumberField
            label="Beats a minute"
            value={order.bpm ?? Math.round(piece?.bpm ?? styleNamed(order.style).bpm.usual)}
            min={BAND_BPM.least}
            max={BAND_BPM.most}
            unit="a minute"
            onCommit={(bpm) => set({ bpm })}
          />
          {order.bpm !== undefined && (
            <Button look="quiet" className="h-7 px-2" onClick={() => set({ bpm: undefined })}>
              as the style has it
            </Button>
          )}
        </span>
      </div>
      <div role="group" aria-label="Instruments" className="flex flex-wrap items-center gap-1.5">
        {own.map((instrument) => (
          <button
            key={instrument}
            type="button"
            aria-pressed={!out(instrument)}
            title={out(instrument) ? 'Silent: let it play' : 'Plays: let it be silent'}
            onClick={() =>
              set({
                without: out(instrument)
                  ? order.without!.filter((one) => one !== instrument)
                  : [...(order.without ?? []), instrument],
              })
            }
            className={clsx(
              'h-7 rounded-full border px-2.5',
              out(instrument) ? 'border-rule text-soft line-through' : 'border-saffron-deep/50 bg-saffron/15',
            )}
          >
            {BAND_INSTRUMENT_NAMES[instrument]}
          </button>
        ))}
        {order.and?.map((instrument) => (
          <button
            key={instrument}
            type="button"
            aria-pressed="true"
            title="Plays besides: send it home"
            onClick={() => set({ and: order.and!.filter((one) => one !== instrument) })}
            className="h-7 rounded-full border border-moss bg-moss/15 px-2.5"
          >
            {BAND_INSTRUMENT_NAMES[instrument]}
          </button>
        ))}
        <Pick<BandInstrument | ''>
          label="An instrument besides"
          placeholder="and also …"
          value=""
          groups={[{ name: null, options: others.map((value) => ({ value, label: BAND_INSTRUMENT_NAMES[value] })) }]}
          onChange={(instrument) => instrument && set({ and: [...(order.and ?? []), instrument] })}
        />
      </div>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="accent-saffron-deep"
          checked={order.turns ?? false}
          onChange={(event) => set({ turns: event.target.checked || undefined })}
        />
        it turns where chapters begin, and goes down where a picture lingers
      </label>
      <div className="sticky -bottom-4 -mx-4 flex flex-wrap items-center gap-2 border-t border-rule bg-card px-4 py-3">
        <Button
          data-part="rehearse"
          disabled={!wishes || !piece || share !== null}
          onClick={() => (rehearsal.isPlaying ? rehearsal.stop() : rehearsal.begin(wishes!))}
        >
          {rehearsal.isPlaying ? <Square size={13} /> : <Play size={13} />} {rehearsal.isPlaying ? 'Stop' : 'Listen'}
        </Button>
        <Button
          data-part="deal-again"
          disabled={share !== null}
          onClick={() => set({ seed: (order.seed % MOST_SEED) + 1 })}
          title="Another tune, other chords, the same wishes"
        >
          <Dices size={14} /> Another one
        </Button>
        <span className="tabular text-xs text-soft">no. {order.seed}</span>
        <span className="ml-auto flex items-center gap-2">
          {share !== null ? (
            <>
              <progress
                className="h-1.5 w-32 accent-saffron-deep"
                aria-label="How much the band has played"
                value={share}
                max={1}
              />
              <span className="tabular w-9 text-right text-xs">{Math.round(100 * share)} %</span>
              <Button look="quiet" onClick={() => playing.current?.abort()}>
                Stop
              </Button>
            </>
          ) : (
            <>
              {!cue && songs.length > 0 && (
                <Button data-part="band-instead" disabled={!piece} onClick={() => void letPlay(true)}>
                  Instead of {songs.length === 1 ? 'the song' : `the ${songs.length} songs`}
                </Button>
              )}
              {(cue !== null || songs.length === 0 || hasRoom) && (
                <Button
                  look="main"
                  data-part="band-plays"
                  disabled={!wishes || !piece}
                  onClick={() => void letPlay(false)}
                >
                  <Music4 size={14} />{' '}
                  {cue ? 'Play it so' : hasRoom ? `Let them play from ${clock(fromMs)}` : 'Let them play'}
                </Button>
              )}
            </>
          )}
        </span>
      </div>
    </section>
  );
}

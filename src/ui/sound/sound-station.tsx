'use client';

import { clsx } from 'clsx';
import { Library, Minus, Music4, Plus } from 'lucide-react';
import Link from 'next/link';
import { useCallback, useMemo, useRef, useState } from 'react';
import { Group, Panel, Separator } from 'react-resizable-panels';
import type { AssetId, CueId } from '../../core/show/ids';
import { beatsOfSong } from '../../core/sound/show-beats';
import { fileMomentOf, pieceRuns } from '../../core/sound/song-runs';
import { soundSpans } from '../../core/sound/sound-spans';
import { captionChanged } from '../../core/captions/caption-edits';
import { captionsOfShow, type ShownCaption } from '../../core/captions/show-captions';
import { USUAL_LANGUAGE } from '../../core/show/caption';
import { momentSeen } from '../../core/timing/frames';
import { BoothPanel } from '../booth/booth-panel';
import { CaptionsPanel } from '../captions/captions-panel';
import { useCommands } from '../commands/use-commands';
import { useKept } from '../kit/use-kept';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { LengthsLine } from '../show/lengths-line';
import { PaceBar } from '../show/pace-bar';
import { usePrepared, useShow } from '../show/show-provider';
import { useShowMusic } from '../show/use-show-music';
import { useKeptMoment } from '../show/kept-moment';
import type { ViewerHands } from '../viewer/use-viewer';
import { Viewer } from '../viewer/viewer';
import { BandLine } from './band-line';
import { BandPanel } from './band-panel';
import type { PlannedPiece } from './band-messages';
import { BeatsFields } from './beats-fields';
import { ChapterField } from './chapter-field';
import { CuePanel } from './cue-panel';
import { FreeSounds } from './free-sounds';
import { MixFields } from './mix-fields';
import { PieceShelf } from './piece-shelf';
import { SoundColumn, type SoundColumnHands } from './sound-column';
import { TailorFields } from './tailor-fields';
import { USUAL_ZOOM, ZOOMS } from './sound-scale';
import { useSongAbout } from './use-song-about';

/** A loop begins again so long before its last frame is over, for the sound to be in time. */
const LOOP_EARLY_MS = 40;
const PLAYED_OUT_MS = 2;

type Side = 'music' | 'booth' | 'captions';
/** Where the music of a show comes from: all three are worth the same. */
type Source = 'songs' | 'band' | 'pieces';
const SIDES: Readonly<Record<Side, string>> = {
  music: 'songs, beats and the mix',
  booth: 'a voice for every slide',
  captions: 'what is read along',
};
const isSide = (kept: unknown): kept is Side => typeof kept === 'string' && Object.hasOwn(SIDES, kept);

/** Where the show gets its music, and pictures and music come to terms. */
export function SoundStation() {
  const prepared = usePrepared();
  const { show, facts, spans } = prepared;
  const entries = useShow((state) => state.entries);
  const edit = useShow((state) => state.edit);
  const music = useShowMusic();
  const kept = useKeptMoment();
  const viewer = useRef<ViewerHands>(null);
  const column = useRef<SoundColumnHands>(null);
  const [zoom, setZoom] = useState<number>(USUAL_ZOOM);
  const [picked, setPicked] = useState<CueId | null>(null);
  const [loop, setLoop] = useState<{ fromMs: number; toMs: number } | null>(null);
  const looping = useRef(loop);
  const moment = useRef(0);
  const showMoment = useCallback((momentMs: number) => {
    moment.current = momentMs;
    column.current?.showMoment(momentMs);
    const around = looping.current;
    if (!around) return;
    // At the end of the show it has stopped by the time that is heard of here.
    const goesOn = viewer.current?.playing || momentMs >= around.toMs - PLAYED_OUT_MS;
    if (goesOn && momentMs >= around.toMs - LOOP_EARLY_MS) viewer.current?.play(around.fromMs);
  }, []);
  const loopOver = (next: { fromMs: number; toMs: number } | null) => {
    looping.current = next;
    setLoop(next);
    // On past its end, where it begins again: a frame that is late there must not find it stopped.
    if (next) viewer.current?.play(next.fromMs);
  };
  const play = (fromMs: number) => {
    looping.current = null;
    setLoop(null);
    viewer.current?.play(fromMs);
  };
  const [side, setSide] = useKept<Side>('tanager-sound-side', 'music', isSide);
  const [pickedLanguage, setPickedLanguage] = useState<string | null>(null);
  const language = pickedLanguage ?? show.language ?? USUAL_LANGUAGE;
  const captions = useMemo(() => captionsOfShow(show, facts, language), [show, facts, language]);
  const [source, setSource] = useState<Source>('songs');
  const [planned, setPlanned] = useState<{ piece: PlannedPiece; fromMs: number } | null>(null);
  const showPlanned = useCallback(
    (piece: PlannedPiece | null, fromMs: number) => setPlanned(piece && { piece, fromMs }),
    [],
  );
  useCommands({
    'open-booth': () => setSide('booth'),
    'open-band': () => {
      setSide('music');
      setSource('band');
    },
  });
  // Recordings are takes of their slides.
  const sounds = entries.filter((entry) => entry.facts?.kind === 'sound' && entry.made === null);
  const heard = useMemo(() => soundSpans(show, facts), [show, facts]);
  const about = useSongAbout();
  const cue = show.cues.find((candidate) => candidate.id === picked) ?? show.cues[0] ?? null;
  const span = heard.find((candidate) => candidate.sound === cue) ?? null;
  const free = sounds.filter((sound) => !show.cues.some((candidate) => candidate.assetId === sound.assetId));
  const swap = (index: number, by: -1 | 1) => {
    const cues = [...show.cues];
    [cues[index], cues[index + by]] = [cues[index + by]!, cues[index]!];
    edit({ kind: 'set-cues', cues });
  };
  /** Where in the chosen song the viewer is. */
  const songMs = () => {
    const atMs = moment.current || kept.getState().momentMs;
    const run = span && pieceRuns(span, facts).findLast(({ startMs }) => startMs <= atMs);
    return run && atMs <= span.endMs ? fileMomentOf(run, atMs) : null;
  };

  return (
    <Group orientation="horizontal" className="min-w-0 flex-1" data-part="sound">
      <Panel defaultSize="56%" minSize="44%" className="flex flex-col">
        <div className="flex min-h-11 shrink-0 flex-wrap items-center gap-x-3 gap-y-1.5 border-b border-rule px-4 py-1.5">
          <LengthsLine />
          <span className="ml-auto flex items-center gap-2">
            <PaceBar />
            <span className="flex items-center">
              <Button
                look="quiet"
                square
                className="size-7"
                aria-label="See more of the show at once"
                disabled={zoom === 0}
                onClick={() => setZoom(zoom - 1)}
              >
                <Minus size={14} />
              </Button>
              <Button
                look="quiet"
                square
                className="size-7"
                aria-label="See single beats"
                disabled={zoom === ZOOMS.length - 1}
                onClick={() => setZoom(zoom + 1)}
              >
                <Plus size={14} />
              </Button>
            </span>
          </span>
        </div>
        <SoundColumn
          ref={column}
          prepared={prepared}
          music={music}
          pxPerSecond={ZOOMS[zoom]!}
          chosen={cue?.id ?? null}
          nameOf={({ sound }) => about(sound.assetId).name}
          onChoose={setPicked}
          onPlay={play}
          loop={loop}
          onLoop={loopOver}
          planned={source === 'band' && side === 'music' ? planned : null}
          {...(side === 'captions' && {
            captions: {
              captions,
              onMove: (caption: ShownCaption, end: 'start' | 'end', atMs: number) => {
                const span = spans.find((one) => one.slideId === caption.slideId)!;
                const offsetMs = atMs - momentSeen(span.startMs, show.frame.rate);
                const moved = captionChanged(
                  { show, facts },
                  { slideId: caption.slideId, index: caption.index, language },
                  end === 'start' ? { fromMs: offsetMs } : { toMs: offsetMs },
                );
                if (moved) edit(moved);
              },
              onPlay: (caption: ShownCaption) => viewer.current?.play(caption.startMs, caption.endMs),
            },
          })}
        />
      </Panel>
      <Separator
        aria-label="Width of the sound column"
        className="w-[5px] bg-rule/70 outline-none hover:bg-soft/60 focus-visible:bg-red"
      />
      <Panel minSize="30%" className="flex flex-col">
        <div className="h-[40%] shrink-0">
          <Viewer ref={viewer} onMoment={showMoment} />
        </div>
        <div className="flex shrink-0 items-center gap-3 border-b border-rule bg-card px-4 py-2">
          <Choice<Side>
            label="What is worked on"
            value={side}
            onChange={setSide}
            options={[
              { value: 'music', label: 'Music' },
              { value: 'booth', label: 'Booth' },
              { value: 'captions', label: 'Captions' },
            ]}
          />
          <span className="text-xs text-soft">{SIDES[side]}</span>
        </div>
        {side === 'booth' && (
          <div className="min-h-0 flex-1 overflow-y-auto bg-card p-4 scroll-more">
            <BoothPanel viewer={viewer} nameOf={(id) => about(id as AssetId).name} />
          </div>
        )}
        {side === 'captions' && (
          <div className="min-h-0 flex-1 overflow-y-auto bg-card p-4 scroll-more">
            <CaptionsPanel
              captions={captions}
              language={language}
              onLanguage={setPickedLanguage}
              onPlay={(fromMs, untilMs) => viewer.current?.play(fromMs, untilMs)}
              momentMs={() => moment.current || kept.getState().momentMs}
            />
          </div>
        )}
        {side === 'music' && (
          <div className="flex min-h-0 flex-1 flex-col gap-4 overflow-y-auto bg-card p-4 scroll-more">
            <div className="shrink-0">
              <Choice<Source>
                label="Where music comes from"
                value={source}
                onChange={setSource}
                options={[
                  { value: 'songs', label: show.cues.length > 0 ? 'What plays' : 'Your own' },
                  { value: 'band', label: 'House band' },
                  { value: 'pieces', label: 'Pieces to take' },
                ]}
              />
            </div>
            {source === 'band' && (
              <BandPanel
                key={cue?.band ? cue.id : 'another'}
                cue={cue?.band ? cue : null}
                onPlanned={showPlanned}
                onDone={(id) => {
                  setPicked(id);
                  setSource('songs');
                }}
              />
            )}
            {source === 'pieces' && (
              <PieceShelf
                viewer={viewer}
                onTaken={(id) => {
                  setPicked(id);
                  setSource('songs');
                }}
              />
            )}
            {source === 'songs' && (
              <>
                {show.cues.length > 1 && (
                  <div role="group" aria-label="Songs of the show" className="flex flex-wrap gap-1.5">
                    {show.cues.map((other) => (
                      <button
                        key={other.id}
                        type="button"
                        aria-pressed={other.id === cue?.id}
                        onClick={() => setPicked(other.id)}
                        className={clsx(
                          'h-7 max-w-48 truncate rounded-md border px-2.5',
                          other.id === cue?.id
                            ? 'border-saffron-deep bg-saffron/15 font-semibold'
                            : 'border-rule bg-field',
                        )}
                      >
                        {about(other.assetId).name}
                      </button>
                    ))}
                  </div>
                )}
                {cue ? (
                  <>
                    <CuePanel
                      key={cue.id}
                      cue={cue}
                      span={span}
                      name={about(cue.assetId).name}
                      by={about(cue.assetId).artist}
                      facts={facts}
                      spans={spans}
                      isFirst={show.cues.indexOf(cue) === 0}
                      isLast={show.cues.indexOf(cue) === show.cues.length - 1}
                      onChange={(properties, joins) =>
                        edit({ kind: 'set-sound', slideId: null, soundId: cue.id, properties }, joins)
                      }
                      onSwap={(by) => swap(show.cues.indexOf(cue), by)}
                      onRemove={() => edit({ kind: 'remove-sounds', slideId: null, soundIds: [cue.id] })}
                    />
                    {cue.band ? (
                      <BandLine
                        cue={cue}
                        facts={facts}
                        onChange={(properties) =>
                          edit({ kind: 'set-sound', slideId: null, soundId: cue.id, properties })
                        }
                        onOpen={() => setSource('band')}
                      />
                    ) : (
                      <TailorFields
                        key={`tailor ${cue.id}`}
                        cue={cue}
                        span={span}
                        facts={facts}
                        onChange={(properties) =>
                          edit({ kind: 'set-sound', slideId: null, soundId: cue.id, properties })
                        }
                        onHear={(fromMs, toMs) => viewer.current?.play(fromMs, toMs)}
                      />
                    )}
                    <BeatsFields
                      key={`beats ${cue.assetId}`}
                      facts={facts.get(cue.assetId)}
                      grid={beatsOfSong(show, facts, cue.assetId)}
                      said={show.beats?.[cue.assetId]}
                      songMs={songMs}
                      onSay={(said) => edit({ kind: 'set-beats', beats: [{ assetId: cue.assetId, said }] })}
                    />
                  </>
                ) : (
                  <NoMusic showId={show.id} hasSounds={sounds.length > 0} onSource={setSource} />
                )}
                {show.pace && (
                  <span className="flex items-center gap-2" data-part="meets">
                    <span className="text-soft">what meets the beat</span>
                    <Choice
                      label="What of a transition meets the beat"
                      value={show.pace.meets ?? 'beginning'}
                      options={[
                        { value: 'beginning', label: 'where a transition begins' },
                        { value: 'middle', label: 'its middle' },
                      ]}
                      onChange={(next) => {
                        const { meets: _meets, ...pace } = show.pace!;
                        edit({ kind: 'set-pace', pace: next === 'middle' ? { ...pace, meets: 'middle' } : pace });
                      }}
                    />
                  </span>
                )}
                <MixFields />
                <ChapterField />
                {free.length > 0 && <FreeSounds viewer={viewer} sounds={free} about={about} />}
              </>
            )}
          </div>
        )}
      </Panel>
    </Group>
  );
}

interface NoMusicProps {
  readonly showId: string;
  readonly hasSounds: boolean;
  readonly onSource: (source: Source) => void;
}

function NoMusic({ showId, hasSounds, onSource }: NoMusicProps) {
  return (
    <section aria-labelledby="music">
      <h2 id="music" className="text-base">
        Music
      </h2>
      <p className="mt-1 text-soft">
        No song plays yet.{' '}
        {hasSounds ? (
          'Choose one below.'
        ) : (
          <>
            Bring one in on the{' '}
            <Link className="text-red-deep underline" href={`/shows/${showId}/gather`}>
              contact sheet
            </Link>
            , or let somebody play who is here already.
          </>
        )}
      </p>
      <p className="mt-3 flex flex-wrap gap-2">
        <Button onClick={() => onSource('band')}>
          <Music4 size={14} /> Let the house band play
        </Button>
        <Button onClick={() => onSource('pieces')}>
          <Library size={14} /> Take a piece that is here
        </Button>
      </p>
    </section>
  );
}

import { writeMidi, type MidiEvent } from 'midi-file';
import { BAND_INSTRUMENT_NAMES } from '../../core/sound/band/band-wishes';
import { INSTRUMENT_RANGES, isDrum } from '../../core/sound/band/instruments';
import { fifthsOf } from '../../core/sound/band/music-xml';
import { momentOfBeat, type Part, type Piece } from '../../core/sound/band/piece';
import { titleOfPiece } from '../../core/sound/band/piece-facts';

const TICKS_A_BEAT = 480;
const DRUM_CHANNEL = 9;

/** The score as a MIDI file (format 1): a track for the tempo, beat by beat as it is played, and one for each part, by General MIDI. */
export function asMidi(piece: Piece): Uint8Array {
  const { form } = piece;
  const tempo = timed([
    { atTicks: 0, event: { deltaTime: 0, type: 'trackName', text: titleOfPiece(piece), meta: true } },
    {
      atTicks: 0,
      event: {
        deltaTime: 0,
        type: 'timeSignature',
        numerator: form.beatsABar,
        denominator: 4,
        metronome: 24,
        thirtyseconds: 8,
        meta: true,
      },
    },
    {
      atTicks: 0,
      event: {
        deltaTime: 0,
        type: 'keySignature',
        key: fifthsOf(piece),
        scale: piece.mode === 'minor' ? 1 : 0,
        meta: true,
      },
    },
    ...form.beatsMs.map((atMs, beat) => ({
      atTicks: beat * TICKS_A_BEAT,
      event: {
        deltaTime: 0,
        type: 'setTempo' as const,
        microsecondsPerBeat: Math.round(1000 * (momentOfBeat(form, beat + 1) - atMs)),
        meta: true as const,
      },
    })),
  ]);
  let channel = -1;
  const tracks = piece.parts.map((part) => {
    if (isDrum(part.instrument)) return trackOf(part, DRUM_CHANNEL);
    channel = (channel + 1) % 16;
    if (channel === DRUM_CHANNEL) channel += 1;
    return trackOf(part, channel);
  });
  return Uint8Array.from(
    writeMidi({
      header: { format: 1, numTracks: tracks.length + 1, ticksPerBeat: TICKS_A_BEAT },
      tracks: [tempo, ...tracks],
    }),
  );
}

interface Placed {
  readonly atTicks: number;
  readonly event: MidiEvent;
}

function trackOf(part: Part, channel: number): MidiEvent[] {
  const program = INSTRUMENT_RANGES[part.instrument].program;
  const placed: Placed[] = [
    {
      atTicks: 0,
      event: { deltaTime: 0, type: 'trackName', text: BAND_INSTRUMENT_NAMES[part.instrument], meta: true },
    },
    ...(program === null
      ? []
      : [{ atTicks: 0, event: { deltaTime: 0, type: 'programChange' as const, channel, programNumber: program } }]),
    {
      atTicks: 0,
      event: { deltaTime: 0, type: 'controller', channel, controllerType: 10, value: Math.round(64 + 63 * part.pan) },
    },
    ...part.notes.flatMap(({ beat, beats, pitch, loudness }): Placed[] => {
      const from = Math.round(beat * TICKS_A_BEAT);
      const to = Math.max(from + 20, Math.round((beat + part.held * beats) * TICKS_A_BEAT) - 4);
      return [
        {
          atTicks: from,
          event: {
            deltaTime: 0,
            type: 'noteOn',
            channel,
            noteNumber: pitch,
            velocity: Math.max(1, Math.min(127, Math.round(127 * loudness))),
          },
        },
        { atTicks: to, event: { deltaTime: 0, type: 'noteOff', channel, noteNumber: pitch, velocity: 0 } },
      ];
    }),
  ];
  return timed(placed);
}

/** In order, each counted from the one before; notes end before others begin. */
function timed(placed: readonly Placed[]): MidiEvent[] {
  let last = 0;
  const rank = ({ event }: Placed) => (event.type === 'noteOff' ? 0 : event.type === 'noteOn' ? 2 : 1);
  const sorted = placed.toSorted((a, b) => a.atTicks - b.atTicks || rank(a) - rank(b));
  const events = sorted.map(({ atTicks, event }): MidiEvent => {
    const deltaTime = atTicks - last;
    last = atTicks;
    return { ...event, deltaTime };
  });
  return [...events, { deltaTime: 0, type: 'endOfTrack', meta: true }];
}

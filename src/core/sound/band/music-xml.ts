import { BAND_INSTRUMENT_NAMES } from './band-wishes';
import { isDrum } from './instruments';
import type { Part, Piece, ScoreNote } from './piece';
import { BAND_ARTIST, titleOfPiece } from './piece-facts';

/** Ticks a quarter: sixteenths and triplets are whole. */
const DIVISIONS = 12;
const TYPES: readonly (readonly [ticks: number, type: string, dots: number])[] = [
  [48, 'whole', 0],
  [36, 'half', 1],
  [24, 'half', 0],
  [18, 'quarter', 1],
  [12, 'quarter', 0],
  [9, 'eighth', 1],
  [6, 'eighth', 0],
  [3, '16th', 0],
];
const SHARPS = ['C', 'C#', 'D', 'D#', 'E', 'F', 'F#', 'G', 'G#', 'A', 'A#', 'B'];
const FLATS = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B'];
const FIFTHS_OF_MAJOR = [0, -5, 2, -3, 4, -1, 6, 1, -4, 3, -2, 5];
/** How many fifths a mode lies from the major of the same tonic. */
const MODE_FIFTHS = { major: 0, minor: -3, dorian: -2, mixolydian: -1, lydian: 1 };

interface Event {
  readonly at: number;
  readonly ticks: number;
  readonly pitches: readonly number[];
}

/** The score as MusicXML 4.0 (partwise), for notation programs; lengths as written, to the sixteenth. */
export function asMusicXml(piece: Piece): string {
  const { form } = piece;
  const ids = piece.parts.map((_, index) => `P${index + 1}`);
  const lines = [
    '<?xml version="1.0" encoding="UTF-8" standalone="no"?>',
    '<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">',
    '<score-partwise version="4.0">',
    `<work><work-title>${escaped(titleOfPiece(piece))}</work-title></work>`,
    `<identification><creator type="composer">${escaped(BAND_ARTIST)}</creator></identification>`,
    '<part-list>',
    ...piece.parts.map(
      ({ instrument }, index) =>
        `<score-part id="${ids[index]!}"><part-name>${escaped(BAND_INSTRUMENT_NAMES[instrument])}</part-name></score-part>`,
    ),
    '</part-list>',
  ];
  const barTicks = form.beatsABar * DIVISIONS;
  // The last chord rings for whole bars.
  const bars = form.bars + Math.max(1, Math.round(piece.lastBeats / form.beatsABar));
  const fifths = fifthsOf(piece);
  piece.parts.forEach((part, index) => {
    const events = eventsOf(part, bars * barTicks);
    const clef = isDrum(part.instrument)
      ? '<clef><sign>percussion</sign></clef>'
      : meanPitch(part.notes) < 58
        ? '<clef><sign>F</sign><line>4</line></clef>'
        : '<clef><sign>G</sign><line>2</line></clef>';
    lines.push(`<part id="${ids[index]!}">`);
    for (let bar = 0; bar < bars; bar += 1) {
      lines.push(`<measure number="${bar + 1}">`);
      if (bar === 0)
        lines.push(
          `<attributes><divisions>${DIVISIONS}</divisions><key><fifths>${fifths}</fifths></key><time><beats>${form.beatsABar}</beats><beat-type>4</beat-type></time>${clef}</attributes>`,
          `<direction placement="above"><direction-type><metronome><beat-unit>quarter</beat-unit><per-minute>${form.bpm.toFixed(1)}</per-minute></metronome></direction-type><sound tempo="${form.bpm.toFixed(2)}"/></direction>`,
        );
      lines.push(...barLines(events, bar * barTicks, (bar + 1) * barTicks, part, fifths < 0), '</measure>');
    }
    lines.push('</part>');
  });
  lines.push('</score-partwise>');
  return `${lines.join('\n')}\n`;
}

/** Between −6 and 6: what has more is written as its neighbour in sound. */
export function fifthsOf({ tonic, mode }: Piece): number {
  const fifths = FIFTHS_OF_MAJOR[tonic % 12]! + MODE_FIFTHS[mode];
  return fifths > 6 ? fifths - 12 : fifths < -6 ? fifths + 12 : fifths;
}

/** Notes that begin together as one; each ends where the next begins at the latest. */
function eventsOf({ notes }: Part, endTicks: number): Event[] {
  const byStart = new Map<number, { ticks: number; pitches: Set<number> }>();
  for (const { beat, beats, pitch } of notes) {
    const at = 3 * Math.round((beat * DIVISIONS) / 3);
    const ticks = Math.max(3, 3 * Math.round((beats * DIVISIONS) / 3));
    const there = byStart.get(at) ?? { ticks: 0, pitches: new Set() };
    there.ticks = Math.max(there.ticks, ticks);
    there.pitches.add(pitch);
    byStart.set(at, there);
  }
  const starts = [...byStart.keys()].sort((a, b) => a - b);
  return starts.map((at, index) => {
    const { ticks, pitches } = byStart.get(at)!;
    return {
      at,
      ticks: Math.min(ticks, (starts[index + 1] ?? endTicks) - at),
      pitches: [...pitches].sort((a, b) => a - b),
    };
  });
}

function barLines(events: readonly Event[], from: number, to: number, part: Part, useFlats: boolean): string[] {
  const lines: string[] = [];
  let at = from;
  const rest = (until: number) => {
    for (const ticks of split(until - at)) lines.push(`<note><rest/>${length(ticks)}</note>`);
    at = until;
  };
  for (const event of events) {
    const [start, end] = [Math.max(from, event.at), Math.min(to, event.at + event.ticks)];
    if (end <= start) continue;
    if (start > at) rest(start);
    const pieces = split(end - start);
    pieces.forEach((ticks, piece) => {
      const comesOn = piece > 0 || event.at < from;
      const goesOn = piece < pieces.length - 1 || event.at + event.ticks > to;
      event.pitches.forEach((pitch, voice) => {
        const ties = `${comesOn ? '<tie type="stop"/>' : ''}${goesOn ? '<tie type="start"/>' : ''}`;
        const tied = `${comesOn ? '<tied type="stop"/>' : ''}${goesOn ? '<tied type="start"/>' : ''}`;
        const [duration, type] = lengthParts(ticks);
        lines.push(
          `<note>${voice > 0 ? '<chord/>' : ''}${pitchOf(pitch, part, useFlats)}${duration}${ties}${type}${tied ? `<notations>${tied}</notations>` : ''}</note>`,
        );
      });
    });
    at = end;
  }
  if (at < to) rest(to);
  return lines;
}

function pitchOf(pitch: number, { instrument }: Part, useFlats: boolean): string {
  const [step, alter] = (useFlats ? FLATS : SHARPS)[pitch % 12]!;
  if (isDrum(instrument))
    return `<unpitched><display-step>${step!}</display-step><display-octave>${pitch > 60 ? 5 : 4}</display-octave></unpitched>`;
  const moved = alter === '#' ? '<alter>1</alter>' : alter === 'b' ? '<alter>-1</alter>' : '';
  return `<pitch><step>${step!}</step>${moved}<octave>${Math.floor(pitch / 12) - 1}</octave></pitch>`;
}

const lengthParts = (ticks: number): [string, string] => {
  const [, type, dots] = TYPES.find(([of]) => of === ticks)!;
  return [`<duration>${ticks}</duration>`, `<type>${type}</type>${'<dot/>'.repeat(dots)}`];
};
const length = (ticks: number) => lengthParts(ticks).join('');

/** A length as lengths that notes can have. */
function split(ticks: number): number[] {
  const found: number[] = [];
  for (let rest = ticks; rest > 0;) {
    const [of] = TYPES.find(([one]) => one <= rest)!;
    found.push(of);
    rest -= of;
  }
  return found;
}

const meanPitch = (notes: readonly ScoreNote[]) =>
  notes.reduce((sum, { pitch }) => sum + pitch, 0) / Math.max(1, notes.length);
const escaped = (text: string) => text.replace(/[<>&"]/g, (sign) => `&#${sign.charCodeAt(0)};`);

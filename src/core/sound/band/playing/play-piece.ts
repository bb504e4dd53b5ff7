import { createLimiter, LIMITER_DELAY } from '../../limiter';
import { perform } from '../perform';
import type { Piece } from '../piece';
import { createRoom } from './room';
import { BAND_RATE, type Tone, type Voice } from './tone';
import { voiceOfInstrument } from './voices';

// Looked up once: these are asked for each pair and each sample.
const { cos, max, min, round, sin } = Math;

/** So many frames are played in one go: a quarter of a second. */
export const BAND_BLOCK = BAND_RATE / 4;
/** The very end goes to nothing over this. */
const FADE_MS = 350;
/** Where a last chord would be held until the end, it is let go here, so that the room can be heard. */
const LAST_HELD = 0.62;

export interface Playing {
  readonly frameCount: number;
  /** Interleaved stereo, the next piece of it; null after the end. */
  next(): Float32Array | null;
}

interface Sounding {
  readonly tone: Tone;
  /** The frame of the piece its first sample falls on. */
  readonly start: number;
  /** Where it begins to be damped, and where it is silent, counted from its start. */
  readonly damped: number;
  readonly end: number;
  readonly left: number;
  readonly right: number;
}

interface Waiting {
  readonly startMs: number;
  readonly lengthMs: number;
  readonly pitch: number;
  readonly loudness: number;
  readonly voice: Voice;
  readonly pan: number;
}

/** Plays a piece, a quarter of a second after another: the first can be heard long before the last is made. */
export function playPiece(piece: Piece): Playing {
  const frameCount = round((piece.wishes.lengthMs / 1000) * BAND_RATE);
  const waiting = allNotes(piece);
  const room = createRoom(piece.style.room.seconds, piece.style.room.wet);
  const limiter = createLimiter();
  const gain = 10 ** (piece.style.gainDb / 20);
  const fade = round((FADE_MS / 1000) * BAND_RATE);
  let sounding: Sounding[] = [];
  let [first, played, given] = [0, 0, 0];
  const [left, right] = [new Float32Array(BAND_BLOCK), new Float32Array(BAND_BLOCK)];

  /** What the limiter gives is late by its look-ahead. */
  const block = (): Float32Array => {
    left.fill(0);
    right.fill(0);
    const until = played + BAND_BLOCK;
    while (first < waiting.length && (waiting[first]!.startMs / 1000) * BAND_RATE < until)
      sounding.push(sounds(waiting[first++]!));
    for (const one of sounding) add(one, left, right, played);
    sounding = sounding.filter(({ start, end }) => start + end > until);
    room.run(left, right, BAND_BLOCK);
    const mixed = new Float32Array(2 * BAND_BLOCK);
    for (let frame = 0; frame < BAND_BLOCK; frame += 1) {
      const ends = max(0, min(1, (frameCount - played - frame) / fade));
      mixed[2 * frame] = gain * ends * left[frame]!;
      mixed[2 * frame + 1] = gain * ends * right[frame]!;
    }
    played = until;
    limiter.run(mixed);
    return mixed;
  };

  return {
    frameCount,
    next() {
      if (given >= frameCount) return null;
      let samples = block();
      if (given === 0) samples = samples.slice(2 * LIMITER_DELAY);
      const rest = frameCount - given;
      if (samples.length > 2 * rest) samples = samples.slice(0, 2 * rest);
      given += samples.length / 2;
      return samples;
    },
  };
}

/** Of all parts, rising in time. */
function allNotes(piece: Piece): Waiting[] {
  const voices = new Map(piece.parts.map(({ instrument }) => [instrument, voiceOfInstrument(instrument)]));
  const lastMs = piece.form.beatsMs.at(-1)!;
  // Where something is struck, nothing sounds of the last chord before that; where all of it swells it is heard at its place like any other.
  const isStruck = [...voices.values()].some(({ rings }) => rings);
  return piece.parts
    .flatMap((part, index) => {
      const voice = voices.get(part.instrument)!;
      return perform(piece, part, index).map((note): Waiting => {
        const isLast = note.startMs >= lastMs - 1;
        const lengthMs = isLast && !voice.rings ? LAST_HELD * note.lengthMs : note.lengthMs;
        const speaksMs = isLast && isStruck ? 0 : (voice.speaksMs?.(note.loudness, (lengthMs / 1000) * BAND_RATE) ?? 0);
        return { ...note, startMs: max(0, note.startMs - speaksMs), lengthMs, voice, pan: part.pan };
      });
    })
    .sort((a, b) => a.startMs - b.startMs);
}

function sounds({ startMs, lengthMs, pitch, loudness, voice, pan }: Waiting): Sounding {
  const frames = round((lengthMs / 1000) * BAND_RATE);
  const tone = voice.tone(pitch, loudness, frames);
  const release = round((voice.releaseMs / 1000) * BAND_RATE);
  const length = tone.left.length;
  const level = voice.gain * (0.08 + 0.92 * loudness ** 1.5) * 0.5;
  const angle = ((pan + 1) * Math.PI) / 4;
  return {
    tone,
    start: round((startMs / 1000) * BAND_RATE),
    damped: voice.rings ? min(frames, length) : length,
    end: voice.rings ? min(length, frames + release) : length,
    left: level * Math.SQRT2 * cos(angle),
    right: level * Math.SQRT2 * sin(angle),
  };
}

function add(
  { tone, start, damped, end, left: toLeft, right: toRight }: Sounding,
  left: Float32Array,
  right: Float32Array,
  from: number,
): void {
  const first = max(0, from - start);
  const last = min(end, from + left.length - start);
  const offset = start - from;
  const { left: one, right: other } = tone;
  const plain = min(last, damped);
  for (let at = first; at < plain; at += 1) {
    left[at + offset] = left[at + offset]! + toLeft * one[at]!;
    right[at + offset] = right[at + offset]! + toRight * other[at]!;
  }
  if (last <= damped) return;
  const release = end - damped;
  for (let at = max(first, damped); at < last; at += 1) {
    const ends = (1 - (at - damped) / release) ** 2;
    left[at + offset] = left[at + offset]! + toLeft * ends * one[at]!;
    right[at + offset] = right[at + offset]! + toRight * ends * other[at]!;
  }
}

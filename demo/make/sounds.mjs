// The demo's sounds: a reel for plucked strings, squeezebox, bass and brushes, made sample by sample; the lapping of the clip's water.
import { random } from './noise.mjs';

export const RATE = 44_100;
const BPM = 104;
const BEAT = 60 / BPM;

const note = (semitonesFromA4) => 440 * 2 ** (semitonesFromA4 / 12);
/** Chords as semitones from A4's octave below: D, G, A, Bm, Em, with their scales' roots. */
const CHORDS = {
  D: [-19, -12, -7, -3],
  G: [-26, -14, -10, -7],
  A: [-24, -12, -8, -5],
  b: [-22, -10, -7, -3],
  e: [-29, -17, -14, -10],
};
const VERSE = ['D', 'D', 'G', 'A', 'b', 'G', 'e', 'A'];
const CHORUS = ['G', 'A', 'D', 'b', 'G', 'A', 'D', 'D'];
/** Two-bar tunes in eighths, as steps of the D major scale from D5; null rests. */
const TUNES = [
  [0, null, 2, 4, 5, 4, 2, 0, -1, null, 1, 2, 4, null, 2, null],
  [4, null, 5, 7, 5, 4, 2, null, 4, 2, 1, 2, 0, null, null, null],
  [7, null, 7, 5, 4, null, 5, 7, 9, null, 7, 5, 4, 5, 2, null],
  [4, 2, 1, 0, 1, null, 2, 4, 2, null, 0, null, -1, 0, 0, null],
];
const SCALE = [0, 2, 4, 5, 7, 9, 11];
const degree = (step) => note(5 + 12 * Math.floor(step / 7) + SCALE[((step % 7) + 7) % 7] - 0);

/** @returns stereo samples interleaved, about `seconds` long and ending on a held chord */
export function makeSong(seconds) {
  const bars = Math.round(seconds / (4 * BEAT)) - 1;
  const out = new Float32Array(Math.ceil((bars + 1) * 4 * BEAT * RATE) * 2);
  const next = random(77);
  for (let bar = 0; bar < bars; bar += 1) {
    const part = Math.floor(bar / 8) % 4;
    const chord = CHORDS[(part === 1 || part === 3 ? CHORUS : VERSE)[bar % 8]];
    const start = bar * 4 * BEAT;
    const full = bar >= 8;
    for (let eighth = 0; eighth < 8; eighth += 1) {
      const pick = chord[[0, 2, 1, 3, 2, 3, 1, 2][eighth]] + (eighth % 2 ? 12 : 0);
      pluck(
        out,
        start + (eighth * BEAT) / 2,
        note(pick),
        0.16 + 0.05 * (eighth % 4 === 0),
        eighth % 2 ? 0.32 : -0.32,
        next,
        1.5,
      );
    }
    if (full) {
      for (const beat of [0, 2]) bass(out, start + beat * BEAT, note(chord[0] - 12), BEAT * 1.7, 0.2);
      for (let beat = 0; beat < 4; beat += 1) {
        brush(out, start + (beat + 0.5) * BEAT, 0.05, next, 0.09);
        if (beat % 2) brush(out, start + beat * BEAT, 0.11, next, 0.16);
        else drum(out, start + beat * BEAT, 0.26);
      }
    }
    if (part >= 1)
      for (const tone of chord.slice(1)) reed(out, start, note(tone), 4 * BEAT, 0.022, tone % 2 ? 0.4 : -0.4);
    if (bar >= 4) {
      const tune = TUNES[(Math.floor(bar / 2) + part) % 4];
      for (let eighth = 0; eighth < 8; eighth += 1) {
        const step = tune[(bar % 2) * 8 + eighth];
        if (step === null) continue;
        let long = 1;
        while (eighth + long < 8 && tune[(bar % 2) * 8 + eighth + long] === null) long += 1;
        if (part % 2 === 0) pluck(out, start + (eighth * BEAT) / 2, degree(step), 0.2, 0.08, next, 1.1);
        else reed(out, start + (eighth * BEAT) / 2, degree(step), (long * BEAT) / 2, 0.075, 0.08);
      }
    }
  }
  const end = bars * 4 * BEAT;
  for (const tone of [-19, -12, -7, -3, 5]) {
    pluck(out, end + (0.02 * (tone + 19)) / 8, note(tone), 0.26, tone / 40, next, 3.2);
    reed(out, end, note(tone), 3.5 * BEAT, 0.025, 0);
  }
  drum(out, end, 0.3);
  return mastered(out, 0.82);
}

/** Karplus and Strong's plucked string: a burst of noise in a loop that loses its high tones first. */
function pluck(out, at, frequency, gain, pan, next, ring) {
  const period = Math.max(2, Math.round(RATE / frequency));
  const loop = Float32Array.from({ length: period }, () => next() * 2 - 1);
  for (let i = 1; i < period; i += 1) loop[i] = 0.5 * loop[i] + 0.5 * loop[i - 1];
  const from = Math.round(at * RATE);
  const count = Math.min(Math.round(ring * RATE), out.length / 2 - from);
  const [left, right] = sides(pan, gain);
  let position = 0;
  for (let i = 0; i < count; i += 1) {
    const following = (position + 1) % period;
    const value = loop[position];
    loop[position] = 0.4985 * (value + loop[following]);
    position = following;
    const tail = Math.min(1, (count - i) / 2000);
    out[2 * (from + i)] += value * left * tail;
    out[2 * (from + i) + 1] += value * right * tail;
  }
}

/** A squeezebox reed: two slightly detuned rows of odd-rich partials that swell and let go. */
function reed(out, at, frequency, seconds, gain, pan) {
  const [left, right] = sides(pan, gain);
  play(
    out,
    at,
    seconds + 0.06,
    (t) => {
      const swell = Math.min(1, t / 0.05) * Math.min(1, Math.max(0, (seconds + 0.06 - t) / 0.09));
      let value = 0;
      for (let partial = 1; partial <= 6; partial += 1) {
        const strength = (partial % 2 ? 1 : 0.55) / partial;
        value +=
          strength *
          (Math.sin(2 * Math.PI * frequency * partial * t) +
            Math.sin(2 * Math.PI * frequency * 1.004 * partial * t + 0.4));
      }
      return value * swell * (1 + 0.06 * Math.sin(2 * Math.PI * 5.2 * t));
    },
    left,
    right,
  );
}

function bass(out, at, frequency, seconds, gain) {
  const [left, right] = sides(0, gain);
  play(
    out,
    at,
    seconds,
    (t) =>
      Math.exp(-2.2 * t) *
      Math.min(1, t / 0.008) *
      (Math.sin(2 * Math.PI * frequency * t) + 0.35 * Math.sin(4 * Math.PI * frequency * t)) *
      Math.min(1, (seconds - t) / 0.03),
    left,
    right,
  );
}

function drum(out, at, gain) {
  play(
    out,
    at,
    0.22,
    (t) => Math.exp(-22 * t) * Math.sin(2 * Math.PI * (48 * t + 3.2 * (1 - Math.exp(-30 * t)))),
    gain,
    gain,
  );
}

function brush(out, at, gain, next, seconds) {
  let before = 0;
  play(
    out,
    at,
    seconds,
    (t) => {
      const value = next() * 2 - 1;
      const high = value - before;
      before = value;
      return high * Math.exp(-18 * t) * Math.min(1, t / 0.01);
    },
    gain * 0.9,
    gain * 0.7,
  );
}

function play(out, at, seconds, voice, left, right) {
  const from = Math.round(at * RATE);
  const count = Math.min(Math.round(seconds * RATE), out.length / 2 - from);
  for (let i = 0; i < count; i += 1) {
    const value = voice(i / RATE);
    out[2 * (from + i)] += value * left;
    out[2 * (from + i) + 1] += value * right;
  }
}

function sides(pan, gain) {
  const angle = ((pan + 1) * Math.PI) / 4;
  return [gain * Math.cos(angle) * 1.2, gain * Math.sin(angle) * 1.2];
}

/** A little room (four echoes of different lengths), then to a peak. */
function mastered(dry, peak) {
  const wet = Float32Array.from(dry);
  for (const [ms, strength] of [
    [31, 0.2],
    [53, 0.16],
    [89, 0.12],
    [141, 0.08],
  ]) {
    const delay = 2 * Math.round((ms * RATE) / 1000) + 1;
    for (let i = delay; i < wet.length; i += 1) wet[i] += dry[i - delay] * strength;
  }
  const loudest = wet.reduce((most, value) => Math.max(most, Math.abs(value)), 0);
  return wet.map((value) => (value * peak) / loudest);
}

/** Water against a quay and one far bell. */
export function makeWater(seconds) {
  const out = new Float32Array(2 * Math.round(seconds * RATE));
  const next = random(5);
  let low = 0;
  let lower = 0;
  for (let i = 0; i < out.length / 2; i += 1) {
    const t = i / RATE;
    low += 0.06 * (next() * 2 - 1 - low);
    lower += 0.012 * (low - lower);
    const lap = 0.35 + 0.65 * Math.max(0, Math.sin(2 * Math.PI * 0.43 * t + Math.sin(t * 1.7))) ** 2;
    out[2 * i] = (low - lower) * lap * 1.5;
    out[2 * i + 1] = (low - lower) * (0.4 + 0.6 * lap) * 1.4;
  }
  for (const [at, gain] of [
    [1.2, 0.1],
    [4.8, 0.08],
  ]) {
    play(
      out,
      at,
      3,
      (t) =>
        Math.exp(-1.5 * t) *
        (Math.sin(2 * Math.PI * 523 * t) +
          0.6 * Math.sin(2 * Math.PI * 1254 * t) * Math.exp(-2 * t) +
          0.4 * Math.sin(2 * Math.PI * 628 * t)),
      gain,
      gain * 0.7,
    );
  }
  return mastered(out, 0.5);
}

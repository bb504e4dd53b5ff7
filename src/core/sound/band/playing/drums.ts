import { DRUMS, type Drum } from '../instruments';
import { BAND_RATE, filtered, inMiddle, kept, noiseFrom, toPeak, type Voice } from './tone';

// Looked up once: these are asked for each pair and each sample.
const { ceil, exp, max, min, round, sign, sin } = Math;

type Beat = (loudness: number) => Float32Array;

const framesOf = (seconds: number) => ceil(seconds * BAND_RATE);

/** A skin: its swings, which sink a little after the stroke, and the click of what hits it. */
function skin(
  hertz: number,
  sinks: number,
  seconds: number,
  click: number,
  ratios: readonly number[] = [1, 1.59, 2.14, 2.65],
): Beat {
  return (loudness) => {
    const samples = new Float32Array(framesOf(seconds));
    ratios.forEach((ratio, part) => {
      let phase = 0;
      const level = (part === 0 ? 1 : (0.18 + 0.3 * loudness) / part) * 1;
      const decay = (seconds / 5.5 / (1 + 0.9 * part)) * BAND_RATE;
      for (let at = 0; at < samples.length; at += 1) {
        const bend = 1 + sinks * exp(-at / (0.028 * BAND_RATE));
        phase += (2 * Math.PI * hertz * ratio * bend) / BAND_RATE;
        samples[at] = samples[at]! + level * sin(phase) * exp(-at / decay);
      }
    });
    return withClick(samples, click * (0.4 + 0.6 * loudness), 2400, 3);
  };
}

function withClick(samples: Float32Array, level: number, hertz: number, ms: number): Float32Array {
  toPeak(samples);
  if (level <= 0) return samples;
  const noise = noiseFrom(hertz);
  const click = filtered(
    Float32Array.from({ length: framesOf(0.03) }, (_, at) => noise() * exp(-at / ((ms / 1000) * BAND_RATE))),
    'band',
    hertz,
    0.7,
  );
  toPeak(click);
  for (let at = 0; at < min(click.length, samples.length); at += 1) samples[at] = samples[at]! + level * click[at]!;
  return samples;
}

/** Noise in a band, rising and dying away. */
function hiss(
  kind: 'band' | 'high',
  hertz: number,
  q: number,
  attack: number,
  decay: number,
  seconds: number,
  seed: number,
): Beat {
  return () => {
    const noise = noiseFrom(seed);
    const samples = Float32Array.from(
      { length: framesOf(seconds) },
      (_, at) =>
        noise() * min(1, (at + 1) / (attack * BAND_RATE)) * exp(-max(0, at - attack * BAND_RATE) / (decay * BAND_RATE)),
    );
    return toPeak(filtered(samples, kind, hertz, q));
  };
}

/** Metal: many swings that fit each other in nothing. */
function metal(hertz: number, decay: number, seconds: number, edge: number, noisy: number): Beat {
  const ratios = [1, 1.342, 1.567, 1.875, 2.244, 2.683, 3.14, 3.77];
  return (loudness) => {
    const noise = noiseFrom(round(hertz));
    const samples = new Float32Array(framesOf(seconds));
    ratios.forEach((ratio, part) => {
      const by = (2 * Math.PI * hertz * ratio) / BAND_RATE;
      for (let at = 0; at < samples.length; at += 1)
        samples[at] =
          samples[at]! + sign(sin(by * at + part)) * 0.16 * exp(-at / ((decay * BAND_RATE) / (1 + 0.12 * part)));
    });
    for (let at = 0; at < samples.length; at += 1)
      samples[at] = samples[at]! + noisy * noise() * exp(-at / (decay * 0.8 * BAND_RATE));
    filtered(samples, 'high', edge * (0.85 + 0.15 * loudness), 0.7);
    return toPeak(filtered(samples, 'low', 13_000, 0.7));
  };
}

function wood(hertz: number, seconds: number): Beat {
  return () =>
    withClick(
      Float32Array.from(
        { length: framesOf(seconds) },
        (_, at) =>
          sin((2 * Math.PI * hertz * at) / BAND_RATE) * exp(-at / ((seconds / 6) * BAND_RATE)) +
          0.35 * sin((2 * Math.PI * hertz * 2.71 * at) / BAND_RATE) * exp(-at / ((seconds / 14) * BAND_RATE)),
      ),
      0.25,
      3800,
      1.5,
    );
}

function both(one: Beat, other: Beat, share: number): Beat {
  return (loudness) => {
    const [first, second] = [one(loudness), other(loudness)];
    const samples = new Float32Array(max(first.length, second.length));
    for (let at = 0; at < samples.length; at += 1)
      samples[at] = (1 - share) * (first[at] ?? 0) + share * (second[at] ?? 0);
    return toPeak(samples);
  };
}

/** Three claps just after one another, and the room. */
const clap: Beat = () => {
  const noise = noiseFrom(55);
  const samples = Float32Array.from({ length: framesOf(0.32) }, (_, at) => {
    const ms = (1000 * at) / BAND_RATE;
    const bursts = [0, 11, 22].reduce((sum, from) => sum + (ms >= from ? exp(-(ms - from) / 4) : 0), 0);
    return noise() * (bursts + 0.4 * exp(-ms / 70));
  });
  return toPeak(filtered(samples, 'band', 1250, 0.9));
};

const snareSkin = skin(186, 0.1, 0.24, 0.35, [1, 1.78]);
const BEATS: Readonly<Record<Drum, Beat>> = {
  kick: skin(52, 1.6, 0.42, 0.2, [1]),
  'bass-drum': skin(46, 0.5, 0.75, 0.12, [1, 1.6, 2.1]),
  snare: both(snareSkin, hiss('high', 1500, 0.7, 0.001, 0.085, 0.34, 11), 0.52),
  rim: wood(1720, 0.07),
  clap,
  hat: metal(3300, 0.032, 0.14, 6500, 0.5),
  'open-hat': metal(3300, 0.16, 0.5, 6200, 0.5),
  'low-tom': skin(84, 0.28, 0.6, 0.16),
  'high-tom': skin(142, 0.28, 0.45, 0.16),
  crash: metal(1900, 0.7, 2.6, 2600, 0.7),
  ride: metal(2700, 0.42, 1.4, 4200, 0.18),
  tambourine: both(metal(4600, 0.08, 0.3, 5200, 0.3), hiss('high', 6000, 0.7, 0.002, 0.05, 0.22, 21), 0.45),
  'high-conga': skin(228, 0.12, 0.3, 0.2),
  slap: both(skin(310, 0.1, 0.16, 0.8), hiss('band', 2300, 0.8, 0.0008, 0.025, 0.14, 31), 0.45),
  'low-conga': skin(158, 0.14, 0.42, 0.15),
  shaker: hiss('high', 5200, 0.7, 0.022, 0.028, 0.16, 41),
  claves: wood(2480, 0.11),
  'wood-block': wood(920, 0.12),
  triangle: metal(4100, 0.9, 2.2, 3800, 0),
  brush: hiss('band', 3400, 0.5, 0.006, 0.075, 0.32, 51),
  sweep: hiss('band', 4200, 0.45, 0.16, 0.12, 0.7, 61),
};
const LEVELS: Readonly<Partial<Record<Drum, number>>> = {
  kick: 1,
  'bass-drum': 0.95,
  snare: 0.8,
  rim: 0.3,
  clap: 0.45,
  hat: 0.3,
  'open-hat': 0.3,
  crash: 0.3,
  ride: 0.42,
  tambourine: 0.42,
  shaker: 0.62,
  claves: 0.26,
  triangle: 0.14,
  brush: 0.62,
  sweep: 0.42,
};
const byPitch = new Map<number, Drum>(Object.entries(DRUMS).map(([drum, pitch]) => [pitch, drum as Drum]));

/** All drums: what strikes is chosen by the pitch, as General MIDI has it. */
export function drumVoice(): Voice {
  return {
    rings: true,
    releaseMs: 3000,
    gain: 0.72,
    tone: kept((pitch, loudness) => {
      const drum = byPitch.get(pitch) ?? 'rim';
      const level = LEVELS[drum] ?? 0.7;
      return inMiddle(BEATS[drum](loudness).map((sample) => sample * level));
    }),
  };
}

import { describe, expect, it } from '@jest/globals';
import { soundPrint } from './band/playing/sound-measures.testing';
import { createLimiter } from './limiter';
import { addToMix, amplify } from './mix-block';
import { createStretcher } from './sound-stretcher';
import { voiceCleaning } from './voice/clean-voice';
import { GENTLE, THOROUGH, type Cleaning } from './voice/cleaning';
import { fan, spoken, SPOKEN_RATE } from './voice/spoken.testing';
import { joined } from './voice/stage';

// The sound of a film that is made again is the sound it had. Where mixing, stretching or cleaning is meant to change, the snapshots are written anew.

/** Two seconds of gliding tones with strokes, louder and softer; left and right differ. */
const TUNE = Float32Array.from({ length: 2 * 96_000 }, (_, at) => {
  const second = (at >> 1) / 48_000;
  const stroke = 0.3 + Math.exp(-8 * (second % 0.4));
  const tone = Math.sin(2 * Math.PI * (180 + 60 * second) * second) + 0.4 * Math.sin(2 * Math.PI * 730 * second);
  return 0.55 * stroke * tone * (at % 2 ? 0.8 : 1);
});

describe('sound is what it was', () => {
  it.each([0.25, 0.5, 0.93, 1.4, 2.6, 4])('stretched by %s', (rate) => {
    const stretcher = createStretcher(rate);
    for (let at = 0; at < TUNE.length; at += 9600) stretcher.add(TUNE.slice(at, at + 9600));
    stretcher.end();
    expect(soundPrint(Float32Array.from(stretcher.take(Math.floor(96_000 / rate) - 2000)))).toMatchSnapshot();
  });
  it.each([0.5, 1, 3])('mixed with its gains, at %s, and limited', (gain) => {
    const block = Float32Array.from({ length: 2 * 48_000 }, (_, at) => 0.05 * Math.sin(at / 9));
    const gains = [
      { atMs: 0, gain: 0 },
      { atMs: 300, gain: 1 },
      { atMs: 900, gain: 0.4 },
    ];
    addToMix(block, 12_345, { assetId: '', startMs: 400, lengthMs: 800, gains } as never, TUNE, 0);
    amplify(block, gain);
    const limiter = createLimiter();
    for (let at = 0; at < block.length; at += 4800) limiter.run(block.subarray(at, at + 4800));
    expect(soundPrint(block)).toMatchSnapshot();
  });
});

describe('a voice is cleaned as it was', () => {
  const voice = spoken({ texts: ['We set out at dusk, when the harbour was quiet.', 'Then the rain began.'] });
  const noise = fan(voice.samples.length, 0.02);
  const noisy = voice.samples.map((value, at) => value + noise[at]! + (at % 20_011 === 0 ? 0.5 : 0));
  const ways: readonly (readonly [string, Cleaning])[] = [
    ['gently', GENTLE],
    ['thoroughly', { ...THOROUGH, room: { fromMs: 100, toMs: 1000 } }],
    ['pressed', { clicks: true, noise: 0.3, even: true, press: 0.6 }],
  ];
  it.each(ways)('%s', (_name, how) => {
    const cleaning = voiceCleaning(SPOKEN_RATE, how);
    cleaning.learn(noisy);
    const stage = cleaning.mend();
    const mended = [stage.push(noisy), stage.finish()];
    const out = joined(...mended.map(cleaning.level()));
    const pairs = Float32Array.from({ length: 2 * out.length }, (_, at) => out[at >> 1]!);
    expect({ sound: soundPrint(pairs), outcome: cleaning.outcome() }).toMatchSnapshot();
  });
});

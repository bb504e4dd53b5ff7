import { describe, expect, it } from '@jest/globals';
import { fingerprint } from '../../fingerprint.testing';
import type { BandStyleName } from '../band/band-wishes';
import { asHeard, played } from '../band/playing/sound-measures.testing';
import { BAND_RATE } from '../band/playing/tone';
import { loudnessMeter } from '../loudness';
import { tailorSong } from '../tailor/tailor-song';
import { songHearing } from './hear-song';

// What was heard in a song is kept with its version, and shows are fitted to it: what listening and tailoring find in the same samples may change only together
// with that version. Where it is meant to, raise it and write the snapshots anew.

const SONGS: readonly (readonly [BandStyleName, number])[] = [
  ['march', 46_000],
  ['quiet-piano', 52_000],
  ['latin', 40_000],
  ['ambient', 44_000],
];

describe('what is heard in a song, and made of it, is what it was', () => {
  it.each(SONGS)('%s', (style, lengthMs) => {
    const { samples } = played({ style, mood: 'warm', energy: 0.7, lengthMs, seed: 5 });
    const meter = loudnessMeter(BAND_RATE);
    meter.add(samples);
    const hearing = songHearing(true);
    hearing.add(asHeard(samples));
    const { joints, beats, sections, energy, accentsMs, ...rest } = hearing.finish(meter.finish());
    const whole = { fromMs: rest.heardFromMs, toMs: rest.heardToMs };
    const songs = [0.45, 0.8, 1.3, 2.2].map((share) => {
      const wishes = share < 1 ? {} : { without: [{ fromMs: 12_000, toMs: 19_000 }] };
      return joints && tailorSong(joints, whole, share * (whole.toMs - whole.fromMs), wishes);
    });
    expect({
      ...rest,
      loudness: fingerprint(rest.loudness),
      beats: beats && {
        tempo: beats.tempoBpm.toFixed(2),
        sure: beats.confidence.toFixed(2),
        aBar: beats.beatsABar,
        count: beats.beatsMs.length,
        is: fingerprint([beats.beatsMs, beats.firsts]),
      },
      sections: sections.map(({ label, startMs, energy: level }) => `${label} ${Math.round(startMs)} ${level}`),
      energy: fingerprint(energy),
      accents: fingerprint(accentsMs),
      joints: fingerprint(joints),
      songs: songs.map((song) => (song ? `${song.joins.length} joins ${fingerprint(song)}` : null)),
    }).toMatchSnapshot();
  });
});

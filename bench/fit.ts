// How long it takes to fit slides to the beats of songs.
import type { AssetFacts } from '../src/core/show/asset-facts';
import { assetId, cueId, layerId, showId, slideId } from '../src/core/show/ids';
import { songAfter } from '../src/core/show/placed-sound';
import { emptyShow, type Show } from '../src/core/show/show';
import { lengthsByMusic } from '../src/core/timing/follow-music';

const SONG = assetId('1'.repeat(64));
const PICTURE = assetId('2'.repeat(64));

for (const count of [60, 300, 2000]) {
  const lengthMs = count * 4200;
  const gapMs = 60_000 / 118;
  const beatCount = Math.floor(lengthMs / gapMs);
  const song: AssetFacts = {
    kind: 'sound',
    lengthMs,
    title: null,
    artist: null,
    listening: {
      loudness: { integratedLufs: -14, truePeakDb: -1, curve: [] },
      heardFromMs: 0,
      heardToMs: lengthMs,
      beats: {
        tempoBpm: 118,
        beatsMs: Array.from({ length: beatCount }, (_, beat) => Math.round(beat * gapMs)),
        beatsABar: 4,
        firsts: Array.from({ length: Math.ceil(beatCount / 4) }, (_, bar) => 4 * bar),
        confidence: 1,
      },
      sections: [],
      energy: Array.from({ length: Math.ceil(lengthMs / 500) }, (_, at) => Math.round(50 + 50 * Math.sin(at / 60))),
      accentsMs: [],
    },
  };
  const show: Show = {
    ...emptyShow(showId('fit'), ''),
    pace: { by: 'music' },
    cues: [songAfter(cueId('q'), SONG, 0)],
    slides: Array.from({ length: count }, (_, index) => ({
      id: slideId(`s${index}`),
      lengthMs: 5000,
      transition: { kind: 'dissolve', lengthMs: 1000 },
      backing: { kind: 'automatic' },
      layers: [{ kind: 'picture', id: layerId('p'), assetId: PICTURE, move: { kind: 'automatic' } }],
      sounds: [],
    })),
  };
  const facts = new Map([[SONG, song]]);
  const times = Array.from({ length: 5 }, () => {
    const startedMs = performance.now();
    const result = lengthsByMusic(show, facts, { by: 'music' });
    if (!result.ok || result.offBeat.length > 0) throw new Error('not on the beat');
    return performance.now() - startedMs;
  }).sort((a, b) => a - b);
  process.stdout.write(
    `${count} slides on ${beatCount} beats: ${times[2]!.toFixed(0)} ms (least ${times[0]!.toFixed(0)})\n`,
  );
}

import { describe, expect, it } from '@jest/globals';
import type { AssetFacts } from '../show/asset-facts';
import { songAfter, voiceHere } from '../show/placed-sound';
import { assetId, cueId, layerId, showId, slideId, type AssetId } from '../show/ids';
import { emptyShow, type Show, type Slide } from '../show/show';
import { picturesToDrop, repeatedCues } from './ways-out';

const picture = (index: number) => assetId(String(index).padStart(64, '0'));
const song = assetId('a'.repeat(64));
const slide = (index: number, more: Partial<Slide> = {}): Slide => ({
  id: slideId(`s${index}`),
  lengthMs: 5000,
  transition: { kind: 'cut' },
  backing: { kind: 'automatic' },
  sounds: [],
  layers: [{ kind: 'picture', id: layerId(`p${index}`), assetId: picture(index), move: { kind: 'automatic' } }],
  ...more,
});
const show: Show = {
  ...emptyShow(showId('s'), 'Regatta'),
  slides: Array.from({ length: 12 }, (_, index) => slide(index)),
  cues: [{ ...songAfter(cueId('q'), song, 3000), trimStartMs: 2000, gainDb: -3 }],
};
const facts = new Map<AssetId, AssetFacts>([[song, { kind: 'sound', lengthMs: 22_000, title: null, artist: null }]]);

describe('picturesToDrop', () => {
  it('drops the fewest that do, spread evenly', () =>
    expect(picturesToDrop(show, 46_000)).toEqual(['s2', 's6', 's10']));
  it('spares what is marked as long as others do', () => {
    const marked = {
      ...show,
      marks: Object.fromEntries([0, 1, 2, 3, 4, 5, 6, 7].map((index) => [picture(index), 'keep' as const])),
    };
    expect(picturesToDrop(marked, 46_000)!.every((id) => Number(id.slice(1)) > 7)).toBe(true);
    expect(picturesToDrop({ ...marked, marks: { ...marked.marks, [picture(8)]: 'linger' } }, 30_000)).not.toContain(
      's8',
    );
  });
  it('never drops narrated slides or blank ones, and gives up when the rest is too little', () => {
    const narrated = {
      ...show,
      slides: show.slides.map((entry) =>
        Number(entry.id.slice(1)) < 10 ? { ...entry, sounds: [voiceHere(cueId('v'), song, 0)] } : entry,
      ),
    };
    expect(picturesToDrop(narrated, 55_000)).toEqual(['s11']);
    expect(picturesToDrop(narrated, 30_000)).toBeNull();
  });
});

describe('repeatedCues', () => {
  it('repeats songs only: a short sound in between is heard once', () => {
    let counted = 0;
    const bell = { ...songAfter(cueId('bell'), song, 0), kind: 'effect' as const };
    const cues = repeatedCues({ ...show, cues: [...show.cues, bell] }, facts, () => `n${(counted += 1)}`)!;
    expect(cues.slice(2).every(({ kind, assetId: file }) => kind === 'song' && file === song)).toBe(true);
    expect(cues.filter(({ kind }) => kind === 'effect')).toHaveLength(1);
  });
  it('plays the songs again until the show ends, each with an id of its own', () => {
    let counted = 0;
    const cues = repeatedCues(show, facts, () => `n${(counted += 1)}`)!;
    expect(cues.map((cue) => [cue.id, cue.trimStartMs, cue.gainDb])).toEqual([
      ['q', 2000, -3],
      ['n1', 2000, -3],
      ['n2', 2000, -3],
    ]);
  });
  it('has nothing to repeat without music', () =>
    expect(repeatedCues({ ...show, cues: [] }, facts, () => 'x')).toBeNull());
});

import { describe, expect, it } from '@jest/globals';
import { creditsOf } from '../mounts/words-for';
import { parseStoredShow } from '../../server/schema/show-schema';
import type { AssetFacts } from './asset-facts';
import { applyEdit, type ShowEdit } from './edit';
import { faultOfShow } from './faults';
import { assetId, cueId, showId, type AssetId } from './ids';
import { MOST_TAGGED } from './limits';
import { songAfter } from './placed-sound';
import { emptyShow, type Show } from './show';
import { aboutSong } from './song-tags';

const [REEL, HUM] = ['a', 'b'].map((digit) => assetId(digit.repeat(64))) as [AssetId, AssetId];
const show: Show = {
  ...emptyShow(showId('s'), 'Regatta'),
  cues: [songAfter(cueId('1'), REEL, 0), songAfter(cueId('2'), HUM, 0)],
};
const sound = (title: string | null, artist: string | null, genre?: string): AssetFacts => ({
  kind: 'sound',
  lengthMs: 60_000,
  title,
  artist,
  ...(genre !== undefined && { genre }),
});
const facts = new Map([
  [REEL, sound('Track 07', null, 'Folk')],
  [HUM, sound(null, null)],
]);
const edited = (before: Show, edit: ShowEdit): { show: Show; inverse: ShowEdit } => {
  const result = applyEdit(before, edit);
  if (!result.ok) throw new Error(result.sentence);
  return result;
};

describe('what people say of songs', () => {
  const said: ShowEdit = {
    kind: 'set-tags',
    tags: [
      { assetId: REEL, tags: { title: 'Harbour Reel', artist: 'The Slip Band', mood: 'merry' } },
      { assetId: HUM, tags: { title: 'Hum' } },
    ],
  };
  it('wins over what stands in their files, part by part, and is in the credits', () => {
    const after = edited(show, said).show;
    expect(aboutSong(facts.get(REEL) as never, after.tags![REEL])).toEqual({
      title: 'Harbour Reel',
      artist: 'The Slip Band',
      style: 'Folk',
      mood: 'merry',
    });
    const studio = { name: '', contact: '', logo: null };
    expect(creditsOf(show, facts, studio)).toBe('Music\tTrack 07');
    expect(creditsOf(after, facts, studio)).toBe('Music\tHarbour Reel, The Slip Band\nMusic\tHum');
  });
  it('can be undone to the very show, and can be read back', () => {
    const { show: after, inverse } = edited(show, said);
    expect(parseStoredShow(JSON.parse(JSON.stringify(after)))).toEqual({ ok: true, value: after });
    expect(edited(after, inverse).show).toEqual(show);
    const cleared = edited(after, { kind: 'set-tags', tags: [REEL, HUM].map((id) => ({ assetId: id, tags: null })) });
    expect(cleared.show).toEqual(show);
    expect(edited(cleared.show, cleared.inverse).show).toEqual(after);
    // Saying nothing of a song is not a note.
    expect(edited(show, { kind: 'set-tags', tags: [{ assetId: REEL, tags: {} }] }).show).toEqual(show);
  });
  it('is bounded, and a title is text', () => {
    const many = Object.fromEntries(
      Array.from({ length: MOST_TAGGED + 1 }, (_, at) => [at.toString(16).padStart(64, '0'), { title: 'x' }]),
    );
    expect(faultOfShow({ ...show, tags: many })).toMatch(/the tags of 2,000 songs at most/);
    const stored = { ...show, tags: { [REEL]: { title: '' } } };
    expect(parseStoredShow(JSON.parse(JSON.stringify(stored))).ok).toBe(false);
  });
});

describe('the frame that stands for a clip', () => {
  it('is kept by clip, and taken back to the very show', () => {
    const { show: after, inverse } = edited(show, { kind: 'set-posters', posters: [{ assetId: REEL, atMs: 1234 }] });
    expect(after.posters).toEqual({ [REEL]: 1234 });
    expect(parseStoredShow(JSON.parse(JSON.stringify(after)))).toEqual({ ok: true, value: after });
    expect(edited(after, inverse).show).toEqual(show);
  });
});

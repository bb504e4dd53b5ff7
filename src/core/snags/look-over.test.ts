import { describe, expect, it } from '@jest/globals';
import { applyEdit } from '../show/edit';
import { cueId, layerId } from '../show/ids';
import { songAfter, voiceHere } from '../show/placed-sound';
import type { Show } from '../show/show';
import { withItsLengths } from '../timing/follow-music';
import { fixesOf, isLeft, lookAfter, kindOf, lookOver } from './look-over';
import {
  asset,
  SONG,
  VOICE,
  OTHER_SONG,
  CLIP,
  likeness,
  picture,
  sound,
  clip,
  shown,
  words,
  type Laid,
  clean,
  lookAt,
  withSlide,
  withLayers,
  withFacts,
  withCues,
  withVoice,
  FACE,
  withFace,
  framing,
  setMove,
  withSeen,
  clipLayer,
} from './looks.testing';
import { SNAG_KIND_NAMES, type SnagKindName } from './snag-kinds';

/** What is planted, the kind of snag it must be found as, whether it is grave, and whether a way out must be offered. */
const PLANTED: readonly (readonly [string, (laid: Laid) => Laid, SnagKindName, 'grave' | 'mild', 'fix' | 'none'])[] = [
  ['a picture zoomed to four times its pixels', (laid) => withLayers(withFacts(laid, asset(3), picture(3, { widthPx: 1500, heightPx: 1000 })), 3, [shown(3, { move: setMove(framing(0.5, 0.5, 0.4)) })]), 'soft-picture', 'grave', 'fix'],
  ['a small picture zoomed a little too far', (laid) => withLayers(withFacts(laid, asset(3), picture(3, { widthPx: 1500, heightPx: 1000 })), 3, [shown(3, { move: setMove(framing(0.5, 0.5, 0.75)) })]), 'soft-picture', 'mild', 'fix'],
  ['a framing through a face', (laid) => withLayers(withFace(laid, 3), 3, [shown(3, { move: setMove(framing(0.3, 0.35, 0.4)) })]), 'cut-face', 'grave', 'fix'],
  ['a move that leaves a face half-way', (laid) => withLayers(withFace(laid, 3), 3, [shown(3, { move: setMove(framing(0.5, 0.5, 0.9), framing(0.3, 0.4, 0.4)) })]), 'cut-face', 'grave', 'fix'],
  ['a crop through a face', (laid) => withLayers(withFace(laid, 3), 3, [shown(3, { crop: { x: 0.75, y: 0.5, width: 0.5, height: 1, turnDegrees: 0 } })]), 'cut-face', 'grave', 'fix'],
  ['a picture in a portrait film that loses its people', (laid) => ({ ...withFacts(withLayers(laid, 3, [shown(3, { channels: { x: 0.5, y: 0.5, width: 1, height: 1 } })]), asset(3), picture(3, { focus: { faces: [{ ...FACE, left: 0.02 }, { ...FACE, left: 0.78 }], subjects: [], salient: null, sharpness: 0.5 } })), films: [{ shape: '9:16', purpose: 'upright' }] } as Laid), 'cut-face', 'mild', 'none'],
  ['a framing that leaves the picture', (laid) => withLayers(laid, 3, [shown(3, { move: setMove(framing(0.85, 0.5, 0.6)) })]), 'black-edge', 'grave', 'fix'],
  ['a move that runs over an edge', (laid) => withLayers(laid, 3, [shown(3, { move: setMove(framing(0.5, 0.5, 0.8), framing(0.5, 0.2, 0.8)) })]), 'black-edge', 'grave', 'fix'],
  ['dark bars in a file', (laid) => withFacts(laid, asset(3), picture(3, { bars: { left: 0, right: 0, top: 0.1, bottom: 0.1 } })), 'black-edge', 'mild', 'fix'],
  ['a picture on its side', (laid) => withFacts(laid, asset(3), picture(3, { focus: { faces: [], subjects: [], salient: null, sharpness: 0.6, sideways: 'clockwise' } })), 'sideways', 'grave', 'fix'],
  ['a picture that hangs askew', (laid) => withFacts(laid, asset(3), picture(3, { focus: { faces: [], subjects: [], salient: null, sharpness: 0.6, tilt: -2.2 } })), 'askew', 'mild', 'fix'],
  ['words gone before they are read', (laid) => withSlide(laid, 3, (one) => ({ ...one, lengthMs: 4000, layers: [shown(3), words('Every boat carries a lantern, and everybody who has none walks along the quay with one in their hand')] })), 'hasty-words', 'grave', 'fix'],
  ['words a little too quick', (laid) => withSlide(laid, 3, (one) => ({ ...one, lengthMs: 4000, layers: [shown(3), words('The band plays on the quay until the very last boat is home')] })), 'hasty-words', 'mild', 'fix'],
  ['a title with a subtitle too long for its slide', (laid) => withSlide(laid, 3, (one) => ({ ...one, lengthMs: 2500, layers: [shown(3), words('The pies', { subtitle: 'which are eaten before they are cold, whatever the baker says of it' })] })), 'hasty-words', 'grave', 'fix'],
  ['faint words', (laid) => withSeen(laid, { worst: { offsetMs: 2000, legibility: { contrast: 1.4, busyness: 2, clear: 1.4 } } }), 'faint-words', 'grave', 'fix'],
  ['words on a restless ground', (laid) => withSeen(laid, { worst: { offsetMs: 2000, legibility: { contrast: 3.6, busyness: 30, clear: 2.2 } } }), 'faint-words', 'mild', 'fix'],
  ['small words of too little contrast', (laid) => withSeen(laid, { size: 0.03, worst: { offsetMs: 2000, legibility: { contrast: 3.4, busyness: 2, clear: 3.4 } } }), 'faint-words', 'mild', 'fix'],
  ['words over a face', (laid) => withSeen(laid, { face: { share: 0.5, offsetMs: 1000 } }), 'words-over-face', 'grave', 'fix'],
  ['words that touch a chin', (laid) => withSeen(laid, { face: { share: 0.15, offsetMs: 1000 } }), 'words-over-face', 'mild', 'fix'],
  ['words that run out of the frame', (laid) => withSeen(laid, { margins: { left: 0, top: 0.5, right: 0.3, bottom: 0.3 } }), 'words-off-frame', 'grave', 'fix'],
  ['words too near the edge', (laid) => withSeen(laid, { margins: { left: 0.2, top: 0.5, right: 0.2, bottom: 0.02 } }), 'words-off-frame', 'mild', 'fix'],
  ['words that had to be made smaller', (laid) => withSeen(laid, { scale: 0.5 }), 'words-shrunk', 'mild', 'fix'],
  ['words too small for the back of a room', (laid) => withSeen(laid, { size: 0.015 }), 'words-shrunk', 'mild', 'fix'],
  ['flashes', (laid) => withSeen(laid, {}, { offsetMs: 300, perSecond: 6 }), 'flashing', 'grave', 'none'],
  ['a name spelt in two ways', (laid) => withLayers(withLayers(laid, 2, [shown(2), words('Port Ellery')]), 5, [shown(5), words('Elery at night')]), 'spelt-twice', 'grave', 'fix'],
  ['a name with two letters changed about, in a script', (laid) => withSlide(withLayers(laid, 2, [shown(2), words('Marguerite dances')]), 5, (one) => ({ ...one, script: 'Here is Margeurite again.' })), 'spelt-twice', 'grave', 'fix'],
  ['a transition longer than its slides', (laid) => withSlide(laid, 3, (one) => ({ ...one, transition: { kind: 'dissolve', lengthMs: 4000 } })), 'transition-cut-short', 'mild', 'fix'],
  ['a wipe between slides too short for it', (laid) => withSlide(laid, 4, (one) => ({ ...one, lengthMs: 1200 })), 'transition-cut-short', 'mild', 'fix'],
  ['two pictures of one burst in a row', (laid) => withFacts(laid, asset(4), picture(4, { likeness: likeness(3), takenAt: '2025-06-14T20:13:01' })), 'alike-in-a-row', 'mild', 'fix'],
  ['a picture that comes again', (laid) => withLayers(laid, 6, [shown(2, { id: layerId('again') })]), 'used-twice', 'mild', 'fix'],
  ['a voice that the show cuts off', (laid) => withVoice(laid, 7, sound(9000, -20)), 'voice-cut', 'grave', 'fix'],
  ['a voice that talks into the next slide', (laid) => withVoice(laid, 3, sound(6500, -20)), 'voice-cut', 'mild', 'fix'],
  ['two voices at once', (laid) => { const one = withVoice(laid, 3, sound(6500, -20)); return withSlide(one, 4, (next) => ({ ...next, sounds: [voiceHere(cueId('v2'), VOICE, 0)] })); }, 'voice-cut', 'grave', 'fix'],
  ['a voice that crackles', (laid) => withVoice(laid, 3, sound(2000, -18, 0.4)), 'voice-clipped', 'mild', 'none'],
  ['a voice that is hardly heard', (laid) => withVoice(laid, 3, sound(2000, -41)), 'voice-quiet', 'grave', 'fix'],
  ['music that ends far too early', (laid) => withFacts(laid, SONG, sound(22_000, -14)), 'music-ends-early', 'grave', 'fix'],
  ['music that ends a little early', (laid) => withFacts(laid, SONG, sound(37_000, -14)), 'music-ends-early', 'mild', 'fix'],
  ['a song that breaks off with the last picture', (laid) => withCues(withFacts(laid, SONG, sound(90_000, -14)), songAfter(cueId('song'), SONG, 0)), 'music-cut', 'grave', 'fix'],
  ['a silent stretch between two songs', (laid) => withCues(withFacts(withFacts(laid, SONG, sound(15_000, -14)), OTHER_SONG, sound(30_000, -14)), songAfter(cueId('song'), SONG, 0), { ...songAfter(cueId('later'), OTHER_SONG, 3000), starts: { at: 'moment', momentMs: 21_000 } }), 'silent-stretch', 'mild', 'fix'],
  ['a song much louder than the one before', (laid) => withCues(withFacts(withFacts(laid, SONG, sound(20_000, -24)), OTHER_SONG, sound(30_000, -9)), songAfter(cueId('song'), SONG, 0), songAfter(cueId('later'), OTHER_SONG, 3000)), 'level-jump', 'grave', 'fix'],
  ['a song nobody has noted the licence of', (laid) => ({ ...laid, show: without(laid.show) }), 'no-licence', 'mild', 'fix'],
  ['a file that cannot be read', (laid) => ({ ...laid, facts: new Map([...laid.facts].filter(([id]) => id !== asset(3))), files: new Map([...laid.files, [asset(3), { name: 'gone.jpg', state: 'missing', madeHere: false }]]) }), 'missing-file', 'grave', 'none'],
  ['a song that is not there', (laid) => ({ ...laid, facts: new Map([...laid.facts].filter(([id]) => id !== SONG)), files: new Map([...laid.files, [SONG, { name: 'gone.mp3', state: 'missing', madeHere: false }]]) }), 'missing-file', 'grave', 'none'],
  ['a slide with nothing on it', (laid) => withSlide(laid, 3, (one) => ({ ...one, layers: [], backing: { kind: 'colour', colour: '#000000' } })), 'blank-slide', 'mild', 'fix'],
  ['a clip of 24 frames in a film of 30', (laid) => withLayers(withFacts(laid, CLIP, { ...clip, framesPerSecond: 24 }), 3, [clipLayer]), 'stuttering-clip', 'mild', 'fix'],
  ['a clip of 25 frames in a film of 24', (laid) => ({ ...withLayers(withFacts(laid, CLIP, { ...clip, framesPerSecond: 25 }), 3, [clipLayer]), show: { ...withLayers(laid, 3, [clipLayer]).show, frame: { ...laid.show.frame, rate: { frames: 24, seconds: 1 } } } }), 'stuttering-clip', 'mild', 'fix'],
  ['a clip whose frames come unevenly', (laid) => withLayers(withFacts(laid, CLIP, { ...clip, uneven: true }), 3, [clipLayer]), 'stuttering-clip', 'mild', 'none'],
  ['a clip played at a quarter of its speed', (laid) => withLayers(withFacts(laid, CLIP, clip), 3, [{ ...clipLayer, speed: 0.25 }]), 'stuttering-clip', 'mild', 'fix'],
  ['a camera that forgot the year', (laid) => withFacts(withFacts(laid, asset(3), picture(3, { camera: 'Tern', takenAt: '1980-01-01T00:00:00' })), asset(5), picture(5, { camera: 'Tern', takenAt: '1980-01-01T00:40:00' })), 'wrong-clock', 'mild', 'fix'],
  ['a second camera three hours and twelve minutes behind', (laid) => withFacts(withFacts(withFacts(laid, asset(5), picture(5, { camera: 'Tern', likeness: likeness(1), takenAt: '2025-06-14T16:59:00' })), asset(6), picture(6, { camera: 'Tern', likeness: likeness(2), takenAt: '2025-06-14T17:00:00' })), asset(7), picture(7, { camera: 'Tern', takenAt: '2025-06-14T17:05:00' })), 'wrong-clock', 'mild', 'fix'],
  ['a camera two years ahead', (laid) => withFacts(laid, asset(3), picture(3, { camera: 'Tern', takenAt: '2029-03-01T10:00:00' })), 'wrong-clock', 'mild', 'fix'],
  ['a film for e-mail that cannot be good', (laid) => ({ ...laid, films: [{ shape: '16:9', purpose: 'email', mostBytes: 200_000 }] } as Laid), 'film-too-large', 'mild', 'none'],
]; // prettier-ignore

/** As if nobody had noted a licence. */
function without({ licences: _licences, ...show }: Show): Show {
  return show;
}

const keysOf = (laid: Laid) => lookOver(lookAt(laid)).map(({ key }) => key);

describe('looking a show over', () => {
  it('finds nothing in a show with nothing wrong', () => {
    expect(lookOver(lookAt(clean()))).toEqual([]);
  });

  it.each(PLANTED)('finds %s, as that and nothing else', (_name, plant, kind, grave) => {
    const found = lookOver(lookAt(plant(clean())));
    const own = found.filter((snag) => snag.kind === kind);
    expect(own.length).toBeGreaterThan(0);
    expect(own.some((snag) => snag.grave)).toBe(grave === 'grave');
    expect(found.filter((snag) => snag.kind !== kind).map((snag) => snag.sentence)).toEqual([]);
    for (const snag of own) {
      expect(snag.sentence).toMatch(/^[“\p{Lu}].*\.$/u);
      expect(snag.fromMs).toBeLessThanOrEqual(snag.toMs);
      expect(kindOf(kind).advice).toMatch(/\.$/);
    }
  });

  it.each(PLANTED.filter(([, , , , fix]) => fix === 'fix'))(
    'offers a way out of %s that leads out of it, changes nothing else and can be undone',
    (_name, plant, kind) => {
      const laid = plant(clean());
      const look = lookAt(laid);
      const snag = lookOver(look).find((one) => one.kind === kind)!;
      const fixes = fixesOf(look, snag);
      expect(fixes.length).toBeGreaterThan(0);
      for (const fix of fixes) {
        expect(fix.name).toMatch(/^\p{Lu}/u);
        const result = applyEdit(laid.show, withItsLengths(laid.show, laid.facts, fix.edit).edit);
        if (!result.ok) throw new Error(`${fix.name}: ${result.sentence}`);
        // What is measured is known only once it is drawn again.
        if (!kindOf(kind).measured) {
          const after = keysOf({ ...laid, show: result.show });
          expect(after).not.toContain(snag.key);
          expect(after.filter((key) => !keysOf(laid).includes(key))).toEqual([]);
        }
        const back = applyEdit(result.show, result.inverse);
        expect(back.ok && back.show).toEqual(laid.show);
      }
    },
  );

  it('tries ways out with the lengths that the music gives then', () => {
    const long =
      'All the boats of the harbour with all of their lanterns, and everybody who built them, on one evening';
    const laid = withLayers(clean(), 3, [shown(3), words(`${long}, ${long}`)]);
    const led: Laid = {
      ...withFacts(laid, SONG, sound(40_000, -14)),
      show: { ...laid.show, cues: [songAfter(cueId('song'), SONG, 0)], pace: { by: 'music' } },
    };
    const look = lookAt(led);
    const snag = lookOver(look, ['hasty-words'])[0]!;
    const stay = fixesOf(look, snag).find(({ name }) => name.startsWith('Stay for'))!;
    const after = lookAfter(look, stay.edit)!;
    expect(lookOver(after, ['hasty-words'])).toEqual([]);
    // The slide stays longer, the others shorter: the show ends with its music as before.
    expect(after.prepared.show.slides[3]!.lengthMs).toBeGreaterThan(led.show.slides[3]!.lengthMs);
    expect(after.prepared.lengthMs).toBe(40_000);
  });

  it('counts what was left as it is no more, and again when that is taken back', () => {
    const laid = withSlide(clean(), 3, (one) => ({ ...one, transition: { kind: 'dissolve', lengthMs: 4000 } }));
    const look = lookAt(laid);
    const [snag] = lookOver(look);
    expect(isLeft(look, snag!)).toBe(false);
    const result = applyEdit(laid.show, { kind: 'let-be', snags: [{ key: snag!.key, reason: 'It is meant so.' }] });
    expect(result.ok).toBe(true);
    if (!result.ok) return;
    expect(isLeft(lookAt({ ...laid, show: result.show }), snag!)).toBe(true);
    const back = applyEdit(result.show, result.inverse);
    expect(back.ok && back.show).toEqual(laid.show);
  });

  it('tells grave things first, and the others in the order of the show', () => {
    const laid = withSlide(
      withFacts({ ...clean(), show: { ...clean().show, licences: {} } }, SONG, sound(20_000, -14)),
      3,
      (one) => ({ ...one, transition: { kind: 'dissolve', lengthMs: 4000 } }),
    );
    const found = lookOver(lookAt(laid));
    expect(found.map(({ kind }) => kind)).toEqual(['music-ends-early', 'no-licence', 'transition-cut-short']);
  });

  it('has a planted case for every kind, and gives each snag a key of its own', () => {
    expect(SNAG_KIND_NAMES.filter((kind) => !PLANTED.some(([, , planted]) => planted === kind))).toEqual([]);
    const all = PLANTED.flatMap(([, plant]) => keysOf(plant(clean())));
    expect(all.every((key) => key.length <= 200)).toBe(true);
    const many = keysOf(withLayers(withLayers(clean(), 5, [shown(1)]), 6, [shown(1)]));
    expect(new Set(many).size).toBe(many.length);
  });

  it.each([
    ['a name and its genitive', 'Ellery', 'Ellery’s boats'],
    ['a name and a longer one', 'Anders waits', 'Anderson waits'],
    ['two different names', 'Marina', 'Martin'],
    ['a word at a sentence’s beginning', 'Lantern of paper', 'a lantern, Lanterns all'],
  ])('does not take %s for one name spelt in two ways', (_name, one, other) => {
    const laid = withLayers(withLayers(clean(), 2, [shown(2), words(one)]), 5, [shown(5), words(other)]);
    expect(lookOver(lookAt(laid), ['spelt-twice'])).toEqual([]);
  });
});

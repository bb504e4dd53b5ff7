import { describe, expect, it } from '@jest/globals';
import { applyEdit, type ShowEdit } from '../show/edit';
import type { AssetFacts, FactsById } from '../show/asset-facts';
import { assetId, cueId, layerId, showId, slideId } from '../show/ids';
import { songAfter, voiceHere } from '../show/placed-sound';
import { emptyShow, type Show, type Slide } from '../show/show';
import type { BeatGrid } from '../sound/listening/listening-facts';
import { beatNear, musicOf } from '../sound/show-beats';
import { lengthsByMusic, withItsLengths } from './follow-music';
import { voiceNeedMs } from './voice-need';
import { momentSeen } from './frames';
import { showLengthMs, slideSpans } from './slide-span';

const SONG = assetId('1'.repeat(64));
const OTHER = assetId('2'.repeat(64));
const PICTURE = assetId('3'.repeat(64));
const LINGERS = assetId('4'.repeat(64));
const CLIP = assetId('5'.repeat(64));
const VOICE = assetId('6'.repeat(64));
const PICTURE_FACTS: AssetFacts = {
  kind: 'picture',
  widthPx: 3000,
  heightPx: 2000,
  hasTransparency: false,
  takenAt: null,
  camera: null,
  brightness: 0.5,
};

function song(
  lengthMs: number,
  bpm: number,
  energy: (share: number) => number,
  more: Partial<BeatGrid> = {},
): AssetFacts {
  const gapMs = 60_000 / bpm;
  const count = Math.floor((lengthMs - 300) / gapMs);
  return {
    kind: 'sound',
    lengthMs,
    title: null,
    artist: null,
    listening: {
      loudness: { integratedLufs: -14, truePeakDb: -1, curve: [] },
      heardFromMs: 0,
      heardToMs: lengthMs,
      beats: {
        tempoBpm: bpm,
        beatsMs: Array.from({ length: count }, (_, beat) => Math.round(300 + beat * gapMs)),
        beatsABar: 4,
        firsts: Array.from({ length: Math.ceil(count / 4) }, (_, bar) => 4 * bar),
        confidence: 0.9,
        ...more,
      },
      sections: [],
      energy: Array.from({ length: Math.ceil(lengthMs / 500) }, (_, at) =>
        Math.round(100 * energy((500 * at) / lengthMs)),
      ),
      accentsMs: [],
    },
  };
}
const facts: FactsById = new Map<typeof SONG, AssetFacts>([
  [SONG, song(180_000, 117, (share) => (share > 0.5 ? 1 : 0.1))],
  [OTHER, song(140_000, 93, () => 0.5)],
  [PICTURE, PICTURE_FACTS],
  [LINGERS, PICTURE_FACTS],
  [CLIP, { kind: 'clip', widthPx: 1920, heightPx: 1080, lengthMs: 4321, hasSound: false, takenAt: null }],
  [VOICE, { kind: 'sound', lengthMs: 5200, title: null, artist: null }],
]);
const picture = (name: string, asset = PICTURE): Slide => ({
  id: slideId(name),
  lengthMs: 5000,
  transition: { kind: 'dissolve', lengthMs: 800 },
  backing: { kind: 'automatic' },
  layers: [{ kind: 'picture', id: layerId('p'), assetId: asset, move: { kind: 'automatic' } }],
  sounds: [],
});
const showOf = (slides: Slide[], more: Partial<Show> = {}): Show => ({
  ...emptyShow(showId('x'), ''),
  slides,
  cues: [songAfter(cueId('q'), SONG, 3000)],
  marks: { [LINGERS]: 'linger' },
  pace: { by: 'music' },
  ...more,
});
const sixty = () =>
  Array.from({ length: 60 }, (_, index) => picture(`s${index}`, index % 10 === 4 ? LINGERS : PICTURE));

function fitted(show: Show): Show {
  const result = lengthsByMusic(show, facts, show.pace!);
  if (!result.ok) throw new Error(result.reason);
  const applied = applyEdit(show, { kind: 'set-lengths', lengths: result.lengths });
  if (!applied.ok) throw new Error(applied.sentence);
  return applied.show;
}

/** How many seams are seen within 30 ms of a beat, of how many. */
function onBeat(show: Show): { share: number; endsApartMs: number } {
  const { beats, endMs } = musicOf(show, facts, true);
  const seams = slideSpans(show.slides)
    .slice(1)
    .map(({ startMs }) => momentSeen(startMs, show.frame.rate));
  const on = seams.filter((seam) => beatNear(beats, seam, 30) !== null);
  return { share: on.length / seams.length, endsApartMs: Math.abs(showLengthMs(show) - endMs) };
}

describe('a song of three hours', () => {
  const LONG = assetId('7'.repeat(64));
  const known: FactsById = new Map<typeof LONG, AssetFacts>([...facts, [LONG, song(10_800_000, 101, () => 0.4)]]);
  const does = (show: Show, edit: ShowEdit): Show => {
    const result = applyEdit(show, withItsLengths(show, known, edit).edit);
    if (!result.ok) throw new Error(result.sentence);
    return result.show;
  };
  it.each([
    ['lead', null],
    ['follow the music', { by: 'music' }],
  ] as const)(
    'put under a show and taken away again leaves its slides as they were where pictures %s',
    (_who, pace) => {
      const { pace: _led, ...rest } = showOf(sixty());
      const before = pace ? fitted({ ...rest, pace }) : rest;
      const long = songAfter(cueId('long'), LONG, 3000);
      const during = does(before, {
        kind: 'add-sounds',
        slideId: null,
        runs: [{ afterId: cueId('q'), sounds: [long] }],
      });
      if (!pace) expect(JSON.stringify(during.slides)).toBe(JSON.stringify(before.slides));
      const after = does(during, { kind: 'remove-sounds', slideId: null, soundIds: [cueId('long')] });
      expect(JSON.stringify(after.slides)).toBe(JSON.stringify(before.slides));
    },
  );
});

describe('pictures that follow the music', () => {
  it.each([
    [24, 1],
    [30, 1],
    [60_000, 1001],
  ])('change on beats as they are seen, at %i/%i frames a second, and end with it', (frames, seconds) => {
    const base = showOf(sixty());
    const show = fitted({ ...base, frame: { ...base.frame, rate: { frames, seconds } } });
    expect(onBeat(show)).toEqual({ share: 1, endsApartMs: 0 });
  });
  it('are shorter where the music is lively, and longer where they linger', () => {
    const { slides } = fitted(showOf(sixty()));
    const mean = (some: Slide[]) => some.reduce((sum, slide) => sum + slide.lengthMs, 0) / some.length;
    const lingering = slides.filter((_, index) => index % 10 === 4);
    expect(mean(lingering)).toBeGreaterThan(1.3 * mean(slides.filter((slide) => !lingering.includes(slide))));
    expect(mean(slides.slice(0, 15))).toBeGreaterThan(1.4 * mean(slides.slice(-15)));
  });
  it.each([0, 1, 2, 3])(
    'prefer the beginnings of bars to other beats, wherever bars begin (%i beats later)',
    (later) => {
      const show = fitted(showOf(sixty(), later > 0 ? { beats: { [SONG]: { barsLater: later } } } : {}));
      const { beats } = musicOf(show, facts, true);
      const seams = slideSpans(show.slides).slice(1);
      const bars = seams.filter(({ startMs }) => beatNear(beats, startMs, 40)?.begins !== 'beat');
      expect(bars.length / seams.length).toBeGreaterThan(0.6);
    },
  );
  it('keep a length that a hand holds no shorter than its voice, and say so', () => {
    const [first, ...others] = sixty();
    const spoken: Slide = { ...first!, sounds: [voiceHere(cueId('v'), VOICE, 700)] };
    const show = fitted(showOf([spoken, ...others], { pace: { by: 'music' } }));
    const asked: ShowEdit = { kind: 'set-lengths', lengths: [{ slideId: spoken.id, lengthMs: 1000 }] };
    const { edit, unmet } = withItsLengths(show, facts, asked);
    const result = applyEdit(show, edit);
    if (!result.ok) throw new Error(result.sentence);
    expect(result.show.slides[0]!.lengthMs).toBe(voiceNeedMs(show, spoken, facts));
    expect(unmet).toMatch(/^Slide 1 lasts .* its voice takes that long/);
  });
  it('that are many and narrated still change on beats, each when its voice was heard', () => {
    const spoken = Array.from({ length: 24 }, (_, index): Slide => ({
      ...picture(`v${index}`),
      sounds: index % 3 === 0 ? [voiceHere(cueId('v'), VOICE, 500 + 97 * index)] : [],
    }));
    const show = fitted(showOf(spoken, { cues: [{ ...songAfter(cueId('q'), SONG, 0), trimEndMs: 90_000 }] }));
    expect(onBeat(show)).toEqual({ share: 1, endsApartMs: 0 });
    show.slides.forEach((slide, index) => {
      if (index % 3 === 0) expect(slide.lengthMs).toBeGreaterThanOrEqual(5700 + 97 * index);
    });
  });
  it('are on the beat still after ten edits of every sort, each undone with its lengths as one step', () => {
    let show = fitted(showOf(sixty()));
    const edits: ShowEdit[] = [
      { kind: 'move-slides', runs: [{ slideIds: [slideId('s3'), slideId('s40')], afterId: slideId('s20') }] },
      { kind: 'remove-slides', slideIds: [slideId('s7'), slideId('s8'), slideId('s9')] },
      { kind: 'set-cues', cues: [songAfter(cueId('r'), OTHER, 2000)] },
      { kind: 'remove-slides', slideIds: [slideId('s0')] },
      { kind: 'set-marks', marks: [{ assetId: LINGERS, mark: null }] } as unknown as ShowEdit,
      { kind: 'set-cues', cues: [songAfter(cueId('a'), OTHER, 0), songAfter(cueId('b'), SONG, 2000)] },
      { kind: 'set-sound', slideId: null, soundId: cueId('a'), properties: { trimStartMs: 9000 } },
      { kind: 'set-beats', beats: [{ assetId: SONG, said: { times: 'half' } }] },
      { kind: 'set-pace', pace: { by: 'beats', beats: 6 } },
      { kind: 'set-pace', pace: { by: 'music' } },
    ];
    let steps = 0;
    for (const edit of edits) {
      const { edit: whole } = withItsLengths(show, facts, edit);
      const result = applyEdit(show, whole);
      if (!result.ok) continue;
      expect(applyEdit(result.show, result.inverse)).toMatchObject({ ok: true, show: { slides: show.slides } });
      show = result.show;
      steps += 1;
      const { share, endsApartMs } = onBeat(show);
      expect([edit.kind, share >= 0.95, show.pace!.by === 'beats' || endsApartMs <= 50]).toEqual([
        edit.kind,
        true,
        true,
      ]);
    }
    expect(steps).toBeGreaterThanOrEqual(8);
  });
  it('never get less than they need: a clip its length, a voice until it was heard, a held length itself', () => {
    const clip: Slide = {
      ...picture('clip'),
      lengthMs: 4321,
      layers: [{ kind: 'clip', id: layerId('c'), assetId: CLIP, trimStartMs: 0, soundGainDb: 0 }],
    };
    const spoken: Slide = { ...picture('spoken'), sounds: [voiceHere(cueId('v'), VOICE, 500)] };
    const held: Slide = { ...picture('held'), lengthMs: 777, chosen: { length: 'hand' } };
    const slides = sixty();
    slides.splice(10, 0, clip, spoken, held);
    const show = fitted(showOf(slides));
    const lengthOf = (name: string) => show.slides.find((slide) => slide.id === name)!.lengthMs;
    expect([lengthOf('clip'), lengthOf('held')]).toEqual([4321, 777]);
    expect(lengthOf('spoken')).toBeGreaterThanOrEqual(5700);
    expect(onBeat(show).endsApartMs).toBe(0);
    // Only the seams of what keeps its length are off the beat, and they are named.
    const result = lengthsByMusic(showOf(slides), facts, { by: 'music' });
    expect(result).toMatchObject({ ok: true, offBeat: [slideId('clip'), slideId('held')] });
  });
  it('stay so many beats each where that is the pace, and go on past the end of the music', () => {
    const show = fitted(showOf(sixty(), { pace: { by: 'beats', beats: 8 } }));
    const gapMs = 60_000 / 117;
    const beats = show.slides.filter((_, index) => index % 10 !== 4).map((slide) => Math.round(slide.lengthMs / gapMs));
    expect(Math.abs(beats.reduce((sum, count) => sum + count, 0) / beats.length - 8)).toBeLessThan(1.2);
    expect(showLengthMs(show)).toBeGreaterThan(200_000);
  });
  it('can meet the beat with the middle of their transitions', () => {
    const show = fitted(showOf(sixty(), { pace: { by: 'music', meets: 'middle' } }));
    const { beats } = musicOf(show, facts, true);
    const middles = slideSpans(show.slides)
      .slice(1)
      .map(({ startMs, transitionMs }) => momentSeen(startMs, show.frame.rate) + transitionMs / 2);
    const on = middles.filter((middle) => beatNear(beats, middle, 30) !== null);
    expect(on.length / middles.length).toBeGreaterThanOrEqual(0.95);
  });
  it('are not tied to beats that nobody is sure of, but end with the music all the same', () => {
    const doubtful = new Map([...facts, [SONG, song(180_000, 117, () => 0.5, { confidence: 0.2 })]] as const);
    const result = lengthsByMusic(showOf(sixty()), doubtful, { by: 'music' });
    expect(result.ok && result.offBeat.length).toBe(59);
    expect(lengthsByMusic(showOf(sixty()), doubtful, { by: 'beats', beats: 4 })).toMatchObject({ reason: 'no-beats' });
    const sure = showOf(sixty(), { beats: { [SONG]: { sure: 'yes' } } });
    expect(lengthsByMusic(sure, doubtful, { by: 'music' })).toMatchObject({ ok: true, offBeat: [] });
  });
  it('say how long they need at least when the music is too short for them', () => {
    const short = new Map([...facts, [SONG, song(20_000, 117, () => 0.5)]] as const);
    expect(lengthsByMusic(showOf(sixty()), short, { by: 'music' })).toEqual({
      ok: false,
      reason: 'music-too-short',
      shortestMs: 42_000,
    });
  });
  it('leave a show alone in which the music follows the pictures', () => {
    const { pace: _pace, ...free } = showOf(sixty());
    const edit: ShowEdit = { kind: 'remove-slides', slideIds: [slideId('s1')] };
    expect(withItsLengths(free, facts, edit).edit).toBe(edit);
  });
  it('keep their lengths when the music is taken away or cannot be met, and that is said', () => {
    const show = fitted(showOf(sixty()));
    const gone: ShowEdit = { kind: 'set-cues', cues: [] };
    expect(withItsLengths(show, facts, gone)).toEqual({ edit: gone, unmet: expect.stringMatching(/too short/) });
  });
  it('are not worked out anew for how a picture looks or how loud a song is', () => {
    const show = fitted(showOf(sixty()));
    const loose = { ...show, slides: show.slides.map((slide) => ({ ...slide, lengthMs: slide.lengthMs + 7 })) };
    const louder = { kind: 'set-sound', slideId: null, soundId: cueId('q'), properties: { gainDb: -3 } } as const;
    const later = { ...louder, properties: { trimStartMs: 500 } };
    expect(withItsLengths(loose, facts, louder).edit).toBe(louder);
    expect(withItsLengths(loose, facts, later).edit.kind).toBe('together');
  });
  it('stay on the beats of a song one is sure of beside one nobody is sure of, and the second is said when it comes', () => {
    const mixed = new Map([...facts, [OTHER, song(140_000, 93, () => 0.5, { confidence: 0.2 })]] as const);
    const both: ShowEdit = {
      kind: 'set-cues',
      cues: [songAfter(cueId('a'), SONG, 0), songAfter(cueId('b'), OTHER, 0)],
    };
    const { edit, unmet } = withItsLengths(fitted(showOf(sixty())), mixed, both);
    expect(unmet).toMatch(/Nobody is sure/);
    const result = applyEdit(fitted(showOf(sixty())), edit);
    if (!result.ok) throw new Error(result.sentence);
    const { beats } = musicOf(result.show, mixed, true);
    const seams = slideSpans(result.show.slides).slice(1);
    const early = seams.filter(({ startMs }) => startMs < 179_000);
    expect(early.length).toBeGreaterThan(20);
    expect(early.filter(({ startMs }) => beatNear(beats, startMs, 40) === null)).toEqual([]);
    expect(showLengthMs(result.show)).toBe(320_000);
  });
});

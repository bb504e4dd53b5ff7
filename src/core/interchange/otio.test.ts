import { describe, expect, it } from '@jest/globals';
import { ASSETS, FACTS, picture } from '../layers/slides.testing';
import type { AssetFacts } from '../show/asset-facts';
import { faultOfShow } from '../show/faults';
import { assetId, cueId, layerId, showId, slideId, type AssetId } from '../show/ids';
import { songAfter, voiceHere } from '../show/placed-sound';
import { contentOf, emptyShow, type Show, type ShowContent, type Slide } from '../show/show';
import { FORMAT_VERSION } from '../show/format/version';
import { NoTimelineError, readTimeline } from './otio-in';
import { timelineOf } from './otio-out';

const [SONG, VOICE, CLIP] = ['5', '6', '7'].map((digit) => assetId(digit.repeat(64))) as [AssetId, AssetId, AssetId];
const SOUND: AssetFacts = { kind: 'sound', lengthMs: 12_000, title: null, artist: null };
const KNOWN = new Map<AssetId, AssetFacts>([
  ...FACTS,
  [SONG, SOUND],
  [VOICE, { ...SOUND, lengthMs: 2000 }],
  [CLIP, { kind: 'clip', widthPx: 640, heightPx: 360, lengthMs: 20_000, hasSound: true, takenAt: null }],
]);
const NAMES = new Map<AssetId, string>([
  ...ASSETS.map((id, at): [AssetId, string] => [id, `picture-${at}.jpg`]),
  [SONG, 'A song.mp3'],
  [VOICE, 'voice.flac'],
  [CLIP, 'boats.mp4'],
]);
const URLS = new Map([...NAMES].map(([id, name]) => [id, `media/${encodeURIComponent(name)}`]));
const slide = (id: string, layers: Slide['layers'], more: Partial<Slide> = {}): Slide => ({
  id: slideId(id),
  lengthMs: 4000,
  transition: { kind: 'dissolve', lengthMs: 1000 },
  backing: { kind: 'automatic' },
  sounds: [],
  layers,
  ...more,
});
const shown = (id: string, at: number) => picture(id, { assetId: ASSETS[at]!, move: { kind: 'automatic' } });
const SHOW: Show = {
  ...emptyShow(showId('regatta'), 'Regatta'),
  slides: [
    slide('a', [shown('p', 0), { kind: 'words', id: layerId('w'), title: 'Dusk', subtitle: '', place: 'top' }]),
    slide('b', [shown('p', 1)], {
      ...{ lengthMs: 3333, chapter: 'Rain', transition: { kind: 'page-turn', lengthMs: 900 }, waits: true },
      sounds: [voiceHere(cueId('v'), VOICE, 500), { ...voiceHere(cueId('old'), VOICE, 0), resting: true }],
    }),
    slide('c', [{ kind: 'clip', id: layerId('k'), assetId: CLIP, trimStartMs: 2517, soundGainDb: 0, speed: 2 }]),
    slide('d', [], { backing: { kind: 'colour', colour: '#a3301c' }, transition: { kind: 'cut' } }),
  ],
  cues: [{ ...songAfter(cueId('song'), SONG, 1000), loops: true, ends: { at: 'show-end', beforeMs: 0 } }],
};

interface Thing {
  OTIO_SCHEMA: string;
  [part: string]: unknown;
}
const written = (show: Show = SHOW) => timelineOf(show, KNOWN, URLS);
/** As another program gets it, to be changed. */
const parsed = (show: Show = SHOW) =>
  JSON.parse(JSON.stringify(written(show))) as Thing & {
    tracks: Thing & { children: (Thing & { children: Thing[] })[] };
  };
let made = 0;
const parse = (content: unknown): ShowContent | null => {
  const { slides, ...rest } = content as ShowContent;
  return faultOfShow({ ...emptyShow(showId('x'), ''), ...rest, slides }) === null ? (content as ShowContent) : null;
};
const read = (
  document: unknown,
  {
    show = emptyShow(showId('other'), 'Other'),
    files = NAMES,
    parser = parse,
  }: { show?: Show; files?: ReadonlyMap<AssetId, string>; parser?: typeof parse } = {},
) => readTimeline(document, { show, files, facts: KNOWN, parse: parser, newId: () => `n${(made += 1)}` });
const again = (content: ShowContent): Show => ({ ...emptyShow(showId('regatta'), ''), ...content });
const kinds = (things: readonly Thing[]) => things.map(({ OTIO_SCHEMA: schema }) => schema);

describe('a show as a timeline', () => {
  it('has its slides, transitions, chapters, waits and sounds where the standard has them', () => {
    const { tracks } = parsed();
    const [pictures, ...sounds] = tracks.children;
    expect(kinds(pictures!.children)).toEqual(['Clip.2', 'Transition.1', 'Clip.2', 'Transition.1', 'Clip.2', 'Clip.2']);
    const second = pictures!.children[2]!;
    expect(second).toMatchObject({
      name: 'picture-1.jpg',
      source_range: { start_time: { rate: 30, value: 0 }, duration: { value: 100 } },
      media_references: { DEFAULT_MEDIA: { OTIO_SCHEMA: 'ExternalReference.1', target_url: 'media/picture-1.jpg' } },
    });
    expect(pictures!.children[1]).toMatchObject({
      transition_type: 'Custom_Transition',
      name: 'page-turn',
      in_offset: { value: 0 },
      out_offset: { value: 27 },
    });
    expect(pictures!.children[3]).toMatchObject({ transition_type: 'SMPTE_Dissolve' });
    expect(pictures!.children[4]).toMatchObject({
      source_range: { start_time: { value: 76 } },
      effects: [{ OTIO_SCHEMA: 'LinearTimeWarp.1', time_scalar: 2 }],
      media_references: { DEFAULT_MEDIA: { available_range: { duration: { value: 600 } } } },
    });
    expect(pictures!.children[5]).toMatchObject({
      media_references: { DEFAULT_MEDIA: { OTIO_SCHEMA: 'GeneratorReference.1', parameters: { color: '#a3301c' } } },
    });
    expect((pictures!.markers as Thing[]).map(({ name }) => name)).toEqual(['Rain', 'waits']);
    // A song of 12 s that loops under 15.3 s, and a voice over it.
    expect(sounds.map(({ kind, children }) => [kind, kinds(children)])).toEqual([
      ['Audio', ['Clip.2', 'Clip.2']],
      ['Audio', ['Gap.1', 'Clip.2']],
    ]);
    expect(sounds[1]!.children[0]).toMatchObject({ source_range: { duration: { value: 135 } } });
  });
  it('is the same text each time, and out, in and out again the identical one', () => {
    expect(JSON.stringify(written())).toBe(JSON.stringify(written()));
    const { content, told, missing } = read(parsed());
    expect(content).toEqual(contentOf(SHOW));
    expect([told, missing]).toEqual([[], []]);
    expect(JSON.stringify(written(again(content)))).toBe(JSON.stringify(written()));
  });
  it('keeps the identity of a show of a rate that is no whole number', () => {
    const show: Show = { ...SHOW, frame: { ...SHOW.frame, rate: { frames: 30_000, seconds: 1001 } } };
    const { content } = read(parsed(show));
    expect(content).toEqual(contentOf(show));
  });
});

describe('a timeline that was worked on elsewhere', () => {
  const pictures = (timeline: ReturnType<typeof parsed>) => timeline.tracks.children[0]!;
  it('gives slides another order and length, and takes away what is gone there, with all that the standard does not know', () => {
    const timeline = parsed();
    const [a, , b, , c] = pictures(timeline).children as [Thing, Thing, Thing, Thing, Thing];
    (c.source_range as { duration: { value: number } }).duration.value = 45;
    pictures(timeline).children = [c, a, b];
    const { content } = read(timeline);
    expect(
      content.slides.map(({ id, lengthMs, transition, chosen }) => [id, lengthMs, transition.kind, chosen?.length]),
    ).toEqual([
      ['c', 1500, 'cut', 'hand'],
      ['a', 4000, 'dissolve', undefined],
      ['b', 3333, 'cut', undefined],
    ]);
    expect(content.slides[1]!.layers).toEqual(SHOW.slides[0]!.layers);
  });
  it('takes transitions over: longer, new, and from before the cut', () => {
    const timeline = parsed();
    const children = pictures(timeline).children;
    (children[1] as unknown as { out_offset: { value: number } }).out_offset.value = 30;
    children.splice(5, 0, {
      OTIO_SCHEMA: 'Transition.1',
      transition_type: 'SMPTE_Dissolve',
      in_offset: { OTIO_SCHEMA: 'RationalTime.1', rate: 30, value: 15 },
      out_offset: { OTIO_SCHEMA: 'RationalTime.1', rate: 30, value: 15 },
    });
    const { content } = read(timeline);
    expect(content.slides.map(({ transition }) => transition)).toEqual([
      SHOW.slides[0]!.transition,
      { kind: 'page-turn', lengthMs: 1000 },
      SHOW.slides[2]!.transition,
      { kind: 'dissolve', lengthMs: 1000 },
    ]);
    // The coming slide begins half a second earlier; the whole is as long as it was.
    expect(content.slides.map(({ lengthMs }) => lengthMs)).toEqual([4000, 3333, 3500, 4500]);
  });
  it('lays sounds that were moved where they lie now, keeps those that go with their slide, and takes away what is gone', () => {
    const timeline = parsed();
    const [, song, voice] = timeline.tracks.children as [
      Thing,
      Thing & { children: Thing[] },
      Thing & { children: Thing[] },
    ];
    song.children.unshift({
      OTIO_SCHEMA: 'Gap.1',
      source_range: {
        OTIO_SCHEMA: 'TimeRange.1',
        start_time: { OTIO_SCHEMA: 'RationalTime.1', rate: 30, value: 0 },
        duration: { OTIO_SCHEMA: 'RationalTime.1', rate: 30, value: 60 },
      },
    });
    song.children.pop();
    const moved = read(timeline).content;
    expect(moved.cues).toEqual([
      expect.objectContaining({
        assetId: SONG,
        starts: { at: 'moment', momentMs: 2000 },
        trimStartMs: 0,
        trimEndMs: 12_000,
      }),
    ]);
    expect(moved.slides[1]!.sounds).toEqual(SHOW.slides[1]!.sounds);
    voice.children.pop();
    // The take that rests was never heard, and stays.
    expect(read(timeline).content.slides[1]!.sounds.map(({ id }) => id)).toEqual(['old']);
  });
  it('carries a voice along with its slide', () => {
    const timeline = parsed();
    const children = pictures(timeline).children;
    const [b] = children.splice(2, 1) as [Thing];
    children.splice(0, 0, b);
    const [, , voice] = timeline.tracks.children as [
      Thing,
      Thing,
      Thing & { children: (Thing & { source_range: { duration: { value: number } } })[] },
    ];
    voice.children[0]!.source_range.duration.value = 15;
    expect(read(timeline).content.slides[0]!.sounds).toEqual(SHOW.slides[1]!.sounds);
  });
  it('is read as any other when what was noted is damaged, and says so', () => {
    const { content, told } = read(parsed(), { parser: () => null });
    expect(told[0]).toMatch(/is damaged/);
    expect(content.slides.map(({ layers }) => layers[0]?.kind)).toEqual(['picture', 'picture', 'clip', undefined]);
    expect(content.slides[2]!.layers[0]).toMatchObject({ trimStartMs: 2533, speed: 2 });
  });
  it('hands the version it was written in on', () => {
    const versions: number[] = [];
    readTimeline(parsed(), {
      show: SHOW,
      files: NAMES,
      facts: KNOWN,
      newId: () => 'n',
      parse: (content, version) => (versions.push(version), content as ShowContent),
    });
    expect(new Set(versions)).toEqual(new Set([FORMAT_VERSION]));
  });
});

describe('a timeline written by hand', () => {
  const time = (value: number, rate = 24) => ({ OTIO_SCHEMA: 'RationalTime.1', rate, value });
  const range = (start: number, duration: number) => ({
    OTIO_SCHEMA: 'TimeRange.1',
    start_time: time(start),
    duration: time(duration),
  });
  const clip = (name: string, more: object = {}) => ({
    OTIO_SCHEMA: 'Clip.1',
    name,
    source_range: range(0, 48),
    media_reference: { OTIO_SCHEMA: 'ExternalReference.1', target_url: `file:///photos/${encodeURIComponent(name)}` },
    ...more,
  });
  const track = (children: object[], more: object = {}) => ({
    OTIO_SCHEMA: 'Track.1',
    kind: 'Video',
    name: 'V1',
    children,
    ...more,
  });
  const timeline = (...tracks: object[]) => ({
    OTIO_SCHEMA: 'Timeline.1',
    name: 'Holidays',
    tracks: { OTIO_SCHEMA: 'Stack.1', children: tracks },
  });

  it('becomes slides of the files it names, gaps blank ones, with its transitions, rate, speed and markers', () => {
    const { content, told, missing } = read(
      timeline(
        track(
          [
            clip('PICTURE-0.jpg'),
            {
              OTIO_SCHEMA: 'Transition.1',
              transition_type: 'SMPTE_Dissolve',
              in_offset: time(12),
              out_offset: time(12),
            },
            clip('boats.mp4', {
              source_range: range(86_400 + 24, 96),
              media_reference: {
                OTIO_SCHEMA: 'ExternalReference.1',
                target_url: 'boats.mp4',
                available_range: range(86_400, 480),
              },
              effects: [{ OTIO_SCHEMA: 'LinearTimeWarp.1', time_scalar: 0.5 }],
            }),
            { OTIO_SCHEMA: 'Gap.1', source_range: range(0, 24) },
            clip('gone.jpg'),
          ],
          { markers: [{ OTIO_SCHEMA: 'Marker.1', name: 'Harbour', marked_range: range(50, 0) }] },
        ),
        track([clip('picture-1.jpg')]),
        track(
          [{ OTIO_SCHEMA: 'Gap.1', source_range: range(0, 24) }, clip('A song.mp3', { source_range: range(24, 72) })],
          { kind: 'Audio' },
        ),
      ),
    );
    expect(content.title).toBe('Holidays');
    expect(content.frame.rate).toEqual({ frames: 24, seconds: 1 });
    expect(content.slides.map(({ lengthMs, transition, chapter }) => [lengthMs, transition, chapter])).toEqual(
      [
        [1500, { kind: 'dissolve', lengthMs: 1000 }, undefined],
        [4500, { kind: 'dissolve', lengthMs: 1000 }, 'Harbour'],
        [1000, { kind: 'cut' }, undefined],
        [2000, { kind: 'cut' }, undefined],
      ].map(([lengthMs, transition, chapter], index) => [
        lengthMs,
        index === 0 ? { kind: 'cut' } : transition,
        chapter,
      ]),
    );
    expect(content.slides[1]!.layers[0]).toMatchObject({ kind: 'clip', assetId: CLIP, trimStartMs: 1000, speed: 0.5 });
    expect(content.cues).toEqual([
      expect.objectContaining({
        assetId: SONG,
        starts: { at: 'moment', momentMs: 1000 },
        trimStartMs: 1000,
        trimEndMs: 4000,
      }),
    ]);
    expect(missing).toEqual(['gone.jpg']);
    expect(told).toEqual([
      '1 clip of upper tracks is left out: a slide shows the lowest track.',
      '1 transition longer than half a slide is shown shorter.',
      '1 marker became a chapter.',
    ]);
    expect(faultOfShow(again(content))).toBeNull();
  });
  it('says what it does otherwise: backwards, too fast, frozen, switched off, transitions that find no room', () => {
    const warp = (scalar: number) => ({ OTIO_SCHEMA: 'LinearTimeWarp.1', time_scalar: scalar });
    const boats = (more: object) => clip('boats.mp4', more);
    const { content, told } = read(
      timeline(
        track([
          boats({ name: 'back', effects: [warp(-1)] }),
          boats({ name: 'fast', effects: [warp(50)] }),
          boats({ name: 'still', effects: [{ OTIO_SCHEMA: 'FreezeFrame.1' }] }),
          clip('picture-0.jpg', { enabled: false }),
        ]),
      ),
    );
    expect(content.slides.map(({ layers: [layer] }) => layer && ('speed' in layer ? layer.speed : 1))).toEqual([
      1,
      20,
      1,
      undefined,
    ]);
    expect(content.slides[0]!.layers[0]).toMatchObject({ backwards: true });
    expect(told).toEqual([
      '“fast” goes 50 × as fast there and 20 × here: a clip goes 0.05 to 20 × as fast, either way.',
      '1 effect on “still” is left out.',
      '1 clip that is switched off there is a blank slide.',
    ]);
    const ours = parsed();
    (ours.tracks.children[0]!.children[1] as unknown as { out_offset: { value: number } }).out_offset.value = 90;
    expect(read(ours).told).toEqual(['1 transition longer than half a slide is shown shorter.']);
    (ours.tracks.children[0]!.children[0] as Thing).enabled = false;
    expect(read(ours).told).toContain('1 clip that is switched off there is a blank slide.');
  });
  it('may be a bare stack, a collection, tracks in tracks; what says no length gets five seconds', () => {
    const nested = track([
      track([clip('picture-0.jpg', { source_range: null })]),
      { OTIO_SCHEMA: 'Stack.1', source_range: range(0, 24), children: [] },
    ]);
    const { content, told } = read({ OTIO_SCHEMA: 'Stack.1', children: [nested] });
    expect(content.slides.map(({ lengthMs }) => lengthMs)).toEqual([5000, 1000]);
    expect(told).toEqual([
      '“picture-0.jpg” does not say how long it is: 5 s.',
      '1 sequence within the timeline is a blank slide of that length.',
    ]);
    expect(
      read({ OTIO_SCHEMA: 'SerializableCollection.1', children: [timeline(track([clip('picture-0.jpg')]))] }).content
        .slides,
    ).toHaveLength(1);
  });
  it.each<[string, unknown]>([
    ['no object', 'hello'],
    ['another thing', { OTIO_SCHEMA: 'Clip.1' }],
    ['no tracks', { OTIO_SCHEMA: 'Timeline.1', tracks: null }],
    [
      'an empty track',
      {
        OTIO_SCHEMA: 'Timeline.1',
        tracks: { OTIO_SCHEMA: 'Stack.1', children: [{ OTIO_SCHEMA: 'Track.1', children: [] }] },
      },
    ],
    ['only sound', timeline(track([clip('A song.mp3')], { kind: 'Audio' }))],
  ])('that is %s is refused with a sentence', (_, document) => {
    expect(() => read(document)).toThrow(NoTimelineError);
  });
  it('does not fall over what is no number, no list, or too deep', () => {
    let deep: object = track([clip('picture-0.jpg')]);
    for (let depth = 0; depth < 200; depth += 1) deep = { OTIO_SCHEMA: 'Stack.1', children: [deep] };
    expect(() => read({ OTIO_SCHEMA: 'Timeline.1', tracks: deep })).toThrow(NoTimelineError);
    const odd = clip('picture-0.jpg', {
      source_range: {
        OTIO_SCHEMA: 'TimeRange.1',
        start_time: 'x',
        duration: { OTIO_SCHEMA: 'RationalTime.1', rate: 0, value: 5 },
      },
      effects: 'none',
      metadata: { tanager: 7 },
    });
    expect(read(timeline(track([odd, { OTIO_SCHEMA: 'Clip.1', children: 3 }]))).content.slides).toHaveLength(2);
    const long = clip('picture-0.jpg', { source_range: range(0, 24 * 3600 * 48) });
    expect(read(timeline(track([long]))).told[0]).toMatch(/no slide is longer/);
  });
});

import { describe, expect, it } from '@jest/globals';
import { applyEdit, type ShowEdit } from '../show/edit';
import type { AssetFacts } from '../show/asset-facts';
import { assetId, cueId, showId, slideId } from '../show/ids';
import { voiceOf } from '../show/placed-sound';
import { emptyShow, type Show } from '../show/show';
import { planMix } from '../sound/plan-mix';
import { soundSpans } from '../sound/sound-spans';
import { leaveOut, momentLeft } from '../sound/voice/leave-out';
import { withItsLengths } from '../timing/follow-music';
import { narrationLaid, partsByPauses, partsByScript, scriptSpread } from './cut-narration';
import { nextTakeName, takeChosen, takeKept } from './kept-take';
import { runThroughKept } from './run-through';

const VOICE = assetId('a'.repeat(64));
const facts = new Map<typeof VOICE, AssetFacts>([
  [VOICE, { kind: 'sound', lengthMs: 60_000, title: null, artist: null }],
]);
const show: Show = {
  ...emptyShow(showId('n'), 'Narrated'),
  slides: ['a', 'b', 'c', 'd'].map((id) => ({
    id: slideId(id),
    lengthMs: 5000,
    transition: { kind: 'dissolve', lengthMs: 800 },
    backing: { kind: 'automatic' },
    layers: [],
    sounds: [],
  })),
};
const after = (before: Show, asked: ShowEdit): Show => {
  const result = applyEdit(before, withItsLengths(before, facts, asked).edit);
  if (!result.ok) throw new Error(result.sentence);
  return result.show;
};
const voice = (fromMs: number, toMs: number, name = 'Take 1') => ({
  assetId: VOICE,
  name,
  lengthMs: 60_000,
  fromMs,
  toMs,
});
let counted = 0;
const newId = () => cueId(`v${(counted += 1)}`);

describe('takes', () => {
  it('stand beside each other on their slide; the last one kept is heard, and any other can be', () => {
    const one = after(show, takeKept(show, slideId('b'), cueId('t1'), voice(4000, 7000))!);
    const two = after(one, takeKept(one, slideId('b'), cueId('t2'), voice(10_000, 20_000, 'Take 2'))!);
    expect(two.slides[1]!.sounds.map(({ id, name, resting }) => [id, name, resting ?? false])).toEqual([
      ['t1', 'Take 1', true],
      ['t2', 'Take 2', false],
    ]);
    expect(two.slides[1]!.lengthMs).toBe(700 + 10_000 + 900);
    expect(nextTakeName(two.slides[1]!.sounds)).toBe('Take 3');
    const back = after(two, takeChosen(two, slideId('b'), cueId('t1'))!);
    expect([voiceOf(back.slides[1]!)!.id, back.slides[1]!.lengthMs]).toEqual(['t1', 700 + 3000 + 900]);
    expect(takeChosen(back, slideId('b'), cueId('t1'))).toBeNull();
    const none = after(back, takeChosen(back, slideId('b'), null)!);
    expect([soundSpans(none, facts).length, none.slides[1]!.lengthMs]).toEqual([0, 5000]);
  });
});

describe('a run through the show', () => {
  const edit = runThroughKept(
    show,
    voice(0, 60_000, 'Run'),
    [
      { slideId: slideId('a'), atMs: 4200 },
      { slideId: slideId('b'), atMs: 9317 },
      { slideId: slideId('c'), atMs: 16_001 },
    ],
    22_050,
    newId,
  )!;
  const done = after(show, edit);

  it('gives each slide the length between two presses and the part that was said over it', () => {
    const asked = [5117, 6684, 6049, 5000];
    // Within a frame: parts meet where slides are first seen.
    done.slides.forEach(({ lengthMs }, index) => expect(Math.abs(lengthMs - asked[index]!)).toBeLessThan(34));
    const spans = soundSpans(done, facts);
    expect(spans.length).toBe(3);
    spans.slice(1).forEach((span, index) => expect(span.startMs).toBeCloseTo(spans[index]!.endMs, -0.1));
    expect(spans.map(({ sound }) => sound.trimStartMs)[0]).toBe(4200);
    expect(Math.abs(spans[2]!.sound.trimStartMs - 16_001)).toBeLessThan(34);
  });
  it('is one sound: it neither dips nor doubles where its parts meet', () => {
    const { parts } = planMix(done, facts);
    const voices = parts.filter((part) => part.kind === 'voice');
    const first = voices[0]!;
    expect(first.gains.at(-1)!.gain).toBe(1);
    expect(voices[1]!.gains[0]!.gain).toBe(1);
    expect(voices[2]!.gains.at(-1)!.gain).toBe(0);
    voices.slice(1).forEach((part, index) => {
      const before = voices[index]!;
      expect(Math.abs(before.fromMs + before.lengthMs - part.fromMs)).toBeLessThan(1.5);
    });
  });
  it('is undone as one step', () => {
    const result = applyEdit(show, withItsLengths(show, facts, edit).edit);
    const back = result.ok && applyEdit(result.show, result.inverse);
    expect(back && back.ok && back.show).toEqual(show);
  });
});

describe('a long narration', () => {
  const phrases = [
    { fromMs: 1000, toMs: 3000 },
    { fromMs: 3200, toMs: 5000 },
    { fromMs: 6200, toMs: 9000 },
    { fromMs: 9300, toMs: 9900 },
    { fromMs: 11_500, toMs: 14_000 },
  ];
  it('is cut at its longest pauses, into no more parts than there are slides', () => {
    expect(partsByPauses(3, phrases)).toEqual([
      { fromMs: 1000, toMs: 5000 },
      { fromMs: 6200, toMs: 9900 },
      { fromMs: 11_500, toMs: 14_000 },
    ]);
    expect(partsByPauses(9, phrases).length).toBe(3);
    expect(partsByPauses(1, phrases)).toEqual([{ fromMs: 1000, toMs: 14_000 }]);
    expect(partsByPauses(3, [])).toEqual([]);
  });
  it('is cut by the script, so that each slide gets its own sentences', () => {
    const scripts = [
      'We set out at dusk, all of us in white. The harbour was quiet by then.',
      'Then rain.',
      'And it stopped again.',
    ];
    const parts = partsByScript(scripts, [
      { fromMs: 0, toMs: 2500 },
      { fromMs: 3000, toMs: 4900 },
      { fromMs: 5500, toMs: 6200 },
      { fromMs: 6900, toMs: 8300 },
    ])!;
    expect(parts).toEqual([
      { fromMs: 0, toMs: 4900 },
      { fromMs: 5500, toMs: 6200 },
      { fromMs: 6900, toMs: 8300 },
    ]);
    expect(partsByScript(scripts, [])).toBeNull();
  });
  it('is laid over slides that then wait for it, with a little silence kept around each part', () => {
    const parts = partsByPauses(3, phrases);
    const laid = after(
      show,
      narrationLaid(
        show,
        show.slides.map(({ id }) => id),
        voice(0, 60_000),
        parts,
        newId,
      ),
    );
    expect(laid.slides.map(({ sounds }) => sounds.length)).toEqual([1, 1, 1, 0]);
    const [first] = laid.slides[0]!.sounds;
    expect([first!.trimStartMs, first!.trimEndMs]).toEqual([880, 5250]);
    expect(laid.slides[0]!.lengthMs).toBe(700 + (5250 - 880) + 900);
  });
});

describe('a script for several slides', () => {
  it('gives each slide a paragraph, and the last what is left', () => {
    const edit = scriptSpread(show.slides.slice(1, 3), 'One.\n\nTwo,\nstill two.\n\n\nThree.');
    expect(edit).toEqual({
      kind: 'set-scripts',
      scripts: [
        { slideId: 'b', script: 'One.' },
        { slideId: 'c', script: 'Two,\nstill two.\nThree.' },
      ],
    });
    expect(scriptSpread(show.slides, '  \n')).toBeNull();
  });
});

describe('what was said again', () => {
  it('is left out with soft edges, and everything else stays as it was', () => {
    const rate = 1000;
    const stage = leaveOut([{ fromMs: 100, toMs: 150 }], rate);
    const samples = Float32Array.from({ length: 400 }, () => 1);
    const out = [...stage.push(samples.slice(0, 120)), ...stage.push(samples.slice(120))];
    expect(out.length).toBe(350);
    expect([out[90], out[110]]).toEqual([1, 1]);
    expect(out[99]).toBeLessThan(0.3);
    expect(out[100]).toBeLessThan(0.3);
    const cuts = [{ fromMs: 100, toMs: 150 }];
    expect([50, 120, 150, 300].map((ms) => momentLeft(ms, cuts))).toEqual([50, 100, 100, 250]);
  });
});

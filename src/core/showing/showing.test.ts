import { describe, expect, it } from '@jest/globals';
import { planFrame, prepareShow } from '../frame/plan-frame';
import type { AssetFacts } from '../show/asset-facts';
import { assetId, showId, slideId, layerId, type AssetId } from '../show/ids';
import { emptyShow, type Show } from '../show/show';
import { slideSpans } from '../timing/slide-span';
import { looped } from './looped';
import {
  afterCommand,
  afterStretch,
  BEFORE,
  toldOf,
  type ShowingCommand,
  type ShowingState,
  type ShownShow,
} from './showing';

const facts = new Map<AssetId, AssetFacts>();
const asset = (n: number) => assetId(String(n).padStart(64, '0'));
for (let n = 0; n < 5; n += 1)
  facts.set(asset(n), {
    kind: 'picture',
    widthPx: 3000,
    heightPx: 2000,
    hasTransparency: false,
    takenAt: null,
    camera: null,
    brightness: 0.5,
  });
const evening: Show = {
  ...emptyShow(showId('x'), 'x'),
  slides: Array.from({ length: 5 }, (_, n) => ({
    id: slideId(`s${n}`),
    lengthMs: 4000,
    transition: { kind: 'dissolve', lengthMs: 1000 },
    backing: { kind: 'automatic' },
    layers: [{ kind: 'picture', id: layerId(`p${n}`), assetId: asset(n), move: { kind: 'automatic' } }],
    sounds: [],
    ...(n === 1 && { waits: true as const }),
  })),
};
const show: ShownShow = {
  spans: slideSpans(evening.slides),
  waits: evening.slides.map((slide) => slide.waits === true),
  lengthMs: 20_000,
  rate: { frames: 30, seconds: 1 },
};
const at = (momentMs: number, more: Partial<ShowingState> = {}): ShowingState => ({
  ...BEFORE,
  phase: 'running',
  momentMs,
  ...more,
});
const after = (state: ShowingState, ...commands: readonly ShowingCommand[]) =>
  commands.reduce<ReturnType<typeof afterCommand>>((step, command) => afterCommand(show, step.state, command), {
    state,
    move: null,
  });

describe('a showing', () => {
  it('starts at the beginning and stops where a slide waits, and goes on from there when it is told to', () => {
    const started = after(BEFORE, { do: 'next' });
    expect(started.move).toEqual({ kind: 'play', fromMs: 0, untilMs: 8000 });
    const waiting = afterStretch(show, at(7999));
    expect([waiting.state.phase, waiting.move]).toEqual(['waiting', null]);
    const on = after(waiting.state, { do: 'next' });
    expect(on.move).toEqual({ kind: 'play', fromMs: 8000, untilMs: 20_000 });
    expect(on.state.phase).toBe('running');
  });
  it('stops at every slide when it goes by hand, and at the last as well', () => {
    const byHand = after(BEFORE, { do: 'by-hand', on: true }, { do: 'start' });
    expect(byHand.move).toEqual({ kind: 'play', fromMs: 0, untilMs: 4000 });
    const last = afterStretch(show, at(19_999, { byHand: true }));
    expect(last.state.phase).toBe('waiting');
    expect(after(last.state, { do: 'next' }).state.phase).toBe('ended');
  });
  it('finds out anew where it stops when that is changed on the way', () => {
    expect(after(at(9000), { do: 'by-hand', on: true }).move).toEqual({ kind: 'play', fromMs: 9000, untilMs: 12_000 });
    expect(after(at(9000, { byHand: true }), { do: 'by-hand', on: false }).move).toEqual({
      kind: 'play',
      fromMs: 9000,
      untilMs: 20_000,
    });
  });
  it.each<[string, number, ShowingCommand, number]>([
    ['next', 5000, { do: 'next' }, 8000],
    ['back, well into a slide', 7000, { do: 'back' }, 4000],
    ['back, at a slide’s beginning', 4500, { do: 'back' }, 0],
    ['back on the first', 500, { do: 'back' }, 0],
    ['a number', 500, { do: 'go', slide: 3 }, 12_000],
  ])('goes to the right slide by %s', (_name, momentMs, command, fromMs) => {
    expect(after(at(momentMs), command).move).toMatchObject({ kind: 'play', fromMs });
  });
  it('leaves things as they are at a number that is no slide', () => {
    const state = at(5000);
    expect(after(state, { do: 'go', slide: 77 })).toEqual({ state, move: null });
  });
  it('holds the picture and goes on from the very moment', () => {
    const held = after(at(5123), { do: 'hold' });
    expect([held.state.phase, held.move]).toEqual(['held', { kind: 'stand', atMs: 5123 }]);
    expect(after(held.state, { do: 'hold' }).move).toMatchObject({ kind: 'play', fromMs: 5123 });
    expect(after(held.state, { do: 'next' }).move).toMatchObject({ kind: 'play', fromMs: 5123 });
  });
  it('goes black without stopping, and comes back', () => {
    const black = after(at(5000), { do: 'black' });
    expect([black.state.black, black.state.phase, black.move]).toEqual([true, 'running', null]);
    expect(after(black.state, { do: 'black' }).state.black).toBe(false);
  });
  it('ends with the show, or begins again when it loops', () => {
    expect(afterStretch(show, at(19_999)).state.phase).toBe('ended');
    expect(afterStretch(show, at(19_999, { loops: true })).move).toMatchObject({ kind: 'play', fromMs: 0 });
  });
  it('tells which slide is on, and the time gone and left', () => {
    expect(toldOf(show, at(9000))).toEqual({ slide: 2, goneMs: 9000, leftMs: 11_000 });
    expect(toldOf(show, BEFORE)).toEqual({ slide: 0, goneMs: 0, leftMs: 20_000 });
    expect(toldOf(show, at(19_999, { phase: 'ended' })).leftMs).toBe(0);
  });
  it('does nothing with a show without slides', () => {
    const none = { ...show, spans: [], waits: [], lengthMs: 0 };
    expect(afterCommand(none, BEFORE, { do: 'next' })).toEqual({ state: BEFORE, move: null });
  });
});

describe('a show that loops', () => {
  const prepared = prepareShow(evening, facts);
  const frame = { widthPx: 1280, heightPx: 720 };
  it('meets its beginning: the frame where it goes back is the frame it goes on from', () => {
    const loop = looped(prepared)!;
    const all = prepareShow(loop.show, facts);
    const end = planFrame(all, loop.untilMs, frame)!;
    const begin = planFrame(all, loop.againMs, frame)!;
    expect(end.incoming).toBeNull();
    expect({ ...end.slide, slideId: '' }).toEqual({ ...begin.slide, slideId: '' });
    const later = planFrame(all, loop.untilMs + 700, frame)!;
    expect({ ...later.slide, slideId: '' }).toEqual({
      ...planFrame(all, loop.againMs + 700, frame)!.slide,
      slideId: '',
    });
  });
  it('leaves everything before its end as it was', () => {
    const all = prepareShow(looped(prepared)!.show, facts);
    for (const momentMs of [0, 5000, 12_345, 15_900])
      expect(planFrame(all, momentMs, frame)).toEqual(planFrame(prepared, momentMs, frame));
  });
  it('is nothing with one slide', () => {
    expect(looped(prepareShow({ ...evening, slides: evening.slides.slice(0, 1) }, facts))).toBeNull();
  });
});

import { windowNumber } from '../show/window-id';
import { describe, expect, it } from '@jest/globals';
import type { PictureFacts } from '../show/asset-facts';
import { applyEdit, type ShowEdit } from '../show/edit';
import { cueId, slideId, type SlideId } from '../show/ids';
import { everyLayer, type PictureLayer, type WordsLayer } from '../show/layer';
import { assetIdsOfSlides, type Show, type Slide } from '../show/show';
import { voiceHere } from '../show/placed-sound';
import { textOf } from '../show/words-of-slide';
import { withItsLengths } from '../timing/follow-music';
import { dealFor, groundOf, layEdit, withMount, type LayMount } from './lay-mount';
import { takesOf, type Mount } from './mount';
import { asset, CLIP, counter, FACTS, given, LOGO, LOOK, picture, showOf, withTitle } from './mounts.testing';
import { SHIPPED_MOUNTS, shippedMount } from './shipped/shipped-mounts';
import { isChangedByHand } from './sum';
import { takeOffEdit } from './take-off';

const SHAPES = ['16:9', '4:3', '1:1', '9:16'];
const allOf = (show: Show) => show.slides.map(({ id }) => id);
const done = (show: Show, edit: Parameters<typeof applyEdit>[1]): Show => {
  const result = applyEdit(show, edit);
  if (!result.ok) throw new Error(result.sentence);
  return result.show;
};
function laid(show: Show, ids: readonly SlideId[], parts: LayMount) {
  const result = layEdit(show, groundOf(show, ids, counter('g')), parts);
  if (!result.ok) throw new Error(result.sentence);
  return { show: done(show, result.edit), ids: result.slideIds, edit: result.edit };
}
const mount = (id: string): Mount => shippedMount(id)!;

describe('the shipped mounts', () => {
  it('are thirty at least, each with a name, a sentence and a shelf of its own', () => {
    expect(SHIPPED_MOUNTS.length).toBeGreaterThanOrEqual(30);
    expect(new Set(SHIPPED_MOUNTS.map(({ id }) => id)).size).toBe(SHIPPED_MOUNTS.length);
    expect(new Set(SHIPPED_MOUNTS.map(({ name }) => name)).size).toBe(SHIPPED_MOUNTS.length);
    for (const { description, shelf } of SHIPPED_MOUNTS)
      expect([description.length > 20, shelf.length > 3]).toEqual([true, true]);
  });
  it.each(SHIPPED_MOUNTS.map((one): [string, Mount] => [one.id, one]))(
    '%s lies in every shape with every count it has, leaves no window unfilled, and comes off without a trace',
    (_id, one) => {
      for (const shape of SHAPES) {
        const frame = showOf(1, shape).frame;
        for (const count of new Set(one.fits(frame, LOOK).map(takesOf))) {
          const before = showOf(Math.max(1, count) + 2, shape);
          const chosen = allOf(before).slice(1, 1 + Math.max(1, count));
          const { show, ids } = laid(before, chosen, given({ mount: one }));
          const run = show.slides.filter(({ id }) => ids.includes(id));
          expect(run.length).toBeGreaterThan(0);
          expect(assetIdsOfSlides(run).every((id) => windowNumber(id) === null)).toBe(true);
          expect(run.some(isChangedByHand)).toBe(false);
          const off = done(show, takeOffEdit(show, ids, counter('o'))!);
          expect(JSON.stringify(off)).toBe(JSON.stringify(before));
        }
      }
    },
  );
});

describe('laying a mount', () => {
  it.each([2, 5, 37])(
    'on %d pictures shows each of them, and taken off the show is as it was, byte for byte',
    (count) => {
      for (const one of SHIPPED_MOUNTS) {
        const before = showOf(count);
        const { show, ids, edit } = laid(before, allOf(before), given({ mount: one }));
        const shown = new Set(assetIdsOfSlides(show.slides));
        for (const slide of before.slides) expect(shown.has((slide.layers[0] as PictureLayer).assetId)).toBe(true);
        expect(JSON.stringify(done(show, takeOffEdit(show, ids, counter('o'))!))).toBe(JSON.stringify(before));
        const undone = applyEdit(before, edit);
        expect(undone.ok && JSON.stringify(done(undone.show, undone.inverse))).toBe(JSON.stringify(before));
      }
    },
  );
  it('takes the fit for so many pictures of such a shape by itself, and several runs for more than it holds', () => {
    const tiles = mount('tiles');
    const upright = showOf(9);
    const ids = [1, 4, 7].map((n) => slideId(`s${n}`));
    const deal = (show: Show, chosen: SlideId[]) =>
      dealFor(groundOf(show, chosen, counter('g')), given({ mount: tiles })).runs.map(({ fit }) => fit.name);
    expect(deal(upright, ids)).toEqual(['3 upright pictures']);
    expect(
      deal(
        upright,
        [0, 3, 6].map((n) => slideId(`s${n}`)),
      ),
    ).toEqual(['3 pictures']);
    expect(deal(showOf(20), allOf(showOf(20)))).toEqual(['7 pictures', '7 pictures', '6 pictures']);
  });
  it('with fewer pictures than windows shows some again or leaves windows empty, as was chosen', () => {
    const before = showOf(2);
    const strips = mount('three-strips');
    const again = laid(before, allOf(before), given({ mount: strips })).show.slides[0]!;
    expect(again.layers.slice(0, 3).map((layer) => (layer as PictureLayer).assetId)).toEqual([
      asset(0),
      asset(1),
      asset(0),
    ]);
    const empty = laid(before, allOf(before), given({ mount: strips, tooFew: 'empty' })).show.slides[0]!;
    expect(empty.layers.slice(0, 3).map((layer) => layer.hidden ?? false)).toEqual([false, false, true]);
  });
  it('with more pictures than windows leaves the rest as slides of their own when that was chosen', () => {
    const before = showOf(5);
    const { show } = laid(before, allOf(before), given({ mount: mount('two-hands'), tooMany: 'leave' }));
    expect(show.slides.map(({ mounted }) => mounted?.before.length ?? null)).toEqual([2, null, null, null]);
  });
  it('brings crop, light and what is said along, ties sounds to what stands there, and keeps what was changed on pictures meanwhile', () => {
    const plain = showOf(3);
    const crop = { x: 0.4, y: 0.5, width: 0.6, height: 0.8, turnDegrees: 0 };
    const [first, ...others] = plain.slides;
    const lit = {
      ...withTitle(first!, 'The boat house', 'Breakfast'),
      script: 'We set out.',
      layers: [
        { ...(first!.layers[0] as PictureLayer), crop, light: { exposure: 0.5 } },
        ...withTitle(first!, 'The boat house').layers.slice(1),
      ],
    };
    const before: Show = { ...plain, slides: [lit, ...others] };
    const { show, ids } = laid(before, allOf(before), given({ mount: mount('album-page') }));
    const page = show.slides[0]!;
    const window = [...everyLayer(page.layers)].find(
      (layer): layer is PictureLayer => layer.kind === 'picture' && layer.assetId === asset(0),
    )!;
    expect([window.crop, window.light, page.script]).toEqual([crop, { exposure: 0.5 }, 'We set out.']);
    expect(page.layers.find(({ kind }) => kind === 'words')).toMatchObject({ title: 'The boat house' });
    expect(show.cues[0]).toMatchObject({ starts: { slideId: page.id, offsetMs: 300 }, ends: { slideId: page.id } });
    const darker = done(show, {
      kind: 'set-light',
      lights: [{ slideId: page.id, layerId: window.id, light: { exposure: -1 } }],
    });
    const off = done(darker, takeOffEdit(darker, ids, counter('o'))!);
    expect(off.slides[0]!.layers[0]).toMatchObject({ crop, light: { exposure: -1 } });
    expect(off.cues).toEqual(before.cues);
  });
  it('puts a clip into a window as a clip, and says where only a picture can stand', () => {
    const facts = new Map([...FACTS, [asset(1), CLIP] as const]);
    const before = showOf(2, '16:9', facts);
    const { show } = laid(before, allOf(before), given({ mount: mount('two-hands'), facts }));
    expect(show.slides[0]!.layers.map(({ kind }) => kind)).toEqual(['picture', 'clip']);
    const ground = groundOf(before, allOf(before), counter('g'));
    expect(withMount(ground, given({ mount: mount('other-side'), facts }))).toEqual({
      ok: false,
      sentence: '“Back” takes pictures only, and a clip would go there. Put a picture in its place.',
    });
  });
  it('over another takes the other off first: nothing lies under two mounts', () => {
    const before = showOf(4);
    const one = laid(before, allOf(before), given({ mount: mount('tiles') }));
    const two = laid(one.show, one.ids, given({ mount: mount('stamps'), newId: counter('n') }));
    expect(two.show.slides.map(({ mounted }) => mounted?.mount.id)).toEqual(['stamps']);
    expect(JSON.stringify(done(two.show, takeOffEdit(two.show, two.ids, counter('o'))!))).toBe(JSON.stringify(before));
  });
  it('without pictures goes before or after what is chosen, takes its chapter over and gives it back', () => {
    const plain = showOf(3);
    const before: Show = {
      ...plain,
      slides: plain.slides.map((slide, n) => (n === 1 ? { ...slide, chapter: 'The island' } : slide)),
    };
    const { show, ids } = laid(before, [slideId('s1')], given({ mount: mount('passing-field') }));
    expect(show.slides.map(({ chapter }) => chapter)).toEqual([undefined, 'The island', undefined, undefined]);
    expect(show.slides[1]!.layers.find(({ kind }) => kind === 'words')).toMatchObject({
      title: 'The island',
      subtitle: '11 June 2025',
    });
    expect(JSON.stringify(done(show, takeOffEdit(show, ids, counter('o'))!))).toBe(JSON.stringify(before));
  });
  it('comes off at the end of the show too when a song ends on it', () => {
    const before = showOf(2);
    const { show, ids } = laid(before, [slideId('s1')], given({ mount: mount('until-next') }));
    const tied = done(show, {
      kind: 'set-sound',
      slideId: null,
      soundId: show.cues[0]!.id,
      properties: { ends: { at: 'slide', slideId: ids[0]!, offsetMs: 500 } },
    });
    const off = done(tied, takeOffEdit(tied, ids, counter('o'))!);
    expect(off.cues[0]!.ends).toEqual({ at: 'slide', slideId: 's1', offsetMs: 500 });
  });
  it('without pictures leaves the mounts it goes beside as they lie', () => {
    const before = showOf(3);
    const one = laid(before, allOf(before), given({ mount: mount('tiles') }));
    const two = laid(one.show, one.ids, given({ mount: mount('passing-field'), newId: counter('n') }));
    expect(two.show.slides.map(({ mounted }) => mounted?.mount.id)).toEqual(['passing-field', 'tiles']);
    expect(two.show.slides[1]).toEqual(one.show.slides[0]);
  });
  it('says so when there is no logo, no picture or no such fit', () => {
    const show = showOf(2);
    const tryOn = (parts: LayMount) => withMount(groundOf(show, allOf(show), counter('g')), parts);
    const studio = { name: '', contact: '', logo: null };
    expect(tryOn(given({ mount: mount('logo-in'), studio }))).toMatchObject({
      sentence: expect.stringContaining('logo'),
    });
    expect(
      withMount(groundOf({ ...show, slides: [] }, [], counter('g')), given({ mount: mount('tiles') })),
    ).toMatchObject({ ok: false });
    expect(tryOn(given({ mount: mount('tiles'), fit: '90 pictures' }))).toMatchObject({ ok: false });
  });
  it('shows a logo on the ground it reads better on, where it can be seen through', () => {
    const logoOn = (id: string, more: Partial<PictureFacts>) => {
      const facts = new Map(FACTS).set(LOGO, picture(1, { hasTransparency: true, ...more }));
      const { show } = laid(showOf(1), [], given({ mount: mount(id), facts }));
      return show.slides.find(({ mounted }) => mounted?.mount.id === id)!;
    };
    const { ink, paper } = LOOK.palette;
    const plate = (slide: Slide) => slide.layers.find(({ id }) => id === 'plate');
    const light = { colours: ['#d8a24a', '#f3efe6'], meanColour: '#e0c080' };
    expect(logoOn('logo-in', light).backing).toEqual({ kind: 'colour', colour: ink });
    // The film ends as dark as it did, with a ring where the plate would be.
    expect(logoOn('logo-out', light).backing).toEqual({ kind: 'colour', colour: ink });
    expect(plate(logoOn('logo-out', light))).toMatchObject({
      fill: { colour: ink },
      edge: { outline: { width: 0.005 } },
    });
    for (const other of [{ colours: ['#203a28'] }, { ...light, hasTransparency: false }, {}]) {
      expect(logoOn('logo-in', other).backing).toEqual({ kind: 'colour', colour: paper });
      expect(plate(logoOn('logo-out', other))).toMatchObject({ fill: { colour: paper } });
    }
  });
  it('lets credits roll for as long as there is to read, and longer when more is written', () => {
    const credits = (lines: number) => Array.from({ length: lines }, (_, n) => `Line ${n}`).join('\n');
    const laidWith = (lines: number) =>
      laid(
        showOf(1),
        [],
        given({ mount: mount('roll-call'), said: { 'Credits, two columns by a tab': credits(lines) } }),
      );
    const lengthOf = (show: Show) => show.slides.find(({ mounted }) => mounted)!.lengthMs;
    const [short, long] = [laidWith(2), laidWith(40)];
    expect(lengthOf(short.show)).toBeGreaterThan(7000);
    expect(lengthOf(short.show)).toBeLessThan(10_000);
    expect(lengthOf(long.show)).toBeGreaterThan(2.5 * lengthOf(short.show));
    // Written later, in one step that is undone as one; a length somebody set stays.
    const slide = short.show.slides.find(({ mounted }) => mounted)!;
    const words = slide.layers.find((layer) => layer.kind === 'words') as WordsLayer;
    const write: ShowEdit = {
      kind: 'set-words',
      slideId: slide.id,
      layerId: words.id,
      words: { ...textOf(words), subtitle: credits(40) },
      by: 'hand',
    };
    const { edit } = withItsLengths(short.show, FACTS, write);
    const written = applyEdit(short.show, edit);
    expect(written.ok && lengthOf(written.show)).toBe(lengthOf(long.show));
    expect(written.ok && isChangedByHand(written.show.slides.find(({ mounted }) => mounted)!)).toBe(false);
    expect(written.ok && done(written.show, written.inverse)).toEqual(short.show);
    // What is spoken over them is not cut off, however little there is to read.
    const voice = asset(950);
    const facts = new Map(FACTS).set(voice, { kind: 'sound', lengthMs: 26_000, title: null, artist: null });
    const spoken: Show = {
      ...long.show,
      slides: long.show.slides.map((one) =>
        one.mounted ? { ...one, sounds: [voiceHere(cueId('v'), voice, 0)] } : one,
      ),
    };
    const over = spoken.slides.find(({ mounted }) => mounted)!;
    const shorter = { ...write, slideId: over.id, words: { ...textOf(words), subtitle: 'One' } };
    const less = applyEdit(spoken, withItsLengths(spoken, facts, shorter).edit);
    expect(less.ok && lengthOf(less.show)).toBeGreaterThanOrEqual(26_000);
    const lengths = [{ slideId: slide.id, lengthMs: 20_000, by: 'hand' as const }];
    const held = done(short.show, { kind: 'set-lengths', lengths });
    expect(withItsLengths(held, FACTS, write).edit).toEqual(write);
  });
  it('tells a slide whose design a hand changed from one whose words were filled in', () => {
    const before = showOf(1);
    const { show } = laid(before, allOf(before), given({ mount: mount('low-sun') }));
    const [slide] = show.slides;
    const words = slide!.layers.find((layer) => layer.kind === 'words')!;
    const { title: _t, subtitle: _s, ...look } = words as typeof words & { kind: 'words' };
    const written = done(show, {
      kind: 'set-words',
      slideId: slide!.id,
      layerId: words.id,
      words: { title: 'Other', subtitle: '', place: look.place, style: look.style, come: look.come } as never,
    });
    expect(isChangedByHand(written.slides[0]!)).toBe(false);
    const moved = done(show, {
      kind: 'set-backing',
      slideId: slide!.id,
      backing: { kind: 'colour', colour: '#123456' },
    });
    expect(isChangedByHand(moved.slides[0]!)).toBe(true);
  });
});

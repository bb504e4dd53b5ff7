import { describe, expect, it } from '@jest/globals';
import type { AssetFacts } from '../show/asset-facts';
import { applyEdit, type ShowEdit } from '../show/edit';
import { layerId, slideId, type AssetId } from '../show/ids';
import type { WordsLayer } from '../show/layer';
import { faultOfShow } from '../show/faults';
import { picturesOf } from '../show/layout';
import { assetIdsOfSlides, type Show } from '../show/show';
import { contrast } from '../light/contrast';
import { asset, counter, FACTS, given, LOGO, picture, showOf, withTitle } from '../mounts/mounts.testing';
import { groundOf, layEdit } from '../mounts/lay-mount';
import { shippedMount } from '../mounts/shipped/shipped-mounts';
import { startedShow, partsOf } from '../starting/start-show';
import { STARTING_POINTS } from '../starting/starting-points';
import { differencesFrom, givenBackEdit, pinEdit } from './differences-from';
import { dressed, dressEdit, undressEdit, withDressed, type Wardrobe } from './dress';
import type { PlumageWith } from './plumage';
import { SHIPPED_PLUMAGE, shippedPlumage } from './shipped-plumage';

const WARDROBE: Wardrobe = {
  facts: FACTS,
  studio: { name: 'Harrow Lane Pictures', contact: 'hello@harrowlane.example', logo: LOGO },
  mountOf: shippedMount,
};
const ALL: PlumageWith = { opener: true, chapters: true, closer: true, several: true };
const wear = (show: Show, id: string, seed = 0, parts = ALL) =>
  dressed(show, { plumage: shippedPlumage(id)!, with: parts, seed }, WARDROBE).show;
const done = (show: Show, edit: ShowEdit): Show => {
  const result = applyEdit(show, edit);
  if (!result.ok) throw new Error(result.sentence);
  return result.show;
};
const text = (show: Show) => JSON.stringify(show);
/** A show with a chapter, words a person typed, a transition a hand set, and a mount a person laid. */
function handmade(): Show {
  const plain = showOf(30);
  const slides = plain.slides.map((slide, n) => {
    if (n === 4) return withTitle(slide, 'Breakfast');
    if (n === 9) return { ...slide, chapter: 'The island' };
    return n === 12
      ? { ...slide, transition: { kind: 'mosaic' as const, lengthMs: 700 }, chosen: { transition: 'hand' as const } }
      : slide;
  });
  const show: Show = { ...plain, slides };
  const ids = [20, 21, 22].map((n) => slideId(`s${n}`));
  const laid = layEdit(
    show,
    groundOf(show, ids, counter('g')),
    given({ mount: shippedMount('tiles')!, newId: counter('byhand') }),
  );
  if (!laid.ok) throw new Error(laid.sentence);
  return done(show, laid.edit);
}

describe('pictures that are too small to stand large', () => {
  const small = { widthPx: 320, heightPx: 240 };
  const worn = (tiny: readonly number[]) => {
    const facts = new Map([...FACTS].map(([id, known]) => [id, known]));
    for (const n of tiny) facts.set(asset(n), picture(n, small));
    const plain = showOf(12);
    const slides = plain.slides.map((slide, n) => (n === 5 ? { ...slide, chapter: 'The island' } : slide));
    const with_ = { ...ALL, several: false };
    const dress = { plumage: shippedPlumage('heron')!, with: with_, seed: 0 };
    return dressed({ ...plain, slides }, dress, { ...WARDROBE, facts }).show;
  };
  const ends = ({ slides }: Show) =>
    slides.flatMap(({ mounted }) => (mounted?.role ? [`${mounted.role} ${mounted.mount.id}`] : []));
  it('make way for an opener, a chapter and a closer without one, and stand beside them as they are', () => {
    expect(ends(worn([]))).toEqual(['opener first-light', 'chapter tabbed-page', 'closer laid-down']);
    const show = worn([0, 5, 11]);
    expect(ends(show)).toEqual(['opener letterhead', 'chapter passing-field', 'closer until-next']);
    expect(faultOfShow(show)).toBeNull();
    const shown = new Set(show.slides.flatMap((slide) => picturesOf(slide).map(({ assetId }) => assetId)));
    expect([0, 5, 11].every((n) => shown.has(asset(n)))).toBe(true);
    expect(ends(worn([3, 7]))).toEqual(ends(worn([])));
  });
  it('share no slide with others: its windows would be too large for them', () => {
    const shared = (facts: ReadonlyMap<AssetId, AssetFacts>) => {
      const dress = { plumage: shippedPlumage('magpie')!, with: ALL, seed: 0 };
      const { show } = dressed(showOf(40), dress, { ...WARDROBE, facts });
      return assetIdsOfSlides(show.slides.filter(({ mounted }) => mounted?.role === 'several'));
    };
    const large = new Map([...FACTS.keys()].map((id, n) => [id, picture(n, { takenAt: null })] as const));
    const all = shared(large);
    expect(all.length).toBeGreaterThan(6);
    const tiny = new Set(all.slice(0, 3));
    const facts = new Map(
      [...large].map(([id, known]) => [id, tiny.has(id) ? { ...known, ...small } : known] as const),
    );
    const left = shared(facts);
    expect(left.length).toBeGreaterThan(3);
    expect(left.some((id) => tiny.has(id))).toBe(false);
  });
});

describe('the shipped plumage', () => {
  it('is ten at least, unlike in letters and colours and transitions, and names only mounts that are there', () => {
    expect(SHIPPED_PLUMAGE.length).toBeGreaterThanOrEqual(10);
    for (const part of ['palette', 'transitions', 'description'] as const)
      expect(new Set(SHIPPED_PLUMAGE.map((one) => JSON.stringify(one[part]))).size).toBe(SHIPPED_PLUMAGE.length);
    for (const { mounts } of SHIPPED_PLUMAGE)
      for (const id of [mounts.opener, mounts.chapter, mounts.closer, ...mounts.several])
        expect([id, shippedMount(id)?.id]).toEqual([id, id]);
  });
  it.each(SHIPPED_PLUMAGE.map(({ id, palette }) => [id, palette] as const))(
    '%s can be read: ink, accent on paper and paper on ink and accent',
    (_id, { ink, paper, accent }) => {
      expect(contrast(ink, paper)).toBeGreaterThan(7);
      expect(contrast(accent, paper)).toBeGreaterThan(2.9);
    },
  );
});

describe('an opener of three pictures before a chapter that begins with the second slide', () => {
  const files = (show: Show) =>
    show.slides[0]!.layers.flatMap((layer) => (layer.kind === 'picture' ? [layer.assetId] : []));
  const parted = (count: number): Show => {
    const plain = showOf(count);
    const slides = plain.slides.map((slide, n) => (n === 1 ? { ...slide, chapter: 'August' } : slide));
    return { ...plain, slides };
  };
  it('shows pictures of the rest of the show beside its one, each once, and they stay where they are as well', () => {
    const show = parted(12);
    const worn = wear(show, 'finch');
    expect(worn.slides[0]!.mounted?.role).toBe('opener');
    expect(files(worn)[0]).toBe(files(show)[0]);
    expect(new Set(files(worn)).size).toBe(3);
    expect(worn.slides.slice(1).flatMap(({ layers }) => layers).length).toBeGreaterThan(11);
    expect(text(wear(wear(wear(show, 'finch'), 'heron'), 'finch'))).toBe(text(worn));
  });
  it('shows its own again where there is no other', () => {
    const show = { ...parted(1) };
    expect(new Set(files(wear(show, 'finch')))).toEqual(new Set(files(show)));
  });
});

describe('dressing a show', () => {
  it('in five plumages one after the other and back is the very document it was', () => {
    const first = wear(handmade(), 'heron');
    let show = first;
    for (const id of ['kingfisher', 'swan', 'magpie', 'owl', 'lark']) show = wear(show, id);
    expect(text(wear(show, 'heron'))).toBe(text(first));
  });
  it('taken off leaves the show as it was, byte for byte', () => {
    const bare = handmade();
    for (const { id } of SHIPPED_PLUMAGE) {
      const worn = done(bare, dressEdit(bare, { plumage: shippedPlumage(id)!, with: ALL, seed: 3 }, WARDROBE).edit!);
      expect(text(worn)).not.toBe(text(bare));
      const off = done(worn, undressEdit(worn)!);
      // The mount a person laid keeps the letters and colours it was given last.
      expect(text({ ...off, slides: off.slides.filter(({ mounted }) => !mounted) })).toBe(
        text({ ...bare, slides: bare.slides.filter(({ mounted }) => !mounted) }),
      );
    }
  });
  it('is a sound show', () => {
    for (const { id } of SHIPPED_PLUMAGE) expect(faultOfShow(wear(handmade(), id, 7))).toBeNull();
  });
  it('keeps what a hand set: a transition, a style, words in its mounts, and a mount whose design was changed', () => {
    let show = wear(handmade(), 'heron');
    const opener = show.slides[0]!;
    const words = opener.layers.find((layer): layer is WordsLayer => layer.kind === 'words')!;
    show = done(show, {
      kind: 'set-words',
      slideId: opener.id,
      layerId: words.id,
      words: {
        title: 'Ottilie is ninety',
        subtitle: words.subtitle,
        place: words.place,
        style: words.style!,
        come: words.come!,
      },
    });
    const closer = show.slides.at(-1)!;
    show = done(show, { kind: 'set-backing', slideId: closer.id, backing: { kind: 'colour', colour: '#123456' } });
    const changed = show.slides.at(-1)!;
    const swapped = wear(show, 'owl');
    expect(swapped.slides.find(({ id }) => id === slideId('s12'))!.transition.kind).toBe('mosaic');
    expect(swapped.slides[0]!.mounted!.mount.id).toBe('letterhead');
    expect(
      swapped.slides[0]!.layers.some((layer) => layer.kind === 'words' && layer.title === 'Ottilie is ninety'),
    ).toBe(true);
    expect(swapped.slides.at(-1)).toEqual(changed);
    expect(swapped.slides.filter(({ mounted }) => mounted?.role === 'closer')).toHaveLength(1);
    const back = wear(swapped, 'heron');
    expect(back.slides[0]!.layers.find((layer) => layer.kind === 'words')).toMatchObject({
      title: 'Ottilie is ninety',
    });
    expect(done(back, undressEdit(back)!).slides[0]!.layers.find((layer) => layer.kind === 'words')).toMatchObject({
      title: 'Ottilie is ninety',
    });
  });
  it('gives words their letters where nobody styled them, and leaves a style a person chose meanwhile', () => {
    const worn = wear(handmade(), 'swan');
    const slide = worn.slides.find(({ id }) => id === slideId('s4'))!;
    const words = slide.layers.find((layer): layer is WordsLayer => layer.kind === 'words')!;
    expect(words.style).toMatchObject({ font: 'bodoni' });
    const { title, subtitle, place } = words;
    const styled = done(worn, {
      kind: 'set-words',
      slideId: slide.id,
      layerId: layerId('w'),
      words: { title, subtitle, place, come: words.come!, style: { ...words.style, size: 0.2, font: 'caveat' } },
    });
    const other = wear(styled, 'owl')
      .slides.find(({ id }) => id === slide.id)!
      .layers.find((layer): layer is WordsLayer => layer.kind === 'words')!;
    expect(other.style).toMatchObject({ font: 'caveat', size: 0.2, subtitleFont: 'vollkorn' });
  });
  it('deals again with another seed, the same with the same, and leaves what is held', () => {
    const one = wear(handmade(), 'lark', 1);
    expect(text(wear(one, 'lark', 1))).toBe(text(one));
    const two = wear(one, 'lark', 2);
    const differs = two.slides.filter((slide) => {
      const was = one.slides.find(({ id }) => id === slide.id);
      return was && JSON.stringify(was.transition) !== JSON.stringify(slide.transition);
    });
    expect(differs.length).toBeGreaterThan(4);
    expect(differs.map(({ id }) => id)).not.toContain(slideId('s12'));
  });
  it('gives mounts laid by hand its letters and colours, whatever it deals, until a hand changes their design', () => {
    const inkOf = (show: Show) =>
      show.slides.filter(({ mounted }) => mounted && !mounted.role).map(({ backing }) => JSON.stringify(backing));
    const bare = handmade();
    const [swan, owl] = [wear(bare, 'swan', 5), wear(wear(bare, 'swan', 5), 'owl', 6)];
    expect(inkOf(swan)).toEqual([JSON.stringify({ kind: 'colour', colour: shippedPlumage('swan')!.palette.paper })]);
    expect(inkOf(owl)).toEqual([JSON.stringify({ kind: 'colour', colour: shippedPlumage('owl')!.palette.paper })]);
    const laid = owl.slides.find(({ mounted }) => mounted && !mounted.role)!;
    const changed = done(owl, {
      kind: 'set-backing',
      slideId: laid.id,
      backing: { kind: 'colour', colour: '#abcdef' },
    });
    expect(inkOf(wear(changed, 'finch', 7))).toEqual([JSON.stringify({ kind: 'colour', colour: '#abcdef' })]);
  });
  it('leaves a pinned slide as it is when it deals again, and lets it go to what it was before', () => {
    const bare = showOf(8);
    const worn = wear(bare, 'lark', 1);
    const pinned = done(worn, pinEdit(worn, [slideId('s3')], true)!);
    const again = wear(pinned, 'lark', 2);
    const at = again.slides.findIndex(({ id }) => id === slideId('s3'));
    expect(again.slides[at]).toEqual(pinned.slides.find(({ id }) => id === slideId('s3')));
    expect(differencesFrom(again, WARDROBE).map(({ what }) => what)).toEqual(['transition', 'move']);
    const free = done(again, pinEdit(again, [slideId('s3')], false)!);
    expect(text(done(free, undressEdit(free)!))).toBe(text(bare));
    const given = done(again, givenBackEdit(again, differencesFrom(again, WARDROBE), WARDROBE)!);
    expect([differencesFrom(given, WARDROBE), text(given)]).toEqual([[], text(wear(bare, 'lark', 2))]);
  });
  it('dresses slides that come later, and those alone', () => {
    const worn = wear(showOf(6), 'magpie');
    const later = { ...showOf(9).slides[8]!, id: slideId('later') };
    const grown = withDressed({ ...worn, slides: [...worn.slides, later] }, new Set([later.id]));
    expect(grown.slides.slice(0, -1)).toEqual(worn.slides);
    expect(grown.slides.at(-1)).toMatchObject({
      bare: { transition: later.transition },
      chosen: { transition: 'look' },
    });
  });
  it('names a mount that is not there and has none in its place', () => {
    const { missing, show } = dressed(
      showOf(6),
      {
        plumage: { ...shippedPlumage('owl')!, mounts: { ...shippedPlumage('owl')!.mounts, opener: 'gone' } },
        with: ALL,
        seed: 0,
      },
      WARDROBE,
    );
    expect([...missing.keys()]).toEqual(['gone']);
    expect(show.slides.some(({ mounted }) => mounted?.role === 'opener')).toBe(false);
  });
});

describe('starting points', () => {
  const files = Array.from({ length: 58 }, (_, n) => {
    const [assetId, facts] = [...FACTS][n]!;
    return { assetId, fileName: `P${n}.jpg`, facts };
  });
  it.each(STARTING_POINTS.map((point) => [point.id, point] as const))(
    '%s makes a sound show of any number of pictures',
    (_id, point) => {
      for (const count of [1, 2, 5, 24, 58]) {
        const plumage = shippedPlumage(point.plumage)!;
        const started = startedShow(
          showOf(0),
          files.slice(0, count),
          { point, plumage, with: point.with, words: point.words, most: point.most, credits: point.credits },
          WARDROBE,
          counter('n'),
        );
        expect(faultOfShow(started.show)).toBeNull();
        expect(started.show.title).toBe(point.words.title);
        expect(started.missing.size).toBe(0);
        if (count > 2 && point.with.opener) expect(started.show.slides[0]!.mounted?.role).toBe('opener');
      }
    },
  );
  it('parts at the longest pauses, by days, months and years, and not at all where that says nothing', () => {
    const at = (times: readonly string[]) =>
      times.map((takenAt, n) => ({ ...files[n]!, facts: { ...files[n]!.facts, takenAt } as never }));
    const day = (hour: number, minute: number, date = '2025-06-14') =>
      `${date}T${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}:00`;
    const wedding = at([
      ...[0, 5, 9].map((m) => day(9, m)),
      ...[0, 7, 8, 20].map((m) => day(14, m)),
      ...[1, 2, 3].map((m) => day(21, m)),
    ]);
    expect([...partsOf(wedding, showOf(0), { by: 'pauses', names: ['a', 'b', 'c'] })]).toEqual([
      [0, 'a'],
      [3, 'b'],
      [7, 'c'],
    ]);
    // Two that say when they were taken make no pause among eight that do not.
    const hardly = wedding.map((file, n) =>
      n < 2 ? file : { ...file, facts: { ...(file.facts as object), takenAt: null } as never },
    );
    expect([...partsOf(hardly, showOf(0), { by: 'pauses', names: ['a', 'b'] }).keys()]).toEqual([0, 5]);
    const days = (...counts: (readonly [date: string, count: number])[]) =>
      at(counts.flatMap(([date, count]) => Array.from({ length: count }, (_, n) => day(9, n, date))));
    const travel = days(['2025-06-14', 4], ['2025-06-15', 3], ['2025-07-02', 5]);
    expect([...partsOf(travel, showOf(0), { by: 'day', name: 'Day' })]).toEqual([
      [0, 'Day 1'],
      [4, 'Day 2'],
      [7, 'Day 3'],
    ]);
    expect([...partsOf(travel, showOf(0), { by: 'month', name: '' })]).toEqual([
      [0, 'June'],
      [7, 'July'],
    ]);
    expect([...partsOf(travel, showOf(0), { by: 'year', name: '' })]).toEqual([]);
    // A card for each of two pictures would be more cards than pictures: short ones go on into the next, the last into the one before.
    const sparse = days(['1961-05-01', 1], ['1964-05-01', 2], ['1970-05-01', 4], ['1971-05-01', 1], ['1984-05-01', 1]);
    expect([...partsOf(sparse, showOf(0), { by: 'year', name: '' })]).toEqual([
      [0, '1961 – 1964'],
      [3, '1970 – 1984'],
    ]);
    expect([...partsOf(sparse, showOf(0), { by: 'day', name: 'Day' })]).toEqual([
      [0, 'Day 1 – 2'],
      [3, 'Day 3 – 5'],
    ]);
    // Where most do not say when they were taken, nobody knows which part they belong to.
    const undated = travel.map((file, n) =>
      n % 3 === 0 ? file : { ...file, facts: { ...(file.facts as object), takenAt: null } },
    );
    expect([...partsOf(undated as never, showOf(0), { by: 'day', name: 'Day' })]).toEqual([]);
  });
});

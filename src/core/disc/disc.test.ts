import { describe, expect, it } from '@jest/globals';
import { prepareShow } from '../frame/plan-frame';
import { assetId, layerId, showId, slideId } from '../show/ids';
import { emptyShow, type Show } from '../show/show';
import { authoringDocument, highlightDocument } from './authoring';
import { discFilm, wholePictures, type DiscFilm } from './disc-chapters';
import { tellingFar, type DiscProgress } from './disc-making';
import { changedDisc, faultOfPlan, usualDisc, type DiscPlan } from './disc-plan';
import { DISC_BYTES, MOST_BITS, STANDARDS } from './disc-standard';
import { fitDisc, peakKbits, SOUND_KBITS } from './fit-disc';
import { highlightPicture, highlightRows } from './highlight';
import { menuPages } from './menu-pages';
import { begun, pressed, REMOTE_KEYS, type PlayerPlace } from './remote';

const PLAN = usualDisc('Regatta', 'show-1', '16:9', null);
const planOf = (count: number, more: Partial<DiscPlan> = {}): DiscPlan => ({
  ...PLAN,
  films: Array.from({ length: count }, (_, index) => ({ showId: `show-${index + 1}`, title: '' })),
  ...more,
});
const filmOf = (chapters: number, title = 'Regatta'): DiscFilm => ({
  showId: 'show-1',
  title,
  frameCount: chapters * 100,
  lengthMs: chapters * 4000,
  chapters: Array.from({ length: chapters }, (_, index) => ({
    title: `Part ${index + 1}`,
    startFrame: index * 100,
    slideId: slideId(`s${index}`),
  })),
  told: [],
});

function showOf(lengths: readonly number[], chapters: Readonly<Record<number, string>> = {}): Show {
  return {
    ...emptyShow(showId('s'), 'Regatta'),
    frame: { widthPx: 1024, heightPx: 576, rate: { frames: 25, seconds: 1 } },
    slides: lengths.map((lengthMs, index) => ({
      id: slideId(`s${index}`),
      lengthMs,
      transition: { kind: 'cut' as const },
      backing: { kind: 'automatic' as const },
      layers:
        index === 1
          ? []
          : [
              {
                kind: 'picture' as const,
                id: layerId('p'),
                assetId: assetId('a'.repeat(64)),
                move: { kind: 'still' as const },
              },
            ],
      sounds: [],
      ...(chapters[index] !== undefined && { chapter: chapters[index] }),
    })),
  };
}
const filmFrom = (show: Show, by: DiscPlan['chaptersBy'] = 'titles') =>
  discFilm(prepareShow(show, new Map()), 's', 'Regatta', by);

describe('chapters of a disc', () => {
  it('begin where titles stand; what comes before the first is called as the film is, and a title card is shown by the picture after it', () => {
    const { chapters } = filmFrom(showOf([2000, 2000, 2000, 2000], { 1: 'Dusk', 3: 'Rain' }));
    expect(chapters).toEqual([
      { title: 'Regatta', startFrame: 0, slideId: 's0' },
      { title: 'Dusk', startFrame: 50, slideId: 's2' },
      { title: 'Rain', startFrame: 150, slideId: 's3' },
    ]);
    expect(filmFrom(showOf([2000, 2000]), 'none').chapters).toHaveLength(1);
  });
  it('that follow each other within a second are one, and it is told', () => {
    const { chapters, told } = filmFrom(showOf([400, 400, 4000, 4000], { 0: 'a', 1: 'b', 2: 'c', 3: 'd' }));
    expect(chapters.map(({ title }) => title)).toEqual(['a', 'd']);
    expect(told[0]).toMatch(/^2 chapters of “Regatta”/);
  });
  it('are ninety-nine at most, spread over the film, and it is told', () => {
    const { chapters, told } = filmFrom(showOf(Array.from({ length: 300 }, () => 1200)), 'slides');
    expect(chapters.length).toBeLessThanOrEqual(99);
    expect(chapters.at(-1)!.startFrame).toBeGreaterThan(280 * 30);
    expect(told[0]).toMatch(/299 chapters, and a disc holds 99 of a film: every 4th is on it/);
  });
  it.each([13, 16])(
    'begin with a whole picture, in groups no longer than %i frames and no shorter than a player takes',
    (most) => {
      for (let gap = 25; gap < 400; gap += 1) {
        const starts = [0, gap, gap * 2 + 7];
        const forced = wholePictures(starts, most);
        expect(forced).toEqual(expect.arrayContaining(starts.slice(1)));
        let before = 0;
        for (const start of starts.slice(1)) {
          // The encoder makes one by itself whenever a group is full.
          const all: number[] = [before];
          for (const frame of [...forced.filter((one) => one > before && one <= start)]) {
            while (frame - all.at(-1)! > most) all.push(all.at(-1)! + most);
            all.push(frame);
          }
          const groups = all.slice(1).map((frame, index) => frame - all[index]!);
          expect(Math.max(...groups)).toBeLessThanOrEqual(most);
          expect(Math.min(...groups)).toBeGreaterThanOrEqual(8);
          before = start;
        }
      }
    },
  );
});

describe('what fits a disc', () => {
  it('is as good as there is room for, and never more than a player reads', () => {
    const short = fitDisc(10 * 60_000, 30_000, 1);
    expect(short).toMatchObject({ pictureKbits: 8000, quality: 'as good as a disc can be', fault: null });
    for (const hours of [1, 1.5, 2, 3, 4]) {
      const fit = fitDisc(hours * 3_600_000, 60_000, 1);
      expect(fit.byteCount).toBeLessThanOrEqual(DISC_BYTES[1]);
      expect((peakKbits(fit.pictureKbits) + SOUND_KBITS) * 1000).toBeLessThan(MOST_BITS);
      expect(peakKbits(fit.pictureKbits)).toBeGreaterThanOrEqual(fit.pictureKbits);
    }
    expect(fitDisc(2 * 3_600_000, 0, 1).pictureKbits).toBeGreaterThan(4200);
    expect(fitDisc(3 * 3_600_000, 0, 1).quality).toBe('soft where much moves');
  });
  it('is refused with what would help', () => {
    expect(fitDisc(6 * 3_600_000, 0, 1).fault).toMatch(
      /^These films last 6 h 00 min in all, .* Take a disc of two layers/,
    );
    expect(fitDisc(6 * 3_600_000, 0, 2).fault).toBeNull();
    expect(fitDisc(12 * 3_600_000, 0, 2).fault).toMatch(/Make two discs/);
  });
});

describe('a menu', () => {
  const shapes: readonly (readonly [films: number, chapters: number, where: DiscPlan['menu']['buttons']])[] = [
    ...(['right', 'left', 'below'] as const).flatMap((where) =>
      [1, 2, 3, 7].flatMap((films) => [1, 2, 20, 99].map((chapters) => [films, chapters, where] as const)),
    ),
  ];
  it.each(shapes)(
    'of %i films with %i chapters and its buttons %s leads everywhere with the keys of a remote, and back',
    (count, chapters, where) => {
      const plan = planOf(count, { menu: { ...PLAN.menu, buttons: where } });
      const films = Array.from({ length: count }, (_, index) => filmOf(chapters, `Film ${index + 1}`));
      const disc = { plan, films, pages: menuPages(plan, films) };
      const seen = new Set<string>();
      const waiting: PlayerPlace[] = [begun(disc)];
      while (waiting.length > 0) {
        const place = waiting.pop()!;
        const name = JSON.stringify(place);
        if (seen.has(name)) continue;
        seen.add(name);
        for (const key of REMOTE_KEYS) waiting.push(pressed(disc, place, key));
      }
      const there = new Set(
        [...seen].map((name) => {
          const place = JSON.parse(name) as PlayerPlace;
          return place.at === 'menu' ? `page ${place.page} ${place.button}` : `film ${place.film} ${place.chapter}`;
        }),
      );
      const wanted = [
        ...disc.pages.flatMap(({ buttons }, page) => buttons.map((_, button) => `page ${page} ${button}`)),
        ...films.flatMap(({ chapters: of }, film) => of.map((_, chapter) => `film ${film} ${chapter}`)),
      ];
      expect(wanted.filter((one) => !there.has(one))).toEqual([]);
      // What a player can have on one page where there are buttons for two sorts of televisions.
      expect(Math.max(...disc.pages.map(({ buttons }) => buttons.length))).toBeLessThanOrEqual(18);
      for (const { buttons } of disc.pages)
        for (const { place } of buttons) {
          expect([place.left, place.top].every((edge) => edge >= 0.05)).toBe(true);
          expect([place.right, place.bottom].every((edge) => edge <= 0.951)).toBe(true);
        }
    },
  );
  it('says what it is told to say', () => {
    const plan = planOf(1, { menu: { ...PLAN.menu, says: { play: 'Abspielen', scenes: ' ' } } });
    expect(menuPages(plan, [filmOf(3)])[0]!.buttons.map(({ label }) => label)).toEqual(['Abspielen', 'Scenes']);
  });
  it('has no buttons that lie over each other', () => {
    for (const [count, chapters, where] of shapes) {
      const plan = planOf(count, { menu: { ...PLAN.menu, buttons: where } });
      for (const page of menuPages(
        plan,
        Array.from({ length: count }, () => filmOf(chapters)),
      )) {
        const boxes = highlightRows(page, 576, false).map(({ box }) => box);
        boxes.forEach((one, at) =>
          boxes.slice(at + 1).forEach((other) => {
            const apart = one.x1 <= other.x0 || other.x1 <= one.x0 || one.y1 <= other.y0 || other.y1 <= one.y0;
            expect(apart).toBe(true);
          }),
        );
      }
    }
  });
  it('lights up on even lines, in bars where the television has them, and one button at a time where asked', () => {
    const page = menuPages(planOf(1), [filmOf(20)])[1]!;
    for (const [heightPx, bars] of [
      [576, false],
      [576, true],
      [480, true],
    ] as const) {
      for (const { box, lit } of highlightRows(page, heightPx, bars)) {
        for (const { y0, y1, x0, x1 } of lit) {
          expect([y0 % 2, y1 % 2]).toEqual([0, 0]);
          expect(y0 >= box.y0 && y1 <= box.y1 && x0 >= box.x0 && x1 <= box.x1).toBe(true);
          if (bars) expect(y0 >= heightPx / 8 && y1 <= (heightPx * 7) / 8).toBe(true);
        }
      }
    }
    const points = (only?: number) => {
      const { rgba } = highlightPicture(page, 576, false, '#ff8000', only);
      return rgba.filter((_, at) => at % 4 === 3).filter((alpha) => alpha > 0).length;
    };
    expect(points(0)).toBeGreaterThan(500);
    expect(points()).toBe(page.buttons.reduce((sum, _, index) => sum + points(index), 0));
  });
});

describe('after the last film', () => {
  const disc = (more: Partial<DiscPlan>, count = 2) => {
    const films = Array.from({ length: count }, () => filmOf(2));
    const plan = planOf(count, more);
    return { plan, films, pages: menuPages(plan, films) };
  };
  it('comes the menu, or all of it again', () => {
    const last = { at: 'film', film: 1, chapter: 1, all: true } as const;
    expect(pressed(disc({}), last, 'ends')).toEqual({ at: 'menu', page: 0, button: 0 });
    expect(pressed(disc({ afterwards: 'again' }), last, 'ends')).toEqual({
      at: 'film',
      film: 0,
      chapter: 0,
      all: true,
    });
    expect(pressed(disc({ afterwards: 'again' }), { ...last, all: false }, 'ends')).toMatchObject({
      film: 1,
      chapter: 0,
    });
    expect(begun(disc({ begins: 'film' }))).toEqual({ at: 'film', film: 0, chapter: 0, all: true });
  });
});

describe('what is asked of a disc', () => {
  it('is refused when a show is on it twice, it has no title, or words are said that no menu has', () => {
    expect(faultOfPlan(PLAN)).toBeNull();
    expect(faultOfPlan(changedDisc(PLAN, { title: '  ' }))).toMatch(/needs a title/);
    expect(faultOfPlan(changedDisc(PLAN, { films: [...PLAN.films, ...PLAN.films] }))).toMatch(/on the disc already/);
    expect(faultOfPlan(changedDisc(PLAN, { menu: { says: { shout: 'x' } as never } }))).toMatch(
      /no words called “shout”/,
    );
    expect(changedDisc(PLAN, { menu: { moves: false } }).menu).toMatchObject({ moves: false, mount: 'low-sun' });
  });
  it('becomes a document for authoring, whatever stands in names', () => {
    const films = [filmOf(2), filmOf(1)];
    const plan = planOf(2, { title: 'A & B "<c>"' });
    const pages = menuPages(plan, films);
    const files = {
      folder: '/d & e',
      films: ['/a "1".mpg', '/b.mpg'],
      pages: pages.map((_, at) => ({ file: `/p${at}.mpg`, roundMs: 1000 })),
    };
    const text = authoringDocument(plan, films, pages, files);
    expect(text).toContain('dest="/d &amp; e"');
    expect(text).toContain('file="/a &quot;1&quot;.mpg" chapters="0,4.0000"');
    expect(text).toContain('g1=1; jump title 1 chapter 1;');
    expect(text).toContain('<post>if (g1 eq 1) { jump title 2; } call menu;</post>');
    const lit = highlightDocument(pages[0]!, plan, true, { chosen: '/c.png', pressed: '/p.png' }, 65_500);
    expect(lit).toContain('format="PAL"');
    expect(lit).toContain('end="00:01:05.50"');
  });
  it('tells how long a stage will go on by how it went', () => {
    const told: DiscProgress[] = [];
    let nowMs = 0;
    const far = tellingFar(
      (progress) => told.push(progress),
      () => nowMs,
    );
    for (const [at, stage, share] of [
      [0, 'menu', 0],
      [1000, 'menu', 0.25],
      [4000, 'films', 0.01],
      [6000, 'films', 0.5],
    ] as const) {
      nowMs = at;
      far(stage, share);
    }
    expect(told.map(({ leftMs }) => leftMs)).toEqual([null, 3000, null, 2000]);
  });
  it('has the frames of its standard', () => {
    expect([STANDARDS.pal.rate, STANDARDS.ntsc.rate]).toEqual([
      { frames: 25, seconds: 1 },
      { frames: 30_000, seconds: 1001 },
    ]);
  });
});

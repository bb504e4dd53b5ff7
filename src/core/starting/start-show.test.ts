import { describe, expect, it } from '@jest/globals';
import { applyEdit } from '../show/edit';
import type { AssetFacts } from '../show/asset-facts';
import { everyLayer } from '../show/layer';
import { picturesOf } from '../show/layout';
import { cueId } from '../show/ids';
import { slidesNamedBy } from '../show/placed-sound';
import type { Show } from '../show/show';
import { asset, CLIP, counter, FACTS, LOGO, picture, showOf, SONG } from '../mounts/mounts.testing';
import { shippedMount } from '../mounts/shipped/shipped-mounts';
import type { Wardrobe } from '../plumage/dress';
import { shippedPlumage } from '../plumage/shipped-plumage';
import { startEdit, startedShow, type Start, type StartFile } from './start-show';
import { STARTING_POINTS } from './starting-points';

const WARDROBE: Wardrobe = {
  facts: FACTS,
  studio: { name: 'Harrow Lane Pictures', contact: 'hello@harrowlane.example', logo: LOGO },
  mountOf: shippedMount,
};
const BARE = { opener: false, chapters: false, closer: false, several: false };
const file = (n: number, facts: AssetFacts = picture(n), fileName = `PE_${n}.jpg`): StartFile => ({
  assetId: asset(n),
  fileName,
  facts,
});
const song: StartFile = { assetId: SONG, fileName: 'harbour-reel.mp3', facts: FACTS.get(SONG)! };
/** A session without mounts, so that slides are pictures. */
const start = (more: Partial<Start> = {}): Start => ({
  point: STARTING_POINTS.find(({ id }) => id === 'session')!,
  plumage: shippedPlumage('heron')!,
  with: BARE,
  words: { title: 'The harbour choir', subtitle: '', closing: '' },
  most: null,
  credits: false,
  ...more,
});
const begun = (files: readonly StartFile[], more: Partial<Start> = {}, show: Show = showOf(0), wardrobe = WARDROBE) =>
  startedShow(show, files, start(more), wardrobe, counter('n'));
const order = ({ slides }: Show) => slides.flatMap((slide) => picturesOf(slide).map(({ assetId }) => assetId));

describe('a show begun from files', () => {
  it('goes by when they were taken, by the clocks as they were put right; those that do not say come after, by name', () => {
    const at = (n: number, takenAt: string | null, camera = 'Orrery F2', name?: string) =>
      file(n, picture(n, { takenAt, camera }), name);
    const files = [
      at(0, '2025-06-14T18:10:00'),
      at(1, '2025-06-14T18:05:00', 'Lantern 3'),
      at(2, '2025-06-14T18:00:00'),
      at(3, null, 'Orrery F2', 'PE_10.jpg'),
      at(4, null, 'Orrery F2', 'PE_9.jpg'),
    ];
    expect(order(begun(files).show)).toEqual([2, 1, 0, 4, 3].map(asset));
    // That camera was an hour slow.
    const show: Show = { ...showOf(0), clocks: { 'Lantern 3': 3_600_000 } };
    expect(order(begun(files, {}, show).show)).toEqual([2, 0, 1, 4, 3].map(asset));
  });
  it('leaves out what is marked so, and the RAW file of a pair', () => {
    const raw = file(1, picture(1, { takenAt: '2025-06-14T18:00:00', raw: true }), 'PE_0001.NEF');
    const same = file(2, picture(2, { takenAt: '2025-06-14T18:00:00' }), 'PE_0001.JPG');
    const show: Show = { ...showOf(0), marks: { [asset(0)]: 'leave-out' } };
    expect(order(begun([file(0), raw, same], {}, show).show)).toEqual([asset(2)]);
  });
  it('has the best of them and says how many were left out; clips are not chosen among', () => {
    const files = [...Array.from({ length: 30 }, (_, n) => file(n)), file(40, CLIP, 'boats.mp4')];
    const { show, omitted } = begun(files, { most: 12 });
    expect([order(show).length, omitted]).toEqual([13, 18]);
    expect(order(show)).toContain(asset(40));
    expect(begun(files).omitted).toBe(0);
  });
  it.each([
    ['as long as its pictures want', 40, { by: 'music' }],
    ['much shorter', 100, undefined],
    ['much longer', 12, undefined],
  ])('follows a song that is %s, and no other', (_name, count, pace) => {
    const files = Array.from({ length: count }, (_, n) => file(n % 60, picture(n), `PE_${n}.jpg`));
    const { show } = begun([...files.map((one, n) => ({ ...one, assetId: asset(n) })), song]);
    expect(show.pace).toEqual(pace);
    expect(show.cues.map(({ assetId }) => assetId)).toEqual([SONG]);
  });
  it('keeps the songs a show has, one after the other where they were tied to slides that make way', () => {
    const there = showOf(3);
    const [tied] = there.cues;
    expect(slidesNamedBy(tied!).length).toBeGreaterThan(0);
    const plain = {
      ...tied!,
      id: cueId('plain'),
      starts: { at: 'moment' as const, momentMs: 4000 },
      ends: { at: 'own-end' as const },
    };
    const kept = begun([file(0), song], {}, { ...there, cues: [tied!, plain] }).show.cues;
    expect(kept).toEqual([{ ...tied!, starts: { at: 'after' }, ends: { at: 'own-end' } }, plain]);
  });
  it('is called what was said, or as it was', () => {
    expect(begun([file(0)]).show.title).toBe('The harbour choir');
    expect(begun([file(0)], { words: { title: '  ', subtitle: '', closing: '' } }).show.title).toBe('Midsummer');
  });
  it('has the title in its opener and the thanks in its closer', () => {
    const { show } = begun(
      Array.from({ length: 12 }, (_, n) => file(n)),
      {
        with: { ...BARE, opener: true, closer: true },
        words: { title: 'A day', subtitle: 'Port Ellery', closing: 'Come again' },
      },
    );
    const said = (index: number) =>
      [...everyLayer(show.slides.at(index)!.layers)].flatMap((layer) =>
        layer.kind === 'words' ? [layer.title, layer.subtitle] : [],
      );
    expect(show.slides[0]!.mounted?.role).toBe('opener');
    expect(said(0)).toContain('A day');
    expect(show.slides.at(-1)!.mounted?.role).toBe('closer');
    expect(said(-1)).toContain('Come again');
  });
  it('has credits only where there is something to credit', () => {
    const files = Array.from({ length: 6 }, (_, n) => file(n));
    const credits = (show: Show) => show.slides.filter(({ mounted }) => mounted?.mount.id === 'roll-call').length;
    expect(credits(begun([...files, song], { credits: true }).show)).toBe(1);
    expect(credits(begun([...files, song]).show)).toBe(0);
  });
  it('has the studio’s logo at the ends that were asked for, where it has one, and its watermark', () => {
    const files = Array.from({ length: 6 }, (_, n) => file(n));
    const watermark = { assetId: LOGO, place: 'top' as const, size: 0.1, opacity: 0.5 };
    const logos = (show: Show) =>
      show.slides.flatMap(({ layers }, at) =>
        [...everyLayer(layers)].some((layer) => 'assetId' in layer && layer.assetId === LOGO) ? [at] : [],
      );
    const both = begun(files, { logo: { first: true, last: true }, watermark }).show;
    expect(logos(both)).toEqual([0, both.slides.length - 1]);
    expect(both.watermark).toEqual(watermark);
    const last = begun(files, { logo: { first: false, last: true } }).show;
    expect(logos(last)).toEqual([last.slides.length - 1]);
    const none = { ...WARDROBE, studio: { ...WARDROBE.studio, logo: null } };
    expect(logos(begun(files, { logo: { first: true, last: true } }, showOf(0), none).show)).toEqual([]);
  });
});

describe('beginning a show as a step', () => {
  it('makes all of it what was begun, from whatever was there, and is undone exactly', () => {
    const before: Show = { ...showOf(8), pace: { by: 'music' } };
    const watermark = { assetId: LOGO, place: 'top' as const, size: 0.1, opacity: 0.5 };
    const started = begun(
      Array.from({ length: 12 }, (_, n) => file(n + 10)),
      { with: { ...BARE, opener: true, closer: true }, watermark },
      before,
    );
    const edit = startEdit(before, started, 'a session')!;
    expect(edit).toMatchObject({ kind: 'together', name: 'begin a session' });
    const result = applyEdit(before, edit);
    if (!result.ok) throw new Error(result.sentence);
    expect(result.show).toEqual(started.show);
    const back = applyEdit(result.show, result.inverse);
    expect(back).toMatchObject({ ok: true, show: before });
  });
});

import { describe, expect, it } from '@jest/globals';
import { lanternsOfSlides, makeLoupe, makeTurnover, turnoverOfSlides } from '../builds/make-builds';
import { withItsLoupes } from '../builds/relaid';
import { USUAL_LANTERNS } from '../builds/lanterns';
import { USUAL_LOUPE } from '../builds/loupe';
import { USUAL_TURNOVER } from '../builds/turnover';
import { prepareShow } from '../frame/plan-frame';
import { captionAdded } from '../captions/caption-edits';
import { grouped, ungrouped } from '../layers/group';
import { duplicated, steppedOnce } from '../layers/stack';
import { groundOf, layEdit } from '../mounts/lay-mount';
import { asset, CLIP, counter, FACTS, given, LOGO, picture, showOf, SONG } from '../mounts/mounts.testing';
import { SHIPPED_MOUNTS, shippedMount } from '../mounts/shipped/shipped-mounts';
import { takeOffEdit } from '../mounts/take-off';
import { scriptSpread } from '../narration/cut-narration';
import { takeChosen, takeKept } from '../narration/kept-take';
import { runThroughKept } from '../narration/run-through';
import { differencesFrom, givenBackEdit, pinEdit } from '../plumage/differences-from';
import { dressEdit, undressEdit, type Wardrobe } from '../plumage/dress';
import { withItsPlumage } from '../plumage/entailed-dress';
import { SHIPPED_PLUMAGE } from '../plumage/shipped-plumage';
import { LOOK_PARTS, lookGiven, lookOf } from '../show/copied-look';
import { applyEdit, type ShowEdit } from '../show/edit';
import { editBetween } from '../show/edit-between';
import { everyLayer } from '../show/layer';
import { clipSplit } from '../show/split-clip';
import { withFileSwapped } from '../show/swap-file';
import { readOrderTable } from '../tables/read-order-table';
import { picturesToDrop, repeatedCues } from '../timing/ways-out';
import { faultOfShow } from '../show/faults';
import { cueId, layerId, type SlideId } from '../show/ids';
import { addToSlide, joinSlides, layoutsFor, partSlide } from '../show/layout';
import { copyOfSlide, slideFromAsset } from '../show/new-slide';
import { letComeOneByOne } from '../show/one-by-one';
import { songAfter } from '../show/placed-sound';
import { mainLayerOf, type Show, type Slide } from '../show/show';
import { logoEdit } from '../studio/logo';
import { withItsLengths } from '../timing/follow-music';
import { breathsSet } from '../timing/wait-for-voices';
import { layText } from '../words/pasted-text';
import { startEdit, startedShow } from './start-show';
import { STARTING_POINTS } from './starting-points';

const WARDROBE: Wardrobe = {
  facts: FACTS,
  studio: { name: 'Harrow Lane Pictures', contact: 'hello@harrowlane.example', logo: LOGO },
  mountOf: shippedMount,
};
const VOICE = asset(902);
const FILM = asset(903);
const KNOWN = new Map(FACTS).set(FILM, CLIP).set(VOICE, { kind: 'sound', lengthMs: 7000, title: null, artist: null });

/** Numbers that look dealt and are the same each time (a linear congruential generator, Numerical Recipes). */
function dealer(seed: number) {
  let state = seed;
  const next = () => (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0) / 2 ** 32;
  return {
    number: (below: number) => Math.floor(next() * below),
    one: <Value>(of: readonly Value[]): Value => of[Math.floor(next() * of.length)]!,
    yes: () => next() < 0.5,
  };
}
type Deal = ReturnType<typeof dealer>;

/** What the app offers a hand, each as the edit it would send; null where it offers nothing. */
const OFFERED: Readonly<Record<string, (show: Show, deal: Deal, newId: () => string) => ShowEdit | null>> = {
  'a plumage put on': (show, deal) =>
    dressEdit(
      show,
      {
        plumage: deal.one(SHIPPED_PLUMAGE),
        with: { opener: deal.yes(), chapters: deal.yes(), closer: deal.yes(), several: deal.yes() },
        seed: deal.number(5),
      },
      WARDROBE,
    ).edit,
  'the plumage taken off': (show) => undressEdit(show),
  'what differs given back': (show) => givenBackEdit(show, differencesFrom(show, WARDROBE), WARDROBE),
  'slides held, or let go': (show, deal) => pinEdit(show, run(show, deal, 4), deal.yes()),
  'a mount laid': (show, deal, newId) => {
    const laid = layEdit(
      show,
      groundOf(show, run(show, deal, 5), newId),
      given({ mount: deal.one(SHIPPED_MOUNTS), facts: KNOWN, newId }),
    );
    return laid.ok ? laid.edit : null;
  },
  'mounts taken off': (show, deal, newId) => takeOffEdit(show, run(show, deal, 8), newId),
  'the logo at an end': (show, deal, newId) => {
    const { mount: _mount, ...rest } = given({ mount: SHIPPED_MOUNTS[0]!, newId });
    const logo = logoEdit(show, deal.one(['first', 'last'] as const), deal.yes(), rest);
    return logo.ok ? logo.edit : null;
  },
  'pictures on one slide': (show, deal) => joinSlides(show, run(show, deal, 4), deal.one(layoutsFor(2))),
  'a slide each again': (show, deal, newId) => partSlide(show, deal.one(show.slides), newId),
  'a picture beside': (show, deal, newId) => {
    const layer = mainLayerOf(slideFromAsset(asset(deal.number(50)), picture(1), 4000, newId));
    return layer?.kind === 'picture' ? addToSlide(show, deal.one(show.slides), layer) : null;
  },
  'coming one by one': (show, deal) => letComeOneByOne(deal.one(show.slides), deal.yes()),
  'a loupe': (show, deal, newId) => {
    const slide = deal.one(show.slides);
    const main = mainLayerOf(slide);
    const places = [
      { x: 0.3, y: 0.4 },
      { x: 0.6, y: 0.5 },
    ].slice(0, 1 + deal.number(2));
    const made = main && makeLoupe(ready(show), slide, main.id, { ...USUAL_LOUPE, places }, layerId(newId()));
    return made?.ok ? made.edit : null;
  },
  'a turnover': (show, deal) => {
    const slide = deal.one(show.slides);
    const main = mainLayerOf(slide);
    const made = main && makeTurnover(ready(show), slide, main.id, { ...USUAL_TURNOVER, back: asset(deal.number(50)) });
    return made?.ok ? made.edit : null;
  },
  'two slides that turn over': (show, deal) => {
    const made = turnoverOfSlides(ready(show), run(show, deal, 2), USUAL_TURNOVER);
    return made.ok ? made.edit : null;
  },
  lanterns: (show, deal, newId) => {
    const plan = { ...USUAL_LANTERNS, pictures: Array.from({ length: 4 + deal.number(8) }, (_, at) => asset(at)) };
    const place = deal.one(['after', 'instead'] as const);
    const made = lanternsOfSlides(ready(show), run(show, deal, 3), plan, null, layerId(newId()), place);
    return made.ok ? made.edit : null;
  },
  'a voice recorded': (show, deal, newId) =>
    takeKept(show, deal.one(show.slides).id, cueId(newId()), {
      ...{ assetId: VOICE, name: 'Take', lengthMs: 7000 },
      ...{ fromMs: deal.number(2000), toMs: 4000 + deal.number(3000) },
    }),
  'another take chosen': (show, deal) => {
    const slide = deal.one(show.slides);
    return takeChosen(show, slide.id, deal.yes() ? null : (slide.sounds[0]?.id ?? null));
  },
  'silence around voices': (show, deal) =>
    breathsSet(show, deal.yes() ? null : run(show, deal, 3), {
      ...{ beforeMs: deal.number(1500), afterMs: deal.number(1500) },
    }),
  'a text laid on slides': (show, deal, newId) => {
    const laid = layText(
      show,
      run(show, deal, 3),
      { text: 'The boats\n\nThe bridge\n\nHome', parts: 'paragraphs', as: 'title' },
      newId,
    );
    return typeof laid === 'string' ? null : laid.edit;
  },
  'a song, tied to slides': (show, deal, newId) => ({
    kind: 'set-cues',
    cues: [
      ...show.cues.slice(0, 3),
      {
        ...songAfter(cueId(newId()), SONG, 2000),
        starts: { at: 'slide', slideId: deal.one(show.slides).id, offsetMs: deal.number(900) },
        ends: deal.yes() ? { at: 'own-end' } : { at: 'slide', slideId: deal.one(show.slides).id, offsetMs: 400 },
      },
    ],
  }),
  'who leads': (_show, deal) => ({ kind: 'set-pace', pace: deal.yes() ? { by: 'music' } : null }),
  'slides removed': (show, deal) => ({ kind: 'remove-slides', slideIds: run(show, deal, 4) }),
  'slides moved': (show, deal) => {
    const slideIds = run(show, deal, 3);
    const others = show.slides.filter(({ id }) => !slideIds.includes(id));
    const afterId = others.length > 0 && deal.yes() ? deal.one(others).id : null;
    return { kind: 'move-slides', runs: [{ slideIds, afterId }] };
  },
  'slides doubled': (show, deal, newId) => {
    const slides = show.slides
      .filter(({ id }) => run(show, deal, 3).includes(id))
      .map((slide) => copyOfSlide(slide, newId));
    const afterId = deal.one(show.slides).id;
    return slides.length > 0 ? { kind: 'add-slides', runs: [{ afterId, slides }] } : null;
  },
  'a clip on a slide of its own': (show, deal, newId) => ({
    kind: 'add-slides',
    runs: [{ afterId: deal.one(show.slides).id, slides: [slideFromAsset(FILM, CLIP, 5000, newId)] }],
  }),
  'a clip split': (show, deal, newId) => {
    const clips = show.slides.filter((slide) => mainLayerOf(slide)?.kind === 'clip');
    if (clips.length === 0) return null;
    const slide = deal.one(clips);
    return clipSplit(show, slide, deal.number(slide.lengthMs), KNOWN, newId);
  },
  'layers grouped': (show, deal, newId) => {
    const slide = deal.one(show.slides);
    const from = deal.number(Math.max(1, slide.layers.length));
    const ids = slide.layers.slice(from, from + 2).map(({ id }) => id);
    const group = ids.length > 0 ? grouped(slide, new Set(ids), layerId(newId()), 'together') : null;
    return group?.ok ? group.edit : null;
  },
  'a group taken apart': (show, deal) => {
    const slide = deal.one(show.slides);
    const groups = [...everyLayer(slide.layers)].filter(({ kind }) => kind === 'group');
    const apart = groups.length > 0 ? ungrouped(slide, deal.one(groups).id, (id) => id, show.frame) : null;
    return apart?.ok ? apart.edit : null;
  },
  'layers doubled': (show, deal, newId) => {
    const slide = deal.one(show.slides);
    const all = [...everyLayer(slide.layers)].map(({ id }) => id);
    return all.length > 0 ? (duplicated(slide, new Set([deal.one(all), deal.one(all)]), newId)?.edit ?? null) : null;
  },
  'a layer stepped nearer or farther': (show, deal) => {
    const slide = deal.one(show.slides);
    const all = [...everyLayer(slide.layers)].map(({ id }) => id);
    return all.length > 0 ? steppedOnce(slide, deal.one(all), deal.yes() ? 1 : -1) : null;
  },
  'a layer removed': (show, deal) => {
    const slide = deal.one(show.slides);
    const all = [...everyLayer(slide.layers)].map(({ id }) => id);
    return all.length > 0 ? { kind: 'remove-layers', slideId: slide.id, layerIds: [deal.one(all)] } : null;
  },
  'a file swapped everywhere': (show, deal) =>
    editBetween(show, withFileSwapped(show, asset(deal.number(30)), asset(deal.number(50))), 'swap a file'),
  'a look given': (show, deal) => {
    const to = show.slides.filter(({ id }) => run(show, deal, 4).includes(id));
    return lookGiven(to, lookOf(deal.one(show.slides)), new Set(LOOK_PARTS), FACTS);
  },
  'songs played again': (show, _deal, newId) => {
    const cues = repeatedCues(show, KNOWN, newId);
    return cues ? { kind: 'set-cues', cues } : null;
  },
  'pictures dropped for the music': (show, deal) => {
    const slideIds = picturesToDrop(show, 8000 + deal.number(90_000));
    return slideIds && slideIds.length > 0 ? { kind: 'remove-slides', slideIds } : null;
  },
  'a run through the show': (show, deal, newId) =>
    runThroughKept(
      show,
      { assetId: VOICE, name: 'Run', lengthMs: 7000, fromMs: 0, toMs: 7000 },
      run(show, deal, 3).map((slideId, at) => ({ slideId, atMs: 300 + 2100 * at })),
      6900,
      () => cueId(newId()),
    ),
  'a script spread': (show, deal) =>
    scriptSpread(
      show.slides.filter(({ id }) => run(show, deal, 3).includes(id)),
      'First the boats.\n\nThen the bridge, in the rain.\n\nThen home.',
    ),
  'a caption added': (show, deal) =>
    captionAdded(
      { show, facts: KNOWN },
      { slideId: deal.one(show.slides).id, language: 'en' },
      deal.number(3000),
      'Nobody had asked for rain.',
    ),
  'a table brought back': (show, deal, newId) => {
    const ids = show.slides.map(({ id }) => id as string);
    const [from, to] = [deal.number(ids.length), deal.number(ids.length)];
    ids.splice(to, 0, ...ids.splice(from, 1));
    const rows = ids.map((id) => [id, String(2 + deal.number(9)), deal.yes() ? 'Said in a table' : '']);
    return readOrderTable(show, [['slide', 'seconds', 'title'], ...rows], newId).edit;
  },
  'a show begun anew': (show, deal, newId) => {
    const point = deal.one(STARTING_POINTS);
    const files = Array.from({ length: 3 + deal.number(20) }, (_, at) => ({
      ...{ assetId: asset(at), fileName: `PE_${at}.jpg`, facts: picture(at) },
    }));
    const { words, most, credits } = point;
    const plumage = SHIPPED_PLUMAGE.find(({ id }) => id === point.plumage)!;
    const logo = { first: deal.yes(), last: deal.yes() };
    const started = startedShow(
      show,
      files,
      { point, plumage, with: point.with, words, most, credits, logo },
      WARDROBE,
      newId,
    );
    return startEdit(show, started, point.name);
  },
};

const ready = (show: Show) => prepareShow(show, KNOWN);
/** Some slides that follow each other. */
function run({ slides }: Show, deal: Deal, most: number): SlideId[] {
  const from = deal.number(slides.length);
  return slides.slice(from, from + 1 + deal.number(most)).map(({ id }: Slide) => id);
}

describe('whatever the app offers, one step after the other', () => {
  it.each(Array.from({ length: 24 }, (_, seed) => [seed + 1]))(
    'can be taken, leaves a show that can be stored, and is undone to the byte (%d)',
    (seed) => {
      const deal = dealer(seed * 7919);
      const newId = counter(`e${seed}-`);
      let show = showOf(14);
      const taken: { name: string; before: Show; inverse: ShowEdit }[] = [];
      for (let step = 0; step < 60; step += 1) {
        // Nothing is offered on an empty show but to begin it.
        const name = show.slides.length < 3 ? 'a show begun anew' : deal.one(Object.keys(OFFERED));
        const offered = OFFERED[name]!(show, deal, newId);
        if (!offered) continue;
        const whole = withItsLengths(show, KNOWN, withItsLoupes(show, KNOWN, withItsPlumage(show, offered))).edit;
        const result = applyEdit(show, whole);
        const way = `${taken.map((one) => one.name).join(', ')}, ${name}`;
        if (!result.ok) throw new Error(`${way}: ${result.sentence}`);
        expect([way, faultOfShow(result.show)]).toEqual([way, null]);
        const back = applyEdit(result.show, result.inverse);
        if (!back.ok) throw new Error(`${way}, undone: ${back.sentence}`);
        expect([way, back.show]).toEqual([way, show]);
        taken.push({ name, before: show, inverse: result.inverse });
        show = result.show;
      }
      expect(taken.length).toBeGreaterThan(25);
      for (const { before, inverse } of taken.toReversed()) {
        const back = applyEdit(show, inverse);
        if (!back.ok) throw new Error(back.sentence);
        show = back.show;
        expect(show).toEqual(before);
      }
    },
  );
});

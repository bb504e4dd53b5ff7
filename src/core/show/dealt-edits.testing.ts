import fc from 'fast-check';
import { HASH, ID, type Schema } from '../schema/schema';
import { arbitraryOf } from '../schema/arbitrary.testing';
import { applyEdit, type ShowEdit } from './edit';
import { EDIT_RECORDS } from './edits/edit-records';
import { SOUND_HOLDER } from './edits/sound-list';
import { songAfter, voiceHere, type PlacedSound } from './placed-sound';
import { assetId, cueId, layerId, showId, slideId, type AssetId } from './ids';
import type { Layer } from './layer';
import { emptyShow, type Show, type Slide } from './show';
import { LAYER_PROPERTIES } from './schemas/layer-schema';
import { SLIDE_LENGTH } from './schemas/slide-schema';
import { FRAME_RATE, FRAME_RATES } from '../timing/frame-rate';

export const [A, B] = [HASH.like.samples[0]!, HASH.like.samples[1]!].map(assetId) as [AssetId, AssetId];

const SLIDE_2 = { at: 'slide', slideId: slideId('2'), offsetMs: 100 } as const;
const SLIDE_3 = { at: 'slide', slideId: slideId('3'), offsetMs: 0 } as const;
/** Slides whose layers mask, follow and hold each other, and two of which name their layers alike. */
const slide = (id: string): Slide => ({
  id: slideId(id),
  lengthMs: 3000,
  transition: { kind: 'dissolve', lengthMs: 500 },
  backing: { kind: 'automatic' },
  sounds: id === '1' ? [{ ...voiceHere(cueId('v'), B, 0), ends: SLIDE_3 }] : [],
  layers: [
    {
      kind: 'picture',
      id: layerId('a'),
      assetId: A,
      move: { kind: 'automatic' },
      channels: {
        x: {
          keys: [
            { at: { tied: 'start', ms: 0 }, value: 0.1 },
            { at: { tied: 'end', ms: 0 }, value: 0.9 },
          ],
        },
      },
    },
    {
      kind: 'group',
      id: layerId('g'),
      layers: [
        {
          kind: 'words',
          id: layerId('b'),
          title: 'Dusk',
          subtitle: '',
          place: 'top',
          tether: { to: layerId('a'), position: true },
        },
      ],
    },
    {
      kind: 'shape',
      id: layerId('c'),
      shape: { kind: 'ellipse' },
      fill: { kind: 'colour', colour: '#ffffff' },
      mask: { by: 'transparency', cuts: [layerId('a'), layerId('b')] },
    },
  ] satisfies Layer[],
});
/** A show whose slides, layers and sounds hold on to one another. */
export const HELD_TOGETHER: Show = {
  ...emptyShow(showId('s'), 'Regatta'),
  slides: ['1', '2', '3'].map(slide),
  cues: [songAfter(cueId('q'), B, 0), { ...songAfter(cueId('r'), B, 0), starts: SLIDE_2, ends: SLIDE_3 }],
  marks: { [A]: 'keep' },
  // Of their day: what is found out about files by newer methods is no change of what edits do.
  methods: { basics: 7, focus: 5, listening: 3 },
};

/** Names that are there come up often enough for edits to meet. */
const SLIDES = fc.constantFrom('1', '2', '3', '3', 'gone');
const LAYERS_THERE = fc.constantFrom('a', 'a', 'b', 'c', 'g', 'gone');
const SOUNDS = fc.constantFrom('q', 'r', 'v', 'gone');
const ANY = fc.oneof(SLIDES, LAYERS_THERE);
const fresh = fc.integer({ min: 0, max: 1e9 }).map((n) => `n${n}`);
/** What is new has a name of its own more often than not, and seldom refers to others. */
const mostly = (usual: fc.Arbitrary<unknown>, seldom: fc.Arbitrary<unknown>) =>
  fc.oneof({ weight: 8, arbitrary: usual }, { weight: 1, arbitrary: seldom });

const specialTo = (kind: ShowEdit['kind']) => {
  const special = (schema: Schema, name: string): fc.Arbitrary<unknown> | null => {
    if (schema === ID) {
      if (name.startsWith('slideId') || name === 'afterId') return SLIDES;
      if (name.startsWith('soundId')) return SOUNDS;
      if (name.startsWith('layerId') || name === 'aboveId' || name === 'into') return LAYERS_THERE;
      if (name === 'id') return kind === 'put-layer' || kind === 'put-slides' ? mostly(ANY, fresh) : mostly(fresh, ANY);
      return ANY;
    }
    if (schema === SOUND_HOLDER) return fc.constantFrom(null, null, '1', '1', 'gone');
    if (schema === FRAME_RATE) return fc.constantFrom(...Object.values(FRAME_RATES));
    // Of shows that are dealt whole, hardly one would have the slides its sounds are tied to, or corrections that suit its layers.
    if (kind !== 'set-sound' && schema.is === 'kinds' && schema.by === 'at' && 'slide' in schema.kinds) {
      const { slide: _tied, ...free } = schema.kinds;
      const tied = arbitraryOf(schema, (inner) => (inner === ID ? SLIDES : null));
      return mostly(arbitraryOf({ ...schema, kinds: free }), tied);
    }
    if (kind !== 'set-shape' && name === 'shapes') return fc.constant(undefined);
    if (schema === SLIDE_LENGTH) return fc.integer({ min: 200, max: 60_000 });
    // Within an edit of properties they are the point; on layers that come new they would mostly lead nowhere.
    if (kind !== 'set-layer-properties' && (schema === LAYER_PROPERTIES.mask || schema === LAYER_PROPERTIES.tether))
      return mostly(
        fc.constant(undefined),
        arbitraryOf(schema, (inner) => (inner === ID ? LAYERS_THERE : null)),
      );
    return null;
  };
  return special;
};
/** Edits of a kind, dealt at random. */
export const edits = (kind: ShowEdit['kind']) =>
  (
    arbitraryOf(
      { is: 'kinds', by: 'kind', kinds: { [kind]: EDIT_RECORDS[kind].parts } },
      specialTo(kind),
    ) as fc.Arbitrary<ShowEdit>
  ).map(beginningWhereItLies);
/** A sound that is added to a slide begins with it, and one of the show with no slide of its own: of several dealt at random hardly ever all would. */
function beginningWhereItLies(edit: ShowEdit): ShowEdit {
  if (edit.kind !== 'add-sounds') return edit;
  const starts = edit.slideId === null ? ({ at: 'after' } as const) : ({ at: 'here', offsetMs: 0 } as const);
  const fits = (sound: PlacedSound) => (sound.starts.at === 'here') === (edit.slideId !== null);
  const runs = edit.runs.map((run) => ({
    ...run,
    sounds: run.sounds.map((sound) => (fits(sound) ? sound : { ...sound, starts })),
  }));
  return { ...edit, runs };
}
export const EDIT_KINDS = Object.keys(EDIT_RECORDS) as ShowEdit['kind'][];
export const anyEdit = fc.oneof(...EDIT_KINDS.map(edits));

/** What the show is after several of them, one after the other; those that are refused, or leave no slide, are left out. */
export function afterStorm(storm: readonly ShowEdit[]): Show {
  return storm.reduce((before: Show, edit) => {
    const result = applyEdit(before, edit);
    return result.ok && result.show.slides.length > 0 ? result.show : before;
  }, HELD_TOGETHER);
}

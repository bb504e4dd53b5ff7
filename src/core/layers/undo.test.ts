import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { applyEdit, type ShowEdit } from '../show/edit';
import { layerId, slideId } from '../show/ids';
import { everyLayer, type Layer } from '../show/layer';
import { LAYER } from '../show/schemas/layer-schema';
import type { Show, Slide } from '../show/show';
import { yupOf } from '../../server/schema/yup-of';
import { withColumnKey, withColumnParked, withKeyGone, withValues, columnKeys } from './column-keys';
import { columnsOf } from './columns';
import { grouped, ungrouped } from './group';
import { newLayer, type NewLayerKind } from './new-layer';
import { leastLengthMs } from '../timing/least-length';
import { disc, edited, FACTS, LENGTH_MS, picture, seen, showOf } from './slides.testing';
import { duplicated, steppedOnce } from './stack';
import { faultOfTie } from './ties';

const KINDS: readonly NewLayerKind[] = ['words', 'rectangle', 'ellipse', 'star', 'gradient', 'solid', 'box', 'group'];

/** What hands on the wide bench do, chosen by numbers; null when that cannot be done now. */
function handOn(slide: Slide, what: number, which: number, other: number, fresh: () => string): ShowEdit | null {
  const layers = [...everyLayer(slide.layers)];
  const layer = layers[which % Math.max(1, layers.length)];
  const second = layers[other % Math.max(1, layers.length)];
  const put = (changed: Layer): ShowEdit => ({ kind: 'put-layer', slideId: slide.id, layer: changed });
  const frame = { widthPx: 1920, heightPx: 1080 };
  if (what === 0 || !layer || !second) {
    const made = newLayer(KINDS[which % KINDS.length]!, frame, fresh);
    return {
      kind: 'add-layers',
      slideId: slide.id,
      runs: [{ into: null, aboveId: layer?.id ?? null, layers: [made] }],
    };
  }
  const columns = columnsOf(layer);
  const column = columns[other % columns.length]!;
  const keys = columnKeys(layer, column, LENGTH_MS);
  switch (what) {
    case 1:
      return put(withColumnKey(layer, column, other % LENGTH_MS, LENGTH_MS));
    case 2:
      return put(
        withValues(
          layer,
          { 'channels/x': (other % 100) / 100, 'channels/y': (which % 100) / 100 },
          other % LENGTH_MS,
          LENGTH_MS,
        ),
      );
    case 3:
      return keys.length > 0 ? put(withKeyGone(layer, keys[other % keys.length]!)) : null;
    case 4:
      return put(withColumnParked(layer, column, other % 2 === 0, which % LENGTH_MS, LENGTH_MS));
    case 5: {
      const made = grouped(slide, new Set([layer.id, second.id]), layerId(fresh()), 'Group');
      return made.ok ? made.edit : null;
    }
    case 6: {
      const made = ungrouped(slide, layer.id, (id) => id, frame);
      return made.ok ? made.edit : null;
    }
    case 7:
      return duplicated(slide, new Set([layer.id]), fresh)?.edit ?? null;
    case 8:
      return steppedOnce(slide, layer.id, other % 2 === 0 ? 1 : -1);
    case 9: {
      const tether = { to: second.id, position: true, size: other % 2 === 0 };
      if (layer === second || faultOfTie(slide.layers, layer.id, { tether }, (id) => id)) return null;
      return { kind: 'set-layer-properties', slideId: slide.id, layerId: layer.id, properties: { tether } };
    }
    case 10: {
      const mask = { by: 'transparency' as const, cuts: [second.id] };
      if (layer === second || faultOfTie(slide.layers, layer.id, { mask }, (id) => id)) return null;
      return { kind: 'set-layer-properties', slideId: slide.id, layerId: layer.id, properties: { mask } };
    }
    default:
      return { kind: 'remove-layers', slideId: slide.id, layerIds: [layer.id] };
  }
}

describe('two hundred edits of layers by hand', () => {
  it('are each taken, leave layers that can be stored, and undone one by one give the first document back', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 11 }), fc.nat(9999), fc.nat(9999)), {
          minLength: 200,
          maxLength: 200,
        }),
        (steps) => {
          const first = showOf([
            picture('base'),
            disc('d'),
            { kind: 'group', id: layerId('g'), layers: [disc('inner')] },
          ]);
          let show: Show = first;
          let count = 0;
          const undo: ShowEdit[] = [];
          for (const [what, which, other] of steps) {
            const edit = handOn(show.slides[0]!, what, which, other, () => `n${(count += 1)}`);
            if (!edit) continue;
            const result = applyEdit(show, edit);
            // More layers than a slide may hold, a group in itself: refused, and nothing happens.
            if (!result.ok) continue;
            show = result.show;
            undo.unshift(result.inverse);
          }
          expect(undo.length).toBeGreaterThan(60);
          for (const layer of show.slides[0]!.layers) yupOf(LAYER).validateSync(layer, { strict: true });
          for (const inverse of undo) show = edited(show, inverse).show;
          expect(show).toEqual(first);
        },
      ),
      { numRuns: 12 },
    );
  });
});

describe('a slide with ten layers', () => {
  it('that is made longer and shorter again comes back identical, frame by frame', () => {
    const x = {
      keys: [
        { at: { tied: 'start' as const, ms: 500 }, value: 0.2 },
        { at: { tied: 'stretch' as const, share: 0.5 }, value: 0.6 },
        { at: { tied: 'end' as const, ms: 700 }, value: 0.4 },
      ],
    };
    const keyed = (index: number) => disc(`d${index}`, { channels: { x, y: index / 10, width: 0.1, height: 0.1 } });
    const show = showOf(Array.from({ length: 10 }, (_, index) => keyed(index)));
    const last = (lengthMs: number): ShowEdit => ({
      kind: 'set-lengths',
      lengths: [{ slideId: slideId('1'), lengthMs, by: null }],
    });
    const longer = edited(show, last(15_000)).show;
    expect(seen(longer)).not.toEqual(seen(show));
    const back = edited(longer, last(LENGTH_MS)).show;
    expect(back).toEqual(show);
    expect(seen(back)).toEqual(seen(show));
  });
});

describe('a ring of ties', () => {
  it('is told by the names of its layers', () => {
    const names: Record<string, string> = { a: 'Rim', b: 'Glass' };
    const layers = [disc('a', { tether: { to: layerId('b'), position: true } }), disc('b')];
    expect(faultOfTie(layers, layerId('b'), { tether: { to: layerId('a'), size: true } }, (id) => names[id]!)).toBe(
      'The layers “Rim”, “Glass” are tethered in a ring, so none of them leads.',
    );
    expect(faultOfTie(layers, layerId('b'), { tether: undefined as never }, (id) => names[id]!)).toBeNull();
  });
});

describe('a slide whose layers go by keys', () => {
  it('lasts until the last key that is tied to its start when the music gives it its length', () => {
    const keyed = (tied: 'start' | 'end', still?: number) =>
      disc('d', {
        channels: { x: { keys: [{ at: { tied, ms: 4200 }, value: 0.3 }], ...(still !== undefined && { still }) } },
      });
    const least = (layer: Layer) => leastLengthMs(showOf([layer]).slides[0]!, FACTS, undefined);
    expect(least(keyed('start'))).toBe(4200);
    expect(least(keyed('end'))).toBeLessThan(1000);
    expect(least(keyed('start', 0.5))).toBeLessThan(1000);
    expect(least({ ...keyed('start'), hidden: true })).toBeLessThan(1000);
  });
});

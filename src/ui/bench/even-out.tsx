'use client';

import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import {
  evenedLight,
  isKeyedLight,
  measureLight,
  unevened,
  withEvened,
  type LightMeasure,
} from '../../core/light/even-out';
import type { ClipLayer, PictureLayer } from '../../core/show/layer';
import type { Light } from '../../core/show/light';
import { Button } from '../kit/button';
import { useShow, useShowStore } from '../show/show-provider';
import type { LayerOnSlide } from './chosen-layers';
import { pixelsOfBitmap, printAlone } from './use-light-pixels';

const MEASURED_PX = 160;

/** Brings the chosen pictures to the brightness and the white of the one that is worked on: for those that were taken in one light. */
export function EvenOut({
  own,
  layers,
}: {
  readonly own: PictureLayer | ClipLayer;
  readonly layers: readonly LayerOnSlide[];
}) {
  const store = useShowStore();
  const edit = useShow((state) => state.edit);
  const [done, setDone] = useState<number | null>(null);
  const gone = useRef(false);
  useEffect(() => {
    gone.current = false;
    return () => {
      gone.current = true;
    };
  }, []);
  const measured = async (layer: PictureLayer | ClipLayer, light: Light | undefined): Promise<LightMeasure | null> => {
    const { show, facts } = store.getState();
    const { light: _before, ...rest } = layer;
    const bitmap = await printAlone(show, light ? { ...rest, light } : rest, facts.get(layer.assetId), MEASURED_PX);
    return bitmap && measureLight(pixelsOfBitmap(bitmap).data);
  };
  const even = async () => {
    setDone(0);
    const aim = await measured(own, own.light);
    if (!aim) {
      setDone(null);
      return void toast('This picture cannot be measured: there is nothing between black and white in it.');
    }
    const lights: { slideId: LayerOnSlide['slideId']; layerId: LayerOnSlide['layer']['id']; light: Light | null }[] =
      [];
    let [short, left] = [0, 0];
    for (const [index, { slideId, layer }] of layers.entries()) {
      if (gone.current) return;
      setDone(index);
      if (layer.id === own.id) continue;
      const found = isKeyedLight(layer.light) ? null : await measured(layer, unevened(layer.light));
      if (!found) {
        left += 1;
        continue;
      }
      const evened = evenedLight(found, aim);
      if (evened.short) short += 1;
      lights.push({ slideId, layerId: layer.id, light: withEvened(layer.light, evened) });
    }
    if (gone.current) return;
    setDone(null);
    if (lights.length > 0) edit({ kind: 'set-light', lights });
    const said = [
      lights.length === 1
        ? 'One picture is evened out with this one.'
        : `${lights.length} pictures are evened out with this one.`,
      ...(short > 0 ? [`${short} only as far as it goes.`] : []),
      ...(left > 0
        ? [`${left} left as they are: their light goes from key to key, or they are all black or white.`]
        : []),
    ];
    toast(said.join(' '));
  };
  return (
    <Button
      className="h-7"
      disabled={done !== null}
      title="Brightness and white of the chosen pictures as in this one"
      onClick={() => void even()}
      data-part="even-out"
    >
      {done === null ? 'even out with this' : `measuring ${done + 1} of ${layers.length} …`}
    </Button>
  );
}

'use client';

import { firstValue } from '../../core/keys/channel';
import { factsInUse } from '../../core/motion/crop';
import { picturesOf } from '../../core/show/layout';
import { comeOneByOne, letComeOneByOne } from '../../core/show/one-by-one';
import type { Slide } from '../../core/show/show';
import { MOST_ROOM_BETWEEN, putIntoWindows, roomBetween, windowsOn, withRoomBetween } from '../../core/show/windows';
import { Amount } from '../kit/amount';
import { Button } from '../kit/button';
import { ColourField } from '../kit/colour-field';
import { withPart } from '../kit/with-part';
import { usePrepared, useShow } from '../show/show-provider';

const MOST_ROUNDING = 0.3;

/** The windows of a slide's pictures together: the room between them, their corners, what is seen there, and how they come. Their borders are dragged in the viewer. */
export function WindowFields({ slide }: { readonly slide: Slide }) {
  const edit = useShow((state) => state.edit);
  const { show, facts } = usePrepared();
  const pictures = picturesOf(slide);
  const windows = windowsOn(slide);
  const room = windows && roomBetween(windows, show.frame);
  const shape = pictures[0]?.edge?.shape;
  const radius = shape?.kind === 'rounded' ? firstValue(shape.radius) : 0;
  const oneByOne = comeOneByOne(slide);
  const sizes = pictures.map((layer) => {
    const known = factsInUse(layer, facts.get(layer.assetId));
    return known && known.kind !== 'sound' ? known : null;
  });
  return (
    <div className="flex flex-col gap-1.5" data-part="window-fields">
      {windows && room !== null && (
        <>
          <Amount
            label="Room between"
            value={Math.round(1000 * Math.min(MOST_ROOM_BETWEEN, room)) / 1000}
            min={0}
            max={MOST_ROOM_BETWEEN}
            rest={0.012}
            shown={`${(100 * room).toFixed(1)} %`}
            onChange={(next) => {
              const windowed = withRoomBetween(windows, show.frame, next);
              const change = putIntoWindows(slide, windowed, sizes, 'change the room between the pictures');
              if (change) edit(change, `room between ${slide.id}`);
            }}
          />
          <p className="text-soft">Drag the borders between the pictures in the viewer.</p>
        </>
      )}
      <Amount
        label="Round corners"
        value={radius}
        min={0}
        max={MOST_ROUNDING}
        rest={0}
        shown={`${Math.round(100 * radius)} %`}
        onChange={(next) =>
          edit(
            {
              kind: 'set-edge',
              edges: pictures.map((layer) => ({
                slideId: slide.id,
                layerId: layer.id,
                edge: withPart(layer.edge, { shape: next === 0 ? undefined : { kind: 'rounded', radius: next } }),
              })),
            },
            `round corners ${slide.id}`,
          )
        }
      />
      <div className="flex flex-wrap items-center gap-2 pt-1">
        <Button
          className="h-7"
          aria-pressed={oneByOne}
          onClick={() => edit(letComeOneByOne(slide, !oneByOne))}
          data-part="one-by-one-in"
        >
          one after the other
        </Button>
        <span className="flex items-center gap-1.5 text-soft">
          between them
          <ColourField
            label="Colour between the pictures"
            value={slide.backing.kind === 'colour' ? slide.backing.colour : '#171513'}
            onChange={(colour) =>
              edit(
                { kind: 'set-backing', slideId: slide.id, backing: { kind: 'colour', colour } },
                `between ${slide.id}`,
              )
            }
          />
        </span>
      </div>
    </div>
  );
}

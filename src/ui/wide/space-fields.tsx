'use client';

import { valueAt, type Channel } from '../../core/keys/channel';
import { withValues } from '../../core/layers/column-keys';
import { USUAL_DISTANCE } from '../../core/frame/slide-moment';
import type { GroupLayer, Space } from '../../core/show/layer';
import { Button } from '../kit/button';
import { NumberField } from '../kit/number-field';
import { Line } from './stand-fields';
import { useOpenSlide } from './use-slide';
import { useWide } from './wide-store';

/** A group's space and the camera it is seen by. */
export function SpaceFields({ group }: { group: GroupLayer }) {
  const { seenMs, put } = useOpenSlide();
  const offsetMs = useWide((state) => state.offsetMs);
  const { space } = group;
  const now = (channel: Channel | undefined, usual: number) =>
    channel === undefined ? usual : valueAt(channel, offsetMs, seenMs);
  const field = (
    label: string,
    name: keyof Space,
    least: number,
    most: number,
    { usual = 0, digits = 2, step = 0.05, unit = '' } = {},
  ) => (
    <NumberField
      label={label}
      value={now(space?.[name], usual)}
      min={least}
      max={most}
      step={step}
      digits={digits}
      unit={unit}
      onCommit={(value) =>
        put(
          'move the camera',
          withValues(group, { [`space/${name}`]: value }, offsetMs, seenMs),
          `camera ${group.id} ${name}`,
        )
      }
      className="[&>input]:w-14"
    />
  );
  return (
    <section aria-label="Space" className="flex flex-col gap-1.5" data-part="space-fields">
      <Button
        className="h-7 self-start"
        aria-pressed={Boolean(space)}
        title="What lies in it stands in one space: nearer covers farther, whatever the order of the pile"
        onClick={() => {
          if (!space) return put('give the group a space', { ...group, space: {} });
          const { space: _gone, ...flat } = group;
          return put('lay the group flat', flat);
        }}
      >
        a space of its own
      </Button>
      {space && (
        <>
          <Line layer={group} column="distance" name="camera">
            {field('Distance of the camera, heights of the frame', 'distance', 0.1, 100, { usual: USUAL_DISTANCE })}
          </Line>
          <Line layer={group} column="camera" name="stands">
            {field('Camera to the right, widths of the frame', 'x', -100, 100)}
            {field('Camera downwards, heights of the frame', 'y', -100, 100)}
            {field('Camera nearer, heights of the frame', 'z', -100, 100)}
          </Line>
          <Line layer={group} column="look" name="looks">
            {field('The camera’s turn, degrees', 'turnDegrees', -36_000, 36_000, { digits: 1, step: 1 })}
            {field('The camera looks up, degrees', 'tiltXDegrees', -36_000, 36_000, { digits: 1, step: 1 })}
            {field('The camera looks right, degrees', 'tiltYDegrees', -36_000, 36_000, {
              digits: 1,
              step: 1,
              unit: '°',
            })}
          </Line>
        </>
      )}
    </section>
  );
}

'use client';

import type { Framing } from '../../core/motion/framing';
import { NumberField } from '../kit/number-field';

export type FramingName = 'first' | 'middle' | 'last';

interface FramingTableProps {
  readonly framings: readonly { readonly name: FramingName; readonly framing: Framing }[];
  readonly onChange: (which: FramingName, part: Partial<Framing>) => void;
}

const SIGNS: Record<FramingName, readonly [word: string, sign: string]> = {
  first: ['First', '⌜⌟'],
  middle: ['Between', '◇'],
  last: ['Last', '▭'],
};

/** The framings of a move as numbers. */
export function FramingTable({ framings, onChange }: FramingTableProps) {
  return (
    <table className="-mx-1 border-separate border-spacing-x-1 border-spacing-y-1">
      <thead>
        <tr className="text-left text-soft">
          <th className="font-normal">
            <span className="sr-only">framing</span>
          </th>
          <th className="font-normal">across</th>
          <th className="font-normal">down</th>
          <th className="font-normal">width %</th>
          <th className="font-normal">turn °</th>
        </tr>
      </thead>
      <tbody>
        {framings.map(({ name, framing }) => {
          const field = (
            label: string,
            value: number,
            bounds: readonly [number, number],
            part: (value: number) => Partial<Framing>,
          ) => (
            <td>
              <NumberField
                label={`${name} framing, ${label}`}
                value={value}
                min={bounds[0]}
                max={bounds[1]}
                onCommit={(typed) => onChange(name, part(typed))}
              />
            </td>
          );
          return (
            <tr key={name}>
              <th scope="row" className="pr-1 text-left">
                {SIGNS[name][0]} <span aria-hidden="true">{SIGNS[name][1]}</span>
              </th>
              {field('centre across, percent', framing.x * 100, [-100, 200], (value) => ({ x: value / 100 }))}
              {field('centre down, percent', framing.y * 100, [-100, 200], (value) => ({ y: value / 100 }))}
              {field('width, percent', framing.width * 100, [2, 1000], (value) => ({
                width: value / 100,
                height: (framing.height * value) / 100 / framing.width,
              }))}
              {field('turn, degrees', framing.turnDegrees, [-360, 360], (value) => ({ turnDegrees: value }))}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

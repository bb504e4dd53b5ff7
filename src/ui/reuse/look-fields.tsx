'use client';

import type { Look } from '../../core/mounts/mount';
import type { Palette } from '../../core/plumage/plumage';
import { FONT_NAMES, type FontName } from '../../core/show/words';
import { FONTS } from '../bench/words-fonts';
import { ColourField } from '../kit/colour-field';
import { NumberField } from '../kit/number-field';
import { Pick } from '../kit/pick';

const COLOURS: readonly [keyof Palette, string][] = [
  ['ink', 'ink: dark, for words and grounds'],
  ['paper', 'paper: light, for words and grounds'],
  ['accent', 'accent: lines, fields'],
  ['soft', 'soft: between ink and paper'],
];
const OPTIONS = FONT_NAMES.map((value: FontName) => ({
  value,
  label: FONTS[value].label,
  family: FONTS[value].family,
}));

/** The letters and colours of a studio or a plumage. */
export function LookFields({ look, onChange }: { look: Look; onChange: (look: Look) => void }) {
  const { letters, palette } = look;
  return (
    <div className="flex flex-col gap-2.5" data-part="look-fields">
      <span className="flex flex-wrap items-center gap-2">
        <span className="w-20 text-soft">titles</span>
        <Pick
          label="Font of titles"
          value={letters.title}
          groups={[{ name: null, options: OPTIONS }]}
          onChange={(title) => onChange({ ...look, letters: { ...letters, title } })}
        />
        <NumberField
          label="Weight of titles"
          value={letters.weight}
          min={100}
          max={900}
          step={100}
          digits={0}
          unit="weight"
          onCommit={(weight) => onChange({ ...look, letters: { ...letters, weight } })}
        />
      </span>
      <span className="flex items-center gap-2">
        <span className="w-20 text-soft">below them</span>
        <Pick
          label="Font below titles"
          value={letters.text}
          groups={[{ name: null, options: OPTIONS }]}
          onChange={(text) => onChange({ ...look, letters: { ...letters, text } })}
        />
      </span>
      <span className="flex flex-wrap gap-x-5 gap-y-2">
        {COLOURS.map(([name, label]) => (
          <span key={name} className="flex items-center gap-2">
            <ColourField
              label={`Colour ${label}`}
              value={palette[name]}
              onChange={(colour) => onChange({ ...look, palette: { ...palette, [name]: colour } })}
            />
            <span aria-hidden="true" className="text-soft">
              {name}
            </span>
          </span>
        ))}
      </span>
    </div>
  );
}

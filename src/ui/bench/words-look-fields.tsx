'use client';

import type { WordsText } from '../../core/show/edit';
import { FONT_NAMES, WORDS_UNITS, WORDS_WAYS, type FontName, type WordsCome, type WordsStyle, type WordsUnit, type WordsWay } from '../../core/show/words';
import { Choice } from '../kit/choice';
import { ColourField } from '../kit/colour-field';
import { NumberField } from '../kit/number-field';
import { Pick, plainOptions } from '../kit/pick';

const FONTS: Record<FontName, string> = { bricolage: 'Bricolage', instrument: 'Instrument', 'spline-mono': 'Spline Mono', fraunces: 'Fraunces', caveat: 'Caveat' };
const WAYS: Record<WordsWay, string> = { none: 'are there', fade: 'fade in', rise: 'rise', type: 'are typed', wipe: 'are wiped in', blur: 'come out of a blur' };
const USUAL_SIZE = 0.082;
const USUAL_COME: WordsCome = { entrance: { way: 'fade', by: 'all', atMs: 800, lengthMs: 600 }, exit: null };

/** How words look, come and go. */
export function WordsLookFields({ text, onChange }: { text: WordsText; onChange: (next: Partial<WordsText>) => void }) {
  const style = text.style ?? {};
  const come = text.come ?? USUAL_COME;
  const restyle = (part: Partial<WordsStyle>) => onChange({ style: { ...style, ...part } });
  const enter = (part: Partial<WordsCome['entrance']>) => {
    const entrance = { ...come.entrance, ...part };
    // By word or letter it takes its time.
    const lengthMs = part.by && !text.come ? { all: 600, line: 900, word: 1400, letter: 1800 }[part.by] : entrance.lengthMs;
    onChange({ come: { ...come, entrance: { ...entrance, lengthMs } } });
  };
  return (
    <div className="flex flex-col gap-2" data-part="words-look">
      <div className="flex flex-wrap items-center gap-2">
        <Pick label="Font" value={style.font ?? 'bricolage'} groups={[{ name: null, options: FONT_NAMES.map((value) => ({ value, label: FONTS[value] })) }]} onChange={(font) => restyle({ font })} />
        <NumberField label="Size of the title, percent of the frame" value={(style.size ?? USUAL_SIZE) * 100} min={1} max={50} unit="%" onCommit={(size) => restyle({ size: size / 100 })} />
        <ColourField label="Colour of the words" value={style.colour ?? '#ffffff'} onChange={(colour) => restyle({ colour })} />
        <Choice label="Behind the words" value={style.box ? 'box' : style.shadow === 'none' ? 'none' : 'shadow'} onChange={(behind) => onChange({ style: withBehind(style, behind) })} options={[{ value: 'shadow', label: 'shadow' }, { value: 'box', label: 'box' }, { value: 'none', label: 'nothing' }]} />
      </div>
      <div className="flex flex-wrap items-center gap-2">
        <span className="text-soft">They</span>
        <Pick label="Entrance" value={come.entrance.way} groups={[{ name: null, options: WORDS_WAYS.map((value) => ({ value, label: WAYS[value] })) }]} onChange={(way) => enter({ way })} />
        <span className="text-soft">by</span>
        <Pick label="Entrance by" value={come.entrance.by} groups={[{ name: null, options: plainOptions<WordsUnit>(WORDS_UNITS) }]} onChange={(by) => enter({ by })} />
        <NumberField label="Entrance begins after, seconds" value={come.entrance.atMs / 1000} min={0} max={600} step={0.1} unit="s in" onCommit={(seconds) => enter({ atMs: Math.round(seconds * 1000) })} />
        <NumberField label="Entrance takes, seconds" value={come.entrance.lengthMs / 1000} min={0} max={60} step={0.1} unit="s long" onCommit={(seconds) => enter({ lengthMs: Math.round(seconds * 1000) })} />
        <label className="flex items-center gap-1.5"><input type="checkbox" checked={come.exit !== null} onChange={(event) => onChange({ come: { ...come, exit: event.target.checked ? { way: come.entrance.way === 'none' ? 'fade' : come.entrance.way, by: come.entrance.by, atMs: 300, lengthMs: 600 } : null } })} />and go before the slide ends</label>
      </div>
    </div>
  );
}

function withBehind(style: WordsStyle, behind: 'shadow' | 'box' | 'none'): WordsStyle {
  const { box: _box, shadow: _shadow, ...rest } = style;
  if (behind === 'box') return { ...rest, shadow: 'none', box: { colour: '#171513', opacity: 0.75, padding: 0.35, radius: 0.15 } };
  return behind === 'none' ? { ...rest, shadow: 'none' } : rest;
}

'use client';

import { firstColour, type ColourChannel } from '../../core/keys/colour';
import { isKeyed } from '../../core/keys/edit-keys';
import type { WordsText } from '../../core/show/words-of-slide';
import {
  FONT_NAMES,
  WORDS_UNITS,
  WORDS_WAYS,
  type WordsCome,
  type WordsPassage,
  type WordsStyle,
  type WordsUnit,
  type WordsWay,
} from '../../core/show/words';
import { Choice } from '../kit/choice';
import { ColourField } from '../kit/colour-field';
import { NumberField } from '../kit/number-field';
import { Pick, plainOptions } from '../kit/pick';
import { withPart } from '../kit/with-part';
import { PictureColours } from './picture-colours';
import { FONTS, OWN_PAIR, PAIRS, pairOf } from './words-fonts';
import { mainLayerOf, type Slide } from '../../core/show/show';
import { TITLE_SIZE } from '../../core/words/sizes';
import { usePrepared } from '../show/show-provider';
import { WordsPaceFields } from './words-pace-fields';
import { WordsPartsFields } from './words-parts-fields';
import { WordsStrip } from './words-strip';

const WAYS: Record<WordsWay, string> = {
  none: 'are there',
  fade: 'fade in',
  rise: 'rise',
  type: 'are typed',
  wipe: 'are wiped in',
  blur: 'come out of a blur',
};
const WAYS_OUT: Record<WordsWay | 'stay', string> = {
  stay: 'stay to the end',
  none: 'are gone',
  fade: 'fade out',
  rise: 'rise away',
  type: 'are taken back',
  wipe: 'are wiped out',
  blur: 'go into a blur',
};
const USUAL_WEIGHT = 700;
const USUAL_COME: WordsCome = { entrance: { way: 'fade', by: 'all', atMs: 800, lengthMs: 600 }, exit: null };
const USUAL_EXIT: WordsPassage = { way: 'fade', by: 'all', atMs: 300, lengthMs: 600 };

interface WordsLookFieldsProps {
  readonly slide: Slide;
  readonly text: WordsText;
  readonly onChange: (next: Partial<WordsText>) => void;
}

/** How words look, come and go. */
export function WordsLookFields({ slide, text, onChange }: WordsLookFieldsProps) {
  const { spans } = usePrepared();
  const span = spans.find(({ slideId }) => slideId === slide.id);
  const picture = mainLayerOf(slide);
  const style = text.style ?? {};
  const come = text.come ?? USUAL_COME;
  const restyle = (part: Partial<Record<keyof WordsStyle, unknown>>) =>
    onChange({ style: withPart(style, part) ?? {} });
  const enter = (part: Partial<WordsCome['entrance']>) => {
    const entrance = { ...come.entrance, ...part };
    // By word or letter it takes its time.
    const lengthMs =
      part.by && !text.come ? { all: 600, line: 900, word: 1400, letter: 1800 }[part.by] : entrance.lengthMs;
    onChange({ come: { ...come, entrance: { ...entrance, lengthMs } } });
  };
  const leave = (part: Partial<WordsPassage> | null) =>
    onChange({ come: { ...come, exit: part && { ...USUAL_EXIT, by: come.entrance.by, ...come.exit, ...part } } });
  return (
    <div className="flex flex-col gap-2" data-part="words-look">
      <div className="flex flex-wrap items-center gap-2">
        <Pick
          label="Pair of fonts"
          value={pairOf(style)}
          groups={[
            {
              name: null,
              options: [
                ...PAIRS.map(({ name, title }) => ({ value: name, label: name, family: FONTS[title].family })),
                ...(pairOf(style) === OWN_PAIR ? [{ value: OWN_PAIR, label: OWN_PAIR }] : []),
              ],
            },
          ]}
          onChange={(name) => {
            const pair = PAIRS.find((one) => one.name === name);
            if (pair) restyle({ font: pair.title, subtitleFont: pair.text });
          }}
        />
        <Pick
          label="Font"
          value={style.font ?? 'bricolage'}
          groups={[{ name: null, options: FONT_NAMES.map((value) => ({ value, ...FONTS[value] })) }]}
          onChange={(font) => restyle({ font })}
        />
        <NumberField
          label="Size of the title, percent of the frame"
          value={(style.size ?? TITLE_SIZE) * 100}
          min={1}
          max={50}
          unit="%"
          onCommit={(size) => restyle({ size: size / 100 })}
        />
        <ColourField
          label="Colour of the words"
          value={firstColour(style.colour, '#ffffff')}
          keyed={isKeyed(style.colour)}
          onChange={(colour) => restyle({ colour })}
        />
        <ColourField
          label="Colour of the subtitle"
          value={firstColour(style.accent ?? style.colour, '#ffffff')}
          keyed={isKeyed(style.accent)}
          onChange={(accent) => restyle({ accent })}
        />
        <Choice
          label="Behind the words"
          value={style.box ? 'box' : style.shadow === 'none' ? 'none' : 'shadow'}
          onChange={(behind) => onChange({ style: withBehind(style, behind) })}
          options={[
            { value: 'shadow', label: 'shadow' },
            { value: 'box', label: 'box' },
            { value: 'none', label: 'nothing' },
          ]}
        />
        {style.box && (
          <ColourField
            label="Colour of the box"
            value={style.box.colour}
            onChange={(colour) => restyle({ box: { ...style.box, colour } })}
          />
        )}
      </div>
      <div className="flex flex-wrap items-center gap-2">
        <span className="text-soft">They</span>
        <Pick
          label="Entrance"
          value={come.entrance.way}
          groups={[{ name: null, options: WORDS_WAYS.map((value) => ({ value, label: WAYS[value] })) }]}
          onChange={(way) => enter({ way })}
        />
        <span className="text-soft">by</span>
        <Pick
          label="Entrance by"
          value={come.entrance.by}
          groups={[{ name: null, options: plainOptions<WordsUnit>(WORDS_UNITS) }]}
          onChange={(by) => enter({ by })}
        />
        <NumberField
          label="Entrance begins after, seconds"
          value={come.entrance.atMs / 1000}
          min={0}
          max={600}
          step={0.1}
          unit="s in"
          onCommit={(seconds) => enter({ atMs: Math.round(seconds * 1000) })}
        />
        <NumberField
          label="Entrance takes, seconds"
          value={come.entrance.lengthMs / 1000}
          min={0}
          max={60}
          step={0.1}
          unit="s long"
          onCommit={(seconds) => enter({ lengthMs: Math.round(seconds * 1000) })}
        />
        <WordsPaceFields
          passage={come.entrance}
          which="Entrance"
          onChange={(pace) => onChange({ come: { ...come, entrance: withPace(come.entrance, pace) } })}
        />
      </div>
      <div className="flex flex-wrap items-center gap-2">
        <span className="text-soft">and</span>
        <Pick
          label="Exit"
          value={come.exit?.way ?? 'stay'}
          groups={[
            {
              name: null,
              options: (['stay', ...WORDS_WAYS] as const).map((value) => ({ value, label: WAYS_OUT[value] })),
            },
          ]}
          onChange={(way) => leave(way === 'stay' ? null : { way })}
        />
        {come.exit && (
          <>
            <span className="text-soft">by</span>
            <Pick
              label="Exit by"
              value={come.exit.by}
              groups={[{ name: null, options: plainOptions<WordsUnit>(WORDS_UNITS) }]}
              onChange={(by) => leave({ by })}
            />
            <NumberField
              label="Exit is over before the slide’s end, seconds"
              value={come.exit.atMs / 1000}
              min={0}
              max={600}
              step={0.1}
              unit="s before"
              onCommit={(seconds) => leave({ atMs: Math.round(seconds * 1000) })}
            />
            <NumberField
              label="Exit takes, seconds"
              value={come.exit.lengthMs / 1000}
              min={0}
              max={60}
              step={0.1}
              unit="s long"
              onCommit={(seconds) => leave({ lengthMs: Math.round(seconds * 1000) })}
            />
            <WordsPaceFields
              passage={come.exit}
              which="Exit"
              onChange={(pace) => onChange({ come: { ...come, exit: withPace(come.exit!, pace) } })}
            />
          </>
        )}
      </div>
      {span && !text.travel && <WordsStrip come={come} span={span} onChange={(next) => onChange({ come: next })} />}
      {picture && <PictureColours layer={picture} onTake={restyle} />}
      <details>
        <summary className="cursor-pointer text-soft hover:text-ink">Letters, lines and outline</summary>
        <div className="mt-2 grid grid-cols-2 items-center gap-x-4 gap-y-1.5">
          <span className="flex items-center justify-between gap-2">
            weight{' '}
            <NumberField
              label="Weight of the letters"
              value={style.weight ?? USUAL_WEIGHT}
              min={100}
              max={900}
              step={50}
              digits={0}
              onCommit={(weight) => restyle({ weight: Math.round(weight) })}
            />
          </span>
          <span className="flex items-center justify-between gap-2">
            letters{' '}
            <Choice
              label="How letters stand"
              value={style.italic ? 'lean' : 'upright'}
              options={[
                { value: 'upright', label: 'upright' },
                { value: 'lean', label: 'lean' },
              ]}
              onChange={(stand) => restyle({ italic: stand === 'lean' ? true : undefined })}
            />
          </span>
          <span className="flex items-center justify-between gap-2">
            lines{' '}
            <Pick
              label="Lines are set"
              value={style.align ?? 'place'}
              groups={[
                {
                  name: null,
                  options: [
                    { value: 'place' as const, label: 'as they stand' },
                    { value: 'left' as const, label: 'to the left' },
                    { value: 'centre' as const, label: 'centred' },
                    { value: 'right' as const, label: 'to the right' },
                  ],
                },
              ]}
              onChange={(align) => restyle({ align: align === 'place' ? undefined : align })}
            />
          </span>
          <span className="flex items-center justify-between gap-2">
            letters apart{' '}
            <NumberField
              label="Letters apart, percent of their size"
              value={(style.letterSpacing ?? 0) * 100}
              min={-20}
              max={200}
              unit="%"
              onCommit={(value) => restyle({ letterSpacing: value === 0 ? undefined : value / 100 })}
            />
          </span>
          <span className="flex items-center justify-between gap-2">
            lines apart{' '}
            <NumberField
              label="Lines apart, percent of the usual"
              value={(style.lineSpacing ?? 1) * 100}
              min={50}
              max={400}
              step={5}
              digits={0}
              unit="%"
              onCommit={(value) => restyle({ lineSpacing: value === 100 ? undefined : value / 100 })}
            />
          </span>
          <span className="flex items-center justify-between gap-2">
            widest line{' '}
            <NumberField
              label="Widest line, percent of the frame"
              value={(style.measure ?? 0.8) * 100}
              min={10}
              max={100}
              step={5}
              digits={0}
              unit="%"
              onCommit={(value) => restyle({ measure: value / 100 })}
            />
          </span>
          <span className="flex items-center justify-between gap-2">
            outline
            <span className="flex items-center gap-1.5">
              {style.outline && (
                <ColourField
                  label="Colour of the outline"
                  value={style.outline.colour}
                  onChange={(colour) => restyle({ outline: { ...style.outline, colour } })}
                />
              )}
              <NumberField
                label="Outline, percent of the letters’ size"
                value={(style.outline?.width ?? 0) * 100}
                min={0}
                max={50}
                unit="%"
                onCommit={(width) =>
                  restyle({
                    outline:
                      width === 0 ? undefined : { colour: style.outline?.colour ?? '#171513', width: width / 100 },
                  })
                }
              />
            </span>
          </span>
        </div>
      </details>
      <details>
        <summary className="cursor-pointer text-soft hover:text-ink">
          A part of a line{style.parts ? ` · ${style.parts.length}` : ''}
        </summary>
        <WordsPartsFields
          parts={style.parts ?? []}
          text={`${text.title} ${text.subtitle}`}
          onChange={(parts) => restyle({ parts: parts.length > 0 ? parts : undefined })}
        />
      </details>
    </div>
  );
}

/** What is undefined is left out. */
function withPace(
  passage: WordsPassage,
  pace: { readonly easing?: WordsPassage['easing'] | undefined; readonly stagger?: number | undefined },
): WordsPassage {
  const said = Object.entries({ ...passage, ...pace }).filter(([, value]) => value !== undefined);
  return Object.fromEntries(said) as unknown as WordsPassage;
}

function withBehind(style: WordsStyle<ColourChannel>, behind: 'shadow' | 'box' | 'none'): WordsStyle<ColourChannel> {
  const { box: _box, shadow: _shadow, ...rest } = style;
  if (behind === 'box')
    return { ...rest, shadow: 'none', box: { colour: '#171513', opacity: 0.75, padding: 0.35, radius: 0.15 } };
  return behind === 'none' ? { ...rest, shadow: 'none' } : rest;
}

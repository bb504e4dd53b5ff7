'use client';

import { RadioGroup } from 'radix-ui';
import { nanoid } from 'nanoid';
import { useRef, type SyntheticEvent } from 'react';
import { isMoving } from '../../core/keys/edit-keys';
import { layerId } from '../../core/show/ids';
import type { WordsLayer } from '../../core/show/layer';
import { textOf } from '../../core/show/words-of-slide';
import { wordsOf, type Slide } from '../../core/show/show';
import type { WordsPlace } from '../../core/show/words';
import type { WordsText } from '../../core/show/words-of-slide';
import { runCommand } from '../commands/use-commands';
import { ReadsBest } from '../snags/reads-best';
import { WordsFill } from './words-fill';
import { WordsLookFields } from './words-look-fields';
import { WordsTravelFields } from './words-travel-fields';
import { useShow } from '../show/show-provider';
import { useGoToWords } from '../show/use-go-to-words';
import { useChosenSlides } from './chosen-layers';

const PLACES: readonly WordsPlace[] = [
  'top-left',
  'top',
  'top-right',
  'left',
  'centre',
  'right',
  'bottom-left',
  'bottom',
  'bottom-right',
];

/** What stands on the slide, and where. */
export function WordsTab({ slide }: { slide: Slide }) {
  const edit = useShow((state) => state.edit);
  const goToWords = useGoToWords();
  const fresh = useRef(nanoid(10));
  /** Where the fields that fill themselves are put in: where something was typed last. */
  const typedIn = useRef<{ part: 'title' | 'subtitle'; at: number } | null>(null);
  const noted = (part: 'title' | 'subtitle', event: SyntheticEvent<HTMLTextAreaElement>) => {
    typedIn.current = { part, at: event.currentTarget.selectionEnd };
  };
  const insert = (field: string) => {
    const { part, at } = typedIn.current ?? { part: 'title' as const, at: text.title.length };
    const before = text[part];
    typedIn.current = { part, at: at + field.length };
    change({ [part]: `${before.slice(0, at)}${field}${before.slice(at)}` });
  };
  const words = wordsOf(slide);
  const text: WordsText = words ? textOf(words) : { title: '', subtitle: '', place: 'bottom-left' };
  const others = useChosenSlides(slide).flatMap((other) => {
    const there = wordsOf(other);
    return there && other.id !== slide.id ? [{ slide: other, words: there }] : [];
  });
  /** How words look, stand, come and go is changed on every chosen slide that has some; what they say, only here. */
  const restyle = (next: Partial<WordsText>) => {
    if (!words || others.length === 0) return change(next);
    edit(
      {
        kind: 'together',
        name: `change the look of the words on ${others.length + 1} slides`,
        edits: [
          { kind: 'set-words', slideId: slide.id, layerId: words.id, words: { ...text, ...next } },
          ...others.map((other) => ({
            kind: 'set-words' as const,
            slideId: other.slide.id,
            layerId: other.words.id,
            words: { ...textOf(other.words), ...next },
          })),
        ],
      },
      `words look ${slide.id}`,
    );
  };
  /** Put to a place they stand in it, also when they were dragged somewhere else before. */
  const stand = (place: WordsPlace) => {
    if (!words) return;
    const all = [{ slide, words }, ...others];
    edit({
      kind: 'together',
      name: all.length > 1 ? `place the words on ${all.length} slides` : 'place the words',
      edits: all.flatMap((other) => [
        {
          kind: 'set-words' as const,
          slideId: other.slide.id,
          layerId: other.words.id,
          words: { ...textOf(other.words), place },
        },
        ...(isDragged(other.words)
          ? [
              {
                kind: 'set-channels' as const,
                slideId: other.slide.id,
                layerId: other.words.id,
                channels: { x: null, y: null },
              },
            ]
          : []),
      ]),
    });
  };
  const change = (next: Partial<WordsText>) => {
    const all = { ...text, ...next };
    const empty = all.title === '' && all.subtitle === '';
    if (empty && !words) return;
    edit(
      { kind: 'set-words', slideId: slide.id, layerId: words?.id ?? layerId(fresh.current), words: empty ? null : all },
      `words ${slide.id}`,
    );
    if (empty) fresh.current = nanoid(10);
    else goToWords(slide.id, words?.id ?? layerId(fresh.current));
  };
  return (
    <div className="flex flex-col gap-3">
      <div className="flex gap-5">
        <div className="flex flex-1 flex-col gap-2">
          <label className="flex flex-col gap-1">
            Title
            <textarea
              rows={2}
              maxLength={2000}
              value={text.title}
              onSelect={(event) => noted('title', event)}
              onKeyDown={(event) => event.stopPropagation()}
              onChange={(event) => change({ title: event.target.value })}
              className="resize-y rounded-md border border-rule bg-field px-2 py-1 font-display text-base font-semibold"
            />
          </label>
          <label className="flex flex-col gap-1">
            Subtitle
            <textarea
              rows={2}
              maxLength={2000}
              value={text.subtitle}
              onSelect={(event) => noted('subtitle', event)}
              onKeyDown={(event) => event.stopPropagation()}
              onChange={(event) => change({ subtitle: event.target.value })}
              className="resize-y rounded-md border border-rule bg-field px-2 py-1"
            />
          </label>
          <WordsFill slide={slide} title={text.title} subtitle={text.subtitle} onInsert={insert} />
          <p className="text-xs">
            <button
              type="button"
              onClick={() => runCommand('paste-text')}
              className="text-soft underline underline-offset-4 hover:text-ink"
              data-part="paste-text"
            >
              A text for many slides …
            </button>
          </p>
        </div>
        <div>
          <p id="place" className="mb-1">
            Place
          </p>
          <RadioGroup.Root
            aria-labelledby="place"
            disabled={!words}
            value={text.place}
            onValueChange={(place) => stand(place as WordsPlace)}
            className="grid grid-cols-3 gap-1 rounded-md bg-surround p-2"
          >
            {PLACES.map((place) => (
              <RadioGroup.Item
                key={place}
                value={place}
                aria-label={place.replace('-', ' ')}
                className="grid h-7 w-10 place-items-center rounded-sm border border-white/20 text-lamp data-[state=checked]:bg-lamp data-[state=checked]:text-black disabled:opacity-40"
              >
                <span aria-hidden="true" className="h-[3px] w-5 rounded-full bg-current" />
              </RadioGroup.Item>
            ))}
          </RadioGroup.Root>
        </div>
      </div>
      {words ? (
        <>
          <ReadsBest slideId={slide.id} words={words} />
          <WordsLookFields slide={slide} text={text} onChange={restyle} />
          <WordsTravelFields slide={slide} text={text} onChange={change} />
          {others.length > 0 && (
            <p className="text-soft">
              The look applies to the words of all <b className="tabular text-ink">{others.length + 1}</b> chosen slides
              that have some.
            </p>
          )}
        </>
      ) : (
        <p className="text-soft">Type here, or double-click in the viewer. The picture keeps moving under the words.</p>
      )}
    </div>
  );
}

/** They were moved by hand and do not go from key to key. */
function isDragged({ channels }: WordsLayer): boolean {
  const [x, y] = [channels?.x, channels?.y];
  return (x !== undefined || y !== undefined) && !isMoving(x) && !isMoving(y);
}

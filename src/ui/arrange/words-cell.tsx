'use client';

import { nanoid } from 'nanoid';
import { memo, useEffect, useRef } from 'react';
import type { WordsText } from '../../core/show/words-of-slide';
import { layerId } from '../../core/show/ids';
import { wordsOf, type Slide } from '../../core/show/show';
import { textOf } from '../../core/show/words-of-slide';
import { useShow } from '../show/show-provider';
import { useGoToWords } from '../show/use-go-to-words';

interface WordsCellProps {
  readonly slide: Slide;
  readonly typing: boolean;
  readonly selected: boolean;
  /** To type this slide's words; null when that is done. */
  readonly onType: (slide: Slide | null) => void;
}

/** The words of a slide, typed in place. */
export const WordsCell = memo(function WordsCell({ slide, typing, selected, onType }: WordsCellProps) {
  const edit = useShow((state) => state.edit);
  const goToWords = useGoToWords();
  const first = useRef<HTMLTextAreaElement>(null);
  const newLayer = useRef(nanoid(10));
  const words = wordsOf(slide);
  const title = words?.title ?? '';
  const subtitle = words?.subtitle ?? '';
  useEffect(() => {
    if (typing) first.current?.select();
  }, [typing]);

  const change = (next: { title?: string; subtitle?: string }) => {
    const text: WordsText = { ...(words ? textOf(words) : { title, subtitle, place: 'bottom-left' }), ...next };
    const empty = text.title === '' && text.subtitle === '';
    if (empty && !words) return;
    if (!words) newLayer.current = nanoid(10);
    edit(
      {
        kind: 'set-words',
        slideId: slide.id,
        layerId: words?.id ?? layerId(newLayer.current),
        words: empty ? null : text,
      },
      `words ${slide.id}`,
    );
    if (!empty) goToWords(slide.id, words?.id ?? layerId(newLayer.current));
  };

  if (!typing) {
    return (
      <button
        type="button"
        onClick={(event) => {
          event.stopPropagation();
          onType(slide);
        }}
        className="group/words flex h-full w-full cursor-text flex-col items-stretch justify-start overflow-hidden pt-1 text-left"
      >
        {title && <span className="block truncate font-display text-base font-semibold whitespace-pre">{title}</span>}
        {subtitle && <span className="block truncate text-soft">{subtitle}</span>}
        {slide.script && <span className="block truncate text-xs text-moss italic">“{slide.script}”</span>}
        {!title && !subtitle && !slide.script && (
          <span className={selected ? 'text-plum' : 'text-soft group-hover/words:text-plum'}>+ words</span>
        )}
        <span className="sr-only">{title || subtitle ? 'change these words' : 'on this slide'}</span>
      </button>
    );
  }
  return (
    <div
      className="flex flex-col gap-1 pt-0.5"
      onClick={(event) => event.stopPropagation()}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) onType(null);
      }}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Escape') onType(null);
      }}
    >
      <textarea
        ref={first}
        aria-label="Title"
        data-part="title"
        rows={1}
        maxLength={2000}
        placeholder="Title"
        value={title}
        onChange={(event) => change({ title: event.target.value })}
        className="max-h-[72px] w-full resize-none rounded-md border border-plum/60 bg-field px-2 py-1 font-display text-base font-semibold [field-sizing:content]"
      />
      <textarea
        aria-label="Subtitle"
        data-part="subtitle"
        rows={1}
        maxLength={2000}
        placeholder="Subtitle"
        value={subtitle}
        onChange={(event) => change({ subtitle: event.target.value })}
        className="max-h-[44px] w-full resize-none rounded-md border border-rule bg-field px-2 py-1 [field-sizing:content]"
      />
    </div>
  );
});

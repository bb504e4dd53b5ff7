'use client';

import { LONGEST_NAME } from '../../core/show/limits';
import { useShow } from '../show/show-provider';

/** Whether a chapter begins with the chosen slide, and what it is called. */
export function ChapterField() {
  const slides = useShow((state) => state.show.slides);
  const anchor = useShow((state) => state.anchor);
  const edit = useShow((state) => state.edit);
  const index = slides.findIndex((slide) => slide.id === anchor);
  const slide = slides[index];
  if (!slide) return null;
  return (
    <label className="flex items-center gap-2">
      <span className="text-soft">a chapter begins with slide {index + 1}</span>
      <input
        key={slide.id}
        data-part="chapter"
        defaultValue={slide.chapter ?? ''}
        placeholder="its name"
        maxLength={LONGEST_NAME}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'Enter') event.currentTarget.blur();
        }}
        onBlur={(event) => {
          const name = event.target.value.trim();
          if (name !== (slide.chapter ?? ''))
            edit({ kind: 'set-chapters', chapters: [{ slideId: slide.id, name: name === '' ? null : name }] });
        }}
        className="h-7 min-w-0 flex-1 rounded-md border border-rule bg-field px-2"
      />
    </label>
  );
}

'use client';

import type { ReactNode } from 'react';
import { scriptSpread } from '../../core/narration/cut-narration';
import { LONGEST_SCRIPT } from '../../core/show/limits';
import type { Slide } from '../../core/show/show';
import { comfortableMs } from '../../core/words/reading-speed';
import { Button } from '../kit/button';
import { useShow } from '../show/show-provider';

interface ScriptFieldProps {
  readonly slide: Slide;
  readonly index: number;
  readonly children?: ReactNode;
}

/** What is to be said on a slide; paragraphs pasted here can be spread over the slides after it. */
export function ScriptField({ slide, index, children }: ScriptFieldProps) {
  const slides = useShow((state) => state.show.slides);
  const edit = useShow((state) => state.edit);
  const script = slide.script ?? '';
  const paragraphs = script.split(/\n\s*\n/).filter((paragraph) => paragraph.trim() !== '').length;
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-1.5">
      <textarea
        aria-label={`What is said on slide ${index + 1}`}
        data-part="script"
        placeholder="What is said on this slide. It is read here while you record, and becomes the captions."
        value={script}
        maxLength={LONGEST_SCRIPT}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'Escape') event.currentTarget.blur();
        }}
        onChange={(event) => {
          const typed = event.target.value;
          edit(
            { kind: 'set-scripts', scripts: [{ slideId: slide.id, script: typed === '' ? null : typed }] },
            `script ${slide.id}`,
          );
        }}
        className="min-h-28 w-full flex-1 resize-y rounded-lg border border-rule bg-field p-3 font-display text-[17px] leading-6"
      />
      <div className="flex min-h-7 flex-wrap items-center gap-3 text-xs text-soft">
        {script !== '' && <>about {Math.max(1, Math.round(comfortableMs(script) / 1000))} s to say</>}
        {paragraphs > 1 && index + 1 < slides.length && (
          <Button
            className="h-6 px-2 text-xs"
            onClick={() => {
              const spread = scriptSpread(slides.slice(index), script);
              if (spread) edit(spread);
            }}
          >
            Give each of {Math.min(paragraphs, slides.length - index)} slides a paragraph
          </Button>
        )}
        {children}
      </div>
    </div>
  );
}

'use client';

import { RadioGroup } from 'radix-ui';
import { nanoid } from 'nanoid';
import { useRef } from 'react';
import { layerId } from '../../core/show/ids';
import { wordsOf, type Slide } from '../../core/show/show';
import type { WordsPlace } from '../../core/show/words';
import type { WordsText } from '../../core/show/edit';
import { WordsLookFields } from './words-look-fields';
import { useShow } from '../show/show-provider';

const PLACES: readonly WordsPlace[] = ['top-left', 'top', 'top-right', 'left', 'centre', 'right', 'bottom-left', 'bottom', 'bottom-right'];

/** What stands on the slide, and where. */
export function WordsTab({ slide }: { slide: Slide }) {
  const edit = useShow((state) => state.edit);
  const fresh = useRef(nanoid(10));
  const words = wordsOf(slide);
  const text: WordsText = { title: words?.title ?? '', subtitle: words?.subtitle ?? '', place: words?.place ?? 'bottom-left', ...(words?.style && { style: words.style }), ...(words?.come && { come: words.come }), ...(words?.travel && { travel: words.travel }) };
  const change = (next: Partial<WordsText>) => {
    const all = { ...text, ...next };
    const empty = all.title === '' && all.subtitle === '';
    if (empty && !words) return;
    edit({ kind: 'set-words', slideId: slide.id, layerId: words?.id ?? layerId(fresh.current), words: empty ? null : all }, `words ${slide.id}`);
    if (empty) fresh.current = nanoid(10);
  };
  return (
    <div className="flex gap-5">
      <div className="flex flex-1 flex-col gap-2">
        <label className="flex flex-col gap-1">Title
          <textarea rows={2} maxLength={2000} value={text.title} onKeyDown={(event) => event.stopPropagation()} onChange={(event) => change({ title: event.target.value })} className="resize-y rounded-md border border-rule bg-white px-2 py-1 font-display text-base font-semibold" />
        </label>
        <label className="flex flex-col gap-1">Subtitle
          <textarea rows={2} maxLength={2000} value={text.subtitle} onKeyDown={(event) => event.stopPropagation()} onChange={(event) => change({ subtitle: event.target.value })} className="resize-y rounded-md border border-rule bg-white px-2 py-1" />
        </label>
        {words ? <WordsLookFields text={text} onChange={change} /> : <p className="text-soft">The picture keeps moving under the words.</p>}
      </div>
      <div>
        <p id="place" className="mb-1">Place</p>
        <RadioGroup.Root aria-labelledby="place" disabled={!words} value={text.place} onValueChange={(place) => change({ place: place as WordsPlace })} className="grid grid-cols-3 gap-1 rounded-md bg-surround p-2">
          {PLACES.map((place) => (
            <RadioGroup.Item key={place} value={place} aria-label={place.replace('-', ' ')} className="grid h-7 w-10 place-items-center rounded-sm border border-white/20 text-lamp data-[state=checked]:bg-lamp data-[state=checked]:text-black disabled:opacity-40"><span aria-hidden="true" className="h-[3px] w-5 rounded-full bg-current" /></RadioGroup.Item>
          ))}
        </RadioGroup.Root>
      </div>
    </div>
  );
}

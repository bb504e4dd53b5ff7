'use client';

import { useEffect, useRef } from 'react';
import type { SlideId } from '../../core/show/ids';
import type { WordsLayer } from '../../core/show/layer';
import { layerIn } from '../../core/show/pile';
import { textOf } from '../../core/show/words-of-slide';
import { useShow, useShowStore } from '../show/show-provider';
import type { WordsBlockLook } from './words-block';

interface WordsTypedProps {
  readonly slideId: SlideId;
  readonly layer: WordsLayer;
  readonly look: WordsBlockLook;
  readonly onEnd: () => void;
}

const FIELD =
  'block max-w-full min-w-[2ch] resize-none overflow-hidden border-0 bg-transparent p-0 outline-none [field-sizing:content] placeholder:opacity-60';

/** Words while they are typed, where they stand and as they look. Each row of keys is one step to undo; what is empty at the end is taken off. */
export function WordsTyped({ slideId, layer, look, onEnd }: WordsTypedProps) {
  const store = useShowStore();
  const edit = useShow((state) => state.edit);
  const first = useRef<HTMLTextAreaElement>(null);
  useEffect(() => first.current?.select(), []);
  const latest = useRef(layer);
  useEffect(() => {
    latest.current = layer;
  });
  const change = (part: { title: string } | { subtitle: string }) =>
    edit({ kind: 'set-words', slideId, layerId: layer.id, words: { ...textOf(layer), ...part } }, `typed ${layer.id}`);
  const end = () => {
    const { id, title, subtitle } = latest.current;
    // New words of which nothing was typed are not there.
    const slide = store.getState().show.slides.find((one) => one.id === slideId);
    const isThere = slide !== undefined && layerIn(slide.layers, id) !== null;
    if (isThere && title.trim() === '' && subtitle.trim() === '')
      edit({ kind: 'set-words', slideId, layerId: id, words: null }, `typed ${id}`);
    onEnd();
  };
  const field = (name: 'title' | 'subtitle', label: string) => (
    <textarea
      ref={name === 'title' ? first : undefined}
      aria-label={`${label}, in the viewer`}
      data-part={`typed-${name}`}
      rows={1}
      maxLength={name === 'title' ? 2000 : 10_000}
      placeholder={label}
      value={layer[name]}
      onChange={(event) => change(name === 'title' ? { title: event.target.value } : { subtitle: event.target.value })}
      className={`${FIELD} ${name === 'subtitle' && layer.subtitle === '' ? 'absolute' : ''}`}
      style={{ ...look[name], ...align(look[name].textAlign) }}
    />
  );
  return (
    <div
      data-part="words-typed"
      className="pointer-events-auto relative rounded-sm bg-black/25 outline-2 outline-offset-4 outline-red"
      style={layer.travel ? { ...look.block, maxHeight: '100%', overflowY: 'auto' } : look.block}
      onDoubleClick={(event) => event.stopPropagation()}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Escape') end();
      }}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) end();
      }}
    >
      {field('title', 'Title')}
      {field('subtitle', 'Subtitle')}
    </div>
  );
}

/** A field is as wide as what is in it: it stands where its lines would. */
function align(of: unknown): { marginInline: string } {
  return { marginInline: of === 'center' ? 'auto' : of === 'right' ? 'auto 0' : '0 auto' };
}

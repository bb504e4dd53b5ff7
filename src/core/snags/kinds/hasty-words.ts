import { seenLayers, type WordsLayer } from '../../show/layer';
import { textOf as wordsOf } from '../../show/words-of-slide';
import { layerIn } from '../../show/pile';
import { leastLengthMs } from '../../timing/least-length';
import { filledSlide } from '../../words/fields';
import { readableSpan } from '../../words/passage';
import { comfortableMs, readingSpeed, shortestReadMs } from '../../words/reading-speed';
import { about, said, seconds, slidesOf } from '../helpers';
import type { SnagKind } from '../snag';

const AT_ONCE = { way: 'none', by: 'all', atMs: 0, lengthMs: 0 } as const;

export const hastyWords: SnagKind = {
  title: 'Words that go too soon',
  advice: 'Give the slide more time, say it in fewer words, or have the words there from the beginning.',
  place: 'arrange',
  *find({ prepared }) {
    for (const place of slidesOf(prepared))
      for (const layer of seenLayers(filledSlide(prepared.show, prepared.facts, place.index).layers)) {
        const text = layer.kind === 'words' ? textOf(layer) : '';
        if (layer.kind !== 'words' || text.trim() === '') continue;
        const { startMs, endMs } = readableSpan(layer, place.span);
        const forMs = endMs - startMs;
        if (forMs > 0 && readingSpeed(text, forMs).ease !== 'too-fast') continue;
        yield {
          grave: forMs < 0.6 * shortestReadMs(text),
          slideId: place.slide.id,
          layerId: layer.id,
          of: layer.id,
          ...about(place, Math.max(0, startMs), Math.max(800, forMs)),
          sentence: `${said(layer)} can be read for ${seconds(Math.max(0, forMs))}; it takes ${seconds(comfortableMs(text))} to.`,
        };
      }
  },
  fixes({ prepared }, { slideId, layerId }) {
    const index = prepared.show.slides.findIndex((slide) => slide.id === slideId);
    const slide = prepared.show.slides[index];
    const layer = slide && layerId ? layerIn(slide.layers, layerId) : null;
    const read = slide && layerId ? layerIn(filledSlide(prepared.show, prepared.facts, index).layers, layerId) : null;
    if (!slide || layer?.kind !== 'words' || read?.kind !== 'words') return [];
    const { startMs, endMs } = readableSpan(layer, prepared.spans[index]!);
    const missingMs = comfortableMs(textOf(read)) - (endMs - startMs);
    const before = prepared.show.slides[index - 1];
    const lengthMs = Math.max(
      leastLengthMs(slide, prepared.facts, before, prepared.show),
      Math.ceil((slide.lengthMs + missingMs) / 100) * 100,
    );
    return [
      {
        name: `Stay for ${seconds(lengthMs)}`,
        edit: { kind: 'set-lengths', lengths: [{ slideId: slide.id, lengthMs }] },
      },
      ...(layer.travel
        ? []
        : [
            {
              name: 'Have them there at once',
              edit: {
                kind: 'set-words' as const,
                slideId: slide.id,
                layerId: layer.id,
                // How they go is left as it is.
                words: { ...wordsOf(layer), come: { entrance: AT_ONCE, exit: layer.come?.exit ?? null } },
              },
            },
          ]),
    ];
  },
};

const textOf = ({ title, subtitle }: WordsLayer) => `${title}\n${subtitle}`;

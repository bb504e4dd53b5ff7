'use client';

import { nanoid } from 'nanoid';
import { useEffect, useRef, useState, type MouseEvent } from 'react';
import type { PreparedShow } from '../../core/frame/plan-frame';
import type { GuideBox, GuideLine } from '../../core/guides/guides';
import { layerId, type LayerId } from '../../core/show/ids';
import type { WordsLayer } from '../../core/show/layer';
import { wordsOf, type Slide } from '../../core/show/show';
import { WORDS_PLACES } from '../../core/show/words';
import { filledSlide } from '../../core/words/fields';
import { planPassage } from '../../core/words/passage';
import { Guide } from '../kit/guide';
import { typedWords, useTypedWords } from './typed-words';
import { useWordsDrag } from './use-words-drag';
import { WordsBlock, type StageSize } from './words-block';
import { WordsHand } from './words-hand';
import { WordsTyped } from './words-typed';

interface WordsHandsProps {
  readonly prepared: PreparedShow;
  /** The slide the viewer stands on, and where on it. */
  readonly index: number;
  readonly momentMs: number;
  /** How much smaller the words that are seen are drawn than they say. */
  readonly scale: number;
}

/**
 * Hands on the words that are seen in the viewer: typed by a double click, dragged onto guides, sized at their corner; or by keys. Words in groups, turned, tied
 * or travelling are worked on with the bench opened wide.
 */
export function WordsHands({ prepared, index, momentMs, scale }: WordsHandsProps) {
  const root = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState<StageSize | null>(null);
  const [lines, setLines] = useState<readonly GuideLine[]>([]);
  const typed = useTypedWords();
  /** New words, until something is typed. */
  const [fresh, setFresh] = useState<WordsLayer | null>(null);
  const slide = prepared.show.slides[index]!;
  const span = prepared.spans[index]!;
  const seenMs = span.leavesMs - span.startMs;
  const offsetMs = momentMs - span.startMs;
  useEffect(() => {
    const holder = root.current;
    if (!holder) return;
    const watch = new ResizeObserver(() => setSize({ widthPx: holder.clientWidth, heightPx: holder.clientHeight }));
    watch.observe(holder);
    return () => {
      watch.disconnect();
      typedWords.setState({ typed: null });
    };
  }, []);
  const drag = useWordsDrag({ slide, offsetMs, seenMs, onLines: setLines, boxes: () => boxesIn(root.current) });
  const mine = typed?.slideId === slide.id ? typed.layerId : null;
  const seen = slide.layers.filter(
    (layer): layer is WordsLayer => layer.kind === 'words' && (layer.id === mine || isInReach(layer, span, offsetMs)),
  );
  const read = wordsIn(filledSlide(prepared.show, prepared.facts, index));
  const typing = (id: LayerId) => typedWords.setState({ typed: { slideId: slide.id, layerId: id } });
  const begin = (event: MouseEvent<HTMLDivElement>) => {
    if (event.target !== event.currentTarget) return;
    // Words that are not there yet, or gone, are meant rather than more of them.
    const unseen = wordsIn(slide).find((layer) => isAlone(layer) && !seen.includes(layer));
    if (unseen) return typing(unseen.id);
    const box = event.currentTarget.getBoundingClientRect();
    const third = (share: number) => Math.min(2, Math.max(0, Math.floor(3 * share)));
    const [across, down] = [
      third((event.clientX - box.left) / box.width),
      third((event.clientY - box.top) / box.height),
    ];
    const id = layerId(nanoid(10));
    setFresh({ kind: 'words', id, title: '', subtitle: '', place: WORDS_PLACES[3 * down + across]! });
    typing(id);
  };
  const ends = () => {
    setFresh(null);
    typedWords.setState({ typed: null });
  };
  const typedLayer = seen.find(({ id }) => id === mine) ?? (fresh && fresh.id === mine ? fresh : null);
  return (
    <div
      ref={root}
      className="absolute inset-0 overflow-hidden"
      data-part="words-hands"
      onDoubleClick={begin}
      title={seen.length === 0 ? 'Double-click to type words here' : undefined}
    >
      {size && (
        <>
          {neighboursOf(prepared, index).map((layer) => (
            <WordsBlock key={`beside ${layer.id}`} layer={layer} size={size} scale={1} offsetMs={0} seenMs={seenMs}>
              {(look) => (
                <div aria-hidden="true" data-beside="" className="invisible whitespace-pre-wrap" style={look.block}>
                  <p style={look.title}>{layer.title}</p>
                  {layer.subtitle && <p style={look.subtitle}>{layer.subtitle}</p>}
                </div>
              )}
            </WordsBlock>
          ))}
          {seen.map((layer) =>
            layer.id === mine ? null : (
              <WordsBlock key={layer.id} layer={layer} size={size} scale={scale} offsetMs={offsetMs} seenMs={seenMs}>
                {(look) => (
                  <WordsHand
                    slide={slide}
                    layer={layer}
                    says={read.find(({ id }) => id === layer.id) ?? layer}
                    look={look}
                    drag={drag}
                    onType={() => typing(layer.id)}
                  />
                )}
              </WordsBlock>
            ),
          )}
          {typedLayer && (
            <WordsBlock layer={typedLayer} size={size} scale={scale} offsetMs={offsetMs} seenMs={seenMs}>
              {(look) => <WordsTyped slideId={slide.id} layer={typedLayer} look={look} onEnd={ends} />}
            </WordsBlock>
          )}
          <svg className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden="true">
            {lines.map((line, at) => (
              <Guide key={at} line={line} size={size} />
            ))}
          </svg>
        </>
      )}
    </div>
  );
}

const wordsIn = ({ layers }: Slide) => layers.filter((layer): layer is WordsLayer => layer.kind === 'words');

/** Words that can be worked on here, and are there at that moment. */
function isInReach(layer: WordsLayer, span: PreparedShow['spans'][number], offsetMs: number): boolean {
  if (!isAlone(layer)) return false;
  const { entrance, exit } = planPassage(layer, span, offsetMs);
  return entrance.share > 0 && exit.share < 1;
}

/** They stand by themselves and upright. */
function isAlone(layer: Slide['layers'][number]): boolean {
  if (layer.kind !== 'words' || layer.hidden || layer.locked || layer.tether || layer.mask || layer.travel)
    return false;
  return Object.keys(layer.channels ?? {}).every((name) => name === 'x' || name === 'y' || name === 'opacity');
}

/** Words of the slides before and after: where they stand, words may want to stand as well. */
function neighboursOf({ show, facts }: PreparedShow, index: number): WordsLayer[] {
  return [index - 1, index + 1].flatMap((at) => {
    const words = show.slides[at] ? wordsOf(filledSlide(show, facts, at)) : null;
    return words && isAlone(words) ? [words] : [];
  });
}

/** Where all the words stand, in shares of the frame, by the layer's id; those of neighbours without one. */
function boxesIn(root: HTMLElement | null): readonly { readonly id: string | null; readonly box: GuideBox }[] {
  if (!root) return [];
  const frame = root.getBoundingClientRect();
  return [...root.querySelectorAll<HTMLElement>('[data-beside], [data-part=words-hand]')].map((element) => {
    const { left, top, right, bottom } = element.getBoundingClientRect();
    return {
      id: element.dataset.layer ?? null,
      box: {
        left: (left - frame.left) / frame.width,
        top: (top - frame.top) / frame.height,
        right: (right - frame.left) / frame.width,
        bottom: (bottom - frame.top) / frame.height,
      },
    };
  });
}

'use client';

import { nanoid } from 'nanoid';
import { useEffect, useMemo, useRef, useState, type MouseEvent } from 'react';
import { sightsAt, type LayerSight } from '../../core/frame/layer-sight';
import type { Matrix3 } from '../../core/frame/matrix';
import { surroundingsOf, type PreparedShow } from '../../core/frame/plan-frame';
import type { GuideBox, GuideLine } from '../../core/guides/guides';
import { layerId, type LayerId } from '../../core/show/ids';
import { valueAt } from '../../core/keys/channel';
import { everyLayer, type WordsLayer } from '../../core/show/layer';
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
 * Hands on the words that are seen in the viewer: typed by a double click, dragged onto guides, sized at their corner; or by keys. They lie as the words do: in
 * groups, turned, leaning, tied to something, on their way.
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
  const around = useMemo(() => surroundingsOf(prepared, index, prepared.show.frame), [prepared, index]);
  const free = useMemo(() => freeWords(sightsAt(around, offsetMs)), [around, offsetMs]);
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
  const drag = useWordsDrag({ around, offsetMs, onLines: setLines, boxes: () => boxesIn(root.current) });
  const mine = typed?.slideId === slide.id ? typed.layerId : null;
  const seen = free.filter(({ layer }) => layer.id === mine || isThere(layer, span, offsetMs));
  const read = wordsIn(filledSlide(prepared.show, prepared.facts, index));
  const typing = (id: LayerId) => typedWords.setState({ typed: { slideId: slide.id, layerId: id } });
  const begin = (event: MouseEvent<HTMLDivElement>) => {
    if (event.target !== event.currentTarget) return;
    // Words that are not there yet, or gone, are meant rather than more of them.
    const unseen = free.find((sight) => !seen.includes(sight));
    if (unseen) return typing(unseen.layer.id);
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
  const typedWordsSeen =
    seen.find(({ layer }) => layer.id === mine) ??
    (fresh && fresh.id === mine ? { layer: fresh, toFrame: UPRIGHT } : null);
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
            <WordsBlock
              key={`beside ${layer.id}`}
              layer={layer}
              size={size}
              scale={1}
              toFrame={standsAt(layer, seenMs)}
            >
              {(look) => (
                <div aria-hidden="true" data-beside="" className="invisible whitespace-pre-wrap" style={look.block}>
                  <p style={look.title}>{layer.title}</p>
                  {layer.subtitle && <p style={look.subtitle}>{layer.subtitle}</p>}
                </div>
              )}
            </WordsBlock>
          ))}
          {seen.map((sight) => {
            const { layer, toFrame } = sight;
            if (layer.id === mine) return null;
            const gone = planPassage(layer, span, offsetMs).travel?.share ?? null;
            return (
              <WordsBlock key={layer.id} layer={layer} size={size} scale={scale} toFrame={toFrame} gone={gone}>
                {(look) => (
                  <WordsHand
                    slide={slide}
                    layer={layer}
                    says={read.find(({ id }) => id === layer.id) ?? layer}
                    look={look}
                    drag={drag}
                    sight={sight}
                    onType={() => typing(layer.id)}
                  />
                )}
              </WordsBlock>
            );
          })}
          {typedWordsSeen && (
            <WordsBlock layer={typedWordsSeen.layer} size={size} scale={scale} toFrame={typedWordsSeen.toFrame}>
              {(look) => <WordsTyped slideId={slide.id} layer={typedWordsSeen.layer} look={look} onEnd={ends} />}
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

const wordsIn = ({ layers }: Slide) => [...everyLayer(layers)].filter((layer) => layer.kind === 'words');

interface WordsSight extends LayerSight {
  readonly layer: WordsLayer;
}

/** Words that hands may take hold of: neither they nor what holds them is locked or hidden. */
function freeWords(sights: readonly LayerSight[]): WordsSight[] {
  const byId = new Map(sights.map((sight) => [sight.layer.id, sight]));
  const isFree = (sight: LayerSight | undefined): boolean =>
    !sight ||
    (!sight.layer.hidden && !sight.layer.locked && isFree(sight.group ? byId.get(sight.group.id) : undefined));
  return sights.filter((sight): sight is WordsSight => sight.layer.kind === 'words' && isFree(sight));
}

function isThere(layer: WordsLayer, span: PreparedShow['spans'][number], offsetMs: number): boolean {
  const { entrance, exit, travel } = planPassage(layer, span, offsetMs);
  return travel ? travel.share > 0 && travel.share < 1 : entrance.share > 0 && exit.share < 1;
}

const UPRIGHT: Matrix3 = [1, 0, 0, 0, 1, 0, 0, 0, 1];

/** They stand by themselves and upright. */
function isAlone(layer: Slide['layers'][number]): boolean {
  if (layer.kind !== 'words' || layer.hidden || layer.locked || layer.tether || layer.mask || layer.travel)
    return false;
  return Object.keys(layer.channels ?? {}).every((name) => name === 'x' || name === 'y' || name === 'opacity');
}

/** Where such words stand at the slide’s start. */
function standsAt(layer: WordsLayer, seenMs: number): Matrix3 {
  const at = (name: 'x' | 'y') => valueAt(layer.channels?.[name] ?? 0.5, 0, seenMs) - 0.5;
  return [1, 0, at('x'), 0, 1, at('y'), 0, 0, 1];
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

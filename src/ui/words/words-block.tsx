'use client';

import type { CSSProperties, ReactNode } from 'react';
import type { Matrix3 } from '../../core/frame/matrix';
import type { WordsLayer } from '../../core/show/layer';
import { anchorOf } from '../../core/show/words';
import {
  LINE_HEIGHT,
  SUBTITLE_SHARE,
  TITLE_SIZE,
  WORDS_GAP,
  WORDS_MARGIN,
  WORDS_MEASURE,
} from '../../core/words/sizes';
import { FONTS } from '../bench/words-fonts';

export interface StageSize {
  readonly widthPx: number;
  readonly heightPx: number;
}

interface WordsBlockProps {
  readonly layer: WordsLayer;
  readonly size: StageSize;
  /** How much smaller they are drawn than they say. */
  readonly scale: number;
  /** The frame they are laid out in to the frame that is seen, both in shares of their sides. */
  readonly toFrame: Matrix3;
  /** How far they have come on their way, 0…1; null for words that stand. */
  readonly gone?: number | null;
  readonly children: (look: WordsBlockLook) => ReactNode;
}

export interface WordsBlockLook {
  readonly block: CSSProperties;
  readonly title: CSSProperties;
  readonly subtitle: CSSProperties;
}

/** Where words stand over the frame, by the same measures as they are drawn with, turned and leaning as they are: what is in it lies on them, in their letters. */
export function WordsBlock({ layer, size, scale, toFrame, gone = null, children }: WordsBlockProps) {
  const { widthPx, heightPx } = size;
  const margin = WORDS_MARGIN * Math.min(widthPx, heightPx);
  const [across, down] = anchorOf(layer.place);
  const ends = ['flex-start', 'center', 'flex-end'] as const;
  const way = gone === null ? undefined : layer.travel?.kind;
  return (
    <div className="pointer-events-none absolute inset-0 origin-top-left" style={{ transform: planeOf(toFrame, size) }}>
      <div
        className="pointer-events-none absolute flex"
        style={{
          ...{ left: margin, right: margin, top: margin, bottom: margin },
          ...(way === 'roll' && { top: 0, bottom: 0 }),
          ...(way === 'crawl' && { left: 0, right: 0 }),
          justifyContent: way === 'crawl' ? 'flex-start' : ends[2 * across],
          alignItems: way === 'roll' ? 'flex-start' : ends[2 * down],
        }}
      >
        {children(withWay(lookOf(layer, size, scale), way, gone ?? 0, size))}
      </div>
    </div>
  );
}

/** A projective map between shares of a frame, as CSS says it of that frame in pixels. */
function planeOf([a, b, c, d, e, f, g, h, i]: Matrix3, { widthPx, heightPx }: StageSize): string {
  const across = widthPx / heightPx;
  const down = heightPx / widthPx;
  return `matrix3d(${[
    ...[a!, d! * down, 0, g! / widthPx],
    ...[b! * across, e!, 0, h! / heightPx],
    ...[0, 0, 1, 0],
    ...[c! * widthPx, f! * heightPx, 0, i!],
  ].join()})`;
}

/** Words on their way, from outside the frame to outside on its other side. */
function withWay(
  look: WordsBlockLook,
  way: 'roll' | 'crawl' | undefined,
  gone: number,
  size: StageSize,
): WordsBlockLook {
  if (!way) return look;
  const wholePx = way === 'roll' ? size.heightPx : size.widthPx;
  const by = `calc(${wholePx}px - ${gone} * (${wholePx}px + 100%))`;
  return {
    ...look,
    block: {
      ...look.block,
      transform: way === 'roll' ? `translateY(${by})` : `translateX(${by})`,
      ...(way === 'crawl' && { maxWidth: 'none', flexShrink: 0, whiteSpace: 'nowrap' }),
    },
  };
}

function lookOf({ style = {}, place }: WordsLayer, { widthPx, heightPx }: StageSize, scale: number): WordsBlockLook {
  const titlePx = scale * (style.size ?? TITLE_SIZE) * Math.min(widthPx, heightPx);
  const colour = plain(style.colour) ?? '#ffffff';
  const letters: CSSProperties = {
    lineHeight: LINE_HEIGHT * (style.lineSpacing ?? 1),
    letterSpacing: `${style.letterSpacing ?? 0}em`,
    fontStyle: style.italic ? 'oblique 11deg' : 'normal',
    textAlign:
      style.align === 'centre'
        ? 'center'
        : (style.align ?? (['left', 'center', 'right'] as const)[2 * anchorOf(place)[0]]),
    textShadow: '0 1px 5px rgb(0 0 0 / 0.55)',
    overflowWrap: 'anywhere',
  };
  const family = (name: keyof typeof FONTS) => `'${FONTS[name].family}'`;
  return {
    block: { maxWidth: (style.measure ?? WORDS_MEASURE) * widthPx },
    title: {
      ...letters,
      fontFamily: family(style.font ?? 'bricolage'),
      fontWeight: style.weight ?? 700,
      fontSize: titlePx,
      color: colour,
      textWrap: 'balance',
    },
    subtitle: {
      ...letters,
      fontFamily: family(style.subtitleFont ?? style.font ?? 'instrument'),
      fontSize: titlePx * SUBTITLE_SHARE,
      color: plain(style.accent) ?? colour,
      marginTop: WORDS_GAP * Math.min(widthPx, heightPx),
    },
  };
}

/** One that goes from key to key is typed in white. */
function plain(colour: unknown): string | undefined {
  return typeof colour === 'string' ? colour : undefined;
}

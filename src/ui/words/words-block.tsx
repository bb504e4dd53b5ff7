'use client';

import type { CSSProperties, ReactNode } from 'react';
import { valueAt } from '../../core/keys/channel';
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
  readonly offsetMs: number;
  readonly seenMs: number;
  readonly children: (look: WordsBlockLook) => ReactNode;
}

export interface WordsBlockLook {
  readonly block: CSSProperties;
  readonly title: CSSProperties;
  readonly subtitle: CSSProperties;
}

/** Where words stand over the frame, by the same measures as they are drawn with: what is in it lies on them, in their letters. */
export function WordsBlock({ layer, size, scale, offsetMs, seenMs, children }: WordsBlockProps) {
  const { widthPx, heightPx } = size;
  const unit = Math.min(widthPx, heightPx);
  const margin = WORDS_MARGIN * unit;
  const [across, down] = anchorOf(layer.place);
  const at = (channel: 'x' | 'y') => valueAt(layer.channels?.[channel] ?? 0.5, offsetMs, seenMs) - 0.5;
  const ends = ['flex-start', 'center', 'flex-end'] as const;
  return (
    <div
      className="pointer-events-none absolute flex"
      style={{
        left: margin + at('x') * widthPx,
        top: margin + at('y') * heightPx,
        width: widthPx - 2 * margin,
        height: heightPx - 2 * margin,
        justifyContent: ends[2 * across],
        alignItems: ends[2 * down],
      }}
    >
      {children(lookOf(layer, size, scale))}
    </div>
  );
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

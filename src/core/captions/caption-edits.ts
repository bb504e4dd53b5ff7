import type { FactsById } from '../show/asset-facts';
import type { Caption } from '../show/caption';
import type { SetCaptions } from '../show/edits/set-captions';
import type { SlideId } from '../show/ids';
import { LONGEST_CAPTION } from '../show/limits';
import type { Show } from '../show/show';
import { inLines } from './caption-lines';
import { lettersToSay } from './sentences';
import { captionsOfSlide } from './show-captions';

/** Shorter than this none can be set by hand. */
export const SHORTEST_CAPTION_MS = 300;

/** One caption of a slide. */
export interface CaptionAddress {
  readonly slideId: SlideId;
  readonly language: string;
  readonly index: number;
}

interface Captioned {
  readonly show: Show;
  readonly facts: FactsById;
}

/**
 * Sets when a caption comes and goes, or what it says; it is held between its neighbours. From then on the slide’s captions of that language are by hand.
 *
 * @returns null when nothing changes
 */
export function captionChanged(of: Captioned, address: CaptionAddress, change: Partial<Caption>): SetCaptions | null {
  const captions = captionsAt(of, address);
  const caption = captions[address.index];
  if (!caption) return null;
  const [before, after] = [captions[address.index - 1], captions[address.index + 1]];
  const text = (change.text ?? caption.text).trim().slice(0, LONGEST_CAPTION);
  if (text === '') return captionRemoved(of, address);
  const fromMs = Math.round(
    Math.max(before?.toMs ?? 0, Math.min(change.fromMs ?? caption.fromMs, caption.toMs - SHORTEST_CAPTION_MS)),
  );
  const toMs = Math.round(
    Math.min(after?.fromMs ?? Infinity, Math.max(change.toMs ?? caption.toMs, fromMs + SHORTEST_CAPTION_MS)),
  );
  if (text === caption.text && fromMs === caption.fromMs && toMs === caption.toMs) return null;
  return set(address, captions.with(address.index, { fromMs, toMs, text }));
}

export function captionRemoved(of: Captioned, address: CaptionAddress): SetCaptions {
  return set(address, captionsAt(of, address).toSpliced(address.index, 1));
}

/** A caption as two, cut where its text is broken best; null where it is one word, or too short. */
export function captionSplit(of: Captioned, address: CaptionAddress): SetCaptions | null {
  const captions = captionsAt(of, address);
  const caption = captions[address.index];
  if (!caption || caption.toMs - caption.fromMs < 2 * SHORTEST_CAPTION_MS) return null;
  const flat = caption.text.replace(/\s+/g, ' ');
  const [first, ...rest] = inLines(flat, Math.ceil(flat.length / 2) + 6);
  if (!first || rest.length === 0) return null;
  const second = rest.join(' ');
  const share = lettersToSay(first) / (lettersToSay(first) + lettersToSay(second));
  const atMs = Math.round(
    Math.max(
      caption.fromMs + SHORTEST_CAPTION_MS,
      Math.min(caption.toMs - SHORTEST_CAPTION_MS, caption.fromMs + share * (caption.toMs - caption.fromMs)),
    ),
  );
  return set(
    address,
    captions.toSpliced(
      address.index,
      1,
      { fromMs: caption.fromMs, toMs: atMs, text: inLines(first).join('\n') },
      { fromMs: atMs, toMs: caption.toMs, text: inLines(second).join('\n') },
    ),
  );
}

/** A caption with the one after it. */
export function captionJoined(of: Captioned, address: CaptionAddress): SetCaptions | null {
  const captions = captionsAt(of, address);
  const [caption, next] = [captions[address.index], captions[address.index + 1]];
  if (!caption || !next) return null;
  const text = inLines(`${caption.text} ${next.text}`.replace(/\s+/g, ' ')).join('\n').slice(0, LONGEST_CAPTION);
  return set(address, captions.toSpliced(address.index, 2, { fromMs: caption.fromMs, toMs: next.toMs, text }));
}

/** A new caption at a moment of a slide, as long as there is room; null where another stands. @param fromMs from where the slide is first seen */
export function captionAdded(
  of: Captioned,
  { slideId, language }: Omit<CaptionAddress, 'index'>,
  fromMs: number,
  text: string,
): SetCaptions | null {
  const captions = captionsAt(of, { slideId, language, index: 0 });
  const at = Math.max(0, Math.round(fromMs));
  const index = captions.findIndex((caption) => caption.fromMs >= at);
  const place = index < 0 ? captions.length : index;
  if ((captions[place - 1]?.toMs ?? 0) > at) return null;
  const toMs = Math.min(captions[place]?.fromMs ?? Infinity, at + 2000);
  if (toMs - at < SHORTEST_CAPTION_MS || text.trim() === '') return null;
  return set({ slideId, language }, captions.toSpliced(place, 0, { fromMs: at, toMs, text: text.trim() }));
}

function captionsAt({ show, facts }: Captioned, { slideId, language }: CaptionAddress): readonly Caption[] {
  const slide = show.slides.find((one) => one.id === slideId);
  return slide ? captionsOfSlide(show, slide, facts, language) : [];
}

function set({ slideId, language }: Omit<CaptionAddress, 'index'>, captions: readonly Caption[]): SetCaptions {
  return { kind: 'set-captions', captions: [{ slideId, language, captions }] };
}

import { planFrame, type PreparedShow } from '../frame/plan-frame';
import type { AssetFacts } from '../show/asset-facts';
import { assetIdsOfSlides } from '../show/show';
import { frameSeen, momentOfFrame } from '../timing/frames';
import { filledSlide } from '../words/fields';
import { withFramesAfter, type FilmSegment } from './plan-film';

/**
 * All that decides what a segment's frames look like, as text: equal texts, equal frames, wherever in whichever show. Time is counted from the segment's first
 * frame. What is only heard, read or remembered of a slide is left out, and so is what it is in other shapes.
 *
 * @param frame size the frames are drawn at
 */
export function segmentBasis(
  prepared: PreparedShow,
  { firstFrame, endFrame }: FilmSegment,
  frame: { readonly widthPx: number; readonly heightPx: number },
): string {
  const { show, spans, seenFromMs, facts, moves, captions } = prepared;
  const { rate } = show.frame;
  const firstMs = momentOfFrame(firstFrame, rate);
  const endMs = momentOfFrame(endFrame, rate);
  const parts: unknown[] = [frame.widthPx, frame.heightPx, rate, endFrame - firstFrame];
  for (let index = firstSeen(seenFromMs, firstMs); index < spans.length && seenFromMs[index]! < endMs; index += 1) {
    const span = spans[index]!;
    const next = spans[index + 1];
    const comesInMs = next ? seenFromMs[index + 1]! + next.transitionMs : Infinity;
    // It has gone before the segment begins.
    if (comesInMs <= firstMs) continue;
    // As its fields are filled: a slide that got another number is drawn anew only where it says so.
    const { id, layers, backing, transition } = filledSlide(show, facts, index);
    const slide = { id, layers, backing, transition };
    parts.push([
      frameSeen(seenFromMs[index]!, rate) - firstFrame,
      span.transitionMs,
      span.leavesMs - span.startMs,
      slide,
      [...(moves.get(id) ?? [])],
      assetIdsOfSlides([{ ...show.slides[index]!, sounds: [] }]).map((asset) => drawnFacts(facts.get(asset))),
    ]);
  }
  if (show.watermark) parts.push(show.watermark, drawnFacts(facts.get(show.watermark.assetId)));
  const read = captions.filter((caption) => caption.startMs < endMs && caption.endMs > firstMs);
  if (read.length > 0)
    parts.push(
      show.captionLook,
      read.map(({ text, startMs, endMs: until }) => [text, micros(startMs - firstMs), micros(until - firstMs)]),
    );
  return JSON.stringify(parts, (key, value: unknown) => (ASIDE.has(key) ? undefined : value));
}

/** What the frames after a segment look like that its encoder looks at: no more of their slides than is seen in them. */
export function basisOfFramesAfter(
  prepared: PreparedShow,
  segment: FilmSegment,
  looksAhead: number,
  frame: { readonly widthPx: number; readonly heightPx: number },
): string {
  const { endFrame } = withFramesAfter(segment, looksAhead);
  const { rate } = prepared.show.frame;
  return JSON.stringify(
    Array.from({ length: endFrame - segment.endFrame }, (_, after) =>
      planFrame(prepared, momentOfFrame(segment.endFrame + after, rate), frame),
    ),
    // Where in a show a moment lies is felt in the last digits.
    (_, value: unknown) => (typeof value === 'number' ? micros(value / 1000) : value),
  );
}

/** Of layers: how they are in other shapes, and who chose what, and how they were before. */
const ASIDE: ReadonlySet<string> = new Set(['shapes', 'chosen', 'bare']);

const micros = (ms: number) => Math.round(ms * 1000);

/** The slide before the one that is on at a moment: it may still be leaving. */
function firstSeen(seenFromMs: readonly number[], momentMs: number): number {
  let low = 0;
  let high = seenFromMs.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (seenFromMs[middle]! <= momentMs) low = middle + 1;
    else high = middle;
  }
  return Math.max(0, low - 2);
}

/** What drawing may ask of a file. What was found out about its subject has already become its moves. */
function drawnFacts(facts: AssetFacts | undefined): unknown {
  if (!facts || facts.kind === 'sound') return null;
  if (facts.kind === 'clip') return { ...facts, listening: null, focus: undefined, takenAt: null };
  return {
    ...facts,
    focus: null,
    takenAt: null,
    camera: null,
    caption: null,
    place: null,
    likeness: null,
    meanColour: undefined,
    colours: undefined,
  };
}

import type { FactsById } from '../../show/asset-facts';
import type { Show } from '../../show/show';
import { momentSeen } from '../../timing/frames';
import { slideSpans } from '../../timing/slide-span';
import { soundSpans, type SoundSpan } from '../sound-spans';
import { BAND_LENGTH_MS, MOST_BAND_MOMENTS, type BandMoment, type BandWishes } from './band-wishes';

/** What a show says of a piece the house band plays for it: everything but how long it is, which follows from the show. */
export interface BandOrder extends Omit<BandWishes, 'lengthMs' | 'moments'> {
  /** The music turns where chapters begin, and goes down where pictures linger. */
  readonly turns?: true;
}

/** A picture lingers when it is seen so much longer than most, and so long. */
const LINGERS = { times: 1.7, leastMs: 7000 };

/** What the band is to play from one moment of the show to another; null where that is shorter or longer than a piece can be. */
export function wishesFor(
  { turns, ...order }: BandOrder,
  show: Show,
  startMs: number,
  endMs: number,
): BandWishes | null {
  const lengthMs = Math.round(endMs - startMs);
  if (lengthMs < BAND_LENGTH_MS.least || lengthMs > BAND_LENGTH_MS.most) return null;
  const moments = turns ? momentsOf(show, startMs, endMs) : [];
  return { ...order, lengthMs, ...(moments.length > 0 && { moments }) };
}

/** Where the band has to play: the spans of its songs as they would be if every piece went on and on, whatever is there of it now. */
export function bandSpans(show: Show, facts: FactsById): SoundSpan[] {
  const played = show.cues.filter(({ band }) => band !== undefined);
  if (played.length === 0) return [];
  const endless = new Map(facts);
  for (const { assetId } of played)
    endless.set(assetId, { kind: 'sound', lengthMs: 2 * BAND_LENGTH_MS.most, title: null, artist: null });
  const wanted = {
    ...show,
    cues: show.cues.map((cue) => (cue.band ? { ...cue, trimStartMs: 0, trimEndMs: undefined } : cue)),
  };
  return soundSpans(wanted, endless).filter(({ sound }) => sound.band !== undefined);
}

function momentsOf(show: Show, startMs: number, endMs: number): BandMoment[] {
  const spans = slideSpans(show.slides);
  const lengths = spans.map((span) => span.endMs - span.startMs).toSorted((a, b) => a - b);
  const usual = lengths[lengths.length >> 1] ?? 0;
  return spans
    .flatMap((span, index): BandMoment[] => {
      const atMs = Math.round(momentSeen(span.startMs, show.frame.rate) - startMs);
      if (atMs <= 0 || atMs >= endMs - startMs) return [];
      const lengthMs = span.endMs - span.startMs;
      return [
        ...(show.slides[index]!.chapter === undefined ? [] : [{ atMs, what: 'chapter' as const }]),
        ...(lengthMs > LINGERS.times * usual && lengthMs > LINGERS.leastMs ? [{ atMs, what: 'lingers' as const }] : []),
      ];
    })
    .slice(0, MOST_BAND_MOMENTS);
}

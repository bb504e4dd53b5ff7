import type { BandStyle } from './band-style';
import type { BandMoment, BandWishes } from './band-wishes';

/** What a phrase is for. Those of the intro and of breaks have no tune. */
export type PhraseKind = 'intro' | 'open' | 'closed' | 'away' | 'ending';

export interface FormPhrase {
  readonly kind: PhraseKind;
  readonly firstBar: number;
  readonly bars: number;
  /** Index among the sections. */
  readonly section: number;
  /** 0…1. */
  readonly energy: number;
  /** Which tune is played; null for none. */
  readonly tune: number | null;
  /** How often that tune was heard in this place before. */
  readonly heard: number;
  /** A new section comes after it. */
  readonly leadsOn: boolean;
}

export interface FormSection {
  readonly label: string;
  readonly firstBar: number;
  readonly energy: number;
}

/** A piece before a note of it is written: its bars, what they are for, and when each beat falls. */
export interface Form {
  readonly bpm: number;
  readonly beatsABar: number;
  readonly bars: number;
  readonly sections: readonly FormSection[];
  readonly phrases: readonly FormPhrase[];
  /** When each beat falls; the last of them is the last chord's. */
  readonly beatsMs: readonly number[];
  readonly lengthMs: number;
}

const BARS_A_PHRASE = 4;
const RING_STRETCH = { least: 0.7, most: 1.3 };
/** A show shorter than this gets no intro. */
const INTRO_FROM_BARS = 12;
const LONG_INTRO_FROM_BARS = 28;

/**
 * Lays out a piece so that its last chord falls where it can ring out until the end. Whole bars are made to fit by how long it rings, and by the tempo for what is
 * left over.
 *
 * @param hasOnlyTune nobody could play where there is no tune: then there is one everywhere
 */
export function planForm(wishes: BandWishes, style: BandStyle, hasOnlyTune: boolean): Form {
  const wanted = wishes.bpm ?? usualBpm(wishes, style);
  const { bars, bpm, lastMs } = barsFor(wishes.lengthMs, wanted, style);
  const barMs = lastMs / bars;
  const laid = phrasesOf(bars, barMs, wishes);
  const plan = hasOnlyTune
    ? { ...laid, phrases: laid.phrases.map((phrase) => ({ ...phrase, tune: phrase.tune ?? 0 })) }
    : laid;
  return {
    bpm,
    beatsABar: style.beatsABar,
    bars,
    ...plan,
    beatsMs: beatsOf(bars, style, plan.phrases, lastMs),
    lengthMs: wishes.lengthMs,
  };
}

const MOOD_PACE = { glad: 1.05, warm: 1, calm: 0.92, wistful: 0.93, solemn: 0.88, playful: 1.1 };

function usualBpm({ mood, energy }: BandWishes, { bpm }: BandStyle): number {
  const paced = bpm.usual * MOOD_PACE[mood] * (0.93 + 0.14 * energy);
  return Math.max(bpm.least, Math.min(bpm.most, paced));
}

function barsFor(lengthMs: number, wanted: number, style: BandStyle): { bars: number; bpm: number; lastMs: number } {
  const barMs = (60_000 / wanted) * style.beatsABar;
  const ring = Math.min(style.ringMs, 0.28 * lengthMs);
  const middle = (lengthMs - ring) / barMs;
  const ways = Array.from({ length: 9 }, (_, at) => Math.max(2, Math.round(middle) - 4 + at)).map((bars) => {
    const rings = Math.max(RING_STRETCH.least * ring, Math.min(RING_STRETCH.most * ring, lengthMs - bars * barMs));
    const lastMs = lengthMs - rings;
    const stretch = Math.abs(Math.log(lastMs / bars / barMs));
    const uneven = bars % BARS_A_PHRASE === 0 ? 0 : bars % 2 === 0 ? 0.4 : 0.8;
    return { bars, lastMs, cost: 100 * stretch + uneven + Math.abs(rings / ring - 1) };
  });
  const { bars, lastMs } = ways.reduce((best, way) => (way.cost < best.cost ? way : best));
  return { bars, lastMs, bpm: (60_000 * style.beatsABar * bars) / lastMs };
}

interface Laid {
  kind: PhraseKind;
  firstBar: number;
  bars: number;
}

function phrasesOf(
  bars: number,
  barMs: number,
  wishes: BandWishes,
): { sections: FormSection[]; phrases: FormPhrase[] } {
  const laid = layPhrases(bars);
  const starts = sectionStarts(laid, barMs, wishes.moments ?? []);
  const count = starts.size;
  const sections: { label: string; firstBar: number; energies: number[] }[] = [];
  const heard = new Map<string, number>();
  let [section, within, body] = [-1, 0, -1];
  let letter = 'A';
  const phrases = laid.map((one, at): FormPhrase => {
    const begins = starts.has(at);
    if (begins) {
      section += 1;
      within = 0;
      if (one.kind === 'open') body += 1;
      letter = letterOf(body, count);
      const isMiddle = one.kind === 'open';
      sections.push({
        label: isMiddle ? nameOf(letter, body, count) : one.kind === 'intro' ? 'opening' : 'ending',
        firstBar: one.firstBar,
        energies: [],
      });
    } else within += 1;
    const inBody = one.kind === 'open';
    const kind: PhraseKind = !inBody ? one.kind : kindOf(letter, within, starts.has(at + 1));
    const key = `${letter} ${within % 2}`;
    const before = heard.get(key) ?? 0;
    if (inBody) heard.set(key, before + 1);
    const lingers = (wishes.moments ?? []).some(
      ({ atMs, what }) =>
        what === 'lingers' && atMs >= one.firstBar * barMs && atMs < (one.firstBar + one.bars) * barMs,
    );
    const energy = energyOf(one, at / Math.max(1, laid.length - 1), letter, lingers, wishes.energy);
    sections.at(-1)!.energies.push(energy);
    return {
      kind,
      firstBar: one.firstBar,
      bars: one.bars,
      section,
      energy,
      tune: one.kind === 'intro' || letter === 'break' ? null : letter === 'B' ? 1 : letter === 'C' ? 2 : 0,
      heard: before,
      leadsOn: starts.has(at + 1),
    };
  });
  return {
    sections: sections.map(({ label, firstBar, energies }) => ({
      label,
      firstBar,
      energy: energies.reduce((sum, energy) => sum + energy, 0) / energies.length,
    })),
    phrases,
  };
}

/** Intro, phrases of four bars, ending: what does not divide by four goes to the intro, or to the ending of a short piece. */
function layPhrases(bars: number): Laid[] {
  const laid: Laid[] = [];
  let at = 0;
  const add = (kind: PhraseKind, count: number) => {
    if (count <= 0) return;
    laid.push({ kind, firstBar: at, bars: count });
    at += count;
  };
  if (bars < 8) {
    // Too short for anything but a tune and its end.
    const ending = bars <= 4 ? bars : 3;
    if (bars > ending) add('open', bars - ending);
    add('ending', ending);
    return laid;
  }
  const rest = bars % BARS_A_PHRASE;
  const intro = bars < INTRO_FROM_BARS ? 0 : rest + (bars >= LONG_INTRO_FROM_BARS && rest < 2 ? BARS_A_PHRASE : 0);
  add('intro', intro);
  const ending = bars < INTRO_FROM_BARS ? BARS_A_PHRASE + rest : BARS_A_PHRASE;
  while (bars - at > ending) add('open', BARS_A_PHRASE);
  add('ending', bars - at);
  return laid;
}

/** Indices of the phrases that begin a section: every other one, or those nearest to where chapters begin. */
function sectionStarts(laid: readonly Laid[], barMs: number, moments: readonly BandMoment[]): Set<number> {
  const starts = new Set([0]);
  const firstOpen = laid.findIndex(({ kind }) => kind === 'open');
  if (firstOpen >= 0) starts.add(firstOpen);
  const ending = laid.length - 1;
  if (laid.length > 2) starts.add(ending);
  const chapters = moments.filter(({ what }) => what === 'chapter');
  for (const { atMs } of chapters) {
    let best = -1;
    for (let at = firstOpen + 1; at < ending; at += 1)
      if (best < 0 || Math.abs(laid[at]!.firstBar * barMs - atMs) < Math.abs(laid[best]!.firstBar * barMs - atMs))
        best = at;
    // A chapter that nothing begins near to leaves the music as it is.
    if (best > 0 && Math.abs(laid[best]!.firstBar * barMs - atMs) < 2.5 * barMs) starts.add(best);
  }
  let since = 0;
  for (let at = firstOpen + 1; at < ending; at += 1) {
    if (starts.has(at)) since = 0;
    else if ((since += 1) >= (chapters.length > 0 ? 4 : 2) && !starts.has(at + 1)) {
      starts.add(at);
      since = 0;
    }
  }
  return starts;
}

/** Which tune a section has: A, A, B, A; then a break, C, and so on; the last is always A. */
function letterOf(body: number, sections: number): string {
  const bodies = Math.max(1, sections - 2);
  if (body < 0 || body >= bodies - 1) return 'A';
  const order = bodies <= 3 ? ['A', 'B', 'A'] : ['A', 'A', 'B', 'A', 'break', 'C', 'A', 'B'];
  return order[body % order.length]!;
}

function nameOf(letter: string, body: number, sections: number): string {
  if (letter === 'break') return 'break';
  if (letter === 'A') return body === 0 ? 'tune' : body >= sections - 3 ? 'tune, full' : 'tune again';
  return letter === 'B' ? 'middle part' : 'new tune';
}

/** Two phrases ask and answer; a middle part goes away and comes back. */
function kindOf(letter: string, within: number, isLast: boolean): PhraseKind {
  if (letter === 'B' || letter === 'break') return within % 2 === 0 ? 'away' : 'open';
  return isLast || within % 2 === 1 ? 'closed' : 'open';
}

/** Rises to nine tenths of the way, goes down in breaks and for pictures that linger, and lets the ending come to rest. */
function energyOf({ kind }: Laid, progress: number, letter: string, lingers: boolean, wanted: number): number {
  const arc =
    kind === 'intro'
      ? 0.3
      : kind === 'ending'
        ? 0.62
        : 0.48 + 0.5 * Math.min(1, progress / 0.85) ** 1.2 - (letter === 'break' ? 0.38 : 0);
  const lively = arc * (0.42 + 0.72 * wanted) + 0.12 * (wanted - 0.5);
  return Math.max(0.08, Math.min(1, lively - (lingers ? 0.22 : 0)));
}

/** A piece of so many bars slows down over its last two, as far as its style does; a shorter one over its last, and less. */
const SLOWS_WHOLLY = 16;

/** When each beat falls: a phrase hurries a little towards its middle, and the last bars slow down. */
function beatsOf(bars: number, style: BandStyle, phrases: readonly FormPhrase[], lastMs: number): number[] {
  const { beatsABar, rubato, slowing } = style;
  const beats = bars * beatsABar;
  const weights = Array.from({ length: beats }, () => 1);
  for (const { firstBar, bars: count } of phrases)
    for (let beat = 0; beat < count * beatsABar; beat += 1) {
      const place = (beat + 0.5) / (count * beatsABar);
      weights[firstBar * beatsABar + beat]! *= 1 - rubato * Math.sin(Math.PI * place) + 0.6 * rubato;
    }
  const last = Math.min(beats, (bars < SLOWS_WHOLLY ? 1 : 2) * beatsABar);
  const by = slowing * Math.min(1, bars / SLOWS_WHOLLY);
  for (let at = 0; at < last; at += 1) weights[beats - last + at]! *= 1 + by * ((at + 1) / last) ** 2;
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  let [sum, beatsMs] = [0, [0]];
  for (const weight of weights) beatsMs = (beatsMs.push(((sum += weight) * lastMs) / whole), beatsMs);
  return beatsMs;
}

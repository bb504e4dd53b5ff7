import type { BandStyle, PartPlan } from './band-style';
import { BAND_INSTRUMENT_NAMES, BAND_STYLE_NAMES, type BandInstrument, type BandWishes } from './band-wishes';
import { bassPitches, nearestPitch } from './bass-lines';
import { dealer } from './dealing';
import { EXTRA_PARTS } from './extra-parts';
import { planForm, type Form, type FormPhrase } from './form';
import { chordOf, classOver, phraseOf, type Mode, type PlacedChord } from './harmony';
import { DRUMS, INSTRUMENT_RANGES, isDrum } from './instruments';
import { languageIn, type Language } from './languages';
import type { Part, Piece, ScoreNote } from './piece';
import { styleNamed } from './styles';
import { motifOf, tunePhrase, type Motif, type TuneNote } from './tune';
import { voiced } from './voicing';
import { ladderOf, writePart, type WrittenPhrase } from './write-part';

/** Where a bass would be, for the chords above it. */
const UNDER = { low: 33, high: 50 };

/** A whole piece, note by note: the same from the same wishes. */
export function compose(wishes: BandWishes): Piece {
  const style = styleNamed(wishes.style);
  const mode = style.modes[wishes.mood];
  const tonic = dealer(wishes.seed, `key ${wishes.style} ${mode}`).pick(style.keys);
  const plans = partsFor(style, wishes);
  const form = planForm(wishes, style, plans.every(needsTune));
  const phrases = form.phrases.map((phrase) => chordsOf(phrase, form, languageIn(style.language, mode), wishes));
  const lastBeat = form.bars * form.beatsABar;
  const lastBeats = (form.lengthMs - form.beatsMs.at(-1)!) / (form.beatsMs.at(-1)! - form.beatsMs.at(-2)!);
  const last: PlacedChord = { chord: chordOf(languageIn(style.language, mode).last), beat: lastBeat, beats: lastBeats };
  const tunes = tunesOf(plans, phrases, form, { mode, tonic, wishes, style });
  const all = [...phrases.flat(), last];
  const settings = new Map<string, number[][]>();
  const voicesOf = (voices: number, low: number, high: number) => {
    const key = `${voices} ${low} ${high}`;
    let found = settings.get(key);
    if (!found) {
      found = voiced(
        all.map(({ chord }) => chord),
        bassPitches(all, tonic, UNDER.low, UNDER.high),
        tonic,
        voices,
        low,
        high,
      );
      settings.set(key, found);
    }
    return found;
  };
  let first = 0;
  const written = form.phrases.map((phrase, at): WrittenPhrase => {
    const from = first;
    first += phrases[at]!.length;
    const to = first;
    return {
      phrase,
      chords: phrases[at]!,
      tune: tunes[at]!,
      voicesOf: (voices, low, high) => voicesOf(voices, low, high).slice(from, to),
      tonic,
      beatsABar: form.beatsABar,
    };
  });
  const parts = plans.map((plan, index): Part => {
    const deal = dealer(wishes.seed, `part ${plan.instrument} ${index}`);
    const notes = written.flatMap((one) =>
      playersIn(plans, one.phrase).includes(plan) ? shaped(writePart(plan, one, deal), plan, one.phrase, form) : [],
    );
    const ends = playersIn(plans, written.at(-1)!.phrase).includes(plan);
    const end = ends ? ending(plan, written.at(-1)!, last, { tonic, voices: voicesOf }) : [];
    return {
      instrument: plan.instrument,
      role: plan.plays.kind,
      pan: plan.pan,
      spreadMs: plan.spreadMs ?? 0,
      held: plan.held ?? 1,
      notes: inRange([...notes, ...end], plan.instrument),
    };
  });
  return {
    wishes,
    style,
    form,
    tonic,
    mode,
    chords: all.map(({ chord, beat, beats }) => ({ beat, beats, name: chord.name })),
    parts: parts.filter(({ notes }) => notes.length > 0),
    lastBeats,
  };
}

/** Why a band cannot be put together as wished, as a sentence; null when it can. */
export function bandFault({ style, without = [], and = [] }: BandWishes): string | null {
  const own = instrumentsOf(styleNamed(style));
  const named = (instrument: BandInstrument) => BAND_INSTRUMENT_NAMES[instrument];
  const absent = without.find((instrument) => !own.includes(instrument));
  if (absent) return `There is no ${named(absent)} in ${BAND_STYLE_NAMES[style]} that could be left out.`;
  const present = and.find((instrument) => own.includes(instrument));
  if (present) return `${BAND_STYLE_NAMES[style]} has a ${named(present)} already.`;
  if (and.length === 0 && own.every((instrument) => without.includes(instrument)))
    return 'Somebody must play: put one of the instruments back.';
  return null;
}

/** Those of the style that are wanted, and those that were asked for besides. @throws {RangeError} see `bandFault` */
function partsFor({ parts }: BandStyle, wishes: BandWishes): PartPlan[] {
  const fault = bandFault(wishes);
  if (fault !== null) throw new RangeError(fault);
  const { without = [], and = [] } = wishes;
  const kept = parts.filter(({ instrument }) => !without.includes(instrument));
  const all = [...kept, ...and.map((instrument) => ({ ...EXTRA_PARTS[instrument], instrument }))];
  if (all.some(({ plays }) => plays.kind === 'tune')) return all;
  // Who goes along with a tune takes it over when nobody else has it.
  const leads = all.find(({ plays }) => plays.kind === 'shadow');
  return all.map((plan) => (plan === leads ? { ...plan, plays: { kind: 'tune' } } : plan));
}

/** The instruments a style has, in the order of its parts. */
export function instrumentsOf(style: BandStyle): BandInstrument[] {
  return [...new Set(style.parts.map(({ instrument }) => instrument))];
}

const needsTune = ({ plays }: PartPlan) => plays.kind === 'tune' || plays.kind === 'shadow';

/** Who plays in a phrase: those its energy calls for; where it calls for nobody, those who come in first. There is never silence. */
function playersIn(plans: readonly PartPlan[], { energy, tune }: FormPhrase): PartPlan[] {
  const able = plans.filter((plan) => tune !== null || !needsTune(plan));
  const called = able.filter(({ from, to = 1.01 }) => energy >= from && energy < to);
  if (called.length > 0) return called;
  const first = Math.min(...able.map(({ from }) => from));
  return able.filter(({ from }) => from === first);
}

function chordsOf(
  phrase: FormPhrase,
  form: Form,
  language: Language,
  { seed, mood, style }: BandWishes,
): PlacedChord[] {
  const { kind, tune, bars, firstBar } = phrase;
  // A tune that comes back has the chords it had.
  const deal = dealer(
    seed,
    `chords ${style} ${mood} ${kind} ${tune ?? 'none'} ${kind === 'closed' ? phrase.heard % 2 : 0}`,
  );
  const from = {
    intro: language.intro,
    open: language.open,
    closed: language.closed,
    away: language.away,
    ending: language.ending,
  }[kind];
  return phraseOf(deal.pick(from), bars, form.beatsABar).map((placed) => ({
    ...placed,
    beat: placed.beat + firstBar * form.beatsABar,
  }));
}

interface TuneTask {
  readonly mode: Mode;
  readonly tonic: number;
  readonly wishes: BandWishes;
  readonly style: BandStyle;
}

/** The tune of each phrase, as the highest of those who play it has it. */
function tunesOf(
  plans: readonly PartPlan[],
  phrases: readonly PlacedChord[][],
  form: Form,
  { mode, tonic, wishes, style }: TuneTask,
): TuneNote[][] {
  const player = plans.find(({ plays }) => plays.kind === 'tune');
  const motifs = new Map<number, Motif>();
  let last: number | null = null;
  return form.phrases.map(({ tune, kind, bars, firstBar, heard, energy }, at) => {
    if (tune === null || !player) return [];
    const motif =
      motifs.get(tune) ??
      motifOf(dealer(wishes.seed, `motif ${wishes.style} ${tune}`), style, 0.25 + 0.5 * wishes.energy);
    motifs.set(tune, motif);
    const chords = phrases[at]!;
    const fromBeat = firstBar * form.beatsABar;
    // A middle part lies a little higher.
    const up = tune === 1 ? 2 : 0;
    const notes = tunePhrase(
      motif,
      {
        bars,
        beatsABar: form.beatsABar,
        fromBeat,
        chords: chords.map((one) => ({ ...one, beat: one.beat - fromBeat })),
        mode,
        tonic,
        low: player.low + up,
        high: player.high,
        closes: kind === 'closed',
        from: last,
        heard,
      },
      dealer(wishes.seed, `tune ${wishes.style} ${tune} ${kind} ${heard} ${Math.round(10 * energy) > 5}`),
    );
    last = notes.at(-1)?.pitch ?? null;
    return notes;
  });
}

/** The loudness a phrase has by its energy, rising to its middle. */
function shaped(
  notes: readonly ScoreNote[],
  plan: PartPlan,
  { firstBar, bars, energy }: FormPhrase,
  { beatsABar }: Form,
): ScoreNote[] {
  return notes.map((note) => {
    const place = (note.beat - firstBar * beatsABar) / (bars * beatsABar);
    const arch = 0.94 + 0.1 * Math.sin(Math.PI * Math.min(1, place / 0.8));
    return {
      ...note,
      loudness: Math.min(1, note.loudness * plan.level * (0.5 + 0.5 * energy) * arch),
    };
  });
}

interface EndingTask {
  readonly tonic: number;
  voices(count: number, low: number, high: number): number[][];
}

/** The last chord: everybody who played until then strikes it, the tune comes home. */
function ending(plan: PartPlan, last: WrittenPhrase, chord: PlacedChord, { tonic, voices }: EndingTask): ScoreNote[] {
  const { plays, low, high } = plan;
  const loudness = plan.level * (0.55 + 0.4 * last.phrase.energy);
  const note = (pitch: number, beats = chord.beats): ScoreNote => ({ beat: chord.beat, beats, pitch, loudness });
  switch (plays.kind) {
    case 'tune':
      return [
        note(nearestPitch(tonic, (last.tune.at(-1)?.pitch ?? (low + high) / 2) - 0.1, low, high) + (plays.above ?? 0)),
      ];
    case 'shadow': {
      const third = chord.chord.tones[1]!;
      for (let pitch = high - 4; pitch >= low; pitch -= 1) if (classOver(pitch, tonic) === third) return [note(pitch)];
      return [];
    }
    case 'bass':
      return [note(bassPitches([chord], tonic, low, high)[0]!)];
    case 'chords':
    case 'strokes':
      return voices(plays.voices, low, high)
        .at(-1)!
        .map((pitch) => note(pitch));
    case 'voice':
      return [note(voices(plays.of, ...(plays.from ?? [low, high])).at(-1)![plays.voice]!)];
    case 'broken': {
      const root = bassPitches([chord], tonic, low, low + 11)[0]!;
      const tones = ladderOf(chord.chord, tonic, root, Math.min(high, root + 24), 5);
      return tones.slice(0, 5).map((pitch) => note(pitch));
    }
    case 'drums': {
      const strokes = plays.beats.flatMap(({ strokes: of }) => Object.keys(of));
      const ends = (['crash', 'ride', 'triangle', 'tambourine', 'low-conga', 'shaker'] as const).find((drum) =>
        strokes.includes(drum),
      );
      const low = (['kick', 'bass-drum', 'low-conga', 'low-tom'] as const).find((drum) => strokes.includes(drum));
      return [ends, low].flatMap((drum) => (drum ? [{ ...note(DRUMS[drum], 1), loudness: 0.8 * loudness }] : []));
    }
  }
}

/** What an instrument does not have it plays an octave away. */
function inRange(notes: readonly ScoreNote[], instrument: BandInstrument): ScoreNote[] {
  if (isDrum(instrument)) return notes.toSorted((a, b) => a.beat - b.beat);
  const { lowest, highest } = INSTRUMENT_RANGES[instrument];
  return notes
    .map((note) => {
      let { pitch } = note;
      while (pitch < lowest) pitch += 12;
      while (pitch > highest) pitch -= 12;
      return pitch === note.pitch ? note : { ...note, pitch };
    })
    .toSorted((a, b) => a.beat - b.beat || a.pitch - b.pitch);
}

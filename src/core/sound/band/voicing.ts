import type { Chord } from './harmony';

// Looked up once: these are asked for each pair and each sample.
const { abs, max } = Math;

const WIDEST_GAP = 12;
const KEPT = 40;

/**
 * Chords set for several voices, lowest first, so that voices move little, keep tones that stay, and never go side by side in fifths or octaves, with each other or with the
 * bass (the cheapest way through all settings, dynamic programming).
 *
 * @param bass MIDI pitches under the chords, as many as there are chords
 * @returns for each chord `voices` rising pitches within `low`…`high`
 */
export function voiced(
  chords: readonly Chord[],
  bass: readonly number[],
  tonic: number,
  voices: number,
  low: number,
  high: number,
): number[][] {
  if (chords.length === 0) return [];
  const settings = chords.map((chord) => settingsOf(chord, tonic, voices, low, high));
  let costs = settings[0]!.map(({ cost }) => cost);
  const back: number[][] = [];
  for (let at = 1; at < chords.length; at += 1) {
    const from: number[] = [];
    costs = settings[at]!.map((setting, own) => {
      let [best, way] = [Infinity, 0];
      for (let other = 0; other < settings[at - 1]!.length; other += 1) {
        const cost =
          costs[other]! + moving(settings[at - 1]![other]!.pitches, setting.pitches, bass[at - 1]!, bass[at]!);
        if (cost < best) [best, way] = [cost, other];
      }
      from[own] = way;
      return best + setting.cost;
    });
    back.push(from);
  }
  let own = costs.reduce((best, cost, at) => (cost < costs[best]! ? at : best), 0);
  const found = [settings.at(-1)![own]!.pitches];
  for (let at = chords.length - 1; at >= 1; at -= 1) {
    own = back[at - 1]![own]!;
    found.push(settings[at - 1]![own]!.pitches);
  }
  return found.reverse();
}

interface Setting {
  readonly pitches: number[];
  readonly cost: number;
}

function settingsOf(chord: Chord, tonic: number, voices: number, low: number, high: number): Setting[] {
  const tones = chord.tones.map((tone) => (tone + tonic) % 12);
  const within: number[] = [];
  for (let pitch = low; pitch <= high; pitch += 1) if (tones.includes(pitch % 12)) within.push(pitch);
  const found: Setting[] = [];
  const add = (pitches: number[]) => {
    if (pitches.length === voices) {
      found.push({ pitches, cost: settingCost(pitches, tones, (low + high) / 2) });
      return;
    }
    for (const pitch of within) {
      const last = pitches.at(-1);
      if (last !== undefined && (pitch - last < 2 || pitch - last > WIDEST_GAP)) continue;
      add([...pitches, pitch]);
    }
  };
  add([]);
  return found.toSorted((a, b) => a.cost - b.cost).slice(0, KEPT);
}

/** The third must be there, then what colours the chord; the fifth and, over a bass, the root may be left out; few doubles, no gaps. */
function settingCost(pitches: readonly number[], tones: readonly number[], middle: number): number {
  const there = new Set(pitches.map((pitch) => pitch % 12));
  const missing = tones.reduce((sum, tone, at) => sum + (there.has(tone) ? 0 : [0.8, 6, 0.7, 3, 2][at]!), 0);
  const doubled = pitches.length - there.size;
  const centre = pitches.reduce((sum, pitch) => sum + pitch, 0) / pitches.length;
  const gaps = pitches.slice(1).reduce((sum, pitch, at) => sum + max(0, pitch - pitches[at]! - 8), 0);
  return missing + 1.2 * doubled + 0.12 * abs(centre - middle) + 0.2 * gaps;
}

function moving(from: readonly number[], to: readonly number[], bassFrom: number, bassTo: number): number {
  let cost = 0;
  for (let voice = 0; voice < from.length; voice += 1) {
    const by = abs(to[voice]! - from[voice]!);
    cost += 0.35 * by + (by > 7 ? 3 : 0);
    cost += sideBySide(bassFrom, bassTo, from[voice]!, to[voice]!) ? 4 : 0;
    for (let other = voice + 1; other < from.length; other += 1)
      if (sideBySide(from[voice]!, to[voice]!, from[other]!, to[other]!)) cost += 7;
  }
  return cost;
}

/** Whether two voices move the same way from a fifth, octave or unison into another. */
export function sideBySide(low: number, lowNext: number, high: number, highNext: number): boolean {
  const [one, other] = [(((high - low) % 12) + 12) % 12, (((highNext - lowNext) % 12) + 12) % 12];
  return (
    (one === 0 || one === 7) &&
    one === other &&
    lowNext !== low &&
    lowNext - low > 0 === highNext - high > 0 &&
    highNext !== high
  );
}

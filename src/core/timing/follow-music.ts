import { editSentence } from '../show/edit-sentence';
import { applyEdit, type ShowEdit } from '../show/edit';
import type { SoundProperties } from '../show/edits/set-sound';
import type { FactsById } from '../show/asset-facts';
import { isHeld } from '../show/chosen';
import { seenLayers } from '../show/layer';
import type { Pace } from '../show/pace';
import type { Show, Slide } from '../show/show';
import { musicOf, placesForSeams } from '../sound/show-beats';
import { fitToMusic, shareOfTime, type FitResult } from './fit-to-music';
import { fitToBeats, type BeatFitResult } from './fit-to-beats';
import { leastLengthMs } from './least-length';
import { transitionLengthMs } from './slide-span';
import { withRoomForVoices } from './wait-for-voices';

/** Pictures stay at least this long, however many there are. */
const LEAST_SEEN_MS = 700;
/** Long enough that a transition takes the time it takes by itself. */
const AMPLE_MS = 60_000;

/**
 * Lengths by which the pictures follow the music as a pace asks.
 *
 * @returns why there are none, when there are none
 */
export function lengthsByMusic(show: Show, facts: FactsById, pace: Pace): BeatFitResult {
  const free = { ...show, cues: show.cues.map(untied) };
  const music = musicOf(free, facts, true);
  const before = new Map(show.slides.map((slide, index) => [slide.id, show.slides[index - 1]]));
  const places = placesForSeams(free, facts, music);
  const gapMs = medianGapMs(places.flatMap((place) => (place.begins === 'nothing' ? [] : [place.atMs])));
  const common = {
    keepsLength: keepsItsLengthToBeats,
    shareOf: shareOfTime(show),
    leastOf: (slide: Slide) => Math.max(LEAST_SEEN_MS, leastLengthMs(slide, facts, before.get(slide.id), show)),
  };
  if (places.length < 2) {
    if (pace.by === 'beats') return { ok: false, reason: 'no-beats', shortestMs: 0 };
    return withoutBeats(
      fitToMusic(show.slides, music.endMs, common.keepsLength, common.shareOf, common.leastOf),
      show.slides,
    );
  }
  return fitToBeats({
    ...common,
    slides: show.slides,
    beats: places,
    endMs: pace.by === 'music' ? music.endMs : null,
    idealMs: pace.by === 'beats' ? pace.beats * gapMs : null,
    rate: show.frame.rate,
    energyAt: music.energyAt,
    meetsAfterMs: (slide) =>
      pace.meets === 'middle'
        ? Math.floor(transitionLengthMs({ ...slide, lengthMs: AMPLE_MS }, { ...slide, lengthMs: AMPLE_MS }) / 2)
        : 0,
  });
}

/** Beats that nobody is sure of hold no picture: lengths are shared out evenly, to the end of the music. */
function withoutBeats(result: FitResult, slides: readonly Slide[]): BeatFitResult {
  return result.ok ? { ...result, offBeat: slides.slice(0, -1).map((slide) => slide.id) } : result;
}

/** Clips last as long as they are trimmed to; what a hand holds stays. A slide with a voice may last longer than that, so that its seam can meet a beat. */
function keepsItsLengthToBeats(slide: Slide): boolean {
  return isHeld(slide, 'length') || [...seenLayers(slide.layers)].some((layer) => layer.kind === 'clip');
}

/** While lengths are worked out nothing may depend on them: what is tied to slides plays as if it followed on. */
function untied(cue: Show['cues'][number]): Show['cues'][number] {
  const starts = cue.starts.at === 'slide' || cue.starts.at === 'show-end' ? ({ at: 'after' } as const) : cue.starts;
  const ends = cue.ends.at === 'slide' || cue.ends.at === 'show-end' ? ({ at: 'own-end' } as const) : cue.ends;
  return starts === cue.starts && ends === cue.ends ? cue : { ...cue, starts, ends };
}

function medianGapMs(moments: readonly number[]): number {
  const gaps = moments.slice(1).map((moment, index) => moment - moments[index]!);
  return gaps.toSorted((a, b) => a - b)[gaps.length >> 1] ?? 500;
}

/** Edits of how things look, move and sound, which lengths do not go by: after them nothing is worked out anew. */
const WITHOUT_TIME = new Set<ShowEdit['kind']>([
  'rename-show',
  'set-clocks',
  'set-temperament',
  'set-shape',
  'set-focus',
  'set-posters',
  'set-tags',
  'set-licences',
  'set-mix',
  'set-chapters',
  'set-scripts',
  'set-captions',
  'set-caption-look',
  'set-light',
  'set-edge',
  'set-backing',
  'set-crops',
  'set-move',
  'set-channels',
  'set-key',
]);
const SOUND_WITHOUT_TIME = new Set([
  'gainDb',
  'levels',
  'fadeInMs',
  'fadeOutMs',
  'fadeInCurve',
  'fadeOutCurve',
  'name',
] satisfies (keyof SoundProperties)[]) as ReadonlySet<string>;

function changesNoTime(edit: ShowEdit): boolean {
  if (edit.kind === 'set-sound') return Object.keys(edit.properties).every((name) => SOUND_WITHOUT_TIME.has(name));
  return WITHOUT_TIME.has(edit.kind);
}

/** An edit with what it entails. */
export interface EntailedEdit {
  /** The edit itself when nothing else changes. */
  readonly edit: ShowEdit;
  /** What the music could not do, as a sentence; null when nothing is to be said. */
  readonly unmet: string | null;
}

/** An edit with what it entails: slides wait for their voices, and where the pictures follow the music, lengths are worked out anew; all of it undone as one step. */
export function withItsLengths(show: Show, facts: FactsById, edit: ShowEdit): EntailedEdit {
  if (changesNoTime(edit)) return { edit, unmet: null };
  const roomy = withRoomForVoices(show, facts, edit);
  const alone: EntailedEdit = {
    edit: roomy.edits.length === 1 ? roomy.edits[0]! : together(edit, roomy.edits),
    unmet: roomy.told,
  };
  if (!show.pace && edit.kind !== 'set-pace' && edit.kind !== 'together' && edit.kind !== 'set-content') return alone;
  const result = applyEdit(show, alone.edit);
  if (!result.ok || !result.show.pace) return alone;
  const fitted = lengthsByMusic(result.show, facts, result.show.pace);
  if (!fitted.ok) return { ...alone, unmet: `Lengths stay as they are. ${whyUnmet(fitted)}` };
  const known = new Set(musicOf(show, facts, true).doubtful);
  const isNew = musicOf(result.show, facts, true).doubtful.some((id) => !known.has(id));
  const unmet = roomy.told ?? (isNew ? DOUBTFUL : null);
  const now = new Map(result.show.slides.map((slide) => [slide.id, slide.lengthMs]));
  if (fitted.lengths.every(({ slideId, lengthMs }) => now.get(slideId) === lengthMs))
    return { edit: alone.edit, unmet };
  // All of them are named, changed or not: edits of one drag then write to the same places and are one step.
  return { edit: together(edit, [...roomy.edits, { kind: 'set-lengths', lengths: fitted.lengths }]), unmet };
}

function together(edit: ShowEdit, edits: readonly ShowEdit[]): ShowEdit {
  return { kind: 'together', name: editSentence(edit), edits };
}

/** Said once, when such a song comes in. */
export const DOUBTFUL =
  'Nobody is sure of the beats of a song here, so the pictures along it lie on none. Say under Sound where its beats are.';

/** Why the pictures cannot follow the music, and what can be done about it. */
export function whyUnmet({ reason, shortestMs }: Extract<BeatFitResult, { readonly ok: false }>): string {
  switch (reason) {
    case 'no-slides':
      return 'Every length here is held by a clip or a hand, so there is nothing the music could set.';
    case 'no-beats':
      return 'No beats are known here. Put a song under the show, or say under Sound where its beats are.';
    case 'music-too-short':
      return `The music is too short for all pictures: they need ${(shortestMs / 1000).toFixed(0)} s at least. Add a song, let it loop, or leave pictures out.`;
  }
}

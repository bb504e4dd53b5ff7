import { breathOf } from '../show/breath';
import type { ShowEdit } from '../show/edit';
import type { AssetId, CueId, SlideId } from '../show/ids';
import { takesIn, voiceHere, type Cleaned, type PlacedSound } from '../show/placed-sound';
import type { Show, Slide } from '../show/show';

/** A recording that was kept as a file. */
export interface RecordedVoice {
  readonly assetId: AssetId;
  readonly name: string;
  readonly lengthMs: number;
  /** What of it is to be heard. */
  readonly fromMs: number;
  readonly toMs: number;
  readonly cleaned?: Cleaned;
}

/** Lays a recording on a slide as the take that is heard; those that were heard before rest. Null when the slide is not there any more. */
export function takeKept(show: Show, slideId: SlideId, id: CueId, voice: RecordedVoice): ShowEdit | null {
  const slide = show.slides.find((one) => one.id === slideId);
  if (!slide) return null;
  return {
    kind: 'together',
    name: 'record a voice',
    edits: takeLaid(slide, placed(id, voice, breathOf(show, slide).beforeMs)),
  };
}

/** What it takes for a voice to be the one that is heard on a slide. */
export function takeLaid(slide: Slide, voice: PlacedSound): ShowEdit[] {
  return [
    ...takesIn(slide)
      .filter((take) => !take.resting)
      .map((take) => rest(slide.id, take.id, true)),
    {
      kind: 'add-sounds',
      slideId: slide.id,
      runs: [{ afterId: slide.sounds.at(-1)?.id ?? null, sounds: [voice] }],
    },
  ];
}

export function placed(id: CueId, voice: RecordedVoice, offsetMs: number): PlacedSound {
  const fromMs = Math.max(0, Math.round(voice.fromMs));
  return {
    ...voiceHere(id, voice.assetId, offsetMs),
    name: voice.name,
    trimStartMs: fromMs,
    ...(voice.toMs < voice.lengthMs && { trimEndMs: Math.max(fromMs + 1, Math.round(voice.toMs)) }),
    ...(voice.cleaned && { cleaned: voice.cleaned }),
  };
}

function rest(slideId: SlideId, soundId: CueId, resting: boolean): ShowEdit {
  return { kind: 'set-sound', slideId, soundId, properties: { resting: resting ? true : null } };
}

/** Has one take heard, and the others of its slide rest. Null: none is heard. */
export function takeChosen(show: Show, slideId: SlideId, chosen: CueId | null): ShowEdit | null {
  const slide = show.slides.find((one) => one.id === slideId);
  const edits = (slide ? takesIn(slide) : [])
    .filter((take) => (take.resting === true) === (take.id === chosen))
    .map((take) => rest(slideId, take.id, take.id !== chosen));
  return edits.length === 0 ? null : { kind: 'together', name: 'choose a take', edits };
}

/** “Take 3”: the next that is free on a slide. */
export function nextTakeName(sounds: readonly PlacedSound[]): string {
  const taken = new Set(sounds.map((sound) => sound.name));
  for (let number = 1; ; number += 1) if (!taken.has(`Take ${number}`)) return `Take ${number}`;
}

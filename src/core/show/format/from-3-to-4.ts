import { wholeRate } from '../../timing/frame-rate';
import { voiceOf } from '../placed-sound';
import type { Show } from '../show';
import { entriesOf, isLoose, type Loose } from './loose';
import type { RaiseStep } from './raise';

/**
 * Version 4 has one kind of placed sound for songs and voices, frame rates of whole numbers, and notes who chose moves, words, light and backings. Songs
 * follow each other as they did; a slide’s narration is a voice on it.
 */
export const fromThreeToFour: RaiseStep = {
  content: (content) => ({
    ...content,
    ...(isLoose(content.frame) && { frame: withRate(content.frame) }),
    ...(Array.isArray(content.slides) && { slides: content.slides.map(withSounds) }),
    ...(Array.isArray(content.cues) && { cues: content.cues.map(songOf) }),
  }),
  edit(edit, show) {
    switch (edit.kind) {
      case 'add-slides':
        return {
          ...edit,
          runs: entriesOf(edit.runs).map((run) => ({ ...run, slides: (run.slides as unknown[]).map(withSounds) })),
        };
      case 'put-slides':
        return { ...edit, slides: (edit.slides as unknown[]).map(withSounds) };
      case 'set-cues':
        return { ...edit, cues: (edit.cues as unknown[]).map(songOf) };
      case 'set-narration':
        return narrationSet(edit, show);
      case 'set-content':
        return { ...edit, content: fromThreeToFour.content(edit.content as Loose) };
      // Of what there was before nobody can tell who chose it.
      case 'set-move':
      case 'set-words':
      case 'set-backing':
        return { ...edit, by: null };
      case 'set-light':
        return { ...edit, lights: entriesOf(edit.lights).map((entry) => ({ ...entry, by: null })) };
      case 'together':
        return { ...edit, edits: entriesOf(edit.edits).map((inner) => fromThreeToFour.edit(inner, show)) };
      default:
        return edit;
    }
  },
};

const VOICE = 'voice';

function withRate({ framesPerSecond, ...frame }: Loose): Loose {
  const each = typeof framesPerSecond === 'number' ? framesPerSecond : Number.NaN;
  return { ...frame, rate: wholeRate(each) };
}

function withSounds(slide: unknown): unknown {
  if (!isLoose(slide)) return slide;
  const { narration, ...rest } = slide;
  return { ...rest, sounds: isLoose(narration) ? [voiceFrom(narration)] : [] };
}

function voiceFrom({ assetId, offsetMs, gainDb }: Loose): Loose {
  return {
    id: VOICE,
    kind: 'voice',
    assetId,
    starts: { at: 'here', offsetMs },
    ends: { at: 'own-end' },
    trimStartMs: 0,
    gainDb,
    fadeInMs: 0,
    fadeOutMs: 0,
  };
}

function songOf(cue: unknown): unknown {
  return isLoose(cue) ? { ...cue, kind: 'song', starts: { at: 'after' }, ends: { at: 'own-end' } } : cue;
}

/** There was one narration to a slide, set and taken off by the same edit. */
function narrationSet({ slideId, narration }: Loose, show: Show): Loose {
  const slide = show.slides.find((one) => one.id === slideId);
  const there = slide ? voiceOf(slide) : null;
  const add = isLoose(narration) && {
    kind: 'add-sounds',
    slideId,
    runs: [{ afterId: null, sounds: [voiceFrom(narration)] }],
  };
  const remove = there && { kind: 'remove-sounds', slideId, soundIds: [there.id] };
  if (add && remove) return { kind: 'together', name: 'set the narration', edits: [remove, add] };
  // Taking off what was not there was accepted, and did nothing.
  return add || remove || { kind: 'rename-show', title: show.title };
}

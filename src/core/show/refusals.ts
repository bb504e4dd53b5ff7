import { unreachable } from '../unreachable';
import type { EditRefusal } from './edit';
import { MOST_KEYS } from './limits';

/** Why an edit could not be applied, and what to make of it. What is wrong with an outcome (`unsound`) has a sentence of its own. */
export function refusalSentence(reason: EditRefusal): string {
  switch (reason) {
    case 'slide-not-found':
      return 'That slide is no longer in the show; it may have been removed in another tab.';
    case 'layer-not-found':
      return 'That picture is no longer on the slide.';
    case 'slide-already-there':
      return 'That slide is already in the show.';
    case 'layer-already-there':
      return 'That layer is already on the slide.';
    case 'sound-not-found':
      return 'That sound is no longer in the show.';
    case 'sound-already-there':
      return 'That sound is already there.';
    case 'too-many-keys':
      return `A channel can have ${MOST_KEYS} keys at most.`;
    case 'file-not-used':
      return 'That file is no longer used in the show.';
    case 'clip-has-no-automatic-move':
      return 'No move is found for a clip by itself: frame it by hand, or let it stand still.';
    case 'unsound':
      return 'The show would not hold together afterwards.';
    default:
      return unreachable(reason);
  }
}

import { unreachable } from '../unreachable';
import type { EditRefusal, ShowEdit } from './edit';

const count = (n: number, one: string) => (n === 1 ? one : `${n} ${one}s`);

/** What an edit does, for the undo button and the activity line: “remove 3 slides”. */
export function editSentence(edit: ShowEdit): string {
  switch (edit.kind) {
    case 'add-slides':
      return `add ${count(
        edit.runs.reduce((sum, run) => sum + run.slides.length, 0),
        'slide',
      )}`;
    case 'remove-slides':
      return `remove ${count(edit.slideIds.length, 'slide')}`;
    case 'move-slides':
      return `move ${count(
        edit.runs.reduce((sum, run) => sum + run.slideIds.length, 0),
        'slide',
      )}`;
    case 'set-lengths':
      return `change the length of ${count(edit.lengths.length, 'slide')}`;
    case 'set-transitions':
      return `change ${count(edit.transitions.length, 'transition')}`;
    case 'set-words':
      return edit.words ? 'change the words' : 'remove the words';
    case 'set-move':
      return 'change the move';
    case 'set-crops':
      return edit.crops.length === 1 ? 'crop the picture' : `crop ${edit.crops.length} pictures`;
    case 'set-layers':
      return 'change the layers';
    case 'set-light':
      return edit.lights.length === 1 ? 'change the light' : `change the light of ${edit.lights.length} pictures`;
    case 'set-edge':
      return edit.edges.length === 1 ? 'change the edge' : `change the edges of ${edit.edges.length} pictures`;
    case 'set-backing':
      return 'change the backing';
    case 'set-narration':
      return edit.narration ? 'set the narration' : 'remove the narration';
    case 'set-cues':
      return 'change the music';
    case 'set-default-length':
      return 'change the pace';
    case 'rename-show':
      return 'rename the show';
    case 'set-marks':
      return edit.marks.length === 1 ? 'mark a print' : `mark ${edit.marks.length} prints`;
    case 'swap-file':
      return 'swap a file';
    case 'put-slides':
      return `change ${count(edit.slides.length, 'slide')}`;
    case 'set-content':
      return 'go to another version';
    case 'together':
      return edit.name;
    default:
      return unreachable(edit);
  }
}

/** Why an edit could not be applied, and what to make of it. */
export function refusalSentence(reason: EditRefusal): string {
  switch (reason) {
    case 'slide-not-found':
      return 'That slide is no longer in the show; it may have been removed in another tab.';
    case 'layer-not-found':
      return 'That picture is no longer on the slide.';
    case 'slide-already-there':
      return 'That slide is already in the show.';
    case 'file-not-used':
      return 'That file is no longer used in the show.';
    default:
      return unreachable(reason);
  }
}

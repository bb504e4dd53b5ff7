import { raiseEdit } from '../../core/show/format/raise';
import { FORMAT_VERSION } from '../../core/show/format/version';
import type { Show } from '../../core/show/show';
import type { UndoStep } from './show-store';

/** What can be undone and redone, kept for as long as the window is open, so that loading the page again does not end it. */
export interface UndoNotes {
  keep(undoSteps: readonly UndoStep[], redoSteps: readonly UndoStep[]): void;
  left(show: Show): { readonly undoSteps: readonly UndoStep[]; readonly redoSteps: readonly UndoStep[] };
}

/** Browsers give some five million characters; other shows of this window want some of them too. */
const MOST_CHARACTERS = 1_500_000;

/** @param storage the window's own */
export function createUndoNotes(
  showId: string,
  storage: Pick<Storage, 'getItem' | 'setItem' | 'removeItem'> | null,
): UndoNotes {
  const key = `tanager-undo-${showId}`;
  return {
    keep(undoSteps, redoSteps) {
      try {
        storage?.setItem(
          key,
          JSON.stringify({
            version: FORMAT_VERSION,
            undoSteps: latest(undoSteps, MOST_CHARACTERS),
            redoSteps: latest(redoSteps, MOST_CHARACTERS / 3),
          }),
        );
      } catch {
        // Without room the steps end with the page, as they would have without notes.
        storage?.removeItem(key);
      }
    },
    left(show) {
      try {
        const kept = JSON.parse(storage?.getItem(key) ?? 'null') as {
          version?: number;
          undoSteps?: unknown;
          redoSteps?: unknown;
        } | null;
        const from = kept?.version ?? 1;
        return { undoSteps: stepsOf(kept?.undoSteps, from, show), redoSteps: stepsOf(kept?.redoSteps, from, show) };
      } catch {
        return { undoSteps: [], redoSteps: [] };
      }
    },
  };
}

/** The latest steps that fit, in order. */
function latest(steps: readonly UndoStep[], most: number): UndoStep[] {
  let room = most;
  const kept: UndoStep[] = [];
  for (const step of [...steps].reverse()) {
    room -= JSON.stringify(step).length;
    if (room < 0) break;
    // After the page was loaded again nothing goes on with a step that was under way.
    kept.unshift({ ...step, joins: null });
  }
  return kept;
}

function stepsOf(value: unknown, from: number, show: Show): UndoStep[] {
  const isStep = (step: unknown): step is UndoStep =>
    typeof step === 'object' &&
    step !== null &&
    'edit' in step &&
    'inverse' in step &&
    typeof (step as UndoStep).edit?.kind === 'string' &&
    typeof (step as UndoStep).inverse?.kind === 'string';
  if (!Array.isArray(value) || !value.every(isStep)) return [];
  return value.map((step) => ({
    ...step,
    edit: raiseEdit(step.edit, from, show),
    inverse: raiseEdit(step.inverse, from, show),
  }));
}

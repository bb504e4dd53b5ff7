import type { ShowEdit } from '../edit';
import type { Show } from '../show';
import { fromOneToTwo } from './from-1-to-2';
import { fromTwoToThree } from './from-2-to-3';
import { fromThreeToFour } from './from-3-to-4';
import { fromFourToFive } from './from-4-to-5';
import { fromFiveToSix } from './from-5-to-6';
import { fromSixToSeven } from './from-6-to-7';
import { fromSevenToEight } from './from-7-to-8';
import { fromEightToNine } from './from-8-to-9';
import { fromNineToTen } from './from-9-to-10';
import { fromTenToEleven } from './from-10-to-11';
import { fromElevenToTwelve } from './from-11-to-12';
import { isLoose, type Loose } from './loose';
import { FORMAT_VERSION } from './version';

/** One step from a version of the format to the next. What comes in is as that version wrote it; what goes out is checked by whoever reads it. */
export interface RaiseStep {
  /** What a show says, with or without its identity. */
  content(content: Loose): Loose;
  /** @param show as it was when the edit was made, in today’s format */
  edit(edit: Loose, show: Show): Loose;
}

/** `STEPS[0]` leads from version 1 to 2, and so on. */
const STEPS: readonly RaiseStep[] = [
  fromOneToTwo,
  fromTwoToThree,
  fromThreeToFour,
  fromFourToFive,
  fromFiveToSix,
  fromSixToSeven,
  fromSevenToEight,
  fromEightToNine,
  fromNineToTen,
  fromTenToEleven,
  fromElevenToTwelve,
];

/** What was kept was written by a newer version of the format than this one can read. */
export class NewerFormatError extends Error {
  override readonly name = 'NewerFormatError';
  constructor(readonly version: number) {
    super(
      'This was made with a newer version of Tanager. Bring this one up to date to open it; nothing of it is lost.',
    );
  }
}

/**
 * A document as today’s format has it. What is not a document of ours comes back as it is, for the schema to refuse.
 *
 * @throws {NewerFormatError}
 */
export function raiseShow(document: unknown): unknown {
  if (!isLoose(document) || typeof document.version !== 'number') return document;
  const raised = raiseContent(document, document.version);
  return isLoose(raised) ? { ...raised, version: FORMAT_VERSION } : raised;
}

/** What a version or an edit keeps of a show. @throws {NewerFormatError} */
export function raiseContent(content: unknown, from: number): unknown {
  return isLoose(content) ? stepsFrom(from).reduce((before, step) => step.content(before), content) : content;
}

/** A stored or unsent edit. @throws {NewerFormatError} */
export function raiseEdit(edit: unknown, from: number, show: Show): ShowEdit {
  if (!isLoose(edit)) return edit as ShowEdit;
  return stepsFrom(from).reduce((before, step) => step.edit(before, show), edit) as unknown as ShowEdit;
}

function stepsFrom(version: number): readonly RaiseStep[] {
  if (version > FORMAT_VERSION) throw new NewerFormatError(version);
  return STEPS.slice(Math.max(0, version - 1));
}

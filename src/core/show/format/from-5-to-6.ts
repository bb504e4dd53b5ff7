import type { RaiseStep } from './raise';

/**
 * Version 6 can say where the beats of songs are, who leads, pictures or music, how sounds are put together, and where chapters begin; of a sound that it loops,
 * overlaps the one before, ends before its file does, fades along a curve and changes its level on the way. What was written before says none of it.
 */
export const fromFiveToSix: RaiseStep = {
  content: (content) => content,
  edit: (edit) => edit,
};

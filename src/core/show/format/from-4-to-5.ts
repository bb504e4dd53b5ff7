import type { RaiseStep } from './raise';

/**
 * Version 5 can say what people hold pictures to be about, how much they move by themselves, and of a move that was set its easing, its rests and a framing on
 * the way. What was written before says none of it and is as it was.
 */
export const fromFourToFive: RaiseStep = {
  content: (content) => content,
  edit: (edit) => edit,
};

import type { RaiseStep } from './raise';

/**
 * Version 7 can say what is spoken on a slide, how long it is silent before and after, how captions read and look; of a voice that it is kept and not heard,
 * goes on over later slides, is called something, and was cleaned from another recording. What was written before says none of it.
 */
export const fromSixToSeven: RaiseStep = {
  content: (content) => content,
  edit: (edit) => edit,
};

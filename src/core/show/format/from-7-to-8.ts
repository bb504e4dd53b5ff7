import type { RaiseStep } from './raise';

/**
 * Version 8 can say that colours go from key to key, that a channel goes smoothly through its keys, that an easing is a part of one; of a tether that it
 * follows one direction only or leans along; of a camera that it turns and tilts. What was written before says none of it.
 */
export const fromSevenToEight: RaiseStep = {
  content: (content) => content,
  edit: (edit) => edit,
};

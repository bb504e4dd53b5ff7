import type { RaiseStep } from './raise';

/**
 * Version 12 can say which frame stands for a clip, what songs are called, whose they are and how they sound, and which joins of a tailored song are to be made;
 * of words that they lean, which part of a line looks otherwise, and how their units follow each other; of a picture behind how it is blurred and lit; of a clip
 * how it is framed in another shape. What was written before says none of it.
 */
export const fromElevenToTwelve: RaiseStep = {
  content: (content) => content,
  edit: (edit) => edit,
};

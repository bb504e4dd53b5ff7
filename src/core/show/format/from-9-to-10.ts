import type { RaiseStep } from './raise';

/**
 * Version 10 can say by which mount a slide was laid and what it stands for, how the whole show is dressed, a watermark, and how tall words may get. What was
 * written before says none of it.
 */
export const fromNineToTen: RaiseStep = {
  content: (content) => content,
  edit: (edit) => edit,
};

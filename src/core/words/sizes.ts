/** How words are laid out where nothing is said. Sizes are shares of the frame's shorter side unless they say otherwise. */
export const TITLE_SIZE = 0.082;
/** Of the title's size. */
export const SUBTITLE_SHARE = 0.042 / 0.082;
/** From line to line, in sizes of the letters. */
export const LINE_HEIGHT = 1.14;
/** Between title and subtitle. */
export const WORDS_GAP = 0.018;
/** Between the words and the frame's edges. */
export const WORDS_MARGIN = 0.075;
/** Widest line as a share of the frame's width. */
export const WORDS_MEASURE = 0.8;

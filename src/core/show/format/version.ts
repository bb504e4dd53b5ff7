/** The version of the document and of edits that this code writes. Raising it needs a step in `raise.ts` and a sample of the version before, which a test opens. */
export const FORMAT_VERSION = 12;

declare module 'linebreak' {
  /** Line break opportunities by Unicode Standard Annex #14. */
  export default class LineBreaker {
    constructor(text: string);
    nextBreak(): { readonly position: number; readonly required: boolean } | null;
  }
}

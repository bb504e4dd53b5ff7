/**
 * What no text of a show may hold: control characters but tab and line ends, halves of surrogate pairs, and the code points that stand for no character.
 * Fonts have nothing for them, and films' and captions' formats cannot carry them.
 */
const UNREADABLE =
  /[\u0000-\u0008\u000B\u000C\u000E-\u001F\u007F\uFFFE\uFFFF]|[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/;

export function isReadable(text: string): boolean {
  return !UNREADABLE.test(text);
}

/** The text without what no font can show and no film can carry. */
export function readable(text: string): string {
  return isReadable(text) ? text : text.replace(new RegExp(UNREADABLE, 'g'), '');
}

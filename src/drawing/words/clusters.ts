/**
 * What is drawn as one picture in colour: characters that are pictures by themselves, those that a variation selector makes so, keycaps, flags, and what
 * joiners join (UTS #51). Digits and signs that are pictures only when asked for are not among them.
 */
const PICTURE = String.raw`(?:\p{Emoji_Presentation}|\p{Extended_Pictographic}(?=\ufe0f|\u200d|\p{Emoji_Modifier}))(?!\ufe0e)(?:\ufe0f|\p{Emoji_Modifier})?(?:[\u{e0020}-\u{e007e}]+\u{e007f})?`;
const JOINED = String.raw`(?:\u200d\p{Extended_Pictographic}(?:\ufe0f|\p{Emoji_Modifier})?)*`;
const EMOJI = new RegExp(String.raw`\p{Regional_Indicator}{2}|[0-9#*]\ufe0f?\u20e3|${PICTURE}${JOINED}`, 'gu');
/** A letter with what stands on it: it may not be torn from its marks. Thai writes some of its vowels before and one after their letter as letters of their own. */
const LETTER = /[\u0e40-\u0e44\u0ec0-\u0ec4]?\P{M}[\p{M}\u200d\ufe0e\ufe0f\u0e33]*/gu;

export interface TextPart {
  readonly text: string;
  readonly start: number;
  readonly isEmoji: boolean;
}

/** The text as runs of pictures in colour and of other signs, in order. */
export function emojiParts(text: string): TextPart[] {
  const parts: TextPart[] = [];
  let from = 0;
  for (const found of text.matchAll(EMOJI)) {
    if (found.index > from) parts.push({ text: text.slice(from, found.index), start: from, isEmoji: false });
    parts.push({ text: found[0], start: found.index, isEmoji: true });
    from = found.index + found[0].length;
  }
  if (from < text.length) parts.push({ text: text.slice(from), start: from, isEmoji: false });
  return parts;
}

/** The text in pieces that a reader sees as one sign each. */
export function clustersOf(text: string): string[] {
  return emojiParts(text).flatMap((part) => {
    if (part.isEmoji) return [part.text];
    const letters = part.text.match(LETTER) ?? [];
    // Marks with nothing to stand on.
    const before = part.text.slice(0, part.text.length - letters.join('').length);
    return before === '' ? letters : [before, ...letters];
  });
}

/** What ends with a dot and no sentence. */
const ABBREVIATION = /(?:^|[\s(“"'])(?:Dr|Mr|Mrs|Ms|St|No|Nr|vs|etc|e\.g|i\.e|z\.B|bzw|ca|Prof|Sr|Jr|\p{Lu})\.\s*$/u;
const splitters = new Map<string, Intl.Segmenter>();

/** A script’s sentences, in order, without the space between them. Every line of it ends one. */
export function sentencesOf(script: string, language = 'en'): string[] {
  return script.split(/\r?\n/).flatMap((line) => {
    const sentences: string[] = [];
    let open = '';
    for (const { segment } of splitterFor(language).segment(line)) {
      open += segment;
      if (ABBREVIATION.test(open)) continue;
      sentences.push(open);
      open = '';
    }
    sentences.push(open);
    return sentences.map((sentence) => sentence.trim()).filter((sentence) => /[\p{L}\p{N}]/u.test(sentence));
  });
}

function splitterFor(language: string): Intl.Segmenter {
  const known = splitters.get(language);
  if (known) return known;
  const made = new Intl.Segmenter(language, { granularity: 'sentence' });
  splitters.set(language, made);
  return made;
}

/** A sign of a script that writes syllables or words is said as long as so many letters. */
const SIGN = 2.6;
/** A digit is said as a word. */
const DIGIT = 3.6;

/** How long a text is to say, in letters. */
export function lettersToSay(text: string): number {
  const signs = text.match(/[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}]/gu)?.length ?? 0;
  const digits = text.match(/\p{N}/gu)?.length ?? 0;
  const letters = (text.match(/\p{L}/gu)?.length ?? 0) - signs;
  const words = text.match(/[\p{L}\p{N}]+/gu)?.length ?? 0;
  // Each word takes a little by itself, however short.
  return Math.max(1, letters + SIGN * signs + DIGIT * digits + 0.6 * words);
}

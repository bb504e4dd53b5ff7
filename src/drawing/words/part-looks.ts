import type { WordsPart } from '../../core/show/words';
import type { PlacedLine } from './lay-out-words';

/** The look of its own that a letter has, by the line it stands in and its place in that line's text; null for those that look as all do. */
export type PartLook = (of: PlacedLine, at: number) => WordsPart | null;

/**
 * Finds parts of words in the lines they were broken into: also across the end of a line, whatever space stands between, and never as a piece of a longer word.
 * Where two parts lie on one letter the later one counts.
 */
export function partLooks(lines: readonly PlacedLine[], parts: readonly WordsPart[] = []): PartLook {
  if (parts.length === 0) return () => null;
  const found = new Map<PlacedLine, Map<number, WordsPart>>();
  for (const isTitle of [true, false]) {
    const { text, places } = joined(lines.filter((line) => line.isTitle === isTitle));
    for (const part of parts) {
      const words = part.words.trim().replace(/\s+/gu, ' ');
      if (words === '') continue;
      for (let from = text.indexOf(words); from >= 0; from = text.indexOf(words, from + 1)) {
        if (isInWord(text, from) || isInWord(text, from + words.length)) continue;
        for (const place of places.slice(from, from + words.length))
          if (place) {
            const ofLine = found.get(place.line) ?? new Map<number, WordsPart>();
            found.set(place.line, ofLine.set(place.at, part));
          }
      }
    }
  }
  return (of, at) => found.get(of)?.get(at) ?? null;
}

interface Place {
  readonly line: PlacedLine;
  readonly at: number;
}

/** All lines as one text with single spaces, and where each of its signs stands; null for a space that stands for the end of a line. */
function joined(lines: readonly PlacedLine[]): { text: string; places: (Place | null)[] } {
  let text = '';
  const places: (Place | null)[] = [];
  const add = (sign: string, place: Place | null) => {
    const isSpace = /\s/u.test(sign);
    if (isSpace && (text === '' || text.endsWith(' '))) return;
    text += isSpace ? ' ' : sign;
    places.push(place);
  };
  for (const line of lines) {
    for (let at = 0; at < line.line.text.length; at += 1) add(line.line.text[at]!, { line, at });
    add(' ', null);
  }
  return { text, places };
}

/** Whether letters or digits stand on both sides of a place between two signs. */
function isInWord(text: string, at: number): boolean {
  const isLetter = (sign: string | undefined) => sign !== undefined && /[\p{L}\p{M}\p{N}]/u.test(sign);
  return isLetter(text[at - 1]) && isLetter(text[at]);
}

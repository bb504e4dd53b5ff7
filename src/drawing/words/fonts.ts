import { Blob, Face, Font, Variation } from 'harfbuzzjs';
import type { FontName } from '../../core/show/words';
import { emojiParts } from './clusters';

/** One file of the fonts folder; `ranges` are the characters it has, ends included. `scripts/build-parts.mjs` writes the list from the packages that ship with the app. */
export interface FontFile {
  readonly file: string;
  readonly family: string;
  readonly variable: boolean;
  readonly ranges: readonly (readonly [from: number, to: number])[];
}

/** The shipped fonts, read as texts need them. */
export interface FontShelf {
  /** A chain of fonts to try in order for every character of the text: the family's own, then those that stand in for scripts it lacks. */
  chainFor(family: FontName, weight: number, text: string): Promise<readonly ShelfFont[]>;
}

export interface ShelfFont {
  readonly font: Font;
  readonly isEmoji: boolean;
}

const STANDING_IN = [
  'instrument',
  'plain',
  'arabic',
  'hebrew',
  'devanagari',
  'thai',
  'chinese',
  'korean',
  'traditional-chinese',
  'emoji',
] as const;

/** @param read gives the bytes of a TrueType file by its name without ending; `files` is the list of them */
export function createFontShelf(files: readonly FontFile[], read: (file: string) => Promise<Uint8Array>): FontShelf {
  const faces = new Map<string, Promise<Face>>();
  const fonts = new Map<string, Promise<ShelfFont>>();

  return {
    async chainFor(family, weight, text) {
      const codes = (of: readonly { readonly text: string }[]) =>
        new Set(of.flatMap((part) => [...part.text]).map((sign) => sign.codePointAt(0)!));
      const parts = emojiParts(text);
      const open = codes(parts.filter((part) => !part.isEmoji));
      const chain: ShelfFont[] = [];
      for (const name of [family, ...STANDING_IN.filter((one) => one !== family)]) {
        for (const file of files) {
          if (file.family !== name) continue;
          const first = name === family && chain.length === 0;
          const might = [...open].some((code) => code > 0x20 && covers(file, code));
          const pictures = name === 'emoji' && parts.some((part) => part.isEmoji);
          if (!first && !might && !pictures) continue;
          const found = await fontOf(file, weight);
          // The list says what a file is for; whether it has a sign, only its font knows.
          const has = [...open].filter((code) => found.font.nominalGlyph(code));
          if (!first && !pictures && has.length === 0) continue;
          chain.push(found);
          for (const code of has) open.delete(code);
        }
      }
      return chain;
    },
  };

  function fontOf(file: FontFile, weight: number): Promise<ShelfFont> {
    const key = `${file.file} ${file.variable ? weight : ''}`;
    const known = fonts.get(key);
    if (known) return known;
    const made = faceOf(file).then((face) => {
      const font = new Font(face);
      if (file.variable) font.setVariations([new Variation('wght', weight)]);
      return { font, isEmoji: file.family === 'emoji' };
    });
    fonts.set(key, made);
    made.catch(() => fonts.delete(key));
    return made;
  }

  function faceOf(file: FontFile): Promise<Face> {
    const known = faces.get(file.file);
    if (known) return known;
    const made = read(file.file).then((bytes) => new Face(new Blob(bytes)));
    faces.set(file.file, made);
    made.catch(() => faces.delete(file.file));
    return made;
  }
}

function covers(file: FontFile, code: number): boolean {
  return file.ranges.some(([from, to]) => code >= from && code <= to);
}

import { Blob, Face, Font, Variation } from 'harfbuzzjs';

/** The fonts words are set in: each a chain of files, tried in order for every character. */
export interface Fonts {
  readonly title: readonly Font[];
  readonly text: readonly Font[];
}

/** Files in the fonts folder, without ending; made by `scripts/build-parts.mjs` from the packages that ship with the app. */
export const TITLE_FONT_FILES = ['bricolage-grotesque-latin', 'bricolage-grotesque-latin-ext', 'bricolage-grotesque-vietnamese'] as const;
export const TEXT_FONT_FILES = ['instrument-sans-latin', 'instrument-sans-latin-ext'] as const;

/** @param read gives the bytes of a TrueType file by its name without ending */
export async function loadFonts(read: (name: string) => Promise<Uint8Array>): Promise<Fonts> {
  const chain = async (names: readonly string[], weight: number) =>
    Promise.all(names.map(async (name) => {
      const font = new Font(new Face(new Blob(await read(name))));
      font.setVariations([new Variation('wght', weight)]);
      return font;
    }));
  return { title: await chain(TITLE_FONT_FILES, 700), text: await chain(TEXT_FONT_FILES, 500) };
}

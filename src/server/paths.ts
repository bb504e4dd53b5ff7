import path from 'node:path';
import type { Hdr } from '../core/show/asset-facts';

/** The project's folder: where `public/` and `dist/` lie. The commands start in it; a different one may be named for tests. */
export const projectFolder = (): string => process.env.TANAGER_HOME ?? process.cwd();

/** Where everything people make is kept: the database, files by content, films. */
export const dataFolder = (): string => path.resolve(process.env.TANAGER_DATA ?? path.join(projectFolder(), 'data'));

export const kernelsFile = (): string => path.join(projectFolder(), 'public', 'drawing', 'kernels.wasm');
export const fontFile = (name: string): string => path.join(projectFolder(), 'public', 'fonts', `${name}.ttf`);
export const filmWorkerFile = (): string => path.join(projectFolder(), 'dist', 'film-worker.mjs');
export const bodyReaderFile = (): string => path.join(projectFolder(), 'dist', 'body-reader.mjs');
export const bandPlayerFile = (): string => path.join(projectFolder(), 'dist', 'band-player.mjs');
/** A piece of music that ships with Tanager. */
export const pieceFile = (name: string): string => path.join(projectFolder(), 'public', 'pieces', `${name}.ogg`);
/** A script of a page that plays: its player, or what its workers run. */
export const pageFile = (name: 'player' | 'drawing' | 'plates'): string =>
  path.join(projectFolder(), 'dist', 'page', `${name}.js`);
/** What shapes letters. */
export const shapingFile = (): string => path.join(projectFolder(), 'public', 'drawing', 'harfbuzz.wasm');
export const decoderFile = (): string => path.join(projectFolder(), 'dist', 'decoder.mjs');
export const toneTableFile = (hdr: Hdr): string => path.join(projectFolder(), 'dist', `tone-${hdr}.cube`);
export const migrationsFolder = (): string => path.join(projectFolder(), 'drizzle');
export const fontIndexFile = (): string => path.join(projectFolder(), 'public', 'fonts', 'index.json');

/** Folders below this one can be taken in from the server's own disk; null when none was named. */
export const openFolder = (): string | null =>
  process.env.TANAGER_FOLDER ? path.resolve(process.env.TANAGER_FOLDER) : null;

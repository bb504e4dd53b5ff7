import { createWriteStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import { ZipFile } from 'yazl';
import { captionLanguages } from '../../../core/captions/show-captions';
import { filmChapters } from '../../../core/film/chapters';
import { filmCaptions } from '../../../core/film/film-captions';
import { handedOut } from '../../../core/film/handed-out';
import { PAGE_PARTS, type PageData } from '../../../core/film/page-data';
import { CLIP_FRAMES_PER_SECOND } from '../../../core/frame/frame-plan';
import { screeningLook } from '../../../core/screening/screening-look';
import { momentOfFrame } from '../../../core/timing/frames';
import type { FontFile } from '../../../drawing/words/fonts';
import { fontFile, fontIndexFile, kernelsFile, pageFile, shapingFile } from '../../paths';
import type { FilmParts } from '../finish-film';
import { bytesOfItem, readPack, type PlacedItem } from './packed';
import { PAGE_NOTE, pageHtml } from './page-html';

/**
 * Puts a page together from its packs: a folder in a ZIP that plays the show by drawing it. Opened from a disk, a page may neither fetch nor read a picture back,
 * but it may run scripts: everything is one.
 *
 * @param soundFile the sound of the stretch, as browsers play it; null when nothing sounds
 */
export async function writePage(parts: FilmParts, soundFile: string | null): Promise<void> {
  const { prepared, segments, outFile, signal, onShare } = parts;
  const items = await bestOf(segments);
  const data = pageData(parts, soundFile !== null);
  const zip = new ZipFile();
  const folder = folderName(prepared.show.title);
  const write = pipeline(zip.outputStream, createWriteStream(outFile), ...(signal ? [{ signal }] : []));
  // What is read below may fail first; then that is what is told.
  write.catch(() => {});
  const add = (name: string, text: string | Buffer) =>
    zip.addBuffer(Buffer.from(text as string), `${folder}/${name}`, { compressionLevel: 4 });
  const part = (name: string, mime: string, bytes: Uint8Array, note = '') =>
    add(`parts/${name}.js`, partScript(name, mime, bytes, note));

  add('index.html', pageHtml(prepared.show.title, data.look));
  add('Read me.txt', PAGE_NOTE);
  add('player.js', await readFile(pageFile('player')));
  part(PAGE_PARTS.data, 'application/json', Buffer.from(JSON.stringify(data)));
  for (const name of ['drawing', 'plates'] as const)
    part(PAGE_PARTS[name], 'text/javascript', await readFile(pageFile(name)));
  part(PAGE_PARTS.kernels, 'application/wasm', await readFile(kernelsFile()));
  part(PAGE_PARTS.shaping, 'application/wasm', await readFile(shapingFile()));
  if (soundFile) part(PAGE_PARTS.sound, 'audio/mp4', await readFile(soundFile));
  await addFonts();
  const pictures = [...items.values()].filter(({ name }) => name.startsWith('picture '));
  const seconds = clipSeconds(items);
  let added = 0;
  const next = () => {
    signal?.throwIfAborted();
    added += 1;
    onShare(added / (pictures.length + seconds.size + 1));
  };
  for (const item of pictures) {
    part(PAGE_PARTS.picture(item.name.slice('picture '.length)), item.mime, await bytesOfItem(item));
    next();
  }
  for (const [name, frames] of seconds) {
    const bytes = await Promise.all(frames.map(bytesOfItem));
    part(name, 'video/x-motion-jpeg', Buffer.concat(bytes), bytes.map(({ length }) => length).join(','));
    next();
  }
  zip.end();
  await write;

  async function addFonts(): Promise<void> {
    const used = new Set(
      [...items.values()].filter(({ name }) => name.startsWith('font ')).map(({ name }) => name.slice('font '.length)),
    );
    const all = JSON.parse(await readFile(fontIndexFile(), 'utf8')) as FontFile[];
    const kept = all.filter(({ file }) => used.has(file));
    part(PAGE_PARTS.fonts, 'application/json', Buffer.from(JSON.stringify(kept)));
    for (const { file } of kept) part(PAGE_PARTS.font(file), 'font/ttf', await readFile(fontFile(file)));
  }
}

/** Of what several packs hold, the widest. */
async function bestOf(packs: readonly string[]): Promise<Map<string, PlacedItem>> {
  const items = new Map<string, PlacedItem>();
  for (const pack of new Set(packs))
    for (const item of await readPack(pack)) {
      const known = items.get(item.name);
      if (!known || known.widthPx < item.widthPx) items.set(item.name, item);
    }
  return items;
}

/** The frames of clips by the seconds they lie in, counted as browsers ask for them. What lies before and between frames that are seen is never seen: the nearest stands there. */
function clipSeconds(items: ReadonlyMap<string, PlacedItem>): Map<string, PlacedItem[]> {
  const seconds = new Map<string, Map<number, PlacedItem>>();
  for (const item of items.values()) {
    const [kind, id, said] = item.name.split(' ');
    if (kind !== 'clip') continue;
    const frame = Number(said);
    const name = PAGE_PARTS.clip(id!, Math.floor(frame / CLIP_FRAMES_PER_SECOND));
    const second = seconds.get(name) ?? new Map<number, PlacedItem>();
    second.set(frame % CLIP_FRAMES_PER_SECOND, item);
    seconds.set(name, second);
  }
  return new Map(
    [...seconds].map(([name, frames]) => {
      const last = Math.max(...frames.keys());
      const first = frames.get(Math.min(...frames.keys()))!;
      const filled: PlacedItem[] = [];
      for (let at = 0; at <= last; at += 1) filled.push(frames.get(at) ?? filled.at(-1) ?? first);
      return [name, filled];
    }),
  );
}

function pageData({ prepared, plan }: FilmParts, hasSound: boolean): PageData {
  const { show, facts } = prepared;
  const { rate } = show.frame;
  const fromMs = momentOfFrame(plan.firstFrame, rate);
  const toMs = momentOfFrame(plan.endFrame, rate);
  const bare = handedOut(show, facts);
  return {
    show: bare.show,
    facts: [...bare.facts],
    fromMs,
    toMs,
    chapters: filmChapters(prepared, fromMs, toMs),
    captions: show.captionLook
      ? []
      : captionLanguages(show)
          .map((language) => ({ language, captions: filmCaptions(show, facts, language, fromMs, toMs) }))
          .filter(({ captions }) => captions.length > 0)
          .map(({ language, captions }) => ({
            language,
            captions: captions.map(({ startMs, endMs, text }) => ({ startMs, endMs, text })),
          })),
    hasSound,
    look: screeningLook(show.plumage?.is.palette),
  };
}

/** Base64 has no sign that would end a string. */
function partScript(name: string, mime: string, bytes: Uint8Array, note: string): string {
  const base64 = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).toString('base64');
  return `part(${JSON.stringify(name)},${JSON.stringify(mime)},"${base64}",${JSON.stringify(note)});\n`;
}

const LONGEST_FOLDER_NAME = 60;

/** A folder that every system takes. */
function folderName(title: string): string {
  const plain = [...title.replace(/[\p{Cc}<>:"/\\|?*]/gu, ' ')].slice(0, LONGEST_FOLDER_NAME).join('');
  return plain.replace(/\s+/g, ' ').replace(/^[\s.]+|[\s.]+$/g, '') || 'Show';
}

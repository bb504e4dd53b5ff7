import { mkdir, rm } from 'node:fs/promises';
import path from 'node:path';
import { nanoid } from 'nanoid';
import { CLIP_FRAMES_PER_SECOND } from '../../core/frame/frame-plan';
import type { ClipFacts } from '../../core/show/asset-facts';
import type { AssetId, ShowId } from '../../core/show/ids';
import { CLIP_FRAME_MS } from '../../core/timing/clip-time';
import type { BlobStore } from '../blobs/blob-store';
import { runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { Refusal } from '../http/refusal';
import { dataFolder } from '../paths';
import { clipFilter } from './clip-frames';
import { clipInput } from './clip-input';
import type { ContactSheet, SheetEntry } from './contact-sheet';
import { takenIn } from './taken-in';

const STILL_LIMITS = { timeMs: 60_000, memoryBytes: 2 * 1024 ** 3 };

/** Puts a frame of a clip onto the show’s sheet as a picture, as large as it was filmed. @throws {Refusal} */
export async function takeStill(
  { sheet, blobs }: { readonly sheet: ContactSheet; readonly blobs: BlobStore },
  show: ShowId,
  id: AssetId,
  atMs: number,
): Promise<{ readonly entry: SheetEntry }> {
  const clip = (await sheet.entries(show)).find((entry) => entry.assetId === id);
  if (clip?.facts?.kind !== 'clip') throw new Refusal(404, 'There is no such clip on the contact sheet.');
  if (atMs > clip.facts.lengthMs) throw new Refusal(422, 'The clip is over before that moment.');
  const folder = path.join(dataFolder(), 'uploads');
  await mkdir(folder, { recursive: true });
  const out = path.join(folder, `${nanoid(12)}.jpg`);
  try {
    const frame = await writeStill(await blobs.localFile(id), clip.facts, atMs, out);
    const seconds = (frame / CLIP_FRAMES_PER_SECOND).toFixed(2);
    const name = `${clip.fileName.replace(/\.[^.]+$/, '')}, ${seconds} s.jpg`;
    return { entry: await takenIn(sheet, show, out, name, null) };
  } finally {
    await rm(out, { force: true });
  }
}

/** Writes the frame that is seen at a moment of a clip as a JPEG of its full size. @returns which frame it is, counted at `CLIP_FRAMES_PER_SECOND` */
export async function writeStill(file: string, facts: ClipFacts, atMs: number, out: string): Promise<number> {
  const last = Math.max(0, Math.floor(facts.lengthMs / CLIP_FRAME_MS + 1e-4) - 1);
  const frame = Math.min(last, Math.floor(atMs / CLIP_FRAME_MS + 1e-4));
  // Entered as any frame is that is drawn (`openClip`), so that it is the very one.
  const second = Math.floor(frame / CLIP_FRAMES_PER_SECOND);
  const { widthPx, heightPx, hdr } = facts;
  const within = frame - second * CLIP_FRAMES_PER_SECOND;
  await runFfmpeg(
    [
      ...clipInput(file, second),
      '-vf',
      `${clipFilter({ widthPx, heightPx, hdr }, second, 'jpeg')},select=gte(n\\,${within})`,
      '-frames:v',
      '1',
      '-fps_mode',
      'passthrough',
      '-c:v',
      'mjpeg',
      '-q:v',
      '1',
      '-qmin',
      '1',
      '-pix_fmt',
      'yuvj420p',
      '-f',
      'image2',
      '-update',
      '1',
      out,
    ],
    { limits: STILL_LIMITS },
  );
  return frame;
}

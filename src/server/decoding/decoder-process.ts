// Runs in a process of its own: reads strangers' files, one at a time, and reports. The server ends it when a file takes too long or too much.
import { readFile } from 'node:fs/promises';
import sharp from 'sharp';
import { bareCopy } from '../assets/bare-copy';
import { encodedProxy, writeDerived } from '../assets/write-derived';
import { lookAtFile } from '../assets/look-at-file';
import { MOST_PIXELS } from '../assets/look-at-picture';
import { openPicture, uprightSize } from '../assets/open-picture';
import { shrinksUnevenly } from '../assets/resample';
import { findClipFocus } from '../focus/find-clip-focus';
import { findFocus } from '../focus/find-focus';
import { hearFile } from '../listening/hear-file';
import { cleanFile } from '../recording/clean-file';
import { UnusableFileError } from '../assets/unusable-file-error';
import { proofPicture } from '../proofs/proof-picture';
import { FfmpegError } from '../ffmpeg/run-ffmpeg';
import { isDiskFull } from '../http/refusal';
import type { DecoderOrder, DecoderReport, DecoderTask } from './decoder-task';

// Several processes fill the cores.
sharp.concurrency(1);
sharp.cache(false);

// A server that is gone needs nothing any more.
process.on('disconnect', () => process.exit(0));
process.on('message', (order: DecoderOrder) => {
  perform(order.task, (timeMs) => report({ id: order.id, kind: 'takes', timeMs })).then(
    (value) => report({ id: order.id, kind: 'done', value }),
    (error: unknown) =>
      report(
        error instanceof UnusableFileError
          ? { id: order.id, kind: 'unusable', sentence: error.message }
          : {
              id: order.id,
              kind: 'failed',
              message: error instanceof Error ? error.message : String(error),
              diskFull: isDiskFull(error),
            },
      ),
  );
});

/** A file that could be looked at and then not be unpacked is damaged further in. A full disk, or no ffmpeg at all, is not the file’s fault. */
function brokenInside(error: unknown): never {
  if (
    error instanceof FfmpegError &&
    error.details !== '' &&
    !isDiskFull(error) &&
    !/No space left/.test(error.details)
  )
    throw new UnusableFileError(
      'The file is damaged further in: it cannot be read to its end. Export it again as MP4.',
      {
        cause: error,
      },
    );
  throw error;
}

/** Whoever asked may be gone by now; then nobody wants to know. */
function report(message: DecoderReport): void {
  if (process.connected) process.send!(message, undefined, undefined, () => {});
}

async function perform(task: DecoderTask, takes: (timeMs: number) => void): Promise<unknown> {
  if (task.kind === 'look') {
    const looked = await lookAtFile(task.file, { takes });
    await writeDerived(task.file, looked, task.derivedFolder).catch(brokenInside);
    return { facts: looked.facts, mime: looked.mime };
  }
  if (task.kind === 'focus')
    return task.clip ? findClipFocus(task.file, task.clip, task.faces) : findFocus(task.file, task.faces);
  if (task.kind === 'clean') return cleanFile(task.file, task.out, task.how);
  if (task.kind === 'proof') return proofPicture(await readFile(task.file), task.longestPx, task.words);
  if (task.kind === 'bare') return bareCopy(task.file, task.out);
  if (task.kind === 'hear') return hearFile(task.file, task.wantsBeats);
  const picture = await openPicture(task.file, task.widthPx, { limitInputPixels: MOST_PIXELS, failOn: 'none' });
  const { format, widthPx, heightPx } = await uprightSize(picture);
  const whole = shrinksUnevenly(format, { widthPx, heightPx }, task.widthPx)
    ? picture.extract({ left: 0, top: 0, width: widthPx, height: heightPx })
    : picture;
  const resized = whole.resize({ width: task.widthPx, withoutEnlargement: true }).toColourspace('srgb');
  await encodedProxy(resized, task.hasTransparency, task.widthPx).toFile(task.out);
  return null;
}

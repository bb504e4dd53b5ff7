import { mkdir, rm, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { asSrt } from '../../core/captions/caption-files';
import { threeLetters } from '../../core/captions/language-codes';
import { captionLanguages } from '../../core/captions/show-captions';
import { filmChapters } from '../../core/film/chapters';
import { asFfmetadata } from '../../core/film/ffmetadata';
import { formatOf } from '../../core/film/film-formats';
import { filmCaptions } from '../../core/film/film-captions';
import { USUAL_PICTURE_KBITS, type FilmSpec } from '../../core/film/film-spec';
import type { FilmPlan } from '../../core/film/plan-film';
import type { PreparedShow } from '../../core/frame/plan-frame';
import { MIX_SAMPLE_RATE } from '../../core/sound/mix-plan';
import type { FrameRate } from '../../core/timing/frame-rate';
import { momentOfFrame } from '../../core/timing/frames';
import { runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { CAPTION_CODEC, COLOUR_TAGS, CONTAINER_ARGS, HOLDS_CHAPTERS, SOUND_ARGS } from './encodings';
import { discScale, discVideo, SILENCE } from './disc-video';
import { fitToSize } from './fit-to-size';
import { writePage } from './page/write-page';
import { zipFolder } from './zip-folder';

/** What a film is put together of. */
export interface FilmParts {
  readonly spec: FilmSpec;
  readonly prepared: PreparedShow;
  readonly plan: FilmPlan;
  /** Files of the segments, in order. */
  readonly segments: readonly string[];
  /** The mix of the whole show: 48 kHz stereo 32-bit floats. */
  readonly soundFile: string | null;
  /** The stretch's sound as the format has it, for those whose sound takes long to encode. */
  readonly encodedSound?: string | null;
  readonly workFolder: string;
  readonly outFile: string;
  readonly signal?: AbortSignal | undefined;
  /** Frames of the film that must be whole pictures, for formats that can be told. */
  readonly wholeFrames?: readonly number[] | undefined;
  /** 0…1 */
  readonly onShare: (share: number) => void;
}

/** Puts a film together from its parts, without encoding pictures again where its format allows. The file lies under `outFile` when it is whole. */
export async function finishFilm(parts: FilmParts): Promise<void> {
  const { spec } = parts;
  await mkdir(path.dirname(parts.outFile), { recursive: true });
  const { holds } = formatOf(spec.format);
  const pictures = holds === 'sound' || holds === 'show' ? [] : await joinedPictures(parts);
  switch (spec.format) {
    case 'gif':
    case 'webp':
      return run(parts, pictures, [...MOVING_PICTURE[spec.format](spec), ...CONTAINER_ARGS[spec.format]]);
    case 'jpegs':
    case 'pngs':
      return zippedPictures(parts, pictures);
    case 'pal':
    case 'ntsc':
      // Players want sound, if only silence.
      return run(
        parts,
        [...pictures, ...(parts.soundFile ? soundInput(parts) : SILENCE)],
        [
          ...['-map', '0:v:0', '-map', '1:a:0'],
          ...discVideo(spec.format, spec.shape, spec.pictureKbits ?? USUAL_PICTURE_KBITS, discScale(spec.format)),
          ...(parts.wholeFrames?.length ? ['-force_key_frames', momentsOf(parts.wholeFrames, spec.rate)] : []),
          ...['-t', (lengthOf(parts) / 1000).toFixed(6)],
        ],
      );
    case 'mp4':
    case 'hevc':
    case 'vp9':
    case 'av1':
    case 'prores':
    case 'ffv1':
      return joined(parts, pictures);
    case 'page':
      return writePage(parts, parts.encodedSound ?? null);
    case 'm4a':
    case 'mp3':
    case 'wav':
    case 'flac':
      return run(parts, soundInput(parts), soundOnly(parts));
  }
}

/** From the frames’ own colours to RGB. */
export const FULL_RGB = 'scale=in_color_matrix=bt709:in_range=tv:flags=accurate_rnd+full_chroma_int';

const WEBP_QUALITY = { light: '60', good: '75', best: '90' };
const GIF_COLOURS = { light: '96', good: '192', best: '256' };
const MOVING_PICTURE = {
  gif: ({ quality }: FilmSpec) => [
    '-filter_complex',
    `[0:v]${FULL_RGB},format=rgb24,split[a][b];[a]palettegen=max_colors=${GIF_COLOURS[quality]}:stats_mode=full[p];[b][p]paletteuse=dither=sierra2_4a:diff_mode=rectangle`,
    ...['-loop', '0'],
  ],
  webp: ({ quality }: FilmSpec) => [
    ...['-vf', `${FULL_RGB},format=bgra`, '-c:v', 'libwebp', '-lossless', '0'],
    ...['-quality', WEBP_QUALITY[quality], '-compression_level', '4', '-loop', '0'],
  ],
};

async function joined(parts: FilmParts, pictures: readonly string[]): Promise<void> {
  const { spec, soundFile } = parts;
  const extra = await beside(parts, soundFile ? 2 : 1);
  if (spec.mostBytes !== undefined) {
    await fitToSize({
      spec,
      input: pictures,
      sound: soundFile ? soundInput(parts) : null,
      beside: extra,
      frameCount: parts.plan.frameCount,
      lengthMs: lengthOf(parts),
      workFolder: parts.workFolder,
      outFile: parts.outFile,
      signal: parts.signal,
      onShare: parts.onShare,
    });
    return;
  }
  await run(
    parts,
    [...pictures, ...(parts.encodedSound ? ['-i', parts.encodedSound] : soundInput(parts)), ...extra.inputs],
    [
      ...maps(parts),
      '-c:v',
      'copy',
      ...(parts.encodedSound ? ['-c:a', 'copy'] : soundFile ? SOUND_ARGS[spec.format] : []),
      ...extra.args,
      ...COLOUR_TAGS,
      ...CONTAINER_ARGS[spec.format],
    ],
  );
}

/** When frames are on, as ffmpeg is told when to make whole pictures: a little before, so that rounding never makes it the next one. */
const momentsOf = (frames: readonly number[], rate: FrameRate) =>
  frames.map((frame) => ((momentOfFrame(frame, rate) - 2) / 1000).toFixed(4)).join(',');

const maps = ({ soundFile }: FilmParts) => ['-map', '0:v:0', ...(soundFile ? ['-map', '1:a:0'] : [])];

const soundOnly = ({ spec, prepared }: FilmParts) => [
  ...['-map', '0:a:0', ...SOUND_ARGS[spec.format]],
  ...['-metadata', `title=${prepared.show.title}`, ...CONTAINER_ARGS[spec.format]],
];

async function run(parts: FilmParts, inputs: readonly string[], args: readonly string[]): Promise<void> {
  await runFfmpeg([...inputs, ...args, '-y', parts.outFile], {
    signal: parts.signal,
    onFrame: (count) => parts.onShare(Math.min(1, count / parts.plan.frameCount)),
  });
}

/** The segments as one input. How long each lasts is said so that the sum is right at every joint, whatever the microseconds round to. */
async function joinedPictures({ prepared, plan, segments, workFolder }: FilmParts): Promise<string[]> {
  const { rate } = prepared.show.frame;
  const microsOf = (frame: number) => Math.round(momentOfFrame(frame - plan.firstFrame, rate) * 1000);
  const list = plan.segments.map(
    ({ firstFrame, endFrame }, index) =>
      `file '${path.basename(segments[index]!)}'\nduration ${(microsOf(endFrame) - microsOf(firstFrame)) / 1e6}`,
  );
  const listFile = path.join(workFolder, 'segments.txt');
  await writeFile(listFile, `ffconcat version 1.0\n${list.join('\n')}\n`);
  return ['-protocol_whitelist', 'file,pipe', '-f', 'concat', '-safe', '1', '-i', listFile];
}

const lengthOf = ({ prepared, plan }: Pick<FilmParts, 'prepared' | 'plan'>) =>
  momentOfFrame(plan.frameCount, prepared.show.frame.rate);

/** The film's stretch of the mix. */
function soundInput(parts: Omit<FilmParts, 'segments' | 'outFile' | 'onShare'>): string[] {
  const { soundFile, plan, prepared } = parts;
  if (!soundFile) return [];
  const fromS = momentOfFrame(plan.firstFrame, prepared.show.frame.rate) / 1000;
  return [
    ...['-f', 'f32le', '-ar', String(MIX_SAMPLE_RATE), '-ac', '2'],
    ...(fromS > 0 ? ['-ss', fromS.toFixed(6)] : []),
    ...['-t', (lengthOf(parts) / 1000).toFixed(6), '-i', soundFile],
  ];
}

/** What a file says beside pictures and sound: its title, chapters, captions. */
interface Beside {
  readonly inputs: readonly string[];
  readonly args: readonly string[];
}

/** @param firstInput how many inputs come before */
async function beside(parts: FilmParts, firstInput: number): Promise<Beside> {
  const { spec, prepared, workFolder, plan } = parts;
  const { show } = prepared;
  const tracks = CAPTION_CODEC[spec.format] ? await captionFiles(parts) : [];
  const fromMs = momentOfFrame(plan.firstFrame, show.frame.rate);
  const chapters = HOLDS_CHAPTERS.has(spec.format) ? filmChapters(prepared, fromMs, fromMs + lengthOf(parts)) : [];
  const notes = path.join(workFolder, 'notes.txt');
  await writeFile(notes, asFfmetadata(show.title, chapters));
  return {
    inputs: [...tracks.flatMap(({ file }) => ['-f', 'srt', '-i', file]), '-f', 'ffmetadata', '-i', notes],
    args: [
      ...tracks.flatMap(({ language }, index) => [
        ...['-map', `${firstInput + index}:s:0`],
        ...[`-metadata:s:s:${index}`, `language=${threeLetters(language)}`],
      ]),
      ...(tracks.length > 0 ? ['-c:s', CAPTION_CODEC[spec.format]!] : []),
      ...['-map_metadata', String(firstInput + tracks.length), '-map_chapters', String(firstInput + tracks.length)],
    ],
  };
}

/** Captions beside the picture, one file for each language; none where they are part of it. */
async function captionFiles(parts: FilmParts): Promise<{ file: string; language: string }[]> {
  const { prepared, workFolder, plan } = parts;
  const { show, facts } = prepared;
  if (show.captionLook) return [];
  const fromMs = momentOfFrame(plan.firstFrame, show.frame.rate);
  const tracks: { file: string; language: string }[] = [];
  for (const language of captionLanguages(show)) {
    const captions = filmCaptions(show, facts, language, fromMs, fromMs + lengthOf(parts));
    if (captions.length === 0) continue;
    const file = path.join(workFolder, `captions-${tracks.length}.srt`);
    await writeFile(file, asSrt(captions));
    tracks.push({ file, language });
  }
  return tracks;
}

/** Encodes the film's stretch of the mix as its format has it. */
export async function encodeSound(
  parts: Omit<FilmParts, 'segments' | 'outFile' | 'onShare'>,
  file: string,
): Promise<void> {
  const { format } = parts.spec;
  const container = format === 'vp9' || format === 'av1' ? ['-f', 'webm'] : ['-movflags', '+faststart', '-f', 'ipod'];
  await runFfmpeg([...soundInput(parts), '-map', '0:a:0', ...SOUND_ARGS[format], ...container, '-y', file], {
    signal: parts.signal,
  });
}

/** Every frame as a picture of its own, in a ZIP. */
async function zippedPictures(parts: FilmParts, pictures: readonly string[]): Promise<void> {
  const { spec, plan, signal, onShare, outFile, workFolder } = parts;
  const folder = path.join(workFolder, 'frames');
  await rm(folder, { recursive: true, force: true });
  await mkdir(folder);
  const digits = String(plan.frameCount).length;
  const jpeg = spec.format === 'jpegs';
  const how = jpeg
    ? [
        ...[
          '-vf',
          `scale=in_color_matrix=bt709:in_range=tv:out_color_matrix=bt601:out_range=pc,format=yuvj420p`,
          '-q:v',
          '2',
        ],
      ]
    : [...['-vf', `${FULL_RGB},format=rgb24`, '-compression_level', '3']];
  await runFfmpeg(
    [...pictures, ...how, '-fps_mode', 'passthrough', path.join(folder, `%0${digits}d.${jpeg ? 'jpg' : 'png'}`)],
    { signal, onFrame: (count) => onShare((count / plan.frameCount) * 0.8) },
  );
  await zipFolder(folder, outFile, signal);
  await rm(folder, { recursive: true, force: true });
}

/** A frame of the film as a JPEG, for lists and players. @param atMs from the film's start */
export async function posterOf(parts: FilmParts, atMs: number, file: string): Promise<void> {
  await runFfmpeg(
    [
      ...(await joinedPictures(parts)),
      ...['-ss', (atMs / 1000).toFixed(3), '-frames:v', '1'],
      ...[
        '-vf',
        `scale=w='min(960,iw)':h=-2:in_color_matrix=bt709:out_color_matrix=bt601:out_range=pc,format=yuvj420p`,
      ],
      ...['-q:v', '3', '-f', 'mjpeg', '-y', file],
    ],
    { signal: parts.signal },
  );
}

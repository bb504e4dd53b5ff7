import { MOST_LOOKED_AT, type FilmSegment } from '../../core/film/plan-film';
import type { FilmFormatName } from '../../core/film/film-formats';
import type { FilmQuality, FilmSpec } from '../../core/film/film-spec';
import { framesPerSecond } from '../../core/timing/frame-rate';
import type { HardwareEncoder } from './hardware-encoder';

/** How the frames of one segment are encoded. Segments of one encoding are joined without encoding again, so their stream headers are the same. */
export interface SegmentEncoding {
  /** ffmpeg's name of what holds a segment: one that keeps moments exactly. A `pack` holds no frames, but what they are drawn from. */
  readonly container: 'mp4' | 'mov' | 'nut' | 'pack';
  /** The encoder and how it is set. */
  readonly args: readonly string[];
  /** Frames after a segment that it looks at, so that those before them are encoded as in the middle of a film; none when it is not said. */
  readonly looksAhead?: number;
  /** How many of a segment's own first frames are shown to it before them, so that it does not begin as at the start of a film; none when it is not said. */
  readonly runIn?: number;
  /** For an encoder that codes the frames after each whole picture in groups: only after an incomplete group is a whole picture's following coded otherwise than at the start of a film. */
  readonly groups?: { readonly ofFrames: number; readonly wholePictureEvery: number };
}

/** BT.709, limited range, said in the stream and in the container; H.264 assumes chroma sited left, which is how it is drawn. */
export const COLOUR_TAGS: readonly string[] = [
  ...['-colorspace', 'bt709'],
  ...['-color_primaries', 'bt709'],
  ...['-color_trc', 'bt709'],
  ...['-color_range', 'tv'],
];

/** A whole picture so often, so that players can jump. */
export const WHOLE_PICTURE_SECONDS = 2;

const X264_CRF: Record<FilmQuality, string> = { light: '24.4', good: '19.4', best: '15.4' };
const X265_CRF: Record<FilmQuality, string> = { light: '28', good: '23', best: '18' };
const VP9_CRF: Record<FilmQuality, string> = { light: '38', good: '31', best: '24' };
const AV1_CRF: Record<FilmQuality, string> = { light: '44', good: '35', best: '26' };
/** Quality of JPEGs. */
const PAGE_JPEG: Record<FilmQuality, string> = { light: '76', good: '86', best: '93' };
const PRORES_PROFILE: Record<FilmQuality, string> = { light: '1', good: '2', best: '3' };

/**
 * One encoder thread a segment: segments at the same time fill the cores with no work lost between threads.
 *
 * Slow, even moves need little search, and a great deal of what they cost can be spent where it is seen for long: `superfast` with the look ahead of slower presets
 * (short, since little changes) and its tree of what is used again, and bits laid by how busy each block is. On large, colourful wallpapers that is as like the drawn frames as
 * `veryfast` at crf 19 and no larger, for six tenths of its CPU; `bench/encode` has the table.
 */
const X264: readonly string[] = [
  ...['-c:v', 'libx264', '-preset', 'superfast', '-x264-params', 'mbtree=1:rc-lookahead=10:aq-mode=2', '-threads', '1'],
  ...['-pix_fmt', 'yuv420p', '-profile:v', 'high'],
];

/** The frames as they were drawn, for what encodes them anew as a whole: nothing left out, or next to nothing. */
export const AS_DRAWN: SegmentEncoding = {
  container: 'mp4',
  args: [...['-c:v', 'libx264', '-preset', 'ultrafast', '-qp', '0', '-threads', '1', '-pix_fmt', 'yuv420p']],
};
const NEARLY_AS_DRAWN: SegmentEncoding = {
  container: 'mp4',
  args: [...['-c:v', 'libx264', '-preset', 'ultrafast', '-crf', '8', '-threads', '1', '-pix_fmt', 'yuv420p']],
};

/** x264's own, of a whole picture in the middle of a stream. */
const FIRST_FRAME = 1.4;

/** A whole picture and one that is told from it; odd numbers leave less even ends. */
const RUN_IN = 2;

/** SVT-AV1 codes the last frames as within a film as soon as a whole picture and one told from it follow. */
const ENOUGH_FOLLOWS = 2;

/** What an encoder is given of a segment, and what it is shown around it that is not kept. */
export interface SegmentFrames {
  /** Of the segment itself. */
  readonly frameCount: number;
  /** Its own first frames, shown once more before it. */
  readonly framesBefore: number;
  /** What is drawn after it, to be looked at. */
  readonly framesAfter: number;
}

/**
 * How many of a segment's first frames its encoder is shown before it. A film begins with its first segment, as its encoder does. Two frames of a run-in are an incomplete
 * group; where the segment before ends with a complete one, its encoder would go on as it begins.
 */
export function framesBefore(
  { follows, firstFrame, endFrame }: FilmSegment,
  { runIn = 0, groups }: SegmentEncoding,
): number {
  if (follows === 0) return 0;
  const isComplete = groups && ((follows - 1) % groups.wholePictureEvery) % groups.ofFrames === 0;
  return isComplete ? 0 : Math.min(runIn, endFrame - firstFrame);
}

/**
 * What a segment is encoded with, so that no border is seen. x264 gives the first frame of a stream no more than those that follow, which it does in the middle of
 * one: its quantiser is divided by that. To the last ones it gives less, since nothing is seen to come after them: it is shown the first frames of the next
 * segment, beginning with a whole picture as there, and they are left out of what is written. x265 begins each stream at a quantiser of its own, and only in the
 * middle of one at what it has come to with what it is given: it is shown the first frames twice, and what it makes of them at first is left out. SVT-AV1 codes the
 * frames after a whole picture by whether the group before it was complete, and the last ones by what follows: shown both, it makes the very frames it would in one
 * go. `bench/borders` measures all of it.
 */
export function evenedArgs(
  { args }: SegmentEncoding,
  { frameCount, framesBefore, framesAfter }: SegmentFrames,
): readonly string[] {
  const at = args.indexOf('-x264-params') + 1;
  const begun = at === 0 ? args : args.with(at, `${args[at]!}:zones=0,0,b=${FIRST_FRAME}`);
  const end = framesBefore + frameCount;
  const borders = [...(framesBefore > 0 ? [framesBefore] : []), ...(framesAfter > 0 ? [end] : [])];
  if (borders.length === 0) return begun;
  return [
    ...begun,
    ...['-force_key_frames', `expr:${borders.map((frame) => `eq(n,${frame})`).join('+')}`],
    '-bsf:v',
    // The segment's clock begins with its own first frame.
    `noise=drop='lt(n,${framesBefore})+gte(n,${end})':amount=0,setts=pts=PTS-STARTPTS:dts=DTS-STARTPTS`,
  ];
}

/** How a film's segments are encoded. @param hardware the machine's own encoder, for what it can do */
export function segmentEncoding(spec: FilmSpec, hardware: HardwareEncoder | null = null): SegmentEncoding {
  const { format, quality, rate } = spec;
  const groupFrames = String(Math.round(framesPerSecond(rate) * WHOLE_PICTURE_SECONDS));
  switch (format) {
    case 'mp4':
      return spec.mostBytes === undefined
        ? {
            container: 'mp4',
            ...(hardware
              ? { args: hardware.args(quality, groupFrames) }
              : { args: [...X264, '-crf', X264_CRF[quality], '-g', groupFrames], looksAhead: MOST_LOOKED_AT }),
          }
        : NEARLY_AS_DRAWN;
    case 'hevc':
      return {
        container: 'mp4',
        args: [
          ...['-c:v', 'libx265', '-preset', 'superfast', '-crf', X265_CRF[quality], '-pix_fmt', 'yuv420p'],
          // One thread; what is said of colour is repeated where H.265 looks for it.
          '-x265-params',
          `log-level=error:pools=1:frame-threads=1:keyint=${groupFrames}:open-gop=0:repeat-headers=0:colorprim=bt709:transfer=bt709:colormatrix=bt709:range=limited`,
          ...['-forced-idr', '1', '-tag:v', 'hvc1'],
        ],
        runIn: RUN_IN,
      };
    case 'vp9':
      return {
        container: 'mp4',
        args: [
          ...['-c:v', 'libvpx-vp9', '-crf', VP9_CRF[quality], '-b:v', '0', '-deadline', 'good', '-cpu-used', '5'],
          ...['-threads', '1', '-g', groupFrames, '-pix_fmt', 'yuv420p'],
        ],
      };
    case 'av1':
      return {
        container: 'mp4',
        args: [
          ...['-c:v', 'libsvtav1', '-preset', '10', '-crf', AV1_CRF[quality], '-g', groupFrames, '-pix_fmt', 'yuv420p'],
          ...['-svtav1-params', 'lp=1:enable-force-key-frames=1'],
        ],
        looksAhead: ENOUGH_FOLLOWS,
        runIn: RUN_IN,
        groups: { ofFrames: 16, wholePictureEvery: Number(groupFrames) },
      };
    case 'prores':
      return {
        container: 'mov',
        args: [
          ...['-c:v', 'prores_ks', '-profile:v', PRORES_PROFILE[quality], '-vendor', 'apl0', '-threads', '1'],
          ...['-pix_fmt', 'yuv422p10le'],
        ],
      };
    case 'ffv1':
      return {
        container: 'nut',
        args: ['-c:v', 'ffv1', '-level', '3', '-slicecrc', '1', '-g', '1', '-threads', '1', '-pix_fmt', 'yuv420p'],
      };
    case 'pal':
    case 'ntsc':
      return NEARLY_AS_DRAWN;
    case 'gif':
    case 'webp':
    case 'jpegs':
    case 'pngs':
      return AS_DRAWN;
    case 'page':
      return { container: 'pack', args: [PAGE_JPEG[quality]] };
    case 'm4a':
    case 'mp3':
    case 'wav':
    case 'flac':
      throw new RangeError(`a sound has no frames to encode, got ${format}`);
  }
}

const AAC = ['-c:a', 'aac', '-b:a', '256k'];
const FLAC = ['-c:a', 'flac', '-sample_fmt', 's32', '-bits_per_raw_sample', '24'];

/** How the mix is encoded beside the pictures, or by itself. */
export const SOUND_ARGS: Readonly<Record<FilmFormatName, readonly string[]>> = {
  mp4: AAC,
  hevc: AAC,
  vp9: ['-c:a', 'libopus', '-b:a', '192k'],
  av1: ['-c:a', 'libopus', '-b:a', '192k'],
  prores: ['-c:a', 'pcm_s24le'],
  ffv1: FLAC,
  m4a: AAC,
  mp3: ['-c:a', 'libmp3lame', '-b:a', '256k'],
  wav: ['-c:a', 'pcm_s24le'],
  flac: FLAC,
  pal: ['-c:a', 'ac3', '-b:a', '256k'],
  ntsc: ['-c:a', 'ac3', '-b:a', '256k'],
  gif: [],
  webp: [],
  jpegs: [],
  pngs: [],
  page: ['-c:a', 'aac', '-b:a', '192k'],
};

/** ffmpeg's name of the file's container, and what is said to it. */
export const CONTAINER_ARGS: Readonly<Record<FilmFormatName, readonly string[]>> = {
  mp4: ['-movflags', '+faststart', '-f', 'mp4'],
  hevc: ['-movflags', '+faststart', '-tag:v', 'hvc1', '-f', 'mp4'],
  vp9: ['-f', 'webm'],
  av1: ['-f', 'webm'],
  prores: ['-f', 'mov'],
  ffv1: ['-f', 'matroska'],
  m4a: ['-movflags', '+faststart', '-f', 'ipod'],
  mp3: ['-f', 'mp3'],
  wav: ['-f', 'wav'],
  flac: ['-f', 'flac'],
  pal: ['-f', 'dvd'],
  ntsc: ['-f', 'dvd'],
  gif: ['-f', 'gif'],
  webp: ['-f', 'webp'],
  jpegs: [],
  pngs: [],
  page: [],
};

/** How captions are written into the file; formats that are not named hold none. */
export const CAPTION_CODEC: Readonly<Partial<Record<FilmFormatName, string>>> = {
  mp4: 'mov_text',
  hevc: 'mov_text',
  prores: 'mov_text',
  vp9: 'webvtt',
  av1: 'webvtt',
  ffv1: 'srt',
};

/** Formats that can say where chapters begin. */
export const HOLDS_CHAPTERS: ReadonlySet<FilmFormatName> = new Set([
  'mp4',
  'hevc',
  'vp9',
  'av1',
  'prores',
  'ffv1',
  'm4a',
  'mp3',
]);

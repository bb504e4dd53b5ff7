import type { FrameRate } from '../timing/frame-rate';

/** Ways a film can be packed. */
export interface FilmFormat {
  /** As people say it. */
  readonly name: string;
  /** Who it is good for. */
  readonly note: string;
  /** Of the file. */
  readonly extension: string;
  readonly mime: string;
  /** `show`: what a film is drawn from, and what draws it. */
  readonly holds: 'film' | 'pictures' | 'sound' | 'show';
  /** A size can be asked of it. */
  readonly fitsSize?: true;
  /** Browsers play it. */
  readonly plays?: true;
  readonly longestMs?: number;
  /** It has no other. */
  readonly discRate?: FrameRate;
}

export const FILM_FORMATS = {
  mp4: {
    name: 'MP4',
    note: 'H.264: plays everywhere',
    extension: 'mp4',
    mime: 'video/mp4',
    holds: 'film',
    fitsSize: true,
    plays: true,
  },
  hevc: {
    name: 'MP4, H.265',
    note: 'smaller; newer devices only',
    extension: 'mp4',
    mime: 'video/mp4',
    holds: 'film',
  },
  vp9: {
    name: 'WebM, VP9',
    note: 'open; browsers play it',
    extension: 'webm',
    mime: 'video/webm',
    holds: 'film',
    plays: true,
  },
  av1: {
    name: 'WebM, AV1',
    note: 'open and smallest; newer browsers',
    extension: 'webm',
    mime: 'video/webm',
    holds: 'film',
    plays: true,
  },
  gif: {
    name: 'GIF',
    note: 'a few seconds, silent, over and over',
    extension: 'gif',
    mime: 'image/gif',
    holds: 'pictures',
    longestMs: 30_000,
  },
  webp: {
    name: 'Animated WebP',
    note: 'a few seconds, silent, smaller than a GIF',
    extension: 'webp',
    mime: 'image/webp',
    holds: 'pictures',
    longestMs: 30_000,
  },
  m4a: { name: 'M4A', note: 'AAC, 256 kbit/s', extension: 'm4a', mime: 'audio/mp4', holds: 'sound' },
  mp3: { name: 'MP3', note: '256 kbit/s', extension: 'mp3', mime: 'audio/mpeg', holds: 'sound' },
  wav: { name: 'WAV', note: '24 bit, nothing left out', extension: 'wav', mime: 'audio/wav', holds: 'sound' },
  flac: {
    name: 'FLAC',
    note: '24 bit, nothing left out, smaller',
    extension: 'flac',
    mime: 'audio/flac',
    holds: 'sound',
  },
  prores: {
    name: 'MOV, ProRes 422',
    note: 'for going on in an editing program; large',
    extension: 'mov',
    mime: 'video/quicktime',
    holds: 'film',
  },
  ffv1: {
    name: 'MKV, FFV1',
    note: 'nothing left out, for keeping; very large',
    extension: 'mkv',
    mime: 'video/x-matroska',
    holds: 'film',
  },
  jpegs: {
    name: 'JPEG pictures',
    note: 'every frame, in a ZIP',
    extension: 'zip',
    mime: 'application/zip',
    holds: 'pictures',
    longestMs: 600_000,
  },
  pngs: {
    name: 'PNG pictures',
    note: 'every frame, nothing left out, in a ZIP',
    extension: 'zip',
    mime: 'application/zip',
    holds: 'pictures',
    longestMs: 600_000,
  },
  page: {
    name: 'Page that plays',
    note: 'any browser draws it from a disk, without a line, in a ZIP',
    extension: 'zip',
    mime: 'application/zip',
    holds: 'show',
  },
  pal: {
    name: 'MPEG-2, PAL',
    note: 'for a video disc, 720 × 576',
    extension: 'mpg',
    mime: 'video/mpeg',
    holds: 'film',
    discRate: { frames: 25, seconds: 1 },
  },
  ntsc: {
    name: 'MPEG-2, NTSC',
    note: 'for a video disc, 720 × 480',
    extension: 'mpg',
    mime: 'video/mpeg',
    holds: 'film',
    discRate: { frames: 30_000, seconds: 1001 },
  },
} as const satisfies Readonly<Record<string, FilmFormat>>;

export type FilmFormatName = keyof typeof FILM_FORMATS;
export const FORMAT_NAMES = Object.keys(FILM_FORMATS) as FilmFormatName[];

export const formatOf = (name: FilmFormatName): FilmFormat => FILM_FORMATS[name];

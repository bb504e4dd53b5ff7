import { STANDARDS, type StandardName } from '../../core/disc/disc-standard';
import { peakKbits } from '../../core/disc/fit-disc';
import { CONTAINER_ARGS, SOUND_ARGS } from './encodings';

/** What is smaller than HD goes by the older standard's matrix. */
const BT601 = 'in_color_matrix=bt709:out_color_matrix=bt601:flags=lanczos+accurate_rnd';

/** Frames as they were drawn, squeezed to the disc's points. */
export const discScale = (standard: StandardName): string =>
  `scale=${STANDARDS[standard].widthPx}:${STANDARDS[standard].heightPx}:${BT601}`;

/** Pictures between two that others lean on. */
const BETWEEN = 2;

export const SILENCE: readonly string[] = ['-f', 'lavfi', '-i', 'anullsrc=r=48000:cl=stereo'];

/**
 * How pictures and sound are encoded and packed for a disc. Groups of pictures are closed, so that any chapter can be begun with; the encoder's buffer is the one players have.
 *
 * @param filter of the pictures; empty when they went through one already
 */
export function discVideo(standard: StandardName, shape: string, pictureKbits: number, filter: string): string[] {
  return [
    ...['-target', `${standard}-dvd`, '-aspect', shape, ...(filter ? ['-vf', filter] : [])],
    ...['-colorspace', 'smpte170m', '-color_primaries', 'bt470bg', '-color_trc', 'smpte170m'],
    ...['-b:v', `${pictureKbits}k`, '-maxrate:v', `${peakKbits(pictureKbits)}k`, '-bufsize', '1835k'],
    ...[
      '-g',
      String(STANDARDS[standard].groupFrames + BETWEEN),
      '-bf',
      String(BETWEEN),
      '-flags',
      '+cgop',
      '-sc_threshold',
      '1000000000',
    ],
    ...SOUND_ARGS[standard],
    ...['-ac', '2', ...CONTAINER_ARGS[standard]],
  ];
}

import type { Hdr } from '../show/asset-facts';

/**
 * How clips that are brighter than a usual screen are toned down for one.
 *
 * Light is measured in cd/m². HDR reference white is 203 cd/m² and an 18 % grey 26 cd/m² (ITU-R BT.2408-7, table 1). What is darker than about half of reference
 * white stays as it is relative to it; above, light is rolled off so that 1000 cd/m² becomes the screen's white (the EETF of ITU-R BT.2390-11, section 5.4.1, from
 * 1000 to 203 cd/m²). It is worked out on the largest of red, green and blue and scales all three, which keeps hues; colours that BT.709 does not have are mixed
 * with grey of their own brightness until it has them.
 */

/** What a clip's brightest light counts as, cd/m²; brighter is cut. Phones and HLG's own reference display reach this. */
export const HDR_PEAK = 1000;
/** HDR reference white, cd/m²; a usual screen's white stands for it. */
export const HDR_WHITE = 203;

const M1 = 2610 / 16_384;
const M2 = (2523 / 4096) * 128;
const C1 = 3424 / 4096;
const C2 = (2413 / 4096) * 32;
const C3 = (2392 / 4096) * 32;

/** Light of a PQ code, cd/m² (ITU-R BT.2100-2, table 4). @param code 0…1 */
export function pqToLight(code: number): number {
  const root = Math.max(0, code) ** (1 / M2);
  return 10_000 * (Math.max(0, root - C1) / (C2 - C3 * root)) ** (1 / M1);
}

/** The PQ code of light. @param light cd/m² */
export function lightToPq(light: number): number {
  const power = (Math.max(0, light) / 10_000) ** M1;
  return ((C1 + C2 * power) / (1 + C3 * power)) ** M2;
}

/** Light at the camera of an HLG code, 0…1 (ITU-R BT.2100-2, table 5). */
function hlgToScene(code: number): number {
  const value = Math.max(0, code);
  return value <= 0.5 ? value ** 2 / 3 : (Math.exp((value - 0.559_910_73) / 0.178_832_77) + 0.284_668_92) / 12;
}

type Rgb = readonly [number, number, number];

const LUMINANCE_2020: Rgb = [0.2627, 0.678, 0.0593];
const LUMINANCE_709: Rgb = [0.2126, 0.7152, 0.0722];
/** From BT.2020's primaries to BT.709's (ITU-R BT.2087-0, inverse of its annex 1). */
const TO_709: readonly Rgb[] = [
  [1.6605, -0.5876, -0.0728],
  [-0.1246, 1.1329, -0.0083],
  [-0.0182, -0.1006, 1.1187],
];
const dot = (a: Rgb, b: Rgb) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const each = (colour: Rgb, change: (value: number) => number): Rgb => [
  change(colour[0]),
  change(colour[1]),
  change(colour[2]),
];

/** Light at the screen, cd/m², of a colour's codes. HLG goes by its system gamma of 1.2 for a display of 1000 cd/m². */
function lightOf(codes: Rgb, hdr: Hdr): Rgb {
  if (hdr === 'pq') return each(codes, pqToLight);
  const scene = each(codes, hlgToScene);
  const gain = HDR_PEAK * Math.max(1e-9, dot(scene, LUMINANCE_2020)) ** 0.2;
  return each(scene, (value) => value * gain);
}

const MOST = lightToPq(HDR_WHITE) / lightToPq(HDR_PEAK);
const KNEE = 1.5 * MOST - 0.5;

/** Light as it is shown on a screen whose white is `HDR_WHITE`. @param light cd/m² */
export function rolledOff(light: number): number {
  const code = Math.min(1, lightToPq(light) / lightToPq(HDR_PEAK));
  if (code < KNEE) return light;
  const t = (code - KNEE) / (1 - KNEE);
  const curve =
    (2 * t ** 3 - 3 * t ** 2 + 1) * KNEE + (t ** 3 - 2 * t ** 2 + t) * (1 - KNEE) + (-2 * t ** 3 + 3 * t ** 2) * MOST;
  return pqToLight(curve * lightToPq(HDR_PEAK));
}

/**
 * A colour as a usual screen shows it: BT.709 primaries, codes by BT.1886's gamma of 2.4.
 *
 * @param codes red, green and blue by BT.2020, 0…1
 * @returns 0…1 each
 */
export function tonedDown(codes: Rgb, hdr: Hdr): Rgb {
  const light = lightOf(codes, hdr);
  const largest = Math.max(...light);
  if (largest <= 0) return [0, 0, 0];
  const scale = rolledOff(largest) / largest / HDR_WHITE;
  const wide = each(light, (value) => value * scale);
  const narrow: Rgb = [dot(TO_709[0]!, wide), dot(TO_709[1]!, wide), dot(TO_709[2]!, wide)];
  return each(withinGamut(narrow), (value) => Math.min(1, Math.max(0, value)) ** (1 / 2.4));
}

/** Mixed with grey as bright, no more than needed. */
function withinGamut(colour: Rgb): Rgb {
  const grey = Math.min(1, Math.max(0, dot(colour, LUMINANCE_709)));
  let share = 1;
  for (const value of colour) {
    if (value > 1) share = Math.min(share, (1 - grey) / (value - grey));
    if (value < 0) share = Math.min(share, grey / (grey - value));
  }
  return each(colour, (value) => grey + share * (value - grey));
}

/** Points on a side of the table; between them four neighbours are mixed. */
const TABLE_SIDE = 49;

/** `tonedDown` as a table in the .cube form, which ffmpeg reads: red runs first. */
export function toneTable(hdr: Hdr): string {
  const lines = [`LUT_3D_SIZE ${TABLE_SIDE}`];
  const at = (index: number) => index / (TABLE_SIDE - 1);
  for (let blue = 0; blue < TABLE_SIDE; blue += 1)
    for (let green = 0; green < TABLE_SIDE; green += 1)
      for (let red = 0; red < TABLE_SIDE; red += 1)
        lines.push(
          tonedDown([at(red), at(green), at(blue)], hdr)
            .map((value) => value.toFixed(6))
            .join(' '),
        );
  return `${lines.join('\n')}\n`;
}

/** How many pixels have each value, of 256, and how many have lost what was in them. */
export interface ToneCounts {
  readonly luma: Uint32Array;
  readonly red: Uint32Array;
  readonly green: Uint32Array;
  readonly blue: Uint32Array;
  readonly pixels: number;
  /** So many have at least one colour that is as bright as it can be. */
  readonly blown: number;
  /** So many are black, as far as a screen can show. */
  readonly drowned: number;
}

/** Pictures are drawn in the narrow range of video, where the last steps cannot be told apart. */
const BLOWN_FROM = 254;
const DROWNED_TO = 1;

/** Whether a pixel has lost what was in it: 1 blown, −1 drowned, 0 neither. @param red, green, blue 0…255 */
export function lostOf(red: number, green: number, blue: number): -1 | 0 | 1 {
  const most = Math.max(red, green, blue);
  if (most >= BLOWN_FROM) return 1;
  return most <= DROWNED_TO ? -1 : 0;
}

/** @param rgba four bytes a pixel, gamma-encoded; what is transparent counts as well. Luma by ITU-R BT.709. */
export function toneCounts(rgba: Uint8ClampedArray): ToneCounts {
  const [luma, red, green, blue] = [0, 1, 2, 3].map(() => new Uint32Array(256)) as [
    Uint32Array,
    Uint32Array,
    Uint32Array,
    Uint32Array,
  ];
  let blown = 0;
  let drowned = 0;
  for (let at = 0; at < rgba.length; at += 4) {
    const [r, g, b] = [rgba[at]!, rgba[at + 1]!, rgba[at + 2]!];
    red[r]! += 1;
    green[g]! += 1;
    blue[b]! += 1;
    luma[Math.round(0.2126 * r + 0.7152 * g + 0.0722 * b)]! += 1;
    const lost = lostOf(r, g, b);
    if (lost > 0) blown += 1;
    else if (lost < 0) drowned += 1;
  }
  return { luma, red, green, blue, pixels: rgba.length / 4, blown, drowned };
}

import type { LightValues } from '../frame/frame-plan';

/**
 * Light as functions of luma and chroma, both gamma-encoded: y 0…1, chroma as (Cb, Cr) −0.5…0.5. White balance is a 3 × 3 matrix on RGB, which is one on Y'CbCr
 * too; tones are a curve on luma; chroma follows the tones and is scaled and shifted. All is linear in chroma, so it is exact on planes of half size.
 */

const clamp = (value: number) => Math.min(1, Math.max(0, value));

/** Luma out for luma in. Rising for all values within their ranges. */
export function toneCurve(light: LightValues): (y: number) => number {
  const gain = 2 ** (light.exposure / 2.2);
  const span = Math.max(0.01, light.white - light.black);
  return (input) => {
    let y = clamp(((input - light.black) / span) * gain);
    y += 0.9 * light.shadows * y * (1 - y) ** 3;
    y += 0.9 * light.highlights * (1 - y) * y ** 3;
    y += light.contrast > 0 ? 0.8 * light.contrast * (3 * y * y - 2 * y ** 3 - y) : 0.6 * light.contrast * (y - 0.5);
    return clamp(y + light.paling * (1 - y));
  };
}

/** What chroma is multiplied by at a luma: colours keep their strength as they get brighter, and give way near white. */
export function chromaGain(light: LightValues): (y: number) => number {
  const curve = toneCurve({ ...light, paling: 0 });
  const strength =
    (light.saturation > 0 ? 1 + 1.2 * light.saturation : 1 + light.saturation) *
    (1 - light.blackAndWhite) *
    (1 - light.sepia) *
    (1 - light.toneAmount) *
    (1 - light.paling);
  return (input) => {
    const y = Math.max(0.03, input);
    const out = curve(y);
    const follows = out <= y ? out / y : Math.min(3, out / y) * Math.min(1, Math.sqrt((1.02 - out) / (1.02 - y)));
    return Math.min(5.9, Math.max(0, strength * follows));
  };
}

/** What chroma is multiplied by beside that, by how strong it is: the larger of |Cb| and |Cr| times two, 0…1. */
export function vibranceGain(light: LightValues): (colourful: number) => number {
  return (colourful) => Math.max(0, 1 + light.vibrance * (1 - clamp(colourful)) ** 2);
}

/** What is added to Cb and Cr at a luma of the result. */
export function chromaShift(light: LightValues): (y: number) => readonly [cb: number, cr: number] {
  const curve = toneCurve({ ...light, paling: 0 });
  const [, cb, cr] = ycc(light.toneColour);
  return (input) => {
    const y = curve(input);
    const middle = 4 * y * (1 - y);
    const kept = 1 - light.paling;
    return [
      kept * middle * (light.sepia * -0.085 + light.toneAmount * cb),
      kept * middle * (light.sepia * 0.058 + light.toneAmount * cr),
    ];
  };
}

/** White balance as a matrix on (y, Cb, Cr). Grey keeps its brightness. */
export function balanceMatrix(light: LightValues): readonly number[] {
  const [r, g, b] = [1 + 0.25 * light.temperature, 1 - 0.15 * light.tint, 1 - 0.25 * light.temperature];
  const grey = KR * r + KG * g + KB * b;
  const gains = [r / grey, g / grey, b / grey] as const;
  const columns = [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ].map(([y, cb, cr]) => {
    const red = y! + 2 * (1 - KR) * cr!;
    const blue = y! + 2 * (1 - KB) * cb!;
    const green = (y! - KR * red - KB * blue) / KG;
    return fromRgb(red * gains[0], green * gains[1], blue * gains[2]);
  });
  return [0, 1, 2].flatMap((row) => columns.map((column) => column[row]!));
}

// ITU-R BT.709.
const KR = 0.2126;
const KB = 0.0722;
const KG = 1 - KR - KB;

function fromRgb(r: number, g: number, b: number): [y: number, cb: number, cr: number] {
  const y = KR * r + KG * g + KB * b;
  return [y, (b - y) / (2 * (1 - KB)), (r - y) / (2 * (1 - KR))];
}

function ycc(colour: string): [y: number, cb: number, cr: number] {
  const [r, g, b] = [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16) / 255) as [
    number,
    number,
    number,
  ];
  return fromRgb(r, g, b);
}

/** Column vectors; rows of four. Maps box or frame pixels (x, y, z, 1) to frame pixels in depth, z towards the viewer. */
export type Matrix4 = readonly number[];
/** Rows of three. A projective map of the plane. */
export type Matrix3 = readonly number[];

export const IDENTITY4: Matrix4 = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];

export function times4(a: Matrix4, b: Matrix4): Matrix4 {
  const out: number[] = [];
  for (let row = 0; row < 4; row += 1)
    for (let column = 0; column < 4; column += 1) {
      let sum = 0;
      for (let k = 0; k < 4; k += 1) sum += a[4 * row + k]! * b[4 * k + column]!;
      out.push(sum);
    }
  return out;
}

export function times3(a: Matrix3, b: Matrix3): Matrix3 {
  const out: number[] = [];
  for (let row = 0; row < 3; row += 1)
    for (let column = 0; column < 3; column += 1) {
      out.push(a[3 * row]! * b[column]! + a[3 * row + 1]! * b[3 + column]! + a[3 * row + 2]! * b[6 + column]!);
    }
  return out;
}

export function translation(x: number, y: number, z: number): Matrix4 {
  return [1, 0, 0, x, 0, 1, 0, y, 0, 0, 1, z, 0, 0, 0, 1];
}

export function scaling(x: number, y: number, z: number): Matrix4 {
  return [x, 0, 0, 0, 0, y, 0, 0, 0, 0, z, 0, 0, 0, 0, 1];
}

/** Turned about the line of sight (clockwise on a screen whose y goes down), then leaned about x (top away), then about y (right side away). */
export function rotation(turnDegrees: number, tiltXDegrees: number, tiltYDegrees: number): Matrix4 {
  const [turn, leanX, leanY] = [turnDegrees, tiltXDegrees, tiltYDegrees].map(
    (degrees) => (degrees * Math.PI) / 180,
  ) as [number, number, number];
  const z = [Math.cos(turn), -Math.sin(turn), 0, 0, Math.sin(turn), Math.cos(turn), 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];
  const x = [1, 0, 0, 0, 0, Math.cos(leanX), -Math.sin(leanX), 0, 0, Math.sin(leanX), Math.cos(leanX), 0, 0, 0, 0, 1];
  const y = [Math.cos(leanY), 0, Math.sin(leanY), 0, 0, 1, 0, 0, -Math.sin(leanY), 0, Math.cos(leanY), 0, 0, 0, 0, 1];
  return times4(times4(y, x), z);
}

/** @returns null when the map flattens the plane to a line */
export function inverse3(m: Matrix3): Matrix3 | null {
  const [a, b, c, d, e, f, g, h, i] = m as [number, number, number, number, number, number, number, number, number];
  const [A, B, C] = [e * i - f * h, f * g - d * i, d * h - e * g];
  const determinant = a * A + b * B + c * C;
  const size = Math.max(...m.map(Math.abs));
  if (!(Math.abs(determinant) > 1e-12 * size ** 3)) return null;
  return [A, c * h - b * i, b * f - c * e, B, a * i - c * g, c * d - a * f, C, b * g - a * h, a * e - b * d].map(
    (value) => value / determinant,
  );
}

/** Where the map takes a point, and its divisor; behind the camera the divisor is not positive. */
export function mapped(m: Matrix3, x: number, y: number): { x: number; y: number; w: number } {
  const w = m[6]! * x + m[7]! * y + m[8]!;
  return { x: (m[0]! * x + m[1]! * y + m[2]!) / w, y: (m[3]! * x + m[4]! * y + m[5]!) / w, w };
}

/** The point of a box's own plane (z = 0) in space. */
export function inSpace(m: Matrix4, x: number, y: number): [x: number, y: number, z: number] {
  return [m[0]! * x + m[1]! * y + m[3]!, m[4]! * x + m[5]! * y + m[7]!, m[8]! * x + m[9]! * y + m[11]!];
}

export interface Eye {
  /** Where the line of sight meets the screen, in frame pixels. */
  readonly x: number;
  readonly y: number;
  /** From the screen, in frame pixels. */
  readonly distance: number;
}

/** The plane z = 0 of a box as the eye sees it on the screen. */
export function projected(m: Matrix4, eye: Eye): Matrix3 {
  const rows = [0, 4, 8].map((at) => [m[at]!, m[at + 1]!, m[at + 3]!] as const);
  const w = [-rows[2]![0] / eye.distance, -rows[2]![1] / eye.distance, 1 - rows[2]![2] / eye.distance];
  const line = (row: readonly [number, number, number], centre: number) =>
    [0, 1, 2].map((k) => row[k]! + centre * (w[k]! - (k === 2 ? 1 : 0)));
  return [...line(rows[0]!, eye.x), ...line(rows[1]!, eye.y), ...w];
}

import type { PictureSize } from '../../core/frame/frame-plan';
import { seedOf } from '../../core/motion/seed';
import type { PatternName } from '../../core/show/transition';
import type { WipeMapLook } from '../../core/transitions/transition-plan';

/** A map of when each place changes over: 0 (first) … 32767 (last), one value a pixel, rows without gaps. */
export type WipeMap = Int16Array;

const LAST = 32767;

/** Everything but a person's own pattern, which is a picture; see `mapOfPicture`. */
export function wipeMap(
  look: Exclude<WipeMapLook, { kind: 'own-pattern' }>,
  { widthPx: w, heightPx: h }: PictureSize,
): WipeMap {
  if (look.kind === 'pattern') return evened(filled(w, h, patternAt(look.pattern, w / h)), look.inverted);
  return spread(filled(w, h, whenAt(look, w, h)));
}

/** A picture's brightness as a map: dark places change first. Evened out, so that the change goes on at a steady pace. */
export function mapOfPicture(
  rgba: ArrayLike<number>,
  { widthPx: w, heightPx: h }: PictureSize,
  inverted: boolean,
): WipeMap {
  const values = Float32Array.from(
    { length: w * h },
    (_, at) => 0.2126 * rgba[4 * at]! + 0.7152 * rgba[4 * at + 1]! + 0.0722 * rgba[4 * at + 2]!,
  );
  return evened(values, inverted);
}

function filled(w: number, h: number, at: (x: number, y: number) => number): Float32Array {
  const out = new Float32Array(w * h);
  for (let y = 0; y < h; y += 1) for (let x = 0; x < w; x += 1) out[y * w + x] = at((x + 0.5) / w, (y + 0.5) / h);
  return out;
}

/** Values brought to 0…32767 by their own range. */
function spread(values: Float32Array): WipeMap {
  let [least, most] = [Infinity, -Infinity];
  for (const value of values) {
    if (value < least) least = value;
    if (value > most) most = value;
  }
  const scale = most > least ? LAST / (most - least) : 0;
  return Int16Array.from(values, (value) => Math.round((value - least) * scale));
}

/** Values brought to 0…32767 by their rank, in 4096 steps with a straight line between: as much of the frame changes in every moment. */
function evened(values: Float32Array, inverted: boolean): WipeMap {
  const steps = 4096;
  const fine = spread(values);
  const counts = new Float64Array(steps + 1);
  for (const value of fine) counts[Math.floor((value * steps) / (LAST + 1)) + 1]! += 1;
  for (let step = 1; step <= steps; step += 1) counts[step]! += counts[step - 1]!;
  return Int16Array.from(fine, (value) => {
    const place = (value * steps) / (LAST + 1);
    const step = Math.floor(place);
    const rank = (counts[step]! + (counts[step + 1]! - counts[step]!) * (place - step)) / fine.length;
    return Math.round((inverted ? 1 - rank : rank) * LAST);
  });
}

/** x and y are 0…1 of the frame. */
function whenAt(
  look: Exclude<WipeMapLook, { kind: 'own-pattern' | 'pattern' }>,
  w: number,
  h: number,
): (x: number, y: number) => number {
  const aspect = w / h;
  switch (look.kind) {
    case 'wipe': {
      const across = look.direction.includes('right') ? 1 : look.direction.includes('left') ? -1 : 0;
      const down = look.direction.includes('down') ? 1 : look.direction.includes('up') ? -1 : 0;
      return (x, y) => across * x * (down === 0 ? 1 : aspect) + down * y;
    }
    case 'clock': {
      const sense = look.direction === 'clockwise' ? 1 : -1;
      return (x, y) => {
        const turn = Math.atan2(sense * (x - 0.5) * aspect, 0.5 - y) / (2 * Math.PI);
        return turn < 0 ? turn + 1 : turn;
      };
    }
    case 'iris': {
      const sense = look.direction === 'open' ? 1 : -1;
      return (x, y) => {
        const [dx, dy] = [(x - 0.5) * aspect, y - 0.5];
        if (look.shape === 'circle') return sense * Math.hypot(dx, dy);
        if (look.shape === 'diamond') return sense * (Math.abs(dx) + Math.abs(dy));
        if (look.shape === 'square') return sense * Math.max(Math.abs(dx), Math.abs(dy));
        // A star with five points: distance measured against the side of the point it lies in.
        const part = (2 * Math.PI) / 5;
        const angle = Math.atan2(dx, -dy);
        const off = Math.abs(angle - part * Math.round(angle / part));
        const [tip, inner] = [1, 0.42];
        const notch = { x: inner * Math.sin(part / 2), y: inner * Math.cos(part / 2) };
        const r = Math.hypot(dx, dy);
        const edge = (tip * notch.x) / ((tip - notch.y) * Math.sin(off) + notch.x * Math.cos(off));
        return (sense * r) / edge;
      };
    }
    case 'blinds': {
      const share = (value: number) => (value * look.count) % 1;
      return (x, y) =>
        look.direction === 'right'
          ? share(x)
          : look.direction === 'left'
            ? 1 - share(x)
            : look.direction === 'down'
              ? share(y)
              : 1 - share(y);
    }
    case 'checks': {
      const rows = look.count;
      const columns = Math.max(1, Math.round(look.count * aspect));
      // Each square in its turn, and within a square from its middle outwards.
      return (x, y) => {
        const [column, row] = [
          Math.min(columns - 1, Math.floor(x * columns)),
          Math.min(rows - 1, Math.floor(y * rows)),
        ];
        const off = Math.max(Math.abs(x * columns - column - 0.5), Math.abs(y * rows - row - 0.5));
        return 0.75 * seedOf(`${look.seed} ${column} ${row}`, 5) + 0.25 * 2 * off;
      };
    }
  }
}

/** Grey-scale patterns that ship with the app; values of any range. */
function patternAt(name: PatternName, aspect: number): (x: number, y: number) => number {
  const noise = (x: number, y: number, salt: number) => smoothNoise(x, y, salt);
  const cloud = (x: number, y: number, salt: number) =>
    noise(x, y, salt) +
    0.5 * noise(2.1 * x, 2.1 * y, salt + 1) +
    0.25 * noise(4.3 * x, 4.3 * y, salt + 2) +
    0.12 * noise(8.7 * x, 8.7 * y, salt + 3);
  switch (name) {
    case 'clouds':
      return (x, y) => cloud(3 * x * aspect, 3 * y, 1);
    case 'brush':
      return (x, y) =>
        Math.floor(7 * y) +
        0.9 * (Math.floor(7 * y) % 2 === 0 ? x : 1 - x) +
        0.16 * cloud(1.2 * x * aspect, 60 * y, 11);
    case 'rain':
      return (x, y) => y + 0.55 * noise(46 * x * aspect, 0.6, 21) + 0.2 * noise(14 * x * aspect, 1.7 * y, 22);
    case 'ripples':
      return (x, y) => {
        const r = Math.hypot((x - 0.5) * aspect, y - 0.5);
        return r + 0.09 * Math.sin(38 * r) + 0.05 * cloud(4 * x * aspect, 4 * y, 31);
      };
    case 'spiral':
      return (x, y) => {
        const [dx, dy] = [(x - 0.5) * aspect, y - 0.5];
        const turn = Math.atan2(dy, dx) / (2 * Math.PI);
        return 3 * Math.hypot(dx, dy) + ((((turn + 3 * Math.hypot(dx, dy)) % 1) + 1) % 1);
      };
    case 'shards':
      return (x, y) => nearestSeed(x * aspect, y, 7);
  }
}

/** Noise on a lattice of whole numbers, with smooth steps between; −1…1. */
function smoothNoise(x: number, y: number, salt: number): number {
  const [x0, y0] = [Math.floor(x), Math.floor(y)];
  const ease = (t: number) => t * t * (3 - 2 * t);
  const [u, v] = [ease(x - x0), ease(y - y0)];
  const at = (i: number, j: number) => 2 * lattice(i, j, salt) - 1;
  const top = at(x0, y0) + (at(x0 + 1, y0) - at(x0, y0)) * u;
  const low = at(x0, y0 + 1) + (at(x0 + 1, y0 + 1) - at(x0, y0 + 1)) * u;
  return top + (low - top) * v;
}

function lattice(i: number, j: number, salt: number): number {
  let hash = Math.imul(i, 0x27d4eb2d) ^ Math.imul(j, 0x165667b1) ^ Math.imul(salt, 0x9e3779b1);
  hash = Math.imul(hash ^ (hash >>> 15), 0x85ebca6b);
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35);
  return ((hash ^ (hash >>> 16)) >>> 0) / 0x1_0000_0000;
}

/** Cells about scattered points, each changing in its turn, from its point outwards. */
function nearestSeed(x: number, y: number, perUnit: number): number {
  const [i, j] = [Math.floor(x * perUnit), Math.floor(y * perUnit)];
  let [nearest, turn] = [Infinity, 0];
  for (let di = -1; di <= 1; di += 1)
    for (let dj = -1; dj <= 1; dj += 1) {
      const [sx, sy] = [i + di + lattice(i + di, j + dj, 41), j + dj + lattice(i + di, j + dj, 42)];
      const away = Math.hypot(x * perUnit - sx, y * perUnit - sy);
      if (away < nearest) [nearest, turn] = [away, lattice(i + di, j + dj, 43)];
    }
  return 3 * turn + 0.6 * nearest;
}

/** A picture's pixels, row by row, three bytes each. */
interface RgbPicture {
  readonly rgb: Uint8Array;
  readonly width: number;
  readonly height: number;
}

/** Clockwise. */
const SIDES = ['top', 'right', 'bottom', 'left'] as const;
type Side = (typeof SIDES)[number];

/** Everything is asked of a copy with so many cells along its longer side. */
const CELLS = 96;
/** Blue by so much (of 255) over red, and no less than green by more: clear sky. */
const [BLUE, GREENER] = [12, 4];
/** So bright and so nearly grey: cloud. */
const [CLOUD, CLOUD_TINT] = [185, 26];
/** Grey levels from a cell to the next: sky is smoother. */
const SKY_EDGE = 9;
/** Sky ends where so many cells in a row are none. */
const ENDS_AFTER = 3;
/** It reaches in from the whole side, by so much of the depth at least, and as a whole neither less nor more than this. */
const [ALONG, REACH] = [0.85, 0.1];
const [LEAST_DEPTH, MOST_DEPTH] = [0.15, 0.75];
/** This share of it is blue: white walls are none. */
const LEAST_BLUE = 0.5;
/** From the sides next to it sky reaches in too, where they are its own; from the opposite one it does not. */
const [MOST_BESIDE, MOST_OPPOSITE] = [0.8, 0.15];
/** What lies beyond it: seldom like sky, darker by so many levels, so many times as rough. */
const [MOST_BEYOND, DARKER, ROUGHER] = [0.2, 5, 5];
/** Clear sky pales towards the horizon: by so much, brightness and blue over red together; or it is so much brighter than the land. */
const [PALES, FAR_DARKER] = [3, 60];

/**
 * On which side of a picture the sky lies, where that can hardly be doubted: smooth, blue or clouded, all along one side and no other, paler towards where it
 * ends, with something rougher and darker beyond. Precision comes first: most pictures with sky are not told. The cues are those of Vailaya and others, “Automatic
 * image orientation detection”, 2002, made strict.
 */
export function skySide(picture: RgbPicture): Side | null {
  const cells = inCells(picture);
  const reaches = SIDES.map((side) => reachOf(cells, side));
  const at = reaches.findIndex(isSky);
  if (at < 0) return null;
  const elsewhere = [1, 2, 3].map((by) => reaches[(at + by) % 4]!.along);
  return elsewhere.every((along, index) => along <= (index === 1 ? MOST_OPPOSITE : MOST_BESIDE)) ? SIDES[at]! : null;
}

interface Cells {
  readonly width: number;
  readonly height: number;
  readonly luma: Float32Array;
  readonly blue: Float32Array;
  readonly edge: Float32Array;
  readonly sky: Uint8Array;
}

/** Means over cells, and what each looks like. */
function inCells({ rgb, width: w, height: h }: RgbPicture): Cells {
  const scale = Math.max(1, Math.max(w, h) / CELLS);
  const [width, height] = [Math.max(2, Math.round(w / scale)), Math.max(2, Math.round(h / scale))];
  const sums = new Float32Array(4 * width * height);
  for (let y = 0; y < h; y += 1)
    for (let x = 0; x < w; x += 1) {
      const to = 4 * (Math.floor((y * height) / h) * width + Math.floor((x * width) / w));
      for (let part = 0; part < 3; part += 1) sums[to + part]! += rgb[3 * (y * w + x) + part]!;
      sums[to + 3]! += 1;
    }
  const count = width * height;
  const [luma, blue, green] = [new Float32Array(count), new Float32Array(count), new Float32Array(count)];
  for (let at = 0; at < count; at += 1) {
    const [r, g, b] = [0, 1, 2].map((part) => sums[4 * at + part]! / Math.max(1, sums[4 * at + 3]!)) as [
      number,
      number,
      number,
    ];
    luma[at] = 0.2126 * r + 0.7152 * g + 0.0722 * b;
    blue[at] = b - r;
    green[at] = g - b;
  }
  const edge = luma.map((own, at) => {
    const [x, y] = [at % width, Math.floor(at / width)];
    const right = luma[y * width + Math.min(width - 1, x + 1)]!;
    const below = luma[Math.min(height - 1, y + 1) * width + x]!;
    return Math.max(Math.abs(own - right), Math.abs(own - below));
  });
  const sky = Uint8Array.from(luma, (own, at) => {
    const clear = blue[at]! >= BLUE && green[at]! <= GREENER && own > 40;
    const cloud = own >= CLOUD && Math.abs(blue[at]!) <= CLOUD_TINT;
    return edge[at]! <= SKY_EDGE && (clear || cloud) ? 1 : 0;
  });
  return { width, height, luma, blue, edge, sky };
}

interface Reach {
  /** Share of the side from which sky reaches in. */
  readonly along: number;
  /** How far on the average, as a share of the depth. */
  readonly depth: number;
  readonly isBlue: number;
  readonly beyond: number;
  readonly darker: number;
  readonly rougher: number;
  readonly pales: number;
}

function reachOf({ width, height, luma, blue, edge, sky }: Cells, side: Side): Reach {
  const isLevel = side === 'top' || side === 'bottom';
  const [length, depth] = isLevel ? [width, height] : [height, width];
  const at = (u: number, v: number) => {
    const inward = side === 'top' || side === 'left' ? v : depth - 1 - v;
    return isLevel ? inward * width + u : u * width + inward;
  };
  const none = () => ({ count: 0, luma: 0, edge: 0, blue: 0, isBlue: 0, sky: 0 });
  const [within, beyond, outer, inner] = [none(), none(), none(), none()];
  const add = (sum: ReturnType<typeof none>, cell: number) => {
    sum.count += 1;
    sum.luma += luma[cell]!;
    sum.edge += edge[cell]!;
    sum.blue += blue[cell]!;
    sum.isBlue += blue[cell]! >= BLUE ? 1 : 0;
    sum.sky += sky[cell]!;
  };
  let [along, deep] = [0, 0];
  for (let u = 0; u < length; u += 1) {
    let [end, missed] = [0, 0];
    for (let v = 0; v < depth && missed < ENDS_AFTER; v += 1) {
      missed = sky[at(u, v)] ? 0 : missed + 1;
      if (missed === 0) end = v + 1;
    }
    if (end >= REACH * depth) along += 1;
    deep += end / depth;
    for (let v = 0; v < depth; v += 1) add(v < end ? within : beyond, at(u, v));
    for (let v = 0; v < end; v += 1) if (3 * v < end || 3 * v >= 2 * end) add(3 * v < end ? outer : inner, at(u, v));
  }
  const mean = (sum: ReturnType<typeof none>, what: 'luma' | 'edge' | 'blue' | 'isBlue' | 'sky') =>
    sum[what] / Math.max(1, sum.count);
  return {
    along: along / length,
    depth: deep / length,
    isBlue: mean(within, 'isBlue'),
    beyond: mean(beyond, 'sky'),
    darker: mean(within, 'luma') - mean(beyond, 'luma'),
    rougher: mean(beyond, 'edge') / Math.max(0.5, mean(within, 'edge')),
    pales: mean(inner, 'luma') - mean(outer, 'luma') + mean(outer, 'blue') - mean(inner, 'blue'),
  };
}

const isSky = ({ along, depth, isBlue, beyond, darker, rougher, pales }: Reach): boolean =>
  along >= ALONG &&
  depth >= LEAST_DEPTH &&
  depth <= MOST_DEPTH &&
  isBlue >= LEAST_BLUE &&
  beyond <= MOST_BEYOND &&
  darker >= DARKER &&
  rougher >= ROUGHER &&
  (pales >= PALES || darker >= FAR_DARKER);

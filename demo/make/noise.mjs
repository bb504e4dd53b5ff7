// Repeatable randomness and smooth noise for the demo's made-up pictures and sounds.

/** A sequence of numbers in 0…1 for a seed (Mulberry32). */
export function random(seed) {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Value noise in two dimensions, smooth, 0…1. */
export function noise2(seed) {
  const next = random(seed);
  const table = Float32Array.from({ length: 4096 }, next);
  const at = (x, y) => table[((Math.imul(x, 374761393) + Math.imul(y, 668265263)) >>> 7) & 4095];
  const ease = (t) => t * t * (3 - 2 * t);
  return (x, y) => {
    const x0 = Math.floor(x);
    const y0 = Math.floor(y);
    const u = ease(x - x0);
    const v = ease(y - y0);
    const top = at(x0, y0) + (at(x0 + 1, y0) - at(x0, y0)) * u;
    const bottom = at(x0, y0 + 1) + (at(x0 + 1, y0 + 1) - at(x0, y0 + 1)) * u;
    return top + (bottom - top) * v;
  };
}

/** Octaves of noise, each half as strong and twice as fine. */
export function clouds(seed, octaves) {
  const noise = noise2(seed);
  return (x, y) => {
    let sum = 0;
    let strength = 0.5;
    for (let octave = 0; octave < octaves; octave += 1) {
      sum += strength * noise(x + 17.3 * octave, y - 9.1 * octave);
      x *= 2;
      y *= 2;
      strength /= 2;
    }
    return sum;
  };
}

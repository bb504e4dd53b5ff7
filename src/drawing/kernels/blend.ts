// Blend modes on sRGB values, as in W3C Compositing and Blending Level 1, section 10: a premultiplied cel over an opaque frame or another cel.
// Four pixels that share a chroma sample are worked on together.

const MULTIPLY: i32 = 1;
const SCREEN: i32 = 2;
const OVERLAY: i32 = 3;
const SOFT_LIGHT: i32 = 4;
const LIGHTEN: i32 = 5;
const DARKEN: i32 = 6;

/** `mode` is 1…7: multiply, screen, overlay, soft light, lighten, darken, add. Bounds are even. */
export function blendPlanes(
  y: usize, u: usize, v: usize, yStride: i32, cStride: i32, ta: usize, tha: usize,
  sy: usize, su: usize, sv: usize, sa: usize, sha: usize,
  x0: i32, y0: i32, x1: i32, y1: i32, opacity: f32, mode: i32,
): void {
  const one = f32x4.splat(1);
  const zero = f32x4.splat(0);
  for (let row = y0; row < y1; row += 2) {
    for (let x = x0; x < x1; x += 2) {
      const at = row * yStride + x;
      const under = at + yStride;
      const c = (row >> 1) * cStride + (x >> 1);
      const alphas = i32x4(load<u8>(sa + at), load<u8>(sa + at + 1), load<u8>(sa + under), load<u8>(sa + under + 1));
      const half = <f32>load<u8>(sha + c);
      if (!v128.any_true(alphas)) continue;
      const alpha = f32x4.div(f32x4.convert_i32x4_s(alphas), f32x4.splat(255));
      const safe = f32x4.max(alpha, f32x4.splat(0.002));
      // The cel's own colour, without its transparency; its chroma by the transparency it was weighed with.
      const luma = f32x4.div(lumas(sy + at, sy + under), safe);
      // Chroma stands on the even columns; an odd one lies halfway to the next.
      const next = x + 2 < x1 ? 1 : 0;
      const cu = spreadChroma(bareChroma(su + c, sha + c), bareChroma(su + c + next, sha + c + next));
      const cv = spreadChroma(bareChroma(sv + c, sha + c), bareChroma(sv + c + next, sha + c + next));
      // A cel behind is undone likewise; where it has nothing the source shows as it is.
      let there = one;
      let bu: v128, bv: v128;
      if (ta != 0) {
        there = f32x4.div(lumas(ta + at, ta + under), f32x4.splat(255));
        bu = spreadChroma(bareChroma(u + c, tha + c), bareChroma(u + c + next, tha + c + next));
        bv = spreadChroma(bareChroma(v + c, tha + c), bareChroma(v + c + next, tha + c + next));
      } else {
        bu = spreadChroma(<f32>load<u8>(u + c) - 128.0, <f32>load<u8>(u + c + next) - 128.0);
        bv = spreadChroma(<f32>load<u8>(v + c) - 128.0, <f32>load<u8>(v + c + next) - 128.0);
      }
      const behind = f32x4.div(lumas(y + at, y + under), f32x4.max(there, f32x4.splat(0.004)));
      const share = f32x4.mul(alpha, f32x4.splat(opacity));
      const r = mixed(redOf(behind, bv), redOf(luma, cv), share, there, mode, one, zero);
      const g = mixed(greenOf(behind, bu, bv), greenOf(luma, cu, cv), share, there, mode, one, zero);
      const b = mixed(blueOf(behind, bu), blueOf(luma, cu), share, there, mode, one, zero);
      // Premultiplied by what is there afterwards, which also carries the sixteen of black.
      const after = f32x4.add(there, f32x4.mul(share, f32x4.sub(one, there)));
      const chromaAfter = <f32>0.5 * (f32x4.extract_lane(after, 0) + f32x4.extract_lane(after, 2));
      const outY = f32x4.add(f32x4.add(f32x4.mul(after, f32x4.splat(16)), f32x4.splat(0.5)), f32x4.add(f32x4.mul(r, f32x4.splat(46.5594)), f32x4.add(f32x4.mul(g, f32x4.splat(156.6288)), f32x4.mul(b, f32x4.splat(15.8118)))));
      store<u8>(y + at, <u8>f32x4.extract_lane(outY, 0));
      store<u8>(y + at + 1, <u8>f32x4.extract_lane(outY, 1));
      store<u8>(y + under, <u8>f32x4.extract_lane(outY, 2));
      store<u8>(y + under + 1, <u8>f32x4.extract_lane(outY, 3));
      const outU = f32x4.sub(f32x4.mul(b, f32x4.splat(112)), f32x4.add(f32x4.mul(r, f32x4.splat(25.6642)), f32x4.mul(g, f32x4.splat(86.3358))));
      const outV = f32x4.sub(f32x4.mul(r, f32x4.splat(112)), f32x4.add(f32x4.mul(g, f32x4.splat(101.7303)), f32x4.mul(b, f32x4.splat(10.2697))));
      // Chroma stands on the even column, between the two rows.
      store<u8>(u + c, <u8>Mathf.max(0, Mathf.min(255, <f32>128 * chromaAfter + <f32>0.5 + <f32>0.5 * (f32x4.extract_lane(outU, 0) + f32x4.extract_lane(outU, 2)))));
      store<u8>(v + c, <u8>Mathf.max(0, Mathf.min(255, <f32>128 * chromaAfter + <f32>0.5 + <f32>0.5 * (f32x4.extract_lane(outV, 0) + f32x4.extract_lane(outV, 2)))));
      if (ta != 0) {
        const h = <f32>load<u8>(tha + c);
        store<u8>(tha + c, <u8>(h + (255.0 - h) * (half / 255.0) * opacity + 0.5));
        spread(ta + at, f32x4.extract_lane(share, 0));
        spread(ta + at + 1, f32x4.extract_lane(share, 1));
        spread(ta + under, f32x4.extract_lane(share, 2));
        spread(ta + under + 1, f32x4.extract_lane(share, 3));
      }
    }
  }
}

/** A premultiplied chroma sample about 0, without its transparency. */
// @ts-ignore: decorator
@inline
function bareChroma(at: usize, alpha: usize): f32 {
  const half = <f32>load<u8>(alpha);
  return (<f32>load<u8>(at) - <f32>(128.0 / 255.0) * half) * (255.0 / Mathf.max(8, half));
}

/** For an even and an odd pixel of two rows. */
// @ts-ignore: decorator
@inline
function spreadChroma(here: f32, next: f32): v128 {
  return f32x4.replace_lane(f32x4.replace_lane(f32x4.splat(here), 1, <f32>0.5 * (here + next)), 3, <f32>0.5 * (here + next));
}

// @ts-ignore: decorator
@inline
function spread(at: usize, share: f32): void {
  const was = <f32>load<u8>(at);
  store<u8>(at, <u8>(was + (255.0 - was) * share + 0.5));
}

// @ts-ignore: decorator
@inline
function lumas(upper: usize, lower: usize): v128 {
  return f32x4.convert_i32x4_s(i32x4(load<u8>(upper), load<u8>(upper + 1), load<u8>(lower), load<u8>(lower + 1)));
}

// sRGB 0…1 from limited-range luma (0…255) and chroma about 0.
// @ts-ignore: decorator
@inline
function redOf(y: v128, v: v128): v128 {
  return f32x4.add(tone(y), f32x4.mul(v, f32x4.splat(1.79274107 / 255)));
}
// @ts-ignore: decorator
@inline
function greenOf(y: v128, u: v128, v: v128): v128 {
  return f32x4.sub(tone(y), f32x4.add(f32x4.mul(u, f32x4.splat(0.21324861 / 255)), f32x4.mul(v, f32x4.splat(0.53290933 / 255))));
}
// @ts-ignore: decorator
@inline
function blueOf(y: v128, u: v128): v128 {
  return f32x4.add(tone(y), f32x4.mul(u, f32x4.splat(2.11240179 / 255)));
}
// @ts-ignore: decorator
@inline
function tone(y: v128): v128 {
  return f32x4.mul(f32x4.sub(y, f32x4.splat(16)), f32x4.splat(1.0 / 219.0));
}

/** The mixed colour, premultiplied by what is there afterwards. */
// @ts-ignore: decorator
@inline
function mixed(backRaw: v128, sourceRaw: v128, share: v128, there: v128, mode: i32, one: v128, zero: v128): v128 {
  const back = f32x4.max(zero, f32x4.min(one, backRaw));
  const source = f32x4.max(zero, f32x4.min(one, sourceRaw));
  const blended = f32x4.add(f32x4.mul(f32x4.sub(one, there), source), f32x4.mul(there, blendOf(back, source, mode, one, zero)));
  return f32x4.add(f32x4.mul(f32x4.mul(back, there), f32x4.sub(one, share)), f32x4.mul(share, blended));
}

// @ts-ignore: decorator
@inline
function screen(a: v128, b: v128): v128 {
  return f32x4.sub(f32x4.add(a, b), f32x4.mul(a, b));
}

function blendOf(back: v128, source: v128, mode: i32, one: v128, zero: v128): v128 {
  if (mode == MULTIPLY) return f32x4.mul(back, source);
  if (mode == SCREEN) return screen(back, source);
  if (mode == LIGHTEN) return f32x4.max(back, source);
  if (mode == DARKEN) return f32x4.min(back, source);
  const two = f32x4.splat(2);
  if (mode == OVERLAY) {
    const low = f32x4.mul(two, f32x4.mul(back, source));
    const high = screen(f32x4.sub(f32x4.mul(two, back), one), source);
    return v128.bitselect(low, high, f32x4.le(back, f32x4.splat(0.5)));
  }
  if (mode == SOFT_LIGHT) {
    const dark = f32x4.sub(back, f32x4.mul(f32x4.sub(one, f32x4.mul(two, source)), f32x4.mul(back, f32x4.sub(one, back))));
    const curve = f32x4.mul(f32x4.add(f32x4.mul(f32x4.sub(f32x4.mul(f32x4.splat(16), back), f32x4.splat(12)), back), f32x4.splat(4)), back);
    const d = v128.bitselect(curve, f32x4.sqrt(back), f32x4.le(back, f32x4.splat(0.25)));
    const light = f32x4.add(back, f32x4.mul(f32x4.sub(f32x4.mul(two, source), one), f32x4.sub(d, back)));
    return v128.bitselect(dark, light, f32x4.le(source, f32x4.splat(0.5)));
  }
  return f32x4.min(one, f32x4.add(back, source));
}

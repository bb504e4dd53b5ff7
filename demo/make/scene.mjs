// Paints one dusk scene of the made-up harbour: sky, hills, water that mirrors them, lanterns, boats, people as silhouettes, then lens and film.
import { createCanvas } from '@napi-rs/canvas';
import { halo, lantern, nearLanterns, strings } from './lights.mjs';
import { clouds, noise2, random } from './noise.mjs';
import { band, crowd, stall } from './people.mjs';

/** Sky colours from the zenith to the horizon, light of the haze, and the water's own tint. */
const EVENINGS = {
  teal: {
    sky: [
      [14, 38, 52],
      [34, 84, 96],
      [120, 150, 130],
      [226, 182, 120],
    ],
    haze: [190, 170, 130],
    water: [12, 40, 48],
  },
  rose: {
    sky: [
      [38, 28, 62],
      [92, 50, 92],
      [186, 88, 98],
      [246, 168, 112],
    ],
    haze: [220, 140, 110],
    water: [40, 24, 46],
  },
  blue: {
    sky: [
      [8, 16, 38],
      [20, 42, 82],
      [58, 92, 134],
      [150, 160, 160],
    ],
    haze: [120, 140, 160],
    water: [8, 18, 38],
  },
  amber: {
    sky: [
      [40, 36, 58],
      [112, 72, 74],
      [216, 124, 66],
      [255, 206, 118],
    ],
    haze: [240, 170, 90],
    water: [44, 30, 34],
  },
  slate: {
    sky: [
      [34, 42, 52],
      [64, 76, 88],
      [112, 122, 128],
      [168, 168, 160],
    ],
    haze: [150, 156, 158],
    water: [30, 40, 48],
  },
  night: {
    sky: [
      [4, 7, 18],
      [9, 16, 36],
      [20, 32, 58],
      [52, 56, 74],
    ],
    haze: [60, 66, 90],
    water: [4, 8, 18],
  },
};

const mix = (a, b, t) => a + (b - a) * t;

/**
 * @param plan { width, height, seed, evening, horizon (0…1), lanterns, boats, crowd, strings, stall, rain, band, glow, sparks, near }
 * @param seconds moves water and boats, for the clip
 * @returns a canvas
 */
export function paintScene(plan, seconds = 0) {
  const { width, height } = plan;
  const evening = EVENINGS[plan.evening];
  const canvas = createCanvas(width, height);
  const g = canvas.getContext('2d');
  const horizonY = Math.round(height * plan.horizon);
  const next = random(plan.seed);
  sky(g, plan, evening, horizonY);
  if (plan.stars) stars(g, plan, horizonY, next);
  hills(g, plan, evening, horizonY);
  town(g, plan, horizonY, next);
  if (plan.sparks) sparks(g, plan, horizonY, next);
  const boats = fleet(plan, horizonY, next);
  for (const boat of boats.filter((entry) => entry.far)) drawBoat(g, boat, seconds);
  mirror(canvas, g, plan, evening, horizonY, seconds);
  for (const boat of boats.filter((entry) => !entry.far)) {
    reflectBoat(g, boat, seconds);
    drawBoat(g, boat, seconds);
  }
  if (plan.stall) stall(g, plan, next);
  if (plan.strings) strings(g, plan, next);
  if (plan.near) {
    const behind = createCanvas(plan.width, plan.height);
    behind.getContext('2d').drawImage(canvas, 0, 0);
    g.save();
    g.filter = `blur(${plan.width / 150}px)`;
    g.drawImage(behind, 0, 0);
    g.restore();
    nearLanterns(g, plan, next);
  }
  if (plan.band) band(g, plan, next);
  if (plan.crowd) softly(g, plan, 2.2, (sheet) => crowd(sheet, plan, next));
  if (plan.rain) rain(g, plan, next);
  film(canvas, g, plan, seconds);
  return canvas;
}

function sky(g, plan, evening, horizonY) {
  const { width } = plan;
  const cloud = clouds(plan.seed + 1, 6);
  const small = createCanvas(Math.ceil(width / 2), Math.ceil(horizonY / 2) + 2);
  const s = small.getContext('2d');
  const image = s.createImageData(small.width, small.height);
  for (let y = 0; y < small.height; y += 1) {
    const t = Math.min(1, (2 * y) / horizonY) ** 1.15 * 2.999;
    const at = Math.floor(t);
    const [a, b] = [evening.sky[at], evening.sky[Math.min(3, at + 1)]];
    for (let x = 0; x < small.width; x += 1) {
      // Clouds lie flat: they are seen far more from the side than from below.
      const depth = 1.2 + (2.6 * 2 * y) / horizonY;
      const c =
        Math.max(0, cloud((x / small.width) * 3.4 * depth * 0.5, (y / small.height) * 9 + 3) - 0.42) *
        2.2 *
        (plan.cloudy ?? 1);
      const lit = Math.min(1, c) * 0.55;
      const index = 4 * (y * small.width + x);
      for (let k = 0; k < 3; k += 1) {
        const base = mix(a[k], b[k], t - at);
        const edge = evening.haze[k] * (0.55 + (0.45 * y) / small.height);
        image.data[index + k] = mix(base, edge * (1 - 0.35 * c), lit);
      }
      image.data[index + 3] = 255;
    }
  }
  s.putImageData(image, 0, 0);
  g.imageSmoothingQuality = 'high';
  g.drawImage(small, 0, 0, width, horizonY + 4);
}

function stars(g, plan, horizonY, next) {
  for (let i = 0; i < 160; i += 1) {
    g.fillStyle = `rgba(255,245,225,${(0.15 + 0.5 * next() ** 3).toFixed(3)})`;
    g.beginPath();
    g.arc(next() * plan.width, next() * horizonY * 0.7, ((0.4 + next()) * plan.width) / 1900, 0, 7);
    g.fill();
  }
}

function hills(g, plan, evening, horizonY) {
  const { width, height } = plan;
  for (let layer = 0; layer < 4; layer += 1) {
    const ridge = clouds(plan.seed + 20 + layer, 5);
    const near = layer / 3;
    const top = horizonY - height * mix(0.17, 0.035, near);
    const colour = [0, 1, 2].map((k) => mix(evening.haze[k] * 0.62, evening.water[k] * 0.75, 0.25 + 0.75 * near));
    g.fillStyle = `rgb(${colour.map(Math.round).join(',')})`;
    g.beginPath();
    g.moveTo(0, horizonY + 4);
    for (let x = 0; x <= width; x += 4)
      g.lineTo(
        x,
        top - height * 0.13 * (1 - near * 0.6) * (ridge((x / width) * (2 + layer * 1.6) + layer * 7, layer) - 0.42),
      );
    g.lineTo(width, horizonY + 4);
    g.fill();
  }
}

/** Windows of a harbour front, small and warm. */
function town(g, plan, horizonY, next) {
  const { width, height } = plan;
  const unit = height / 1200;
  let x = next() * 60 * unit;
  while (x < width) {
    const w = (26 + next() * 46) * unit;
    const h = (18 + next() * 44) * unit;
    g.fillStyle = 'rgba(14,14,20,0.92)';
    g.fillRect(x, horizonY - h, w, h + 3);
    g.beginPath();
    g.moveTo(x - 2 * unit, horizonY - h);
    g.lineTo(x + w / 2, horizonY - h - (8 + next() * 16) * unit);
    g.lineTo(x + w + 2 * unit, horizonY - h);
    g.fill();
    for (let i = 0; i < 5; i += 1) {
      if (next() < 0.45) continue;
      g.fillStyle = `rgba(255,${Math.round(180 + 40 * next())},110,${(0.4 + 0.5 * next()).toFixed(2)})`;
      g.fillRect(x + (0.12 + 0.7 * next()) * w, horizonY - h * (0.2 + 0.65 * next()), 3 * unit, 4 * unit);
    }
    x += w + (next() < 0.3 ? next() * 160 : next() * 14) * unit;
  }
}

function sparks(g, plan, horizonY, next) {
  const { width } = plan;
  g.globalCompositeOperation = 'lighter';
  for (let burst = 0; burst < plan.sparks; burst += 1) {
    const x = width * (0.15 + 0.7 * next());
    const y = horizonY * (0.16 + 0.4 * next());
    const size = width * (0.07 + 0.08 * next());
    const hue = [34, 18, 44, 350][Math.floor(next() * 4)];
    halo(g, x, y, size * 1.6, `hsla(${hue},90%,60%,0.22)`);
    for (let ray = 0; ray < 90; ray += 1) {
      const angle = next() * Math.PI * 2;
      const reach = size * (0.55 + 0.45 * next());
      const fall = reach * 0.16;
      const gradient = g.createLinearGradient(x, y, x + Math.cos(angle) * reach, y + Math.sin(angle) * reach + fall);
      gradient.addColorStop(0, `hsla(${hue},95%,72%,0)`);
      gradient.addColorStop(0.55, `hsla(${hue},95%,68%,0.5)`);
      gradient.addColorStop(1, `hsla(${hue + 10},95%,82%,0.95)`);
      g.strokeStyle = gradient;
      g.lineWidth = width / 1500;
      g.beginPath();
      g.moveTo(x, y);
      g.quadraticCurveTo(
        x + Math.cos(angle) * reach * 0.6,
        y + Math.sin(angle) * reach * 0.6,
        x + Math.cos(angle) * reach,
        y + Math.sin(angle) * reach + fall,
      );
      g.stroke();
    }
  }
  g.globalCompositeOperation = 'source-over';
}

function fleet(plan, horizonY, next) {
  const { width, height } = plan;
  const boats = [];
  for (let i = 0; i < (plan.boats ?? 0); i += 1) {
    const depth = (i + 0.6) / plan.boats;
    const y = horizonY + (height - horizonY) * (0.03 + 0.72 * depth ** 1.7);
    boats.push({
      x: width * (((0.14 + 0.73 * next() + i * 0.37) % 0.92) + 0.04),
      y,
      size: height * (0.05 + 0.2 * depth ** 1.5) * (plan.boatSize ?? 1),
      lanterns: 2 + Math.floor(next() * (plan.lanterns ?? 4)),
      phase: next() * 7,
      lean: next() - 0.5,
      seed: Math.floor(next() * 1e6),
      far: depth < 0.3,
    });
  }
  return boats.sort((a, b) => a.y - b.y);
}

function bob(boat, seconds) {
  return {
    dy: boat.size * 0.03 * Math.sin(seconds * 1.7 + boat.phase),
    turn: 0.025 * Math.sin(seconds * 1.3 + boat.phase * 2) + 0.02 * boat.lean,
  };
}

function drawBoat(g, boat, seconds) {
  const { size } = boat;
  const { dy, turn } = bob(boat, seconds);
  const next = random(boat.seed);
  g.save();
  g.translate(boat.x, boat.y + dy);
  g.rotate(turn);
  g.fillStyle = '#0d0b10';
  g.beginPath();
  g.moveTo(-size, -size * 0.2);
  g.quadraticCurveTo(-size * 0.75, size * 0.16, 0, size * 0.17);
  g.quadraticCurveTo(size * 0.8, size * 0.15, size * 1.08, -size * 0.28);
  g.quadraticCurveTo(0, size * 0.03, -size, -size * 0.2);
  g.fill();
  g.fillRect(-size * 0.05, -size * 1.25, size * 0.045, size * 1.2);
  for (const [at, tall] of [
    [-0.5, 0.42],
    [0.42, 0.4],
  ]) {
    g.beginPath();
    g.ellipse(at * size, -size * tall, size * 0.09, size * 0.11, 0, 0, 7);
    g.fill();
    g.beginPath();
    g.ellipse(at * size, -size * 0.16, size * 0.16, size * 0.24, 0, 0, 7);
    g.fill();
  }
  g.strokeStyle = '#0d0b10';
  g.lineWidth = Math.max(1, size * 0.012);
  for (let i = 0; i < boat.lanterns; i += 1) {
    const t = boat.lanterns === 1 ? 0.5 : i / (boat.lanterns - 1);
    const x = mix(-size * 0.82, size * 0.86, t);
    const y = -size * (0.5 + 0.62 * Math.sin(Math.PI * (0.15 + 0.7 * t)));
    g.beginPath();
    g.moveTo(-size * 0.03, -size * 1.22);
    g.lineTo(x, y);
    g.stroke();
    lantern(
      g,
      x,
      y + size * 0.06,
      size * (0.12 + 0.05 * next()),
      22 + next() * 20,
      0.9 + 0.1 * Math.sin(seconds * 6 + i),
    );
  }
  g.restore();
}

/** A boat's own light on the water before it. */
function reflectBoat(g, boat, seconds) {
  const { dy } = bob(boat, seconds);
  g.save();
  g.globalCompositeOperation = 'lighter';
  for (let i = 0; i < 9; i += 1) {
    const y = boat.y + dy + boat.size * (0.16 + i * 0.13);
    const sway = Math.sin(i * 1.9 + seconds * 2.1 + boat.phase) * boat.size * 0.16;
    const gradient = g.createRadialGradient(0, 0, 0, 0, 0, 1);
    gradient.addColorStop(0, `rgba(255,168,74,${(0.3 * (1 - i / 10)).toFixed(3)})`);
    gradient.addColorStop(1, 'rgba(255,140,50,0)');
    g.save();
    g.translate(boat.x + sway, y);
    g.scale(boat.size * (0.95 - i * 0.05), boat.size * 0.075);
    g.fillStyle = gradient;
    g.fillRect(-1, -1, 2, 2);
    g.restore();
  }
  g.restore();
}

/** The water mirrors what is above the horizon, stirred more the nearer it is. */
function mirror(canvas, g, plan, evening, horizonY, seconds) {
  const { width, height } = plan;
  const above = g.getImageData(0, 0, width, horizonY).data;
  const depthRows = height - horizonY;
  if (depthRows <= 0) return;
  const out = g.createImageData(width, depthRows);
  const ripple = noise2(plan.seed + 50);
  const fine = noise2(plan.seed + 51);
  for (let row = 0; row < depthRows; row += 1) {
    const near = row / depthRows;
    const scale = 1 / (2 + 60 * near);
    const fade = 0.8 - 0.3 * near;
    for (let x = 0; x < width; x += 1) {
      const u = (x - width / 2) * scale * 0.55;
      const v = 70 / (near + 0.06);
      const wave = ripple(u * 0.6 + seconds * 0.35, v * 0.32 + seconds * 0.9) - 0.5;
      const chop = fine(u * 2.2 - seconds * 0.5, v * 1.1 + seconds * 1.6) - 0.5;
      const dx = Math.round((wave * 46 + chop * 18) * near * (width / 1900) + wave * 4);
      const dy = (wave * 90 + chop * 50) * (0.12 + near) * (height / 1200);
      const sx = Math.min(width - 1, Math.max(0, x + dx));
      const sy = Math.min(horizonY - 1, Math.max(0, Math.round(horizonY - 1 - row * 1.05 + dy)));
      const from = 4 * (sy * width + sx);
      const to = 4 * (row * width + x);
      const glint = Math.max(0, chop - 0.24) * 130 * (1 - near * 0.5);
      for (let k = 0; k < 3; k += 1)
        out.data[to + k] =
          above[from + k] * fade * 0.86 + evening.water[k] * (1 - fade) + glint * (evening.haze[k] / 255);
      out.data[to + 3] = 255;
    }
  }
  g.putImageData(out, 0, horizonY);
}

/** Draws onto a sheet of its own and lays it over softly: what is close to the lens is out of focus. */
function softly(g, plan, softness, draw) {
  const sheet = createCanvas(plan.width, plan.height);
  draw(sheet.getContext('2d'));
  g.save();
  g.filter = `blur(${((softness * plan.width) / 1920).toFixed(2)}px)`;
  g.drawImage(sheet, 0, 0);
  g.restore();
}

function rain(g, plan, next) {
  const { width, height } = plan;
  g.save();
  g.globalCompositeOperation = 'screen';
  for (let i = 0; i < 620; i += 1) {
    const x = width * next() * 1.1;
    const y = height * next();
    const long = height * (0.02 + 0.05 * next());
    g.strokeStyle = `rgba(190,205,220,${(0.07 + 0.16 * next()).toFixed(3)})`;
    g.lineWidth = (0.6 + 1.1 * next()) * (width / 1900);
    g.beginPath();
    g.moveTo(x, y);
    g.lineTo(x - long * 0.16, y + long);
    g.stroke();
  }
  g.restore();
}

/** Lens and film: light that spills from bright parts, darker corners, a soft shoulder, grain. */
function film(canvas, g, plan, seconds) {
  const { width, height } = plan;
  const small = createCanvas(Math.round(width / 10), Math.round(height / 10));
  const s = small.getContext('2d');
  s.imageSmoothingQuality = 'high';
  s.filter = `blur(${width / 700}px) brightness(0.9)`;
  s.drawImage(canvas, 0, 0, small.width, small.height);
  g.save();
  g.globalCompositeOperation = 'screen';
  g.globalAlpha = plan.glow ?? 0.24;
  g.imageSmoothingQuality = 'high';
  g.drawImage(small, 0, 0, width, height);
  g.restore();
  const image = g.getImageData(0, 0, width, height);
  const { data } = image;
  const next = random(plan.seed + 99 + Math.round(seconds * 30));
  const strength = plan.grain ?? 7;
  for (let y = 0; y < height; y += 1) {
    const v = (y / height - 0.5) ** 2;
    for (let x = 0; x < width; x += 1) {
      const fall = 1 - 0.85 * ((x / width - 0.5) ** 2 + v) ** 1.15;
      const grain = (next() - 0.5) * strength;
      const at = 4 * (y * width + x);
      for (let k = 0; k < 3; k += 1) {
        const value = (data[at + k] / 255) * fall;
        // A gentle S: blacks a little lifted, middle tones opened, a soft shoulder.
        data[at + k] = 255 * (0.018 + (0.982 * (1.32 * value)) / (1 + 0.32 * value)) + grain;
      }
    }
  }
  g.putImageData(image, 0, 0);
}

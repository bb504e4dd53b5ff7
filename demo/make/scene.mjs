// Paints one dusk scene of the made-up harbour: sky, hills, water that mirrors them, lanterns, boats, people as silhouettes, then lens and film.
import { createCanvas } from '@napi-rs/canvas';
import { clouds, noise2, random } from './noise.mjs';

/** Sky colours from the zenith to the horizon, light of the haze, and the water's own tint. */
const EVENINGS = {
  teal: { sky: [[14, 38, 52], [34, 84, 96], [120, 150, 130], [226, 182, 120]], haze: [190, 170, 130], water: [12, 40, 48] },
  rose: { sky: [[38, 28, 62], [92, 50, 92], [186, 88, 98], [246, 168, 112]], haze: [220, 140, 110], water: [40, 24, 46] },
  blue: { sky: [[8, 16, 38], [20, 42, 82], [58, 92, 134], [150, 160, 160]], haze: [120, 140, 160], water: [8, 18, 38] },
  amber: { sky: [[40, 36, 58], [112, 72, 74], [216, 124, 66], [255, 206, 118]], haze: [240, 170, 90], water: [44, 30, 34] },
  slate: { sky: [[34, 42, 52], [64, 76, 88], [112, 122, 128], [168, 168, 160]], haze: [150, 156, 158], water: [30, 40, 48] },
  night: { sky: [[4, 7, 18], [9, 16, 36], [20, 32, 58], [52, 56, 74]], haze: [60, 66, 90], water: [4, 8, 18] },
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
      const c = Math.max(0, cloud((x / small.width) * 3.4 * depth * 0.5, (y / small.height) * 9 + 3) - 0.42) * 2.2 * (plan.cloudy ?? 1);
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
    g.arc(next() * plan.width, next() * horizonY * 0.7, (0.4 + next()) * plan.width / 1900, 0, 7);
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
    for (let x = 0; x <= width; x += 4) g.lineTo(x, top - height * 0.13 * (1 - near * 0.6) * (ridge((x / width) * (2 + layer * 1.6) + layer * 7, layer) - 0.42));
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
      g.quadraticCurveTo(x + Math.cos(angle) * reach * 0.6, y + Math.sin(angle) * reach * 0.6, x + Math.cos(angle) * reach, y + Math.sin(angle) * reach + fall);
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
      x: width * ((0.14 + 0.73 * next() + i * 0.37) % 0.92 + 0.04), y,
      size: height * (0.05 + 0.2 * depth ** 1.5) * (plan.boatSize ?? 1),
      lanterns: 2 + Math.floor(next() * (plan.lanterns ?? 4)), phase: next() * 7, lean: next() - 0.5, seed: Math.floor(next() * 1e6), far: depth < 0.3,
    });
  }
  return boats.sort((a, b) => a.y - b.y);
}

function bob(boat, seconds) {
  return { dy: boat.size * 0.03 * Math.sin(seconds * 1.7 + boat.phase), turn: 0.025 * Math.sin(seconds * 1.3 + boat.phase * 2) + 0.02 * boat.lean };
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
  for (const [at, tall] of [[-0.5, 0.42], [0.42, 0.4]]) {
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
    lantern(g, x, y + size * 0.06, size * (0.12 + 0.05 * next()), 22 + next() * 20, 0.9 + 0.1 * Math.sin(seconds * 6 + i));
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

function halo(g, x, y, radius, colour) {
  const gradient = g.createRadialGradient(x, y, 0, x, y, radius);
  gradient.addColorStop(0, colour);
  gradient.addColorStop(1, colour.replace(/[\d.]+\)$/, '0)'));
  g.fillStyle = gradient;
  g.fillRect(x - radius, y - radius, 2 * radius, 2 * radius);
}

/** A paper lantern lit from within: ribs, a darker crown, light that falls off towards the rim, and its glow in the air. */
export function lantern(g, x, y, r, hue, strength = 1) {
  g.save();
  g.globalCompositeOperation = 'lighter';
  halo(g, x, y, r * 4.6, `hsla(${hue},95%,55%,${(0.2 * strength).toFixed(3)})`);
  halo(g, x, y, r * 2.1, `hsla(${hue},95%,58%,${(0.34 * strength).toFixed(3)})`);
  g.restore();
  g.save();
  const body = g.createRadialGradient(x, y + r * 0.15, r * 0.05, x, y, r * 1.08);
  body.addColorStop(0, `hsl(${hue + 14},100%,${86 * Math.min(1, strength)}%)`);
  body.addColorStop(0.4, `hsl(${hue + 6},98%,${68 * strength}%)`);
  body.addColorStop(0.85, `hsl(${hue - 4},92%,${47 * strength}%)`);
  body.addColorStop(1, `hsl(${hue - 10},85%,${33 * strength}%)`);
  g.fillStyle = body;
  g.beginPath();
  g.ellipse(x, y, r * 0.94, r, 0, 0, 7);
  g.fill();
  g.clip();
  g.strokeStyle = `hsla(${hue - 8},80%,30%,0.35)`;
  g.lineWidth = Math.max(0.6, r * 0.025);
  for (let i = -5; i <= 5; i += 1) {
    g.beginPath();
    g.ellipse(x, y + r * i * 0.2, r * 0.96, r * 0.09, 0, 0, Math.PI);
    g.stroke();
  }
  g.restore();
  g.fillStyle = 'rgba(30,16,8,0.9)';
  g.fillRect(x - r * 0.3, y - r * 1.06, r * 0.6, r * 0.14);
  g.fillRect(x - r * 0.24, y + r * 0.93, r * 0.48, r * 0.12);
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
      for (let k = 0; k < 3; k += 1) out.data[to + k] = above[from + k] * fade * 0.86 + evening.water[k] * (1 - fade) + glint * (evening.haze[k] / 255);
      out.data[to + 3] = 255;
    }
  }
  g.putImageData(out, 0, horizonY);
}

function strings(g, plan, next) {
  const { width, height } = plan;
  for (let line = 0; line < plan.strings; line += 1) {
    const y0 = height * (0.06 + 0.16 * line + 0.05 * next());
    const y1 = y0 + height * (0.1 * next() - 0.05);
    const sag = height * (0.06 + 0.06 * next());
    const along = (t) => [width * (-0.05 + 1.1 * t), mix(y0, y1, t) + sag * 4 * t * (1 - t)];
    g.strokeStyle = 'rgba(10,8,10,0.85)';
    g.lineWidth = width / 700;
    g.beginPath();
    for (let i = 0; i <= 40; i += 1) g.lineTo(...along(i / 40));
    g.stroke();
    const count = 5 + Math.floor(next() * 4);
    for (let i = 0; i < count; i += 1) {
      const [x, y] = along((i + 0.3 + 0.4 * next()) / count);
      const r = Math.min(width, height) * (0.022 + 0.02 * next()) * (1.3 - 0.15 * line);
      lantern(g, x, y + r * 1.2, r, [26, 34, 12, 44, 350][Math.floor(next() * 5)]);
    }
  }
}

/** Lanterns close to the lens: one in focus, the rest as discs of light. */
function nearLanterns(g, plan, next) {
  const { width, height } = plan;
  const unit = Math.min(width, height);
  g.save();
  g.globalCompositeOperation = 'lighter';
  for (let i = 0; i < 46; i += 1) {
    const r = unit * (0.014 + 0.05 * next() ** 2);
    const hue = 18 + 30 * next();
    const x = width * next();
    const y = height * (0.1 + 0.8 * next());
    g.fillStyle = `hsla(${hue},95%,56%,${(0.07 + 0.16 * next()).toFixed(3)})`;
    g.beginPath();
    g.arc(x, y, r, 0, 7);
    g.fill();
    g.strokeStyle = `hsla(${hue},95%,72%,0.12)`;
    g.lineWidth = r * 0.08;
    g.stroke();
  }
  g.restore();
  for (let i = 0; i < plan.near; i += 1) {
    const r = unit * (0.17 - 0.028 * i);
    const x = width * ((0.36 + i * 0.31 + 0.06 * next()) % 0.9);
    const y = height * (0.42 + 0.16 * (i % 2) - 0.06 * next());
    g.strokeStyle = 'rgba(14,10,8,0.9)';
    g.lineWidth = r * 0.03;
    g.beginPath();
    g.moveTo(x, y - r);
    g.lineTo(x + r * 0.1, -10);
    g.stroke();
    lantern(g, x, y, r, 22 + 12 * next());
  }
}

/** A figure seen against the light: head, neck, sloping shoulders, arms a little apart from the body. */
function person(g, x, ground, tall, next, rim) {
  const head = tall * 0.068;
  const shoulder = tall * (0.125 + 0.03 * next());
  const top = ground - tall;
  const turn = (next() - 0.5) * head;
  const line = (points) => {
    g.beginPath();
    g.moveTo(...points[0]);
    for (const [cx, cy, px, py] of points.slice(1)) g.quadraticCurveTo(cx, cy, px, py);
    g.fill();
    if (rim) g.stroke();
  };
  const neck = top + head * 2.15;
  const hip = tall * 0.12;
  line([
    [x - hip * 0.9, ground], [x - hip * 1.2, ground - tall * 0.34, x - shoulder * 0.78, ground - tall * 0.46],
    [x - shoulder * 1.32, ground - tall * 0.5, x - shoulder * 1.12, neck + tall * 0.13],
    [x - shoulder * 0.98, neck + tall * 0.035, x - head * 0.45, neck],
    [x, neck - head * 0.1, x + head * 0.45, neck],
    [x + shoulder * 0.98, neck + tall * 0.035, x + shoulder * 1.12, neck + tall * 0.13],
    [x + shoulder * 1.32, ground - tall * 0.5, x + shoulder * 0.78, ground - tall * 0.46],
    [x + hip * 1.2, ground - tall * 0.34, x + hip * 0.9, ground],
  ]);
  g.fillRect(x - head * 0.42 + turn * 0.2, neck - head * 0.6, head * 0.84, head * 0.9);
  g.beginPath();
  g.ellipse(x + turn * 0.35, top + head * 1.05, head * 0.84, head * 1.08, turn * 0.01, 0, 7);
  g.fill();
  if (rim) g.stroke();
  const style = next();
  if (style < 0.18) {
    g.beginPath();
    g.ellipse(x + turn * 0.35, top + head * 0.55, head * 1.7, head * 0.26, 0.05, 0, 7);
    g.fill();
    g.beginPath();
    g.ellipse(x + turn * 0.35, top + head * 0.32, head * 0.86, head * 0.5, 0, 0, 7);
    g.fill();
  } else if (style < 0.42) {
    g.beginPath();
    g.ellipse(x + turn * 0.35 - head * 0.1, top + head * 0.85, head * 1.0, head * 1.05, 0, 0, 7);
    g.ellipse(x + turn * 0.35, top + head * 0.02, head * 0.36, head * 0.34, 0, 0, 7);
    g.fill();
  } else if (style < 0.6) {
    g.beginPath();
    g.ellipse(x + turn * 0.35 - head * 0.1, top + head * 1.3, head * 1.06, head * 1.4, 0, 0, 7);
    g.fill();
  }
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

function crowd(g, plan, next) {
  const { width, height } = plan;
  const rows = plan.crowd;
  for (let row = 0; row < rows; row += 1) {
    const tall = height * (0.2 + 0.13 * row) * (plan.crowdSize ?? 1);
    g.fillStyle = row === rows - 1 ? '#09080b' : '#141117';
    g.strokeStyle = 'rgba(255,170,86,0.32)';
    g.lineWidth = width / 900;
    const gap = tall * 0.3;
    for (let x = -gap * next(); x < width + gap; x += gap * (0.75 + 0.7 * next())) {
      const own = tall * (0.78 + 0.32 * next());
      person(g, x, height + tall * 0.18, own, next, true);
      if (next() < 0.28) {
        const up = own * (0.98 + 0.2 * next());
        g.save();
        g.lineWidth = own * 0.045;
        g.strokeStyle = g.fillStyle;
        g.beginPath();
        g.moveTo(x + own * 0.13, height - own * 0.4);
        g.lineTo(x + own * 0.2, height + tall * 0.18 - up);
        g.stroke();
        g.restore();
        lantern(g, x + own * 0.2, height + tall * 0.18 - up - own * 0.08, own * 0.075, 26 + 14 * next());
        g.fillStyle = row === rows - 1 ? '#09080b' : '#141117';
      }
    }
  }
}

/** Players with horns, seen against the light. */
function band(g, plan, next) {
  const { width, height } = plan;
  const count = plan.band;
  for (let i = 0; i < count; i += 1) {
    const tall = height * (0.42 + 0.08 * next());
    const x = width * (0.1 + (0.8 * (i + 0.3 * next())) / count);
    const ground = height * 0.99;
    g.fillStyle = '#0b090c';
    g.strokeStyle = 'rgba(255,176,92,0.4)';
    g.lineWidth = width / 800;
    person(g, x, ground, tall, next, true);
    const mouthY = ground - tall * 0.87;
    const aim = i % 2 === 0 ? 1 : -1;
    const brass = g.createLinearGradient(x, mouthY, x + aim * tall * 0.4, mouthY - tall * 0.04);
    brass.addColorStop(0, '#5a3a12');
    brass.addColorStop(0.6, '#c98f2e');
    brass.addColorStop(1, '#ffe2a0');
    g.strokeStyle = brass;
    g.lineCap = 'round';
    g.lineWidth = tall * 0.022;
    const bell = [x + aim * tall * 0.36, mouthY + tall * (0.06 * next() - 0.05)];
    g.beginPath();
    g.moveTo(x + aim * tall * 0.06, mouthY);
    g.lineTo(...bell);
    g.stroke();
    g.lineWidth = tall * 0.013;
    g.beginPath();
    g.ellipse(x + aim * tall * 0.2, mouthY + tall * 0.035, tall * 0.08, tall * 0.034, 0, 0, 7);
    g.stroke();
    g.fillStyle = brass;
    g.beginPath();
    g.moveTo(bell[0] - aim * tall * 0.04, bell[1]);
    g.quadraticCurveTo(bell[0] + aim * tall * 0.03, bell[1] - tall * 0.01, bell[0] + aim * tall * 0.07, bell[1] - tall * 0.075);
    g.lineTo(bell[0] + aim * tall * 0.07, bell[1] + tall * 0.075);
    g.quadraticCurveTo(bell[0] + aim * tall * 0.03, bell[1] + tall * 0.01, bell[0] - aim * tall * 0.04, bell[1]);
    g.fill();
  }
}

/** A stall under a striped awning, lit from inside. */
function stall(g, plan, next) {
  const { width, height } = plan;
  const [x0, x1] = [width * 0.16, width * 0.84];
  const [y0, y1] = [height * 0.34, height * 0.8];
  const inside = g.createRadialGradient(width / 2, mix(y0, y1, 0.35), 10, width / 2, mix(y0, y1, 0.5), width * 0.44);
  inside.addColorStop(0, '#ffe6ae');
  inside.addColorStop(0.45, '#e89a45');
  inside.addColorStop(1, '#4a2412');
  g.fillStyle = inside;
  g.fillRect(x0, y0, x1 - x0, y1 - y0);
  for (let shelf = 0; shelf < 3; shelf += 1) {
    const y = mix(y0, y1, 0.36 + 0.2 * shelf);
    g.fillStyle = 'rgba(52,26,12,0.85)';
    g.fillRect(x0 + width * 0.03, y, x1 - x0 - width * 0.06, height * 0.009);
    for (let x = x0 + width * 0.05; x < x1 - width * 0.06; x += width * (0.05 + 0.015 * next())) {
      const w = width * (0.017 + 0.004 * next());
      const crust = g.createRadialGradient(x, y - w * 0.5, 1, x, y - w * 0.3, w * 1.1);
      crust.addColorStop(0, '#f6c983');
      crust.addColorStop(1, '#7c4517');
      g.fillStyle = crust;
      g.beginPath();
      g.ellipse(x, y - w * 0.18, w, w * 0.56, 0, Math.PI, 0);
      g.fill();
      g.fillRect(x - w, y - w * 0.2, 2 * w, w * 0.2);
    }
  }
  g.fillStyle = '#170d0a';
  for (const at of [0.36, 0.6]) person(g, width * at, y1 + height * 0.03, height * 0.4, next, false);
  g.fillStyle = '#23130d';
  g.fillRect(x0 - width * 0.02, y1 - height * 0.05, x1 - x0 + width * 0.04, height * 0.2);
  for (let i = 0; i < 12; i += 1) {
    const a = mix(x0 - width * 0.03, x1 + width * 0.03, i / 12);
    const b = mix(x0 - width * 0.03, x1 + width * 0.03, (i + 1) / 12);
    g.fillStyle = i % 2 === 0 ? '#a63a26' : '#ead9b8';
    g.beginPath();
    g.moveTo(mix(a, width / 2, 0.06), y0 - height * 0.1);
    g.lineTo(mix(b, width / 2, 0.06), y0 - height * 0.1);
    g.lineTo(b, y0 + height * 0.03);
    g.quadraticCurveTo((a + b) / 2, y0 + height * 0.07, a, y0 + height * 0.03);
    g.fill();
  }
  g.fillStyle = 'rgba(20,8,10,0.34)';
  g.fillRect(x0 + width * 0.012, y0 - height * 0.1, x1 - x0 - width * 0.024, height * 0.03);
  for (const at of [0.26, 0.5, 0.74]) lantern(g, width * at, y0 + height * 0.13, height * 0.032, 30);
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
        data[at + k] = 255 * (0.018 + 0.982 * (1.32 * value) / (1 + 0.32 * value)) + grain;
      }
    }
  }
  g.putImageData(image, 0, 0);
}

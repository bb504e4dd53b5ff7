// People as silhouettes: a crowd on the quay, players with horns, a stall.
import { lantern } from './lights.mjs';

const mix = (a, b, t) => a + (b - a) * t;

/** A figure seen against the light: head, neck, sloping shoulders, arms a little apart from the body. */
export function person(g, x, ground, tall, next, rim) {
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
    [x - hip * 0.9, ground],
    [x - hip * 1.2, ground - tall * 0.34, x - shoulder * 0.78, ground - tall * 0.46],
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

export function crowd(g, plan, next) {
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
export function band(g, plan, next) {
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
    g.quadraticCurveTo(
      bell[0] + aim * tall * 0.03,
      bell[1] - tall * 0.01,
      bell[0] + aim * tall * 0.07,
      bell[1] - tall * 0.075,
    );
    g.lineTo(bell[0] + aim * tall * 0.07, bell[1] + tall * 0.075);
    g.quadraticCurveTo(bell[0] + aim * tall * 0.03, bell[1] + tall * 0.01, bell[0] - aim * tall * 0.04, bell[1]);
    g.fill();
  }
}

/** A stall under a striped awning, lit from inside. */
export function stall(g, plan, next) {
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

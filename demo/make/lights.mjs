// Paper lanterns: by themselves, on strings, and close to the lens.

const mix = (a, b, t) => a + (b - a) * t;

export function halo(g, x, y, radius, colour) {
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

export function strings(g, plan, next) {
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
export function nearLanterns(g, plan, next) {
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

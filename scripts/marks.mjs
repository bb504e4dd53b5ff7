// Draws the wax-pencil signs in public/marks: node scripts/marks.mjs. Three hands of each, so that neighbours differ.
import { mkdirSync, writeFileSync } from 'node:fs';

const WIDTH = 160;
const HEIGHT = 118;
const random = (seed) => () => (seed = (seed * 1664525 + 1013904223) >>> 0) / 2 ** 32;

/** A ring drawn in one go: it begins and ends a little off itself. */
function ring(next, inset) {
  const points = [];
  const start = -2.2 + next() * 0.5;
  const turns = 1.06 + next() * 0.05;
  for (let step = 0; step <= 26; step += 1) {
    const angle = start + (step / 26) * turns * 2 * Math.PI;
    const drift = 1 + (step / 26 - 0.5) * 0.035;
    const squareness = 0.62;
    const corner = (value) => Math.sign(value) * Math.abs(value) ** squareness;
    points.push([
      WIDTH / 2 + corner(Math.cos(angle)) * (WIDTH / 2 - inset) * drift + (next() - 0.5) * 1.6,
      HEIGHT / 2 + corner(Math.sin(angle)) * (HEIGHT / 2 - inset) * drift + (next() - 0.5) * 1.6,
    ]);
  }
  return smooth(points);
}

function stroke(next, from, to) {
  const points = Array.from({ length: 6 }, (_, step) => [
    from[0] + ((to[0] - from[0]) * step) / 5 + (next() - 0.5) * 2.4,
    from[1] + ((to[1] - from[1]) * step) / 5 + (next() - 0.5) * 2.4,
  ]);
  return smooth(points);
}

function smooth(points) {
  const f = (value) => value.toFixed(1);
  let d = `M${f(points[0][0])} ${f(points[0][1])}`;
  for (let at = 1; at < points.length - 1; at += 1)
    d += `Q${f(points[at][0])} ${f(points[at][1])} ${f((points[at][0] + points[at + 1][0]) / 2)} ${f((points[at][1] + points[at + 1][1]) / 2)}`;
  return `${d}L${f(points.at(-1)[0])} ${f(points.at(-1)[1])}`;
}

/** Wax catches on the paper's grain: ragged edges, and lighter where it slid over. */
function svg(paths, seed) {
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${HEIGHT}" width="${WIDTH * 2}" height="${HEIGHT * 2}">
<filter id="w" x="-5%" y="-5%" width="110%" height="110%"><feTurbulence type="fractalNoise" baseFrequency="0.55" numOctaves="2" seed="${seed}" result="n"/><feDisplacementMap in="SourceGraphic" in2="n" scale="2.2" result="d"/><feColorMatrix in="n" type="matrix" values="0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 -4.5 3.5" result="g"/><feComposite in="d" in2="g" operator="in"/></filter>
<g fill="none" stroke="#d8371f" stroke-width="3.8" stroke-linecap="round" stroke-linejoin="round" filter="url(#w)">${paths.map((d) => `<path d="${d}"/>`).join('')}</g>
</svg>
`;
}

mkdirSync('public/marks', { recursive: true });
for (const hand of [1, 2, 3]) {
  const next = random(hand * 7717);
  writeFileSync(`public/marks/keep-${hand}.svg`, svg([ring(next, 5)], hand));
  writeFileSync(`public/marks/linger-${hand}.svg`, svg([ring(next, 5), ring(next, 13)], hand + 3));
  writeFileSync(
    `public/marks/leave-out-${hand}.svg`,
    svg([stroke(next, [18, 14], [142, 104]), stroke(next, [140, 12], [22, 106])], hand + 6),
  );
}

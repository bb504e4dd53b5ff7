// The demo's pictures: a made-up evening in a made-up harbour town, as camera files with capture times.
import { mkdirSync } from 'node:fs';
import path from 'node:path';
import { createCanvas } from '@napi-rs/canvas';
import sharp from 'sharp';
import { lantern } from './lights.mjs';
import { paintScene } from './scene.mjs';

const WIDE = { width: 1920, height: 1280 };
const TALL = { width: 1280, height: 1920 };

/** In the order they were taken; minutes after half past eight in the evening. */
export const PICTURES = [
  { name: 'PE_0412', minutes: 0, ...WIDE, evening: 'amber', horizon: 0.52, boats: 5, lanterns: 3, seed: 11 },
  { name: 'PE_0415', minutes: 3, ...WIDE, evening: 'amber', horizon: 0.5, crowd: 2, seed: 12 },
  { name: 'PE_0419', minutes: 7, ...TALL, evening: 'amber', horizon: 0.62, strings: 3, boats: 2, seed: 13 },
  {
    name: 'PE_0423',
    minutes: 11,
    ...WIDE,
    evening: 'rose',
    horizon: 0.6,
    stall: true,
    crowd: 1,
    crowdSize: 1.9,
    seed: 14,
  },
  { name: 'PE_0426', minutes: 13, ...WIDE, evening: 'rose', horizon: 0.55, near: 3, seed: 15 },
  { name: 'PE_0431', minutes: 18, ...WIDE, evening: 'rose', horizon: 0.46, boats: 7, lanterns: 4, seed: 16 },
  {
    name: 'PE_0434',
    minutes: 20,
    ...TALL,
    evening: 'rose',
    horizon: 0.5,
    boats: 1,
    boatSize: 1.7,
    lanterns: 5,
    seed: 17,
  },
  { name: 'PE_0440', minutes: 26, ...WIDE, evening: 'rose', horizon: 0.5, band: 5, boats: 2, seed: 18 },
  {
    name: 'PE_0444',
    minutes: 31,
    ...WIDE,
    evening: 'slate',
    horizon: 0.5,
    rain: true,
    boats: 4,
    cloudy: 1.7,
    seed: 19,
  },
  {
    name: 'PE_0447',
    minutes: 33,
    ...WIDE,
    evening: 'slate',
    horizon: 0.56,
    rain: true,
    crowd: 2,
    strings: 1,
    cloudy: 1.7,
    seed: 20,
  },
  {
    name: 'PE_0452',
    minutes: 41,
    ...TALL,
    evening: 'slate',
    horizon: 0.55,
    rain: true,
    strings: 2,
    crowd: 1,
    cloudy: 1.5,
    seed: 21,
  },
  { name: 'PE_0458', minutes: 52, ...WIDE, evening: 'teal', horizon: 0.5, boats: 6, lanterns: 5, seed: 22 },
  {
    name: 'PE_0461',
    minutes: 54,
    ...WIDE,
    evening: 'teal',
    horizon: 0.42,
    boats: 8,
    lanterns: 4,
    boatSize: 1.15,
    seed: 23,
  },
  {
    name: 'PE_0463',
    minutes: 57,
    ...WIDE,
    evening: 'teal',
    horizon: 0.55,
    strings: 2,
    crowd: 2,
    seed: 24,
    turned: true,
  },
  { name: 'PE_0468', minutes: 61, ...TALL, evening: 'teal', horizon: 0.48, near: 2, seed: 25 },
  {
    name: 'PE_0472',
    minutes: 66,
    ...WIDE,
    evening: 'blue',
    horizon: 0.5,
    boats: 9,
    lanterns: 6,
    stars: true,
    seed: 26,
  },
  { name: 'PE_0475', minutes: 68, ...WIDE, evening: 'blue', horizon: 0.6, band: 6, strings: 1, stars: true, seed: 27 },
  { name: 'PE_0480', minutes: 74, ...WIDE, evening: 'blue', horizon: 0.54, near: 4, stars: true, seed: 28 },
  {
    name: 'PE_0486',
    minutes: 80,
    ...TALL,
    evening: 'blue',
    horizon: 0.58,
    boats: 3,
    boatSize: 1.2,
    lanterns: 6,
    stars: true,
    seed: 29,
  },
  {
    name: 'PE_0491',
    minutes: 88,
    ...WIDE,
    evening: 'night',
    horizon: 0.55,
    boats: 10,
    lanterns: 6,
    stars: true,
    seed: 30,
    glow: 0.34,
  },
  {
    name: 'PE_0497',
    minutes: 95,
    ...WIDE,
    evening: 'night',
    horizon: 0.6,
    sparks: 4,
    crowd: 2,
    stars: true,
    seed: 31,
    glow: 0.36,
  },
  {
    name: 'PE_0499',
    minutes: 97,
    ...WIDE,
    evening: 'night',
    horizon: 0.56,
    sparks: 5,
    boats: 5,
    stars: true,
    seed: 32,
    glow: 0.36,
  },
];

/** Taken with an old telephone: too small to fill a frame. */
const SMALL = {
  name: 'from-aunt-wilma',
  width: 480,
  height: 320,
  evening: 'blue',
  horizon: 0.52,
  boats: 3,
  seed: 40,
  minutes: 70,
};
/** Saved from a film with its dark bars baked in. */
const BARRED = {
  name: 'regatta-still',
  width: 1920,
  height: 1280,
  evening: 'teal',
  horizon: 0.55,
  boats: 6,
  seed: 41,
  minutes: 56,
};

export async function makePictures(folder) {
  mkdirSync(folder, { recursive: true });
  for (const plan of PICTURES) await save(paintScene(plan), plan, folder, 90);
  await save(paintScene(SMALL), SMALL, folder, 74);
  const barred = paintScene(BARRED);
  const g = barred.getContext('2d');
  g.fillStyle = '#000';
  g.fillRect(0, 0, BARRED.width, 200);
  g.fillRect(0, BARRED.height - 200, BARRED.width, 200);
  await save(barred, BARRED, folder, 90);
  await sharp(logo().toBuffer('image/png'))
    .png({ compressionLevel: 9 })
    .toFile(path.join(folder, 'regatta-emblem.png'));
}

async function save(canvas, plan, folder, quality) {
  const taken = new Date(Date.UTC(2025, 5, 14, 20, 30 + plan.minutes, (plan.seed * 7) % 60)).toISOString();
  const exifTime = `${taken.slice(0, 10).replaceAll('-', ':')} ${taken.slice(11, 19)}`;
  const { data, info } = await sharp(canvas.data(), {
    raw: { width: canvas.width, height: canvas.height, channels: 4 },
  })
    .removeAlpha()
    .rotate(plan.turned ? 270 : 0)
    .raw()
    .toBuffer({ resolveWithObject: true });
  await sharp(data, { raw: { width: info.width, height: info.height, channels: 3 } })
    .withExif({
      IFD0: { Make: 'Orrery', Model: 'Orrery F2', ...(plan.turned ? { Orientation: '6' } : {}) },
      IFD2: { DateTimeOriginal: exifTime },
    })
    .withMetadata({ orientation: plan.turned ? 6 : 1 })
    .jpeg({ quality, mozjpeg: true })
    .toFile(path.join(folder, `${plan.name}.jpg`));
}

/** The regatta's emblem: a lantern over three waves in a ring, on nothing. */
function logo() {
  const canvas = createCanvas(900, 900);
  const g = canvas.getContext('2d');
  g.translate(450, 450);
  g.strokeStyle = '#f3e3bf';
  g.lineWidth = 16;
  g.beginPath();
  g.arc(0, 0, 400, 0, 7);
  g.stroke();
  g.lineWidth = 5;
  g.beginPath();
  g.arc(0, 0, 372, 0, 7);
  g.stroke();
  g.lineWidth = 22;
  g.lineCap = 'round';
  for (let row = 0; row < 3; row += 1) {
    const half = 250 - row * 60;
    g.beginPath();
    for (let x = -half; x <= half; x += 4) g.lineTo(x, 170 + row * 58 + 16 * Math.sin((x + 250) / 36 + row));
    g.stroke();
  }
  g.lineWidth = 10;
  g.beginPath();
  g.moveTo(0, -330);
  g.lineTo(0, -196);
  g.stroke();
  lantern(g, 0, -100, 92, 28);
  return canvas;
}

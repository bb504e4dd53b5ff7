import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import sharp, { type Sharp } from 'sharp';
import { centre, shareWithin } from '../../core/focus/box';
import { FACT_KINDS } from '../../core/facts/fact-kinds';
import { showId } from '../../core/show/ids';
import { emptyShow } from '../../core/show/show';
import { lookAtFile } from '../assets/look-at-file';
import { runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { lookAndFind } from './look-and-find';
import { createDecoders, type Decoders } from '../decoding/decoders';
import { openServer } from '../running-server';

/** Made-up people are no faces to a network; these ship with the package its weights come from. */
const PEOPLE = 'node_modules/@vladmandic/human/assets/samples.jpg';

let folder: string;
let decoders: Decoders;
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-focus-'));
  decoders = createDecoders(1);
});
afterAll(async () => {
  decoders.close();
  await rm(folder, { recursive: true, force: true });
});
const find = (file: string, faces = true) =>
  decoders.run({ kind: 'focus', file, faces, clip: null }, { timeMs: 60_000, memoryBytes: 2 * 1024 ** 3 });

describe('what a picture is about', () => {
  it('is also how it hangs, where its long lines say so', async () => {
    const askew = path.join(folder, 'askew.jpg');
    const stall = sharp('demo/files/PE_0423.jpg').resize(1200);
    await sharp(await stall.clone().rotate(2.5, { background: '#808080' }).toBuffer())
      .extract({ left: 150, top: 120, width: 900, height: 600 })
      .toFile(askew);
    expect(Math.abs((await find(askew, false)).tilt! - 2.5)).toBeLessThan(0.2);
    const level = path.join(folder, 'level.jpg');
    await stall.toFile(level);
    expect(await find(level, false)).not.toHaveProperty('tilt');
  });
  it('are its faces, found where they are, also when the picture lies on its side and says so', async () => {
    const upright = await find(path.resolve(PEOPLE));
    expect(upright.faces.length).toBeGreaterThanOrEqual(2);
    for (const face of upright.faces) {
      expect(shareWithin(face, { left: 0, top: 0, width: 1, height: 1 })).toBeGreaterThan(0.9);
      expect([face.score > 0.7, face.width < 0.2]).toEqual([true, true]);
    }
    // On its side, with a note that says how it is to be turned.
    const lying = path.join(folder, 'lying.jpg');
    await sharp(PEOPLE).rotate(270).withMetadata({ orientation: 6 }).jpeg({ quality: 92 }).toFile(lying);
    const turned = await find(lying);
    const first = centre(upright.faces[0]!);
    const near = turned.faces.some((face) => {
      const { x, y } = centre(face);
      return Math.hypot(x - first.x, y - first.y) < 0.05;
    });
    expect(near).toBe(true);
  });
  it('are told to lie on their side where a picture does not say so itself', async () => {
    expect((await find(path.resolve(PEOPLE))).sideways).toBeUndefined();
    const face = path.join(folder, 'one.jpg');
    const upright = (await find(path.resolve(PEOPLE))).faces.find((one) => one.top < 0.1)!;
    const { width, height } = await sharp(PEOPLE).metadata();
    // A portrait of one of them.
    const side = Math.round(Math.min(4 * upright.height * height, width, height));
    const [left, top] = [
      Math.round(Math.min(width - side, Math.max(0, (upright.left + upright.width / 2) * width - side / 2))),
      Math.round(Math.min(height - side, Math.max(0, upright.top * height - side / 4))),
    ];
    await sharp(PEOPLE).extract({ left, top, width: side, height: side }).resize(800).jpeg().toFile(face);
    expect((await find(face)).sideways).toBeUndefined();
    for (const [degrees, way] of [
      [90, 'counter-clockwise'],
      [270, 'clockwise'],
    ] as const) {
      const lying = path.join(folder, `lying-${degrees}.jpg`);
      await sharp(face).rotate(degrees).jpeg({ quality: 92 }).toFile(lying);
      expect((await find(lying)).sideways).toBe(way);
    }
  });
  it('are told to lie on their side by the people in it as well, where faces are not to be looked for', async () => {
    const somebody = await sharp(PEOPLE)
      .extract({ left: 127, top: 0, width: 205, height: 205 })
      .resize(900)
      .png()
      .toBuffer();
    const lying = async (name: string, of: Sharp) => {
      const file = path.join(folder, `${name}.png`);
      await of.png().toFile(file);
      return (await find(file, false)).sideways;
    };
    expect(await lying('upright', sharp(somebody))).toBeUndefined();
    expect(await lying('lying', sharp(somebody).rotate(90))).toBe('counter-clockwise');
    const mirrored = await sharp(somebody).flop().png().toBuffer();
    expect(await lying('lying-mirrored', sharp(mirrored).rotate(270))).toBe('clockwise');
    expect(await lying('on-its-head', sharp(somebody).rotate(180))).toBeUndefined();
  });
  it('are told to lie on their side by the sky where nobody is in them', async () => {
    const ground = (x: number, y: number) => (37 * x + 91 * y * y + 13 * x * y) % 97;
    const raw = Buffer.alloc(3 * 360 * 240);
    for (let at = 0; at < 360 * 240; at += 1) {
      const [x, y] = [at % 360, Math.floor(at / 360)];
      const rough = ground(Math.floor(x / 6), Math.floor(y / 6));
      raw.set(y < 110 + (x % 40) / 3 ? [80 + y, 130 + 0.8 * y, 205 + 0.3 * y] : [50 + rough, 70 + rough, 30], 3 * at);
    }
    const land = sharp(raw, { raw: { width: 360, height: 240, channels: 3 } });
    for (const [degrees, way] of [
      [0, undefined],
      [90, 'counter-clockwise'],
      [180, undefined],
      [270, 'clockwise'],
    ] as const) {
      const file = path.join(folder, `land-${degrees}.png`);
      await land.clone().rotate(degrees).png().toFile(file);
      expect([degrees, (await find(file)).sideways]).toEqual([degrees, way]);
    }
  });
  it('are no faces where there are none', async () => {
    expect((await find(path.resolve('demo/files/PE_0426.jpg'))).faces).toEqual([]);
  });
  it('is a bright thing on a plain ground, and how sharp it is tells a blurred copy', async () => {
    const ball = Buffer.from('<svg width="900" height="600"><circle cx="640" cy="220" r="60" fill="#e0402a"/></svg>');
    const sharpFile = path.join(folder, 'ball.png');
    await sharp({ create: { width: 900, height: 600, channels: 3, background: '#5c7f62' } })
      .composite([{ input: ball }])
      .png()
      .toFile(sharpFile);
    const softFile = path.join(folder, 'soft.png');
    await sharp(sharpFile).blur(6).toFile(softFile);
    const [crisp, soft] = [await find(sharpFile), await find(softFile)];
    const { x, y } = centre(crisp.salient!);
    expect([Math.abs(x - 640 / 900) < 0.03, Math.abs(y - 220 / 600) < 0.04]).toEqual([true, true]);
    expect(soft.sharpness).toBeLessThan(0.6 * crisp.sharpness);
  });
  it('is told of faces with their eyes: open, and shut where skin lies over them', async () => {
    const { data, info } = await sharp(PEOPLE).raw().toBuffer({ resolveWithObject: true });
    const [face] = (await find(path.resolve(PEOPLE))).faces.toSorted((a, b) => b.height - a.height);
    const [w, h] = [Math.round(face!.width * info.width), Math.round(face!.height * info.height)];
    const [left, top] = [Math.round(face!.left * info.width), Math.round(face!.top * info.height)];
    const near = sharp(data, { raw: { width: info.width, height: info.height, channels: 3 } })
      .extract({ left: left - w, top: top - h, width: 3 * w, height: 3 * h })
      .resize(900);
    const open = path.join(folder, 'open.png');
    await near.clone().png().toFile(open);
    const cheek = await near.clone().extract({ left: 400, top: 480, width: 100, height: 12 }).stats();
    const skin = `rgb(${cheek.channels.map(({ mean }) => Math.round(mean)).join()})`;
    const found = (await find(open)).faces[0]!;
    expect(found.eyes).toBeGreaterThan(0.25);
    const at = (share: number) => (found.left + share * found.width) * 900;
    const eyeY = (found.top + 0.27 * found.height) * 900;
    const lids = [0.3, 0.7].map(
      (share) =>
        `<ellipse cx="${at(share)}" cy="${eyeY}" rx="44" ry="26" fill="${skin}"/><path d="M${at(share) - 30} ${eyeY + 8}q30 14 60 0" stroke="#5a3a30" stroke-width="5" fill="none"/>`,
    );
    const shut = path.join(folder, 'shut.png');
    await sharp(await near.clone().png().toBuffer())
      .composite([{ input: Buffer.from(`<svg width="900" height="900">${lids.join('')}</svg>`) }])
      .png()
      .toFile(shut);
    const blinking = (await find(shut)).faces[0]!;
    expect(blinking.eyes).toBeLessThan(found.eyes! - 0.06);
    // Too small to tell.
    const far = path.join(folder, 'far.png');
    await sharp(open)
      .resize(90)
      .extend({ left: 300, right: 300, top: 200, bottom: 200, background: '#777' })
      .toFile(far);
    for (const small of (await find(far)).faces) expect(small.eyes).toBeUndefined();
  });
  it('is looked for all through a clip, and kept like that of a picture', async () => {
    const still = path.join(folder, 'still.png');
    await sharp(PEOPLE).resize(1280, 720, { fit: 'cover' }).png().toFile(still);
    const clip = path.join(folder, 'people.mp4');
    await runFfmpeg([
      ...'-loop 1 -r 30 -t 2 -i'.split(' '),
      still,
      ...'-c:v libx264 -pix_fmt yuv420p -y'.split(' '),
      clip,
    ]);
    const looked = { widthPx: 1280, heightPx: 720, lengthMs: 2000 };
    const found = await decoders.run(
      { kind: 'focus', file: clip, faces: true, clip: looked },
      { timeMs: 60_000, memoryBytes: 2 * 1024 ** 3 },
    );
    const ofStill = await find(still);
    expect(ofStill.faces.length).toBeGreaterThan(0);
    expect(found.faces.length).toBe(ofStill.faces.length);
    expect(found).not.toHaveProperty('tilt');
    const { facts } = await lookAtFile(clip);
    expect(await lookAndFind(clip)).toEqual({ ...facts, focus: found });
  });
  it('is told without its faces where they are not to be looked for', async () => {
    const found = await find(path.resolve(PEOPLE), false);
    expect([found.faces, found.facesSought, found.sideways]).toEqual([[], false, undefined]);
    expect(found.subjects.length).toBeGreaterThan(0);
  });
  it('forgets the faces of all of a studio’s pictures when it says so, seeks none in new ones, and finds them again when it wants them', async () => {
    process.env.TANAGER_DATA = path.join(folder, 'faceless');
    const server = await openServer();
    try {
      const show = emptyShow(showId('faceless'), 'Faceless');
      await server.shows.put(show);
      const bring = async (name: string, file: string) => {
        await server.sheet.takeIn(show.id, file, name, 'copy');
        await server.runner.idle('look');
        await server.runner.idle('focus');
      };
      const faces = async () =>
        (await server.sheet.entries(show.id)).map(({ facts }) =>
          facts?.kind === 'picture' ? (facts.focus?.faces.length ?? -1) : -1,
        );
      server.runner.start();
      await bring('people.jpg', path.resolve(PEOPLE));
      expect((await faces())[0]).toBeGreaterThanOrEqual(2);
      const { profile, revision } = await server.studio.open('studio');
      await server.studio.setProfile('studio', { ...profile, faces: 'not-sought' }, revision);
      expect(await faces()).toEqual([0]);
      const again = path.join(folder, 'again.jpg');
      await sharp(PEOPLE).jpeg({ quality: 80 }).toFile(again);
      await bring('again.jpg', again);
      expect(await faces()).toEqual([0, 0]);
      await server.studio.setProfile('studio', profile, revision + 1);
      await server.runner.idle('focus');
      expect((await faces()).every((count) => count >= 2)).toBe(true);
    } finally {
      await server.close();
    }
  }, 120_000);
  it('is found after everything can be seen, kept as a fact of its own, and known to the sheet', async () => {
    process.env.TANAGER_DATA = path.join(folder, 'data');
    const server = await openServer();
    try {
      const show = emptyShow(showId('focus'), 'Focus');
      await server.shows.put(show);
      await server.sheet.takeIn(show.id, path.resolve(PEOPLE), 'people.jpg', 'copy');
      server.runner.start();
      await server.runner.idle('look');
      const seen = (await server.sheet.entries(show.id))[0]!;
      expect([seen.state, seen.facts]).toMatchObject(['ready', { kind: 'picture' }]);
      await server.runner.idle('focus');
      const [entry] = await server.sheet.entries(show.id);
      const focus = entry!.facts?.kind === 'picture' ? entry!.facts.focus : undefined;
      expect(focus!.faces.length).toBeGreaterThanOrEqual(2);
      expect(await server.facts.missing('focus', [entry!.assetId], FACT_KINDS.focus.version)).toEqual([]);
    } finally {
      await server.close();
    }
  });
});

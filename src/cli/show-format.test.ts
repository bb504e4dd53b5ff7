import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import sharp from 'sharp';
import { frameCommand } from './frame-command';

const page = await readFile('docs/show-format.md', 'utf8');
const blocks = [...page.matchAll(/```json (show|slide)\n([\s\S]*?)```/g)].map(([, kind, text]) => ({
  kind: kind!,
  document: JSON.parse(text!) as Record<string, unknown>,
}));
const demo = (name: string) => path.resolve('demo/files', name);

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-format-'));
  await writeFile(
    path.join(folder, 'mark.svg'),
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 40"><circle cx="20" cy="20" r="18" fill="#c98a0c"/></svg>',
  );
});
afterAll(async () => {
  await rm(folder, { recursive: true, force: true });
});

const files = () => ({
  boats: demo('PE_0412.jpg'),
  band: demo('PE_0426.jpg'),
  clip: demo('PE_0489-boats.mp4'),
  drawing: 'mark.svg',
  song: demo('harbour-reel.mp3'),
  voice: demo('opening-words.flac'),
});
const whole = (slides: readonly unknown[], more: Record<string, unknown> = {}) => ({
  format: 'tanager-show',
  version: 4,
  id: 'x',
  title: '',
  frame: { widthPx: 1920, heightPx: 1080, rate: { frames: 30, seconds: 1 } },
  defaultLengthMs: 5000,
  cues: [],
  methods: {},
  files: files(),
  slides,
  ...more,
});

async function draw(document: unknown, seconds: number): Promise<{ data: Buffer; mean: number }> {
  await writeFile(path.join(folder, 'show.json'), JSON.stringify(document));
  await frameCommand(
    ['show.json', '--at', String(seconds), '--out', path.join(folder, 'still.png'), '--height', '180'],
    { folder, out: () => undefined, tell: () => undefined },
  );
  const { data } = await sharp(path.join(folder, 'still.png')).raw().toBuffer({ resolveWithObject: true });
  return { data, mean: data.reduce((sum, value) => sum + value, 0) / data.length };
}
const refusalOf = async (document: unknown) =>
  draw(document, 0).then(
    () => 'drawn',
    (error: Error) => error.message,
  );
const slide = (layers: readonly unknown[], more: Record<string, unknown> = {}) => ({
  id: 's',
  lengthMs: 5000,
  transition: { kind: 'cut' },
  backing: { kind: 'automatic' },
  sounds: [],
  layers,
  ...more,
});
const picture = (id: string, more: Record<string, unknown> = {}) => ({
  kind: 'picture',
  id,
  assetId: 'boats',
  move: { kind: 'still' },
  ...more,
});

describe('the page on the show document', () => {
  it('has examples that between them use every kind of layer', () => {
    for (const kind of ['picture', 'clip', 'drawing', 'words', 'shape', 'gradient', 'solid', 'box', 'group'])
      expect(page).toMatch(new RegExp(`"kind": "${kind}", "id"|"kind": "${kind}",\\s+"id"|"kind": "${kind}", "id"`));
    expect(blocks.length).toBeGreaterThanOrEqual(6);
  });
  it.each(blocks.map((block, index) => [`${block.kind} ${index + 1}`, block] as const))(
    'draws its example “%s” as written, at three moments that differ',
    async (_, { kind, document }) => {
      const show = kind === 'show' ? { ...document, files: { ...files() } } : whole([document]);
      const moments = kind === 'show' ? [1, 5.6, 8] : [0.3, 2.2, 4.4];
      const stills = [];
      for (const moment of moments) stills.push(await draw(show, moment));
      for (const { data } of stills) expect(new Set(data).size).toBeGreaterThan(60);
      const apart = (a: Buffer, b: Buffer) =>
        a.reduce((sum, value, at) => sum + Math.abs(value - b[at]!), 0) / a.length;
      expect(apart(stills[0]!.data, stills[1]!.data)).toBeGreaterThan(0.5);
      expect(apart(stills[1]!.data, stills[2]!.data)).toBeGreaterThan(0.5);
    },
  );
});

describe('what an earlier version wrote', () => {
  it('is drawn as what this one writes', async () => {
    const { methods: _methods, ...rest } = whole([]);
    const { sounds: _sounds, ...older } = slide([picture('p')]);
    const narrated = { ...older, narration: { assetId: 'voice', offsetMs: 500, gainDb: 0 } };
    const before = { ...rest, version: 1, frame: { widthPx: 1920, heightPx: 1080, framesPerSecond: 25 } };
    const drawn = await draw({ ...before, slides: [narrated] }, 2);
    expect(drawn.data.equals((await draw(whole([slide([picture('p')])]), 2)).data)).toBe(true);
  });
});

describe('planes that pass through each other', () => {
  const solid = (id: string, colour: string, tiltYDegrees: number, more: Record<string, unknown> = {}) => ({
    kind: 'solid',
    id,
    colour,
    channels: { width: 0.5, height: 0.8, tiltYDegrees },
    ...more,
  });
  const inCanvas = (inner: Record<string, unknown>, tiltYDegrees: number) => ({
    kind: 'group',
    id: 'canvas',
    channels: { width: 0.5, height: 0.8, tiltYDegrees, opacity: 0.99 },
    layers: [{ ...inner, channels: {} }],
  });
  it.each([
    ['drawn straight away', [solid('a', '#d02020', 40), solid('b', '#2020d0', -40)]],
    ['drawn on a canvas of their own', [solid('a', '#d02020', 40), inCanvas(solid('b', '#2020d0', 0), -40)]],
    ['in the other order', [solid('b', '#2020d0', -40), solid('a', '#d02020', 40)]],
  ])('are cut where they cross, %s, without a gap between', async (_name, layers) => {
    const { data } = await draw(whole([slide([{ kind: 'group', id: 'g', space: {}, layers }])]), 1);
    const redness = (x: number) => data[3 * (90 * 320 + x)]! - data[3 * (90 * 320 + x) + 2]!;
    const blueness = (x: number) => -redness(x);
    // The red one leans away at the right, the blue one at the left; they cross in the middle.
    expect(Math.min(redness(110), redness(150), blueness(170), blueness(210))).toBeGreaterThan(100);
    const light = (x: number) => Math.max(data[3 * (90 * 320 + x)]!, data[3 * (90 * 320 + x) + 2]!);
    for (let x = 150; x <= 170; x += 1) expect(light(x)).toBeGreaterThan(95);
  });
});

describe('an inside outline on a turned layer', () => {
  it('has no hair of what it runs around on its outer side', async () => {
    const black = {
      kind: 'solid',
      id: 'a',
      colour: '#000000',
      channels: { width: 0.5, height: 0.6, turnDegrees: 7 },
      edge: { outline: { width: 0.1, colour: '#ffffff', where: 'inside' } },
    };
    const backing = { kind: 'colour', colour: '#ffffff' };
    const { data } = await draw(whole([slide([black], { backing })]), 1);
    const turn = (7 * Math.PI) / 180;
    let darkest = 255;
    let darkInside = 255;
    for (let y = 0; y < 180; y += 1)
      for (let x = 0; x < 320; x += 1) {
        const [dx, dy] = [x + 0.5 - 160, y + 0.5 - 90];
        const across = Math.abs(dx * Math.cos(turn) + dy * Math.sin(turn)) - 80;
        const down = Math.abs(dy * Math.cos(turn) - dx * Math.sin(turn)) - 54;
        const light = data[3 * (y * 320 + x)]!;
        // From the middle of the outline outwards, and well within the layer.
        if (Math.max(across, down) > -4) darkest = Math.min(darkest, light);
        if (Math.max(across, down) < -14) darkInside = Math.min(darkInside, light);
      }
    expect(darkest).toBeGreaterThan(250);
    expect(darkInside).toBeLessThan(8);
  });
  it.each([{ kind: 'ellipse' }, { kind: 'rounded', radius: 0.2 }])('of the shape %j has none either', async (shape) => {
    const edged = (colour: string) => ({
      kind: 'solid',
      id: 'a',
      colour,
      channels: { width: 0.5, height: 0.6, turnDegrees: 7 },
      edge: {
        shape,
        outline: { width: 0.1, colour: '#ffffff', where: 'inside' },
      },
    });
    const backing = { kind: 'colour', colour: '#ffffff' };
    const { data } = await draw(whole([slide([edged('#000000')], { backing })]), 1);
    // Going in from the left, the first that is not white is well inside: there is no dark between backing and outline.
    for (let y = 60; y < 120; y += 5) {
      const row = [...Array(160).keys()].map((x) => data[3 * (y * 320 + x)]!);
      const firstDark = row.findIndex((light) => light < 250);
      expect(firstDark).toBeGreaterThan(0);
      expect(row[firstDark + 4]).toBeLessThan(60);
    }
  });
});

describe('another shape', () => {
  const frame = async (document: unknown, shape: string) => {
    await writeFile(path.join(folder, 'show.json'), JSON.stringify(document));
    const out = path.join(folder, 'shaped.png');
    await frameCommand(['show.json', '--at', '1', '--out', out, '--height', '320', '--shape', shape], {
      folder,
      out: () => undefined,
      tell: () => undefined,
    });
    return sharp(out).raw().toBuffer({ resolveWithObject: true });
  };
  it('is drawn with what was corrected for it, and only that', async () => {
    const left = { crop: { x: 0.2, y: 0.5, width: 0.3, height: 0.9, turnDegrees: 0 } };
    const plain = whole([slide([picture('p')])]);
    const corrected = whole([slide([picture('p', { shapes: { '9:16': left } })])]);
    const [upright, before, square, squareBefore] = [
      await frame(corrected, '9:16'),
      await frame(plain, '9:16'),
      await frame(corrected, '1:1'),
      await frame(plain, '1:1'),
    ];
    expect([upright.info.width, upright.info.height, square.info.width]).toEqual([180, 320, 320]);
    expect(upright.data.equals(before.data)).toBe(false);
    expect(square.data.equals(squareBefore.data)).toBe(true);
  });
  it('is refused with a sentence when it is none', async () => {
    await expect(frame(whole([slide([picture('p')])]), '9by16')).rejects.toThrow(
      '--shape must be two numbers such as 9:16',
    );
  });
});

describe('a malformed show is refused with a sentence', () => {
  it.each([
    [
      'tethers in a ring',
      whole([slide([picture('a', { tether: { to: 'b' } }), picture('b', { tether: { to: 'a' } })])]),
      /a, b are tethered in a ring/,
    ],
    [
      'a tether to itself',
      whole([slide([picture('a', { tether: { to: 'a' } })])]),
      /a are tethered in a ring|a.*tethered/,
    ],
    [
      'masks in a ring',
      whole([
        slide([
          picture('a', { mask: { by: 'transparency', cuts: ['b'] } }),
          picture('b', { mask: { by: 'transparency', cuts: ['a'] } }),
        ]),
      ]),
      /mask each other in a ring/,
    ],
    [
      'a tether to nothing',
      whole([slide([picture('a', { tether: { to: 'ghost' } })])]),
      /tethered to ghost, which is not on the slide/,
    ],
    [
      'a group tethered to what it holds',
      whole([slide([{ kind: 'group', id: 'g', tether: { to: 'a', position: true }, layers: [picture('a')] }])]),
      /tethered to what they themselves move/,
    ],
    ['two layers of one id', whole([slide([picture('a'), picture('a')])]), /two layers have the same id, a/],
    [
      'a negative length',
      whole([slide([picture('a')], { lengthMs: -5 })]),
      /lengthMs must be greater than or equal to 200/,
    ],
    ['ten thousand layers', whole([slide(Array.from({ length: 10_000 }, (_, index) => picture(`p${index}`)))]), /500/],
    [
      'groups without end',
      whole([
        slide([
          Array.from({ length: 60 }).reduce<unknown>(
            (inner, _, index) => ({ kind: 'group', id: `g${index}`, layers: [inner] }),
            picture('a'),
          ),
        ]),
      ]),
      /deep/,
    ],
    [
      'a key that is not a number',
      whole([slide([picture('a', { channels: { x: { keys: [{ at: { tied: 'start', ms: 0 }, value: null }] } } })])]),
      /value/,
    ],
    [
      'a channel beyond its range',
      whole([slide([picture('a', { channels: { opacity: 2 } })])]),
      /opacity must be less than or equal to 1/,
    ],
    ['an unknown part', whole([slide([picture('a', { sparkle: true })])]), /unknown part: sparkle/],
    [
      'a path that is no path',
      whole([
        slide([
          {
            kind: 'shape',
            id: 's',
            shape: { kind: 'free', path: 'url(javascript:1)' },
            fill: { kind: 'colour', colour: '#ffffff' },
          },
        ]),
      ]),
      /SVG path data/,
    ],
    [
      'a picture it does not name',
      whole([slide([picture('a', { assetId: 'b'.repeat(64) })])]),
      /uses a file it does not name/,
    ],
    [
      'a picture that is gone',
      whole([slide([picture('a')])], { files: { boats: 'gone.jpg' } }),
      /gone.jpg: there is no such file/,
    ],
    [
      'a mist of NaN',
      JSON.parse(JSON.stringify(whole([slide([picture('a', { channels: { x: Number.NaN } })])]))) as unknown,
      /x/,
    ],
  ])('%s', async (_, document, sentence) => {
    expect(await refusalOf(document)).toMatch(sentence);
  });
  it('a hundred megabytes of one string, unread', async () => {
    await writeFile(path.join(folder, 'show.json'), `{"title":"${'x'.repeat(100 * 1024 * 1024)}"}`);
    await expect(
      frameCommand(['show.json', '--at', '0', '--out', 'still.png'], {
        folder,
        out: () => undefined,
        tell: () => undefined,
      }),
    ).rejects.toThrow('larger than a show can be (100 MB)');
  });
});

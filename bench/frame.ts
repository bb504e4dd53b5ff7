// CPU time of drawing one 1080p frame, single thread, beside the same frame (or the nearest to it) drawn by a general-purpose native canvas library: npm run bench:frame
import { createCanvas, loadImage } from '@napi-rs/canvas';
import type { FramePlan } from '../src/core/frame/frame-plan';
import { lanterns, USUAL_LANTERNS } from '../src/core/builds/lanterns';
import { planFrame, prepareShow } from '../src/core/frame/plan-frame';
import { layerId, type AssetId } from '../src/core/show/ids';
import type { Layer, PictureLayer } from '../src/core/show/layer';
import type { Show, Slide } from '../src/core/show/show';
import { EIGHT_WAYS, type TransitionOverTime } from '../src/core/show/transition';
import { createPainter } from '../src/drawing/paint/paint-frame';
import { createFileReader } from '../src/server/assets/file-reader';
import { storeFor } from '../src/server/films/draw-segment';
import { openNodeDrawing } from '../src/server/films/node-drawing';
import { benchShow } from './demo-show';

const FRAME = { widthPx: 1920, heightPx: 1080 };
const ROUNDS = 16;
const { show, facts, files } = await benchShow('demo/files', 12, 5000);
const ids = [...files.keys()];
const drawing = await openNodeDrawing();
const reader = createFileReader((id) => files.get(id)!, facts);
const store = storeFor(drawing, reader);
const painter = createPainter(drawing.kernels, FRAME.widthPx, FRAME.heightPx);
let counted = 0;
const newId = () => layerId(`b${(counted += 1)}`);

const picture = (assetId: AssetId, parts: Partial<PictureLayer> = {}): PictureLayer => ({
  kind: 'picture',
  id: newId(),
  assetId,
  move: { kind: 'automatic' },
  ...parts,
});
const title: Layer = {
  kind: 'words',
  id: newId(),
  title: 'Lantern Regatta',
  subtitle: 'Port Ellery, 14 June',
  place: 'bottom-left',
};
const turning = (turnDegrees: number): PictureLayer['move'] => ({
  kind: 'set',
  first: { x: 0.5, y: 0.5, width: 0.7, height: 0.59, turnDegrees: turnDegrees - 1 },
  last: { x: 0.5, y: 0.5, width: 0.68, height: 0.57, turnDegrees },
});
const grid = ids.map((id, index) =>
  picture(id, {
    channels: { x: 0.125 + 0.25 * (index % 4), y: 1 / 6 + Math.floor(index / 4) / 3, width: 0.25, height: 1 / 3 },
  }),
);
const boxes: Layer = {
  kind: 'group',
  id: newId(),
  space: {},
  channels: {
    tiltYDegrees: {
      keys: [
        { at: { tied: 'start', ms: 0 }, value: -20 },
        { at: { tied: 'end', ms: 0 }, value: 20 },
      ],
    },
  },
  layers: [0, 1, 2, 3].map((index) => ({
    kind: 'box' as const,
    id: newId(),
    depth: 0.4,
    channels: {
      x: 0.2 + 0.2 * index,
      y: 0.4 + 0.2 * (index % 2),
      z: -0.3 * (index % 3),
      width: 0.22,
      height: 0.4,
      tiltYDegrees: 30 * index,
    },
    faces: Object.fromEntries(
      ['front', 'back', 'left', 'right', 'top', 'bottom'].map((side, face) => [
        side,
        { kind: 'picture', assetId: ids[(6 * index + face) % ids.length]! },
      ]),
    ) as never,
  })),
};
const [a, b] = ids as [AssetId, AssetId];
const keyed = (from: number, to: number) => ({
  keys: [
    { at: { tied: 'start' as const, ms: 0 }, value: from },
    { at: { tied: 'end' as const, ms: 0 }, value: to },
  ],
});

interface Case {
  readonly name: string;
  readonly layers: readonly Layer[];
  readonly transition?: TransitionOverTime;
  readonly pictures: number;
  readonly turnDegrees?: number;
}
const lengthMs = 1000;
const transitions: TransitionOverTime[] = [
  { kind: 'dip', lengthMs },
  { kind: 'burn', lengthMs },
  ...EIGHT_WAYS.slice(3, 5).map((direction) => ({ kind: 'wipe' as const, lengthMs, direction })),
  { kind: 'clock', lengthMs },
  { kind: 'iris', lengthMs },
  { kind: 'blinds', lengthMs },
  { kind: 'checks', lengthMs },
  { kind: 'pattern', lengthMs, pattern: 'clouds' },
  { kind: 'push', lengthMs },
  { kind: 'slide-over', lengthMs },
  { kind: 'slide-off', lengthMs },
  { kind: 'slide-apart', lengthMs },
  { kind: 'zoom-through', lengthMs },
  { kind: 'zoom-blur', lengthMs },
  { kind: 'page-turn', lengthMs },
  { kind: 'card-turn', lengthMs },
  { kind: 'cube-turn', lengthMs },
  { kind: 'blur-through', lengthMs },
  { kind: 'mosaic', lengthMs },
];
const cases: Case[] = [
  { name: 'pan and zoom', layers: [picture(a)], pictures: 1 },
  { name: 'with a turn of 4°', layers: [picture(a, { move: turning(4) })], pictures: 1, turnDegrees: 4 },
  { name: 'with a turn of 30°', layers: [picture(a, { move: turning(30) })], pictures: 1, turnDegrees: 30 },
  { name: 'dissolve of two', layers: [picture(a)], transition: { kind: 'dissolve', lengthMs }, pictures: 2 },
  {
    name: 'dissolve with a title',
    layers: [
      picture(a),
      { ...title, come: { entrance: { way: 'none', by: 'all', atMs: 0, lengthMs: 0 }, exit: null } },
    ],
    transition: { kind: 'dissolve', lengthMs },
    pictures: 2,
  },
  {
    name: 'upright on its blur',
    layers: [
      picture(ids[2]!, {
        move: {
          kind: 'set',
          first: { x: 0.5, y: 0.5, width: 1.6, height: 1.2, turnDegrees: 0 },
          last: { x: 0.5, y: 0.5, width: 1.5, height: 1.1, turnDegrees: 0 },
        },
      }),
    ],
    pictures: 1,
  },
  {
    name: 'perspective',
    layers: [picture(a, { channels: { width: 0.95, tiltYDegrees: keyed(20, 40) } })],
    pictures: 1,
  },
  {
    name: 'mask by a shape',
    layers: [
      picture(a),
      {
        kind: 'shape',
        id: newId(),
        shape: { kind: 'star', points: 6, depth: 0.5 },
        fill: { kind: 'colour', colour: '#ffffff' },
        channels: { turnDegrees: keyed(0, 40) },
        mask: { by: 'transparency', cuts: 'below' },
      },
    ],
    pictures: 1,
  },
  {
    name: 'edges and a shadow',
    layers: [
      picture(a, {
        channels: { width: keyed(0.5, 0.7) },
        edge: {
          shape: { kind: 'rounded', radius: 0.1 },
          outline: { width: 0.02, colour: '#ffffff', where: 'inside' },
          shadow: { x: 0.02, y: 0.02, softness: 0.02, colour: '#000000', opacity: 0.5 },
        },
      }),
    ],
    pictures: 1,
  },
  {
    name: 'light animated',
    layers: [picture(a, { light: { exposure: keyed(-1, 1), saturation: keyed(0, 0.5) } })],
    pictures: 1,
  },
  { name: 'layer blur animated', layers: [picture(a, { channels: { blur: keyed(0.005, 0.03) } })], pictures: 1 },
  { name: 'twelve pictures in a grid', layers: grid, pictures: 12 },
  { name: 'four boxes, 24 pictures', layers: [boxes], pictures: 12 },
  ...(['rising', 'gathered'] as const).map((phase): Case => ({
    name: `36 lanterns ${phase}`,
    layers: [
      lanterns(
        {
          ...USUAL_LANTERNS,
          shape: phase === 'rising' ? 'ring' : 'wall',
          pictures: Array.from({ length: 36 }, (_, index) => ids[index % ids.length]!),
          // A frame is drawn in the middle of the slide, which lasts five seconds.
          overMs: phase === 'rising' ? 4600 : 1500,
          beginMs: 0,
        },
        FRAME,
        newId(),
      ),
    ],
    pictures: 12,
  })),
  ...transitions.map((transition): Case => ({
    name: `${transition.kind}${'direction' in transition ? ` ${transition.direction}` : ''}`,
    layers: [picture(a)],
    transition,
    pictures: 2,
  })),
];

const images = await Promise.all(ids.map((id) => loadImage(files.get(id)!)));

/** The same number of pictures by the canvas library, over the whole frame together, handed out as pixels. */
function byCanvas(pictures: number, turnDegrees: number): void {
  const context = createCanvas(FRAME.widthPx, FRAME.heightPx).getContext('2d');
  context.imageSmoothingQuality = 'high';
  if (turnDegrees !== 0) {
    context.translate(FRAME.widthPx / 2, FRAME.heightPx / 2);
    context.rotate((turnDegrees * Math.PI) / 180);
    context.translate(-FRAME.widthPx / 2, -FRAME.heightPx / 2);
  }
  if (pictures <= 2) {
    for (let index = 0; index < pictures; index += 1) {
      context.globalAlpha = index === 0 ? 1 : 0.4;
      context.drawImage(images[index]!, 40.3, 20.7, 1700, 956, 0, 0, FRAME.widthPx, FRAME.heightPx);
    }
  } else {
    for (let index = 0; index < pictures; index += 1)
      context.drawImage(images[index]!, (index % 4) * 480, Math.floor(index / 4) * 360, 480, 360);
  }
  context.getImageData(0, 0, FRAME.widthPx, FRAME.heightPx);
}

function cpuMs(work: () => void): number {
  const before = process.cpuUsage();
  work();
  const used = process.cpuUsage(before);
  return (used.user + used.system) / 1000;
}

function slidesOf({ layers, transition }: Case): Slide[] {
  const base = show.slides[0]!;
  const first: Slide = { ...base, layers: [picture(b)], backing: { kind: 'automatic' } };
  return [first, { ...base, id: show.slides[1]!.id, layers, transition: transition ?? { kind: 'cut' } }];
}

const only = process.argv[3];
const at = (values: number[], share: number) =>
  [...values].sort((x, y) => x - y)[Math.floor((values.length - 1) * share)]!;
process.stdout.write(
  'CPU ms a 1080p frame: minimum / median        native canvas        medians: ÷ canvas   ÷ pan and zoom\n',
);
let panMs = 0;
for (const one of cases.filter(({ name }) => !only || name.includes(only) || name === 'pan and zoom')) {
  const of: Show = { ...show, slides: slidesOf(one) };
  const prepared = prepareShow(of, facts);
  const span = prepared.spans[1]!;
  const plans = Array.from({ length: ROUNDS }, (_, round): FramePlan =>
    planFrame(prepared, span.startMs + (one.transition ? 60 + (round * 880) / ROUNDS : 2000 + round * 4), FRAME)!,
  );
  const ours: number[] = [];
  const theirs: number[] = [];
  for (const plan of plans) {
    await store.prepare(plan);
    painter.paint(plan, store);
    ours.push(
      cpuMs(() => {
        for (let repeat = 0; repeat < 3; repeat += 1) painter.paint(plan, store);
      }) / 3,
    );
    theirs.push(cpuMs(() => byCanvas(one.pictures, one.turnDegrees ?? 0)));
    // The canvas library frees its memory only when the loop yields.
    await new Promise(setImmediate);
  }
  if (panMs === 0) panMs = at(ours, 0.5);
  const ratio = at(ours, 0.5) / at(theirs, 0.5);
  process.stdout.write(
    `${one.name.padEnd(28)}${at(ours, 0).toFixed(2).padStart(8)} / ${at(ours, 0.5).toFixed(2).padEnd(10)}${at(theirs, 0).toFixed(1).padStart(10)} / ${at(theirs, 0.5).toFixed(1).padEnd(10)}${ratio.toFixed(3).padStart(8)}${(at(ours, 0.5) / panMs).toFixed(1).padStart(14)}\n`,
  );
}
process.stdout.write(`memory of the kernels: ${Math.round(drawing.kernels.memory.buffer.byteLength / 1048576)} MB\n`);
process.exit(0);

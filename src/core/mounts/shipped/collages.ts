import {
  appearing,
  arriving,
  coming,
  edges,
  field,
  form,
  keys,
  numbered,
  picture,
  plain,
  shipped,
  slide,
  solid,
  windows,
  words,
} from '../design';
import type { Mount } from '../mount';
import { leaning, rows, rowsFor, rowsOfLargest } from '../rows';

const PRINT = (width = 0.035) => ({
  outline: { width, colour: '#ffffff', where: 'outside' as const },
  shadow: { x: 0.002, y: 0.008, softness: 0.014, colour: '#000000', opacity: 0.4 },
});

/** Two pictures that lean on each other, the front one over the corner of the other. */
const twoHands = shipped({
  id: 'two-hands',
  name: 'Two hands',
  shelf: 'Several pictures',
  description: 'Two prints, the second laid over a corner of the first.',
  posterMs: 3500,
  fits: (stage) => {
    const { palette } = stage;
    const pair = (name: string, suits: 'wide' | 'upright' | 'any', ratio: number) => {
      const { width, height, dx, dy } = leaning(stage, ratio);
      return {
        name,
        suits,
        windows: windows('Below', 'On top'),
        slides: [
          slide({
            lengthMs: 6500,
            backing: plain(palette.paper),
            layers: [
              picture(
                'below',
                1,
                { x: 0.5 - dx, y: 0.5 - dy, width, height },
                {
                  edge: PRINT(),
                  channels: { turnDegrees: keys([0, -9, 'arrive'], [1300, -4]), x: arriving(0, -0.5, 0.5 - dx, 1300) },
                },
              ),
              picture(
                'top',
                2,
                { x: 0.5 + dx, y: 0.5 + dy, width, height },
                {
                  edge: PRINT(),
                  channels: {
                    turnDegrees: keys([600, 10, 'arrive'], [1900, 3]),
                    x: arriving(600, 1.5, 0.5 + dx, 1300),
                  },
                },
              ),
            ],
          }),
        ],
      };
    };
    return [
      pair('two wide pictures', 'wide', 1.45),
      pair('two upright pictures', 'upright', 0.72),
      pair('two pictures', 'any', 1.05),
    ];
  },
});

/** One large picture, the others small beside it on a field of colour. */
const oneAndOthers = shipped({
  id: 'one-and-others',
  name: 'One and the others',
  shelf: 'Several pictures',
  description: 'One picture large, two to five small ones in a column of colour beside it.',
  posterMs: 4000,
  fits: (stage) =>
    [3, 4, 5, 6].map((count) => {
      const { palette } = stage;
      const tall = stage.aspect < 0.9;
      const split = tall ? 0.62 : stage.aspect < 1.2 ? 0.68 : 0.7;
      const small = count - 1;
      const pad = 0.035;
      const within = tall
        ? { left: stage.w(pad), top: split + stage.h(pad), right: 1 - stage.w(pad), bottom: 1 - stage.h(pad) }
        : { left: split + stage.w(pad), top: stage.h(pad), right: 1 - stage.w(pad), bottom: 1 - stage.h(pad) };
      const counts = tall
        ? rowsFor(small, ((within.right - within.left) / (within.bottom - within.top)) * stage.aspect, 1.1)
        : rowsFor(small, ((within.right - within.left) / (within.bottom - within.top)) * stage.aspect, 1.2);
      const boxes = rows(counts, within, stage.w(0.025), stage.h(0.025));
      return {
        windows: [...windows('Large'), ...numbered(small, 'Small')],
        slides: [
          slide({
            lengthMs: 6000 + count * 300,
            backing: plain(palette.accent),
            layers: [
              picture('large', 1, tall ? edges(0, 0, 1, split) : edges(0, 0, split, 1)),
              ...boxes.map((box, index) =>
                picture(`small-${index + 1}`, index + 2, box, {
                  channels: tall
                    ? { y: arriving(700 + index * 350, 1.3, box.y) }
                    : { x: arriving(700 + index * 350, 1.3, box.x) },
                }),
              ),
            ],
          }),
        ],
      };
    }),
});

/** Prints thrown on a table, one after the other. */
const onTheTable = shipped({
  id: 'on-the-table',
  name: 'On the table',
  shelf: 'Several pictures',
  description: 'Three to nine prints thrown on a table one after the other, none hiding what the others are about.',
  posterMs: 6000,
  fits: (stage) =>
    [3, 4, 5, 6, 7, 8, 9].map((count) => {
      const lean = [-5, 4, -2.5, 6, -4, 2, -6, 3.5, -1.5];
      const counts = rowsOfLargest(count, stage.aspect, 1.2);
      const cells = rows(
        counts,
        { left: stage.w(0.05), top: stage.h(0.05), right: 1 - stage.w(0.05), bottom: 1 - stage.h(0.05) },
        0,
        0,
      );
      return {
        windows: numbered(count, 'Print'),
        slides: [
          slide({
            lengthMs: 4500 + count * 700,
            backing: {
              kind: 'gradient',
              gradient: {
                kind: 'radial',
                stops: [
                  { at: 0, colour: stage.palette.soft },
                  { at: 1, colour: stage.palette.ink },
                ],
              },
            },
            layers: cells.map((cell, index) => {
              const side = Math.min(cell.width * stage.aspect, cell.height * 1.25) * 0.97;
              const box = { x: cell.x, y: cell.y, width: side / stage.aspect, height: side / 1.2 };
              const atMs = 200 + index * 620;
              const outside = index % 2 === 0 ? -0.4 : 1.4;
              return picture(`print-${index + 1}`, index + 1, box, {
                edge: PRINT(0.045),
                channels: {
                  x: arriving(atMs, outside, box.x, 900),
                  y: arriving(atMs, 1.2, box.y, 900),
                  turnDegrees: keys([atMs, lean[index]! * 7, 'arrive'], [atMs + 950, lean[index]!]),
                },
              });
            }),
          }),
        ],
      };
    }),
});

/** Edge to edge, each tile opening where it stands. */
const tiles = shipped({
  id: 'tiles',
  name: 'Tiles',
  shelf: 'Several pictures',
  description: 'Two to nine pictures edge to edge, each opening in its own tile.',
  posterMs: 5000,
  fits: (stage) =>
    [2, 3, 4, 5, 6, 7, 8, 9].flatMap((count) =>
      (['any', 'upright'] as const).map((suits) => {
        const counts = rowsFor(count, stage.aspect, suits === 'upright' ? 0.75 : 1.3);
        const boxes = rows(counts, { left: 0, top: 0, right: 1, bottom: 1 }, stage.w(0.012), stage.h(0.012));
        return {
          name: suits === 'upright' ? `${count} upright pictures` : `${count} pictures`,
          suits,
          windows: numbered(count, 'Tile'),
          slides: [
            slide({
              lengthMs: 4500 + count * 450,
              backing: plain(stage.palette.paper),
              layers: boxes.map((box, index) =>
                picture(`tile-${index + 1}`, index + 1, box, {
                  channels: {
                    ...(index % 2 === 0
                      ? { cropRight: keys([200 + index * 300, 1, 'settle'], [1300 + index * 300, 0]) }
                      : { cropTop: keys([200 + index * 300, 1, 'settle'], [1300 + index * 300, 0]) }),
                  },
                }),
              ),
            }),
          ],
        };
      }),
    ),
});

/** Round windows that bob up like stones over water. */
const steppingStones = shipped({
  id: 'stepping-stones',
  name: 'Stepping stones',
  shelf: 'Several pictures',
  description: 'Three to six round pictures that come up one after the other along a curve.',
  posterMs: 5200,
  fits: (stage) =>
    [3, 4, 5, 6].map((count) => {
      const { palette } = stage;
      const tall = stage.isUpright;
      const long = tall ? 1 / stage.aspect : stage.aspect;
      const across = Math.min(0.5, (long - 0.12) / (count * 0.62 + 0.4));
      const spots = Array.from({ length: count }, (_, index) => {
        const share = count === 1 ? 0.5 : index / (count - 1);
        const along = 0.06 + across / 2 + share * (long - 0.12 - across);
        const over = 0.5 + (index % 2 === 0 ? -1 : 1) * Math.min(0.25, 0.47 - across / 2);
        return tall ? { x: over, y: along / long } : { x: along / long, y: over };
      });
      return {
        windows: numbered(count, 'Stone'),
        slides: [
          slide({
            lengthMs: 4800 + count * 600,
            backing: plain(palette.ink),
            layers: spots.map((spot, index) => {
              const atMs = 250 + index * 520;
              return picture(
                `stone-${index + 1}`,
                index + 1,
                { ...spot, width: stage.w(across), height: stage.h(across) },
                {
                  edge: {
                    shape: { kind: 'ellipse' },
                    outline: {
                      width: 0.022,
                      colour: index % 2 === 0 ? palette.accent : palette.soft,
                      where: 'outside',
                    },
                  },
                  channels: {
                    width: keys([atMs, 0.001, 'swing'], [atMs + 1000, stage.w(across)]),
                    height: keys([atMs, 0.001, 'swing'], [atMs + 1000, stage.h(across)]),
                  },
                },
              );
            }),
          }),
        ],
      };
    }),
});

/** A strip of pictures that is drawn past, as under a loupe on a light table. */
const lightTable = shipped({
  id: 'light-table',
  name: 'Light table',
  shelf: 'Several pictures',
  description: 'Four to eight pictures on one long strip that is drawn slowly through the frame.',
  posterMs: 5000,
  fits: (stage) =>
    [4, 5, 6, 7, 8].map((count) => {
      const { palette } = stage;
      const tall = stage.isUpright;
      const [each, gap] = [tall ? stage.h(0.62) : stage.w(1.0), tall ? stage.h(0.045) : stage.w(0.045)];
      const total = count * each + (count - 1) * gap;
      const lengthMs = 4000 + count * 1500;
      const inner = (index: number) => each / 2 + index * (each + gap);
      // From the first one whole in the frame to the last.
      const [from, to] = [0.5 - 0.5 + 0.06, 1 - total - 0.06];
      return {
        windows: numbered(count, 'On the strip'),
        slides: [
          slide({
            lengthMs,
            transition: { kind: 'dissolve', lengthMs: 900 },
            backing: plain(palette.paper),
            layers: [
              ...(tall ? [edges(0.06, 0, 0.94, 1)] : [edges(0, 0.13, 1, 0.87)]).map((box) =>
                solid('strip', palette.ink, box),
              ),
              ...Array.from({ length: count }, (_, index) => {
                const at = inner(index);
                const travel = {
                  keys: [
                    { at: { tied: 'stretch' as const, share: 0 }, value: from + at, easing: 'settle' as const },
                    { at: { tied: 'stretch' as const, share: 1 }, value: to + at },
                  ],
                };
                return picture(
                  `picture-${index + 1}`,
                  index + 1,
                  tall
                    ? { x: 0.5, y: from + at, width: 0.78, height: each }
                    : { x: from + at, y: 0.5, width: each, height: 0.62 },
                  { channels: tall ? { y: travel } : { x: travel }, move: { kind: 'automatic' } },
                );
              }),
            ],
          }),
        ],
      };
    }),
});

/** Upright pictures side by side on the blurred first, rising like organ pipes. */
const organPipes = shipped({
  id: 'organ-pipes',
  name: 'Organ pipes',
  shelf: 'Several pictures',
  description: 'Three to five upright pictures of different heights side by side, as upright ones like it.',
  posterMs: 4200,
  fits: (stage) =>
    [3, 4, 5].map((count) => {
      const heights = [0.72, 0.9, 0.8, 0.94, 0.7];
      const tall = stage.isUpright;
      const gap = tall ? stage.h(0.02) : stage.w(0.03);
      const margin = tall ? stage.h(0.06) : stage.w(0.07);
      const each = (1 - 2 * margin - gap * (count - 1)) / count;
      return {
        suits: 'upright' as const,
        name: `${count} upright pictures`,
        windows: numbered(count, 'Pipe'),
        slides: [
          slide({
            lengthMs: 5000 + count * 500,
            backing: { kind: 'blurred', amount: 0.06, darkness: 0.55 },
            layers: Array.from({ length: count }, (_, index) => {
              const size = heights[index]!;
              const at = margin + each / 2 + index * (each + gap);
              const box = tall
                ? { x: 0.5 + (index % 2 === 0 ? -0.5 : 0.5) * (0.92 - size), y: at, width: size, height: each }
                : { x: at, y: 0.5 + (index % 2 === 0 ? 0.5 : -0.5) * (0.94 - size), width: each, height: size };
              const atMs = 150 + index * 380;
              return picture(`pipe-${index + 1}`, index + 1, box, {
                channels: tall
                  ? { x: arriving(atMs, index % 2 === 0 ? -0.6 : 1.6, box.x, 1200) }
                  : { y: arriving(atMs, index % 2 === 0 ? 1.6 : -0.6, box.y, 1200) },
                edge: { shadow: { x: 0, y: 0.008, softness: 0.02, colour: '#000000', opacity: 0.45 } },
              });
            }),
          }),
        ],
      };
    }),
});

/** A page of a printed album: mounted on paper with corners, a line below. */
const albumPage = shipped({
  id: 'album-page',
  name: 'Album page',
  shelf: 'Several pictures',
  description:
    'A page of a printed album: two to four pictures on paper with photo corners, and a line in handwriting.',
  posterMs: 4600,
  fits: (stage) =>
    [2, 3, 4].map((count) => {
      const { palette } = stage;
      const page = edges(stage.w(0.06), stage.h(0.06), 1 - stage.w(0.06), 1 - stage.h(0.06));
      const within = { left: stage.w(0.13), top: stage.h(0.13), right: 1 - stage.w(0.13), bottom: 1 - stage.h(0.3) };
      const counts = rowsFor(count, ((within.right - within.left) / (within.bottom - within.top)) * stage.aspect, 1.25);
      const boxes = rows(counts, within, stage.w(0.06), stage.h(0.06));
      const corner = 0.035;
      return {
        windows: numbered(count, 'On the page'),
        slides: [
          slide({
            lengthMs: 6500 + count * 600,
            transition: { kind: 'page-turn', lengthMs: 1500, direction: 'left' },
            backing: plain(palette.soft),
            layers: [
              form('page', { kind: 'rectangle', radius: 0.01 }, palette.paper, page, {
                edge: { shadow: { x: 0.004, y: 0.012, softness: 0.02, colour: '#000000', opacity: 0.4 } },
              }),
              ...boxes.map((box, index) =>
                picture(`picture-${index + 1}`, index + 1, box, {
                  channels: { opacity: appearing(900 + index * 450, 700) },
                }),
              ),
              ...boxes.flatMap((box, index) =>
                (
                  [
                    [-1, -1],
                    [1, -1],
                    [1, 1],
                    [-1, 1],
                  ] as const
                ).map(([sideX, sideY], at) =>
                  form(
                    `corner-${index + 1}-${at + 1}`,
                    { kind: 'free', path: 'M0 0H100L0 100Z' },
                    palette.ink,
                    {
                      x: box.x + sideX * (box.width / 2 - stage.w(corner / 2 - 0.006)),
                      y: box.y + sideY * (box.height / 2 - stage.h(corner / 2 - 0.006)),
                      width: stage.w(corner),
                      height: stage.h(corner),
                    },
                    { channels: { turnDegrees: at * 90, opacity: appearing(700 + index * 450, 300) } },
                  ),
                ),
              ),
              words(stage, 'words', {
                across: ['centre', 0.5],
                down: ['middle', 1 - stage.h(0.185)],
                width: 0.78,
                room: stage.h(0.16),
                size: 0.085,
                colour: palette.ink,
                style: { font: 'caveat', weight: 500, letterSpacing: 0 },
                come: coming(1800, 'type', 'letter', 1500),
              }),
            ],
          }),
        ],
        words: [field('words', 'title', 'Handwritten line', 'words')],
      };
    }),
});

/** A calendar-like sheet of squares. */
const contactGrid = shipped({
  id: 'stamps',
  name: 'Sheet of stamps',
  shelf: 'Several pictures',
  description: 'Four, six or eight pictures as a sheet of perforated stamps.',
  posterMs: 5200,
  fits: (stage) =>
    [4, 6, 8].map((count) => {
      const { palette } = stage;
      const counts = rowsOfLargest(count, stage.aspect, stage.isUpright ? 0.85 : 1.2);
      const cells = rows(
        counts,
        { left: stage.w(0.07), top: stage.h(0.06), right: 1 - stage.w(0.07), bottom: 1 - stage.h(0.06) },
        stage.w(0.02),
        stage.h(0.02),
      );
      const ratio = stage.isUpright ? 0.85 : 1.2;
      return {
        windows: numbered(count, 'Stamp'),
        slides: [
          slide({
            lengthMs: 5000 + count * 350,
            backing: plain(palette.accent),
            layers: cells.flatMap((cell, index) => {
              const height = Math.min(cell.height, (cell.width * stage.aspect) / ratio);
              const outer = { x: cell.x, y: cell.y, height, width: (height * ratio) / stage.aspect };
              const inner = { ...outer, width: outer.width * 0.84, height: outer.height * 0.81 };
              const come = appearing(200 + index * 260, 450);
              return [
                form(`paper-${index + 1}`, { kind: 'free', path: STAMP }, palette.paper, outer, {
                  channels: { opacity: come },
                }),
                picture(`stamp-${index + 1}`, index + 1, inner, { channels: { opacity: come } }),
              ];
            }),
          }),
        ],
      };
    }),
});

/** A sheet with bites along its sides. */
const STAMP = stampPath();
function stampPath(): string {
  const bites = [0, 1, 2, 3, 4, 5, 6, 7].map((bite) => 6.5 + 11 * bite);
  const top = bites.map((at) => `L${at} 0Q${at + 5} 7 ${at + 10} 0`).join('');
  const right = bites.map((at) => `L100 ${at}Q93 ${at + 5} 100 ${at + 10}`).join('');
  const back = [...bites].reverse().map((at) => at + 10);
  const bottom = back.map((at) => `L${at} 100Q${at - 5} 93 ${at - 10} 100`).join('');
  const left = back.map((at) => `L0 ${at}Q7 ${at - 5} 0 ${at - 10}`).join('');
  return `M0 0${top}L100 0${right}L100 100${bottom}L0 100${left}Z`;
}

export const COLLAGES: readonly Mount[] = [
  twoHands,
  oneAndOthers,
  onTheTable,
  tiles,
  steppingStones,
  lightTable,
  organPipes,
  albumPage,
  contactGrid,
];

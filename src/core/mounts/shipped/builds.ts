import { windowId } from '../../show/window-id';
import { lanterns, lanternsNeedMs, USUAL_LANTERNS, type LanternShape } from '../../builds/lanterns';
import { turnover, turnoverNeedsMs, USUAL_TURNOVER } from '../../builds/turnover';
import { layerId } from '../../show/ids';
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
import { type Mount } from '../mount';

/** A loupe that goes from face to face. */
const faceToFace = shipped({
  id: 'face-to-face',
  name: 'Face to face',
  shelf: 'Builds',
  description: 'A loupe that travels over a picture of many people and enlarges each face it finds.',
  posterMs: 3200,
  fits: () => [
    {
      windows: windows('Picture of many'),
      loupeOver: 'picture',
      slides: [slide({ lengthMs: 8000, layers: [picture('picture', 1, null)] })],
    },
  ],
});

/** A print that turns over and shows another on its back. */
const otherSide = shipped({
  id: 'other-side',
  name: 'Other side',
  shelf: 'Builds',
  description: 'A picture that turns over and shows another on its back.',
  posterMs: 2700,
  fits: (stage) => [
    {
      windows: [
        { name: 'Front', takes: 'picture' },
        { name: 'Back', takes: 'picture', stills: true },
      ],
      slides: [
        slide({
          lengthMs: turnoverNeedsMs({ ...USUAL_TURNOVER, back: windowId(2) }),
          backing: plain(stage.palette.ink),
          layers: [
            turnover(picture('picture', 1, edges(stage.w(0.08), stage.h(0.08), 1 - stage.w(0.08), 1 - stage.h(0.08))), {
              ...USUAL_TURNOVER,
              axis: stage.isUpright ? 'level' : 'upright',
              back: windowId(2),
            }),
          ],
        }),
      ],
    },
  ],
});

/** Lanterns for many pictures. */
const lanternsOf = (id: string, name: string, shape: LanternShape, description: string) =>
  shipped({
    id,
    name,
    shelf: 'Builds',
    description,
    posterMs: 8600,
    fits: (stage) =>
      [16, 20, 25, 30, 36].map((count) => ({
        windows: numbered(count, 'Lantern').map((window) => ({ ...window, stills: true as const })),
        slides: [
          slide({
            lengthMs: lanternsNeedMs({ ...USUAL_LANTERNS, pictures: [] }),
            backing: {
              kind: 'gradient',
              gradient: {
                kind: 'linear',
                angleDegrees: 90,
                stops: [
                  { at: 0, colour: stage.palette.ink },
                  { at: 1, colour: '#0a090b' },
                ],
              },
            },
            layers: [
              lanterns(
                {
                  ...USUAL_LANTERNS,
                  shape,
                  colour: stage.palette.accent,
                  pictures: Array.from({ length: count }, (_, index) => windowId(index + 1)),
                },
                { widthPx: 1000 * stage.aspect, heightPx: 1000 },
                layerId('lanterns'),
              ),
            ],
          }),
        ],
      })),
  });

const lanternWall = lanternsOf(
  'lantern-wall',
  'Lantern wall',
  'wall',
  'Sixteen to thirty-six pictures on lanterns that rise and gather into a wall.',
);
const lanternRing = lanternsOf(
  'lantern-ring',
  'Lantern ring',
  'ring',
  'Sixteen to thirty-six pictures on lanterns that go round in a ring.',
);

/** A dotted way over a map-like ground, with pictures as stations. */
const trail = shipped({
  id: 'trail',
  name: 'Trail',
  shelf: 'Builds',
  description: 'A dotted way over a map-like ground, with three to six places that come up along it.',
  posterMs: 7000,
  fits: (stage) =>
    [3, 4, 5, 6].map((count) => {
      const { palette } = stage;
      const tall = stage.isUpright;
      const at = (share: number) => {
        const along = 0.13 + 0.74 * share;
        const over = 0.56 + 0.17 * Math.sin(share * Math.PI * 2.1 + 0.6);
        return tall ? { x: over, y: along } : { x: along, y: over };
      };
      const stations = Array.from({ length: count }, (_, index) => at(index / (count - 1)));
      const gapMs = 1300;
      const dots = Array.from({ length: (count - 1) * 7 }, (_, index) => ({
        share: (index + 1) / ((count - 1) * 7 + 1),
        index,
      }));
      const size = tall ? Math.min(0.34, 1.2 / count) : Math.min(0.36, (0.86 * stage.aspect) / count);
      return {
        windows: numbered(count, 'Place'),
        slides: [
          slide({
            lengthMs: 3200 + count * gapMs,
            backing: plain(palette.paper),
            layers: [
              form(
                'land',
                { kind: 'free', path: 'M0 62C14 50 22 66 36 58C52 48 58 66 72 60C84 55 92 64 100 56V100H0Z' },
                palette.soft,
                edges(0, 0, 1, 1),
                { channels: { opacity: 0.55 } },
              ),
              form(
                'lake',
                {
                  kind: 'free',
                  path: 'M20 50C10 30 30 12 50 20C74 8 94 30 82 54C88 78 60 92 44 80C26 86 12 70 20 50Z',
                },
                palette.soft,
                { x: tall ? 0.2 : 0.22, y: tall ? 0.3 : 0.2, width: stage.w(0.5), height: stage.h(0.4) },
                { channels: { opacity: 0.4 } },
              ),
              ...dots.map(({ share, index }) =>
                form(
                  `dot-${index + 1}`,
                  { kind: 'ellipse' },
                  palette.accent,
                  { ...at(share), width: stage.w(0.014), height: stage.h(0.014) },
                  {
                    channels: { opacity: appearing(Math.round(700 + share * (count - 1) * gapMs), 150) },
                  },
                ),
              ),
              ...stations.flatMap((spot, index) => {
                const atMs = 500 + index * gapMs;
                const up = index % 2 === 0 ? -1 : 1;
                const reach = size / 2 + 0.05;
                const centre = tall
                  ? {
                      x: Math.min(
                        1 - stage.w(size / 2 + 0.03),
                        Math.max(stage.w(size / 2 + 0.03), spot.x + up * stage.w(reach + 0.02)),
                      ),
                      y: spot.y,
                    }
                  : {
                      x: Math.min(1 - stage.w(size / 2 + 0.03), Math.max(stage.w(size / 2 + 0.03), spot.x)),
                      y: Math.min(
                        1 - stage.h(size / 2 + 0.03),
                        Math.max(stage.h(size / 2 + 0.03), spot.y + up * stage.h(reach)),
                      ),
                    };
                return [
                  form(
                    `pin-${index + 1}`,
                    { kind: 'ellipse' },
                    palette.ink,
                    { ...spot, width: stage.w(0.034), height: stage.h(0.034) },
                    {
                      channels: { opacity: appearing(atMs, 200) },
                    },
                  ),
                  picture(
                    `place-${index + 1}`,
                    index + 1,
                    { ...centre, width: stage.w(size), height: stage.h(size) },
                    {
                      edge: {
                        shape: { kind: 'rounded', radius: 0.06 },
                        outline: { width: 0.03, colour: '#ffffff', where: 'outside' },
                        shadow: { x: 0.002, y: 0.008, softness: 0.012, colour: '#000000', opacity: 0.35 },
                      },
                      channels: {
                        width: keys([atMs, 0.001, 'swing'], [atMs + 900, stage.w(size)]),
                        height: keys([atMs, 0.001, 'swing'], [atMs + 900, stage.h(size)]),
                      },
                    },
                  ),
                ];
              }),
            ],
          }),
        ],
      };
    }),
});

/** One picture wiped over another, with what was and what is. */
const beforeAfter = shipped({
  id: 'before-and-after',
  name: 'Before and after',
  shelf: 'Builds',
  description: 'A line travels over a picture and leaves another of the same place behind it.',
  posterMs: 3300,
  fits: (stage) => {
    const { palette } = stage;
    const go = (from: number, to: number) => keys([1600, from, 'settle'], [5200, to]);
    const plate = { box: { colour: palette.ink, opacity: 0.85, padding: 0.4, radius: 0.1 } };
    return [
      {
        windows: windows('Before', 'After'),
        slides: [
          slide({
            lengthMs: 8000,
            backing: plain(palette.ink),
            layers: [
              picture('before', 1, edges(0, 0, 1, 1), { move: { kind: 'still' } }),
              picture('after', 2, edges(0, 0, 1, 1), { move: { kind: 'still' }, channels: { cropRight: go(1, 0) } }),
              solid('line', palette.paper, { x: 0, y: 0.5, width: stage.w(0.008), height: 1 }, { x: go(-0.01, 1.01) }),
              words(stage, 'then', {
                title: 'Before',
                across: ['right', 1 - stage.w(0.1)],
                down: ['bottom', 1 - stage.h(0.1)],
                width: 0.4,
                room: 0.14,
                size: 0.05,
                colour: palette.paper,
                style: plate,
                come: { entrance: { way: 'fade', by: 'all', atMs: 500, lengthMs: 500 }, exit: null },
                channels: { opacity: keys([3600, 1], [4300, 0]) },
              }),
              words(stage, 'now', {
                title: 'After',
                across: ['left', stage.w(0.1)],
                down: ['bottom', 1 - stage.h(0.1)],
                width: 0.4,
                room: 0.14,
                size: 0.05,
                colour: palette.paper,
                style: plate,
                come: coming(3000, 'fade', 'all', 600),
              }),
            ],
          }),
        ],
        words: [field('then', 'title', 'What was', 'own'), field('now', 'title', 'What is', 'own')],
      },
    ];
  },
});

/** The studio's logo alone, drawn up out of the ground. */
const logoIn = shipped({
  id: 'logo-in',
  name: 'Logo in',
  shelf: 'Logo',
  description: 'Your logo to begin with: it comes up out of a line and stands alone for a moment.',
  posterMs: 2400,
  goes: 'before',
  fits: (stage) => {
    const { palette } = stage;
    const ground = palette[stage.logoOn ?? 'paper'];
    const size = 0.46;
    const box = { x: 0.5, y: 0.5, width: stage.w(size * 1.5), height: stage.h(size) };
    return [
      {
        windows: [{ name: 'Logo', takes: 'logo' }],
        slides: [
          slide({
            lengthMs: 3600,
            transition: { kind: 'dip', lengthMs: 800, colour: ground },
            backing: plain(ground),
            layers: [
              {
                kind: 'drawing',
                id: layerId('logo'),
                assetId: windowId(1),
                channels: { ...box, y: arriving(500, 0.5 + stage.h(0.3), 0.5, 1200), opacity: appearing(500, 700) },
              },
              solid('ground', ground, edges(0, 0.5 + stage.h(size / 2 + 0.012), 1, 1.02)),
              form(
                'line',
                { kind: 'rectangle' },
                palette.accent,
                { x: 0.5, y: 0.5 + stage.h(size / 2 + 0.015), width: stage.w(0.62), height: stage.h(0.006) },
                {
                  channels: {
                    width: keys([100, 0.001, 'settle'], [900, stage.w(0.62)]),
                    opacity: keys([2100, 1], [2700, 0]),
                  },
                },
              ),
            ],
          }),
        ],
      },
    ];
  },
});

/** The logo at the end, with name and address. */
const logoOut = shipped({
  id: 'logo-out',
  name: 'Logo out',
  shelf: 'Logo',
  description: 'Your logo to end with: it comes clear out of a blur, with how to reach you below it.',
  posterMs: 3400,
  goes: 'after',
  fits: (stage) => {
    const { palette } = stage;
    const size = 0.38;
    return [
      {
        windows: [{ name: 'Logo', takes: 'logo' }],
        slides: [
          slide({
            lengthMs: 5000,
            transition: { kind: 'dissolve', lengthMs: 1200 },
            backing: plain(palette.ink),
            layers: [
              // The ground is ink already: a logo that reads on it has a ring instead of a plate.
              form(
                'plate',
                { kind: 'ellipse' },
                palette[stage.logoOn ?? 'paper'],
                { x: 0.5, y: 0.4, width: stage.w(0.62), height: stage.h(0.62) },
                {
                  ...(stage.logoOn && {
                    edge: {
                      shape: { kind: 'ellipse' },
                      outline: { width: 0.005, colour: palette.accent, where: 'inside' },
                    },
                  }),
                  channels: {
                    width: keys([200, 0.001, 'swing'], [1300, stage.w(0.62)]),
                    height: keys([200, 0.001, 'swing'], [1300, stage.h(0.62)]),
                  },
                },
              ),
              {
                kind: 'drawing',
                id: layerId('logo'),
                assetId: windowId(1),
                channels: {
                  x: 0.5,
                  y: 0.4,
                  width: stage.w(size),
                  height: stage.h(size),
                  blur: keys([700, 0.04, 'arrive'], [1900, 0]),
                  opacity: appearing(700, 800),
                },
              },
              words(stage, 'words', {
                across: ['centre', 0.5],
                down: ['middle', 0.4 + stage.h(0.31) + (0.6 - stage.h(0.31)) / 2 - stage.h(0.02)],
                width: 0.84,
                room: 0.6 - stage.h(0.31) - stage.h(0.12),
                size: 0.07,
                colour: palette.paper,
                accent: palette.soft,
                come: coming(1600, 'fade', 'line', 900),
              }),
            ],
          }),
        ],
        words: [field('words', 'title', 'Studio', 'studio'), field('words', 'subtitle', 'How to reach you', 'contact')],
      },
    ];
  },
});

export const BUILDS: readonly Mount[] = [faceToFace, otherSide, lanternWall, lanternRing, trail, beforeAfter];
export const LOGOS: readonly Mount[] = [logoIn, logoOut];

import {
  appearing,
  arriving,
  coming,
  drifting,
  edges,
  field,
  form,
  keys,
  picture,
  plain,
  shipped,
  slide,
  solid,
  veil,
  windows,
  words,
} from '../design';
import type { Channel } from '../../keys/channel';
import type { Mount } from '../mount';

const TITLES = [field('words', 'title', 'Title', 'title'), field('words', 'subtitle', 'Below the title', 'dates')];

/** The picture whole, dusk rising from below, the title in it. */
const lowSun = shipped({
  id: 'low-sun',
  name: 'Low sun',
  shelf: 'Openers',
  description: 'One picture, and the title in the dusk that rises from below.',
  posterMs: 4500,
  fits: (stage) => [
    {
      windows: windows('Picture'),
      slides: [
        slide({
          lengthMs: 7000,
          transition: { kind: 'dip', lengthMs: 1600 },
          layers: [
            picture('picture', 1, null),
            { ...veil('dusk', stage.palette.ink, 90, 0.9, null, 0.3), channels: { opacity: appearing(300, 1600) } },
            form(
              'line',
              { kind: 'rectangle' },
              stage.palette.accent,
              edges(stage.w(0.09), 0.905, stage.w(0.25), 0.905 + stage.h(0.008)),
              {
                channels: { cropRight: keys([900, 1, 'arrive'], [2000, 0]) },
              },
            ),
            words(stage, 'words', {
              across: ['left', stage.w(0.09)],
              down: ['bottom', 0.875],
              width: 1 - stage.w(0.18),
              room: 0.42,
              size: 0.125,
              colour: '#ffffff',
              come: coming(1000, 'rise', 'word', 1500),
            }),
          ],
        }),
      ],
      words: TITLES,
    },
  ],
});

/** A picture in an arch on paper, the title beside it, or below it in tall frames. */
const archway = shipped({
  id: 'archway',
  name: 'Archway',
  shelf: 'Openers',
  description: 'A picture in an arch on paper, and the title beside it.',
  posterMs: 4500,
  fits: (stage) => {
    const { palette } = stage;
    const tall = stage.aspect < 1.4;
    const box = tall
      ? edges(0.5 - stage.w(0.3), 0.09, 0.5 + stage.w(0.3), 0.09 + Math.min(0.52, stage.h(0.78)))
      : edges(1 - stage.w(0.13) - stage.w(0.62), 0.1, 1 - stage.w(0.13), 1);
    const arch = tall
      ? 'M0 100V42C0 16 22 0 50 0C78 0 100 16 100 42V100Z'
      : 'M0 100V36C0 13 20 0 50 0C80 0 100 13 100 36V100Z';
    return [
      {
        windows: windows('In the arch'),
        slides: [
          slide({
            lengthMs: 7000,
            backing: plain(palette.paper),
            layers: [
              form(
                'rim',
                { kind: 'free', path: arch },
                palette.soft,
                { ...box, x: box.x + stage.w(0.022), y: box.y - stage.h(0.022) },
                {
                  channels: { y: arriving(200, box.y + 0.5, box.y - stage.h(0.022), 1500) },
                },
              ),
              picture('picture', 1, box, {
                edge: { shape: { kind: 'free', path: arch } },
                channels: { y: arriving(0, box.y + 0.6, box.y, 1500) },
              }),
              words(stage, 'words', {
                across: tall ? ['centre', 0.5] : ['left', stage.w(0.13)],
                down: tall ? ['top', box.y + box.height / 2 + stage.h(0.06)] : ['middle', 0.5],
                width: tall ? 0.86 : box.x - box.width / 2 - stage.w(0.21),
                room: tall ? 1 - (box.y + box.height / 2) - stage.h(0.14) : 0.7,
                size: 0.1,
                colour: palette.ink,
                accent: palette.accent,
                come: coming(1200, 'rise', 'line', 1200),
              }),
            ],
          }),
        ],
        words: TITLES,
      },
    ];
  },
});

/** Three strips that come one after the other, the title on a band across them. */
const threeStrips = shipped({
  id: 'three-strips',
  name: 'Three strips',
  shelf: 'Openers',
  description: 'Three pictures in strips that slide in by turns, and the title on a band across them.',
  posterMs: 5200,
  fits: (stage) => {
    const { palette } = stage;
    const gap = 0.014;
    const strips = [0, 1, 2].map((index) => {
      if (stage.isUpright) {
        const each = (1 - 2 * stage.h(gap)) / 3;
        return { x: 0.5, y: each / 2 + index * (each + stage.h(gap)), width: 1, height: each };
      }
      const each = (1 - 2 * stage.w(gap)) / 3;
      return { x: each / 2 + index * (each + stage.w(gap)), y: 0.5, width: each, height: 1 };
    });
    const from = (index: number) => (index % 2 === 0 ? 1.5 : -0.5);
    const band = stage.isUpright ? edges(0, 0.4, 1, 0.6) : edges(0, 0.5 - stage.h(0.17), 1, 0.5 + stage.h(0.17));
    return [
      {
        windows: windows('First strip', 'Middle strip', 'Last strip'),
        suits: 'any',
        slides: [
          slide({
            lengthMs: 8000,
            backing: plain(palette.ink),
            layers: [
              ...strips.map((box, index) =>
                picture(`strip-${index + 1}`, index + 1, box, {
                  channels: stage.isUpright
                    ? { x: arriving(150 + index * 350, from(index), box.x, 1300) }
                    : { y: arriving(150 + index * 350, from(index), box.y, 1300) },
                }),
              ),
              solid('band', palette.ink, band, {
                opacity: keys([1900, 0], [2700, 0.86]),
                height: arriving(1900, 0.01, band.height, 900),
              }),
              words(stage, 'words', {
                across: ['centre', 0.5],
                down: ['middle', 0.5],
                width: 0.84,
                room: band.height - stage.h(0.05),
                size: 0.105,
                colour: palette.paper,
                accent: palette.soft,
                come: coming(2500, 'fade', 'letter', 1400),
              }),
            ],
          }),
        ],
        words: TITLES,
      },
    ];
  },
});

/** Two leaves of paper with the title on them part and show the picture. */
const parting = shipped({
  id: 'parting',
  name: 'Two leaves',
  shelf: 'Openers',
  description: 'The title on a plain sheet that parts in the middle and shows the first picture.',
  posterMs: 2200,
  fits: (stage) => {
    const { palette } = stage;
    const leaf = (id: string, box: { x: number; y: number; width: number; height: number }, to: number) =>
      solid(
        id,
        palette.paper,
        box,
        stage.isUpright
          ? { y: keys([3300, box.y, 'settle'], [4900, to]) }
          : { x: keys([3300, box.x, 'settle'], [4900, to]) },
      );
    return [
      {
        windows: windows('Behind the leaves'),
        slides: [
          slide({
            lengthMs: 8500,
            transition: { kind: 'dissolve', lengthMs: 600 },
            layers: [
              picture('picture', 1, null),
              ...(stage.isUpright
                ? [leaf('upper', edges(0, 0, 1, 0.503), -0.26), leaf('lower', edges(0, 0.497, 1, 1), 1.26)]
                : [leaf('left', edges(0, 0, 0.503, 1), -0.26), leaf('right', edges(0.497, 0, 1, 1), 1.26)]),
              form(
                'line',
                { kind: 'rectangle' },
                palette.accent,
                { x: 0.5, y: 0.5 + stage.h(0.2), width: stage.w(0.22), height: stage.h(0.006) },
                {
                  channels: {
                    width: keys([400, 0.001, 'arrive'], [1400, stage.w(0.22)]),
                    opacity: keys([3000, 1], [3300, 0]),
                  },
                },
              ),
              words(stage, 'words', {
                across: ['centre', 0.5],
                down: ['middle', 0.5],
                width: 0.82,
                room: stage.h(0.34),
                size: 0.125,
                colour: palette.ink,
                accent: palette.accent,
                come: coming(300, 'blur', 'all', 900),
                channels: { opacity: keys([2900, 1], [3300, 0]) },
              }),
            ],
          }),
        ],
        words: TITLES,
      },
    ];
  },
});

/** Letters alone on ink, between two lines that draw themselves. */
const letterhead = shipped({
  id: 'letterhead',
  name: 'Letterhead',
  shelf: 'Openers',
  description: 'No picture: the title between two fine lines that draw themselves.',
  posterMs: 3500,
  fits: (stage) => {
    const { palette } = stage;
    const reach = stage.aspect < 1.2 ? 0.4 : 0.32;
    const line = (id: string, y: number, side: 1 | -1) =>
      form(
        id,
        { kind: 'rectangle' },
        palette.accent,
        { x: 0.5, y, width: 2 * reach, height: stage.h(0.005) },
        {
          channels: { [side === 1 ? 'cropRight' : 'cropLeft']: keys([200, 1, 'settle'], [1700, 0]) },
        },
      );
    return [
      {
        slides: [
          slide({
            lengthMs: 5500,
            transition: { kind: 'dip', lengthMs: 1200, colour: palette.ink },
            backing: plain(palette.ink),
            layers: [
              line('above', 0.5 - stage.h(0.24), 1),
              line('below', 0.5 + stage.h(0.24), -1),
              words(stage, 'words', {
                across: ['centre', 0.5],
                down: ['middle', 0.5],
                width: 2 * reach + 0.06,
                room: stage.h(0.4),
                size: 0.12,
                colour: palette.paper,
                accent: palette.soft,
                come: coming(800, 'fade', 'letter', 1600),
                channels: { width: drifting(1, 1.04), height: drifting(1, 1.04) },
              }),
            ],
          }),
        ],
        words: TITLES,
      },
    ];
  },
});

/** A value that is there while the title is, less after a moment, and gone when the title has gone. */
const clearing = (first: number, then: number): Channel => ({
  keys: [
    { at: { tied: 'start', ms: 0 }, value: first },
    { at: { tied: 'start', ms: 1200 }, value: then },
    { at: { tied: 'end', ms: 3300 }, value: then },
    { at: { tied: 'end', ms: 1300 }, value: 0 },
  ],
});

/** The picture out of the dark and out of focus, the title while it comes clear. */
const firstLight = shipped({
  id: 'first-light',
  name: 'First light',
  shelf: 'Openers',
  description: 'The picture comes out of the dark and into focus under the title, which then leaves it alone.',
  posterMs: 2600,
  fits: (stage) => [
    {
      windows: windows('Picture'),
      slides: [
        slide({
          lengthMs: 8500,
          transition: { kind: 'dip', lengthMs: 1000 },
          layers: [
            picture('picture', 1, null, { channels: { blur: clearing(0.045, 0.03) } }),
            solid('night', stage.palette.ink, null, {
              opacity: clearing(0.92, 0.66),
            }),
            words(stage, 'words', {
              across: ['centre', 0.5],
              down: ['middle', 0.5],
              width: 0.84,
              room: 0.6,
              size: 0.14,
              colour: '#ffffff',
              come: {
                entrance: { way: 'blur', by: 'word', atMs: 500, lengthMs: 1400 },
                exit: { way: 'fade', by: 'all', atMs: 1700, lengthMs: 900 },
              },
            }),
          ],
        }),
      ],
      words: TITLES,
    },
  ],
});

export const OPENERS: readonly Mount[] = [lowSun, archway, threeStrips, parting, letterhead, firstLight];

import {
  appearing,
  arriving,
  coming,
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
import type { Mount } from '../mount';

const CHAPTER = [field('words', 'title', 'Chapter', 'chapter'), field('words', 'subtitle', 'Below it', 'dates')];

/** A word on a field of colour that passes through. */
const passingField = shipped({
  id: 'passing-field',
  name: 'Passing field',
  shelf: 'Chapters',
  description: 'No picture: the chapter’s name on a field of colour that comes from one side and goes to the other.',
  posterMs: 1900,
  fits: (stage) => {
    const { palette } = stage;
    return [
      {
        slides: [
          slide({
            lengthMs: 3600,
            transition: { kind: 'push', lengthMs: 900, direction: 'left' },
            backing: plain(palette.accent),
            layers: [
              form('bar', { kind: 'rectangle' }, palette.ink, edges(0, 1 - stage.h(0.09), 1, 1), {
                channels: { cropLeft: keys([300, 1, 'settle'], [1700, 0]) },
              }),
              words(stage, 'words', {
                across: ['left', stage.w(0.12)],
                down: ['middle', 0.47],
                width: 1 - stage.w(0.24),
                room: 0.62,
                size: 0.16,
                colour: palette.paper,
                accent: palette.paper,
                come: coming(600, 'wipe', 'line', 900),
              }),
            ],
          }),
        ],
        words: CHAPTER,
      },
    ];
  },
});

/** The picture behind a side band with the chapter's name. */
const sideBand = shipped({
  id: 'side-band',
  name: 'Side band',
  shelf: 'Chapters',
  description: 'The chapter’s first picture, and its name on a band at the side.',
  posterMs: 3000,
  fits: (stage) => {
    const { palette } = stage;
    const tall = stage.isUpright;
    const band = tall ? edges(0, 0.74, 1, 0.96) : edges(0, 0.12, Math.min(0.42, stage.w(0.72)), 0.88);
    return [
      {
        windows: windows('Picture'),
        slides: [
          slide({
            lengthMs: 5500,
            layers: [
              picture('picture', 1, null),
              solid('band', palette.ink, band, { x: arriving(400, -band.width, band.x, 1100), opacity: 0.9 }),
              form(
                'edge',
                { kind: 'rectangle' },
                palette.accent,
                tall
                  ? edges(0, 0.74 - stage.h(0.012), 1, 0.74)
                  : edges(band.width, 0.12, band.width + stage.w(0.012), 0.88),
                {
                  channels: tall
                    ? { cropRight: keys([900, 1, 'arrive'], [1900, 0]) }
                    : { cropBottom: keys([1100, 1, 'arrive'], [2000, 0]) },
                },
              ),
              words(stage, 'words', {
                across: ['left', stage.w(0.08)],
                down: ['middle', band.y],
                width: band.width - stage.w(0.16),
                room: band.height - stage.h(0.1),
                size: 0.088,
                colour: palette.paper,
                accent: palette.soft,
                come: coming(1300, 'rise', 'line', 900),
              }),
            ],
          }),
        ],
        words: CHAPTER,
      },
    ];
  },
});

/** A number as tall as the frame, the name beside it. */
const openBook = shipped({
  id: 'tabbed-page',
  name: 'Tabbed page',
  shelf: 'Chapters',
  description: 'A page turns to the chapter’s name, with a small print in its corner.',
  posterMs: 2600,
  fits: (stage) => {
    const { palette } = stage;
    const tall = stage.aspect < 1.4;
    const print = tall
      ? edges(0.5 - stage.w(0.27), 0.1, 0.5 + stage.w(0.27), 0.1 + stage.h(0.54))
      : edges(1 - stage.w(0.16) - stage.w(0.6), 0.5 - stage.h(0.3), 1 - stage.w(0.16), 0.5 + stage.h(0.3));
    return [
      {
        windows: windows('Print'),
        slides: [
          slide({
            lengthMs: 5000,
            transition: { kind: 'page-turn', lengthMs: 1300, direction: 'left' },
            backing: plain(palette.paper),
            layers: [
              solid('tab', palette.accent, edges(0, 0, stage.w(0.05), 1)),
              picture('print', 1, print, {
                channels: { turnDegrees: 2.5 },
                edge: {
                  outline: { width: 0.03, colour: '#ffffff', where: 'outside' },
                  shadow: { x: 0.004, y: 0.01, softness: 0.014, colour: '#000000', opacity: 0.32 },
                },
              }),
              words(stage, 'words', {
                across: ['left', stage.w(0.15)],
                down: tall ? ['top', 0.1 + stage.h(0.64)] : ['middle', 0.5],
                width: tall ? 1 - stage.w(0.28) : print.x - print.width / 2 - stage.w(0.23),
                room: tall ? 0.88 - stage.h(0.66) : 0.7,
                size: 0.1,
                colour: palette.ink,
                accent: palette.accent,
                come: coming(1100, 'type', 'letter', 1300),
              }),
            ],
          }),
        ],
        words: CHAPTER,
      },
    ];
  },
});

/** Date and place in the corner of the picture, as if stamped. */
const whereAndWhen = shipped({
  id: 'where-and-when',
  name: 'Where and when',
  shelf: 'Date and place',
  description: 'The picture, and where and when it was taken on two small plates in its corner.',
  posterMs: 3000,
  fits: (stage) => {
    const { palette } = stage;
    const plate = (colour: string) => ({ box: { colour, opacity: 1, padding: 0.42, radius: 0.12 } });
    return [
      {
        windows: windows('Picture'),
        slides: [
          slide({
            lengthMs: 5500,
            layers: [
              picture('picture', 1, null),
              words(stage, 'place', {
                title: '',
                across: ['left', stage.w(0.11)],
                down: ['bottom', 1 - stage.h(0.2)],
                width: 1 - stage.w(0.22),
                room: 0.22,
                size: 0.066,
                colour: palette.paper,
                style: plate(palette.ink),
                come: coming(1000, 'wipe', 'all', 700),
              }),
              words(stage, 'date', {
                title: '',
                across: ['left', stage.w(0.11)],
                down: ['bottom', 1 - stage.h(0.1)],
                width: 1 - stage.w(0.22),
                room: 0.12,
                size: 0.044,
                colour: palette.paper,
                style: plate(palette.accent),
                come: coming(1500, 'wipe', 'all', 700),
              }),
            ],
          }),
        ],
        words: [field('place', 'title', 'Place', 'words'), field('date', 'title', 'Date', 'dates')],
      },
    ];
  },
});

/** A luggage label on a string, swinging in. */
const label = shipped({
  id: 'label',
  name: 'Label',
  shelf: 'Date and place',
  description: 'A label that swings in on its string over the blurred picture, with place and date on it.',
  posterMs: 3000,
  fits: (stage) => {
    const { palette } = stage;
    const [width, height] = stage.isUpright
      ? [stage.w(0.84), stage.h(0.5)]
      : [Math.min(0.84, stage.w(1.0)), stage.h(0.5)];
    return [
      {
        windows: windows('Picture'),
        slides: [
          slide({
            lengthMs: 5000,
            layers: [
              picture('picture', 1, null, { channels: { blur: keys([200, 0], [1300, 0.022]) } }),
              solid('dim', palette.ink, null, { opacity: keys([200, 0], [1300, 0.35]) }),
              form(
                'shade',
                { kind: 'rectangle', radius: 0.09 },
                '#000000',
                { x: 0.5, y: 0.5 + stage.h(0.02), width, height },
                {
                  channels: { blur: 0.02, opacity: keys([300, 0], [1500, 0.5]) },
                },
              ),
              {
                kind: 'group',
                id: 'tag' as never,
                channels: {
                  y: keys([200, -0.5, 'swing'], [1900, 0.5]),
                  turnDegrees: keys([200, 9, 'swing'], [2300, -1.5]),
                },
                layers: [
                  form('card', { kind: 'free', path: 'M10 0H96L100 8V92L96 100H10L0 78V22Z' }, palette.paper, {
                    x: 0.5,
                    y: 0.5,
                    width,
                    height,
                  }),
                  form('hole', { kind: 'ellipse' }, palette.soft, {
                    x: 0.5 - width / 2 + stage.w(0.075),
                    y: 0.5,
                    width: stage.w(0.05),
                    height: stage.h(0.05),
                  }),
                  words(stage, 'words', {
                    across: ['centre', 0.5 + stage.w(0.035)],
                    down: ['middle', 0.5],
                    width: width - stage.w(0.28),
                    room: height - stage.h(0.12),
                    size: 0.1,
                    colour: palette.ink,
                    accent: palette.accent,
                    come: coming(0, 'none', 'all', 0),
                  }),
                ],
              },
            ],
          }),
        ],
        words: [field('words', 'title', 'Place', 'words'), field('words', 'subtitle', 'Date', 'dates')],
      },
    ];
  },
});

/** A print on paper with its caption below, as in an album. */
const captioned = shipped({
  id: 'captioned-print',
  name: 'Captioned print',
  shelf: 'Captions',
  description: 'The picture as a print on paper, with a line about it below.',
  posterMs: 3200,
  fits: (stage) => {
    const { palette } = stage;
    const fit = (name: string, suits: 'wide' | 'upright' | 'any', ratio: number) => {
      const roomW = 1 - stage.w(0.2);
      const roomH = 1 - stage.h(0.36);
      const width = Math.min(roomW, (roomH * ratio) / stage.aspect);
      const height = (width * stage.aspect) / ratio;
      const y = stage.h(0.1) + (1 - stage.h(0.34)) / 2 - stage.h(0.01);
      return {
        name,
        suits,
        windows: windows('Print'),
        slides: [
          slide({
            lengthMs: 6000,
            backing: plain(palette.paper),
            layers: [
              picture(
                'print',
                1,
                { x: 0.5, y, width, height },
                {
                  edge: { shadow: { x: 0, y: 0.008, softness: 0.018, colour: '#000000', opacity: 0.3 } },
                },
              ),
              words(stage, 'words', {
                title: '',
                across: ['centre', 0.5],
                down: ['middle', (y + height / 2 + 1) / 2],
                width: 0.84,
                room: Math.max(0.05, 1 - y - height / 2 - stage.h(0.08)),
                size: 0.062,
                colour: palette.ink,
                accent: palette.accent,
                come: coming(900, 'fade', 'all', 800),
              }),
            ],
          }),
        ],
        words: [field('words', 'title', 'Caption', 'words')],
      };
    };
    return [
      fit('a wide picture', 'wide', 1.5),
      fit('an upright picture', 'upright', 0.75),
      fit('one picture', 'any', 1),
    ];
  },
});

/** A picture and a column of words beside it. */
const marginNote = shipped({
  id: 'margin-note',
  name: 'Margin note',
  shelf: 'Captions',
  description: 'The picture on one side, a heading and a few lines about it on the other.',
  posterMs: 3600,
  fits: (stage) => {
    const { palette } = stage;
    const tall = stage.aspect < 1.2;
    const split = tall ? 0.6 : 0.56;
    return [
      {
        windows: windows('Picture'),
        slides: [
          slide({
            lengthMs: 7500,
            backing: plain(palette.paper),
            layers: [
              picture('picture', 1, tall ? edges(0, 0, 1, split) : edges(0, 0, split, 1)),
              form(
                'line',
                { kind: 'rectangle' },
                palette.accent,
                tall
                  ? edges(stage.w(0.09), split + stage.h(0.075), stage.w(0.25), split + stage.h(0.083))
                  : edges(split + stage.w(0.11), 0.25, split + stage.w(0.27), 0.25 + stage.h(0.008)),
                {
                  channels: { cropRight: keys([500, 1, 'arrive'], [1400, 0]) },
                },
              ),
              words(stage, 'words', {
                across: ['left', tall ? stage.w(0.09) : split + stage.w(0.11)],
                down: ['top', tall ? split + stage.h(0.115) : 0.25 + stage.h(0.05)],
                width: tall ? 1 - stage.w(0.18) : 1 - split - stage.w(0.2),
                room: tall ? 1 - split - stage.h(0.2) : 0.66,
                size: 0.088,
                colour: palette.ink,
                style: { lineSpacing: 1.12 },
                come: coming(800, 'rise', 'line', 1300),
              }),
            ],
          }),
        ],
        words: [field('words', 'title', 'Heading', 'words'), field('words', 'subtitle', 'A few lines', 'words')],
      },
    ];
  },
});

/** One line at the lower edge that writes itself. */
const lowerLine = shipped({
  id: 'lower-line',
  name: 'Lower line',
  shelf: 'Captions',
  description: 'The picture, and one line about it that writes itself along the lower edge.',
  posterMs: 3400,
  fits: (stage) => [
    {
      windows: windows('Picture'),
      slides: [
        slide({
          lengthMs: 5500,
          layers: [
            picture('picture', 1, null),
            veil('shade', '#000000', 90, 0.82, edges(0, 0.62, 1, 1)),
            words(stage, 'words', {
              across: ['centre', 0.5],
              down: ['bottom', 1 - stage.h(0.075)],
              width: 0.86,
              room: 0.24,
              size: 0.058,
              colour: '#ffffff',
              accent: stage.palette.soft,
              come: coming(900, 'type', 'letter', 1400),
              channels: { opacity: appearing(800, 200) },
            }),
          ],
        }),
      ],
      words: [field('words', 'title', 'Caption', 'words')],
    },
  ],
});

export const CARDS: readonly Mount[] = [
  passingField,
  sideBand,
  openBook,
  whereAndWhen,
  label,
  captioned,
  marginNote,
  lowerLine,
];

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

/** The last picture steps back and becomes a print on the table. */
const laidDown = shipped({
  id: 'laid-down',
  name: 'Laid down',
  shelf: 'Closers',
  description: 'The last picture steps back and becomes a print on a table, with thanks below it.',
  posterMs: 5600,
  goes: 'after',
  fits: (stage) => {
    const { palette } = stage;
    const size = stage.isUpright ? 0.62 : 0.5;
    const [width, height] = [stage.w(size * 1.3), stage.h(size)];
    return [
      {
        windows: windows('Print'),
        slides: [
          slide({
            lengthMs: 8000,
            backing: plain(palette.ink),
            layers: [
              picture(
                'print',
                1,
                { x: 0.5, y: 0.5, width, height },
                {
                  channels: {
                    width: keys([700, 1.06, 'settle'], [3400, width]),
                    height: keys([700, 1.06, 'settle'], [3400, height]),
                    y: keys([700, 0.5, 'settle'], [3400, 0.4]),
                    turnDegrees: keys([700, 0, 'settle'], [3400, -3]),
                  },
                  edge: {
                    outline: { width: keys([700, 0], [2600, 0.035]), colour: '#ffffff', where: 'outside' },
                    shadow: { x: 0, y: 0.012, softness: 0.02, colour: '#000000', opacity: 0.55 },
                  },
                },
              ),
              words(stage, 'words', {
                title: 'Thank you for watching',
                across: ['centre', 0.5],
                down: ['middle', 0.4 + height / 2 + (1 - 0.4 - height / 2) / 2],
                width: 0.84,
                room: 1 - 0.4 - height / 2 - stage.h(0.12),
                size: 0.085,
                colour: palette.paper,
                accent: palette.soft,
                come: coming(3200, 'fade', 'word', 1300),
              }),
            ],
          }),
        ],
        words: [field('words', 'title', 'Thanks', 'own'), field('words', 'subtitle', 'From whom', 'studio')],
      },
    ];
  },
});

/** A plain sheet with a few words and a line below them. */
const untilNext = shipped({
  id: 'until-next',
  name: 'Until next time',
  shelf: 'Closers',
  description: 'No picture: a few words to end with, and who they are from.',
  posterMs: 3200,
  goes: 'after',
  fits: (stage) => {
    const { palette } = stage;
    return [
      {
        slides: [
          slide({
            lengthMs: 5500,
            transition: { kind: 'dissolve', lengthMs: 1500 },
            backing: plain(palette.paper),
            layers: [
              form(
                'dot',
                { kind: 'ellipse' },
                palette.accent,
                { x: 0.5, y: 0.5 - stage.h(0.25), width: stage.w(0.03), height: stage.h(0.03) },
                {
                  channels: {
                    opacity: appearing(300, 500),
                    y: keys([300, 0.5 - stage.h(0.4), 'bounce'], [1300, 0.5 - stage.h(0.25)]),
                  },
                },
              ),
              words(stage, 'words', {
                title: 'Until next time',
                across: ['centre', 0.5],
                down: ['middle', 0.52],
                width: 0.82,
                room: stage.h(0.42),
                size: 0.11,
                colour: palette.ink,
                accent: palette.accent,
                come: coming(900, 'rise', 'line', 1100),
              }),
            ],
          }),
        ],
        words: [field('words', 'title', 'Words to end with', 'own'), field('words', 'subtitle', 'From whom', 'studio')],
      },
    ];
  },
});

/** The last picture goes into the dark from the outside in, the words remain. */
const lampOut = shipped({
  id: 'lamp-out',
  name: 'Lamp out',
  shelf: 'Closers',
  description: 'The light draws in around the last picture and goes out; the words stay a while.',
  posterMs: 3500,
  goes: 'after',
  fits: (stage) => {
    const size = 2.1;
    return [
      {
        windows: windows('Picture'),
        slides: [
          slide({
            lengthMs: 8500,
            backing: plain('#050505'),
            layers: [
              picture('picture', 1, null),
              {
                kind: 'gradient',
                id: 'cone' as never,
                gradient: {
                  kind: 'radial',
                  stops: [
                    { at: 0, colour: '#ffffff', opacity: 1 },
                    { at: 0.4, colour: '#ffffff', opacity: 0.92 },
                    { at: 0.68, colour: '#ffffff', opacity: 0 },
                    { at: 1, colour: '#ffffff', opacity: 0 },
                  ],
                },
                channels: {
                  width: keys([0, stage.w(size) * 2.2], [1200, stage.w(size) * 2.2, 'settle'], [5200, stage.w(0.02)]),
                  height: keys([0, stage.h(size) * 2.2], [1200, stage.h(size) * 2.2, 'settle'], [5200, stage.h(0.02)]),
                  opacity: keys([4600, 1], [5300, 0]),
                },
                mask: { by: 'transparency', cuts: 'below' },
              },
              words(stage, 'words', {
                title: 'The end',
                across: ['centre', 0.5],
                down: ['middle', 0.5],
                width: 0.82,
                room: 0.5,
                size: 0.13,
                colour: '#ffffff',
                accent: stage.palette.soft,
                come: coming(4900, 'fade', 'letter', 1300),
              }),
            ],
          }),
        ],
        words: [
          field('words', 'title', 'Words to end with', 'own'),
          field('words', 'subtitle', 'Below them', 'studio'),
        ],
      },
    ];
  },
});

const CREDITS = [
  field('credits', 'title', 'Title of the credits', 'own'),
  field('credits', 'subtitle', 'Credits, two columns by a tab', 'credits'),
];

/** Credits over nothing but a colour. */
const rollCall = shipped({
  id: 'roll-call',
  name: 'Roll call',
  shelf: 'Credits',
  description: 'Rolling credits in two columns on a plain ground.',
  posterMs: 7000,
  goes: 'after',
  fits: (stage) => [
    {
      slides: [
        slide({
          lengthMs: 14_000,
          transition: { kind: 'dissolve', lengthMs: 1500 },
          backing: plain(stage.palette.ink),
          layers: [
            {
              ...words(stage, 'credits', {
                title: 'With thanks',
                across: ['centre', 0.5],
                down: ['middle', 0.5],
                width: 0.86,
                room: 1,
                size: 0.1,
                colour: stage.palette.paper,
                accent: stage.palette.soft,
                style: { lineSpacing: 1.3 },
                come: null,
              }),
              travel: { kind: 'roll', fromMs: 0, lengthMs: null },
            },
          ],
        }),
      ],
      words: CREDITS,
    },
  ],
});

/** Credits beside a picture; below it in tall frames. */
const besideThanks = shipped({
  id: 'beside-the-thanks',
  name: 'Beside the thanks',
  shelf: 'Credits',
  description: 'Rolling credits with one picture standing beside them.',
  posterMs: 7000,
  goes: 'after',
  fits: (stage) => {
    const { palette } = stage;
    const tall = stage.aspect < 1.2;
    const box = tall ? edges(0, 0, 1, 0.46) : edges(0, 0, 0.46, 1);
    return [
      {
        windows: windows('Picture'),
        slides: [
          slide({
            lengthMs: 14_000,
            transition: { kind: 'dissolve', lengthMs: 1500 },
            backing: plain(palette.ink),
            layers: [
              {
                ...words(stage, 'credits', {
                  title: 'With thanks',
                  across: ['centre', 0.5],
                  down: ['middle', 0.5],
                  width: tall ? 0.96 : 0.48,
                  room: 1,
                  size: tall ? 0.15 : 0.085,
                  colour: palette.paper,
                  accent: palette.soft,
                  style: { lineSpacing: 1.25 },
                  come: null,
                  // Below a picture they roll in a frame of their own, which they do not leave.
                  channels: tall ? { x: 0.5, y: 0.73, width: 0.54, height: 0.54 } : { x: 0.73, y: 0.5 },
                }),
                travel: { kind: 'roll', fromMs: 0, lengthMs: null },
              },
              picture('picture', 1, box),
              tall
                ? veil('fade', palette.ink, 90, 1, edges(0, 0.3, 1, 0.462))
                : veil('fade', palette.ink, 0, 1, edges(0.3, 0, 0.462, 1)),
            ],
          }),
        ],
        words: CREDITS,
      },
    ];
  },
});

/** A call to do something: what, and where. */
const callCard = shipped({
  id: 'call-card',
  name: 'Write to us',
  shelf: 'Closers',
  description: 'A picture beside a card with your studio’s name and how to reach it.',
  posterMs: 3800,
  goes: 'after',
  fits: (stage) => {
    const { palette } = stage;
    const tall = stage.aspect < 1.2;
    const card = tall ? edges(0, 0.56, 1, 1) : edges(0.58, 0, 1, 1);
    return [
      {
        windows: windows('Picture'),
        slides: [
          slide({
            lengthMs: 7000,
            layers: [
              picture('picture', 1, tall ? edges(0, 0, 1, 0.56) : edges(0, 0, 0.58, 1)),
              solid(
                'card',
                palette.accent,
                card,
                tall ? { y: arriving(300, 1.3, card.y, 1100) } : { x: arriving(300, 1.3, card.x, 1100) },
              ),
              words(stage, 'words', {
                title: 'Shall we make yours?',
                across: ['centre', card.x],
                down: ['middle', card.y],
                width: card.width - stage.w(0.14),
                room: card.height - stage.h(0.2),
                size: 0.082,
                colour: palette.paper,
                accent: palette.paper,
                style: { lineSpacing: 1.15 },
                come: coming(1200, 'rise', 'line', 1200),
              }),
            ],
          }),
        ],
        words: [
          field('words', 'title', 'Question or name', 'own'),
          field('words', 'subtitle', 'How to reach you', 'contact'),
        ],
      },
    ];
  },
});

export const CLOSERS: readonly Mount[] = [laidDown, untilNext, lampOut, callCard, rollCall, besideThanks];

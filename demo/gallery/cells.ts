import type { AssetId } from '../../src/core/show/ids';
import { layerId } from '../../src/core/show/ids';
import { EDGE_SHAPES } from '../../src/core/show/edge-shapes';
import type { BlendMode, Layer, PictureLayer } from '../../src/core/show/layer';
import { PRINT_EFFECTS, type Light } from '../../src/core/show/light';
import type { Backing } from '../../src/core/show/show';
import { EIGHT_WAYS, IRIS_SHAPES, PATTERN_NAMES, type TransitionOverTime } from '../../src/core/show/transition';
import { WORDS_UNITS, WORDS_WAYS, type WordsStyle } from '../../src/core/show/words';

/** One small picture of the gallery: two slides and a moment. `atMs` counts from the second slide's start, which is where its transition begins. */
export interface Cell {
  readonly label: string;
  readonly first: readonly Layer[];
  readonly second: readonly Layer[];
  readonly backing: Backing;
  readonly transition: TransitionOverTime | { readonly kind: 'cut' };
  readonly atMs: number;
}

export interface Pictures {
  readonly all: readonly AssetId[];
  readonly emblem: AssetId;
}

const OVER_MS = 1000;
let counted = 0;
const newId = () => layerId(`g${(counted += 1)}`);

export const picture = (assetId: AssetId, parts: Partial<PictureLayer> = {}): PictureLayer => ({
  kind: 'picture',
  id: newId(),
  assetId,
  move: { kind: 'still' },
  ...parts,
});
const cell = (
  label: string,
  second: readonly Layer[],
  backing: Backing = { kind: 'automatic' },
  atMs = 2000,
): Cell => ({ label, first: [], second, backing, transition: { kind: 'cut' }, atMs });

export function transitionCells({ all }: Pictures): Cell[] {
  const lengthMs = OVER_MS;
  const kinds: [string, TransitionOverTime][] = [
    ['dissolve', { kind: 'dissolve', lengthMs }],
    ['dip to colour', { kind: 'dip', lengthMs, colour: '#d8371f' }],
    ['burn', { kind: 'burn', lengthMs }],
    ['blur through', { kind: 'blur-through', lengthMs }],
    ['mosaic', { kind: 'mosaic', lengthMs }],
    ...EIGHT_WAYS.map((direction): [string, TransitionOverTime] => [
      `wipe ${direction}`,
      { kind: 'wipe', lengthMs, direction },
    ]),
    ['clock', { kind: 'clock', lengthMs }],
    ...IRIS_SHAPES.map((shape): [string, TransitionOverTime] => [`iris ${shape}`, { kind: 'iris', lengthMs, shape }]),
    ['blinds', { kind: 'blinds', lengthMs }],
    ['checks', { kind: 'checks', lengthMs }],
    ...PATTERN_NAMES.map((pattern): [string, TransitionOverTime] => [
      `pattern ${pattern}`,
      { kind: 'pattern', lengthMs, pattern },
    ]),
    ['push', { kind: 'push', lengthMs }],
    ['slide over', { kind: 'slide-over', lengthMs, direction: 'up' }],
    ['slide off', { kind: 'slide-off', lengthMs, direction: 'down' }],
    ['slide apart', { kind: 'slide-apart', lengthMs }],
    ['zoom through', { kind: 'zoom-through', lengthMs }],
    ['zoom blur', { kind: 'zoom-blur', lengthMs }],
    ['page turn', { kind: 'page-turn', lengthMs }],
    ['card turn', { kind: 'card-turn', lengthMs }],
    ['cube turn', { kind: 'cube-turn', lengthMs }],
  ];
  return kinds.flatMap(([label, transition], index) =>
    [0.25, 0.5, 0.75].map((share): Cell => ({
      label: `${label} ${Math.round(share * 100)} %`,
      first: [picture(all[(2 * index) % all.length]!)],
      second: [picture(all[(2 * index + 5) % all.length]!)],
      backing: { kind: 'automatic' },
      transition,
      atMs: share * OVER_MS,
    })),
  );
}

export function edgeCells({ all }: Pictures): Cell[] {
  const [a] = all as [AssetId];
  const shadow = { x: 0.02, y: 0.03, softness: 0.02, colour: '#000000', opacity: 0.6 };
  const on: Backing = {
    kind: 'gradient',
    gradient: {
      kind: 'linear',
      angleDegrees: 60,
      stops: [
        { at: 0, colour: '#f4f0e8' },
        { at: 1, colour: '#b9a98c' },
      ],
    },
  };
  const box = { width: 0.6 };
  const square = { width: 0.36, height: 0.64 };
  return [
    cell('shadow', [picture(a, { channels: box, edge: { shadow } })], on),
    cell(
      'outline inside',
      [picture(a, { channels: box, edge: { outline: { width: 0.05, colour: '#ffffff', where: 'inside' }, shadow } })],
      on,
    ),
    cell(
      'outline centre',
      [picture(a, { channels: box, edge: { outline: { width: 0.05, colour: '#ffffff', where: 'centre' }, shadow } })],
      on,
    ),
    cell(
      'outline outside',
      [
        picture(a, {
          channels: { ...box, turnDegrees: -6 },
          edge: { outline: { width: 0.05, colour: '#ffffff', where: 'outside' }, shadow },
        }),
      ],
      on,
    ),
    cell('rounded', [picture(a, { channels: box, edge: { shape: { kind: 'rounded', radius: 0.12 }, shadow } })], on),
    cell(
      'circle',
      [
        picture(a, {
          channels: square,
          edge: { shape: { kind: 'ellipse' }, outline: { width: 0.03, colour: '#d8371f', where: 'outside' } },
        }),
      ],
      on,
    ),
    ...Object.entries(EDGE_SHAPES).map(([name, path]) =>
      cell(
        name,
        [picture(a, { channels: { width: 0.5, height: 0.86 }, edge: { shape: { kind: 'free', path }, shadow } })],
        on,
      ),
    ),
    cell('feather', [picture(a, { channels: { width: 0.75 }, edge: { feather: 0.18 } })], on),
    cell(
      'feathered oval',
      [picture(a, { channels: { width: 0.75 }, edge: { shape: { kind: 'ellipse' }, feather: 0.2 } })],
      on,
    ),
    cell(
      'tilted, rounded',
      [
        picture(a, {
          channels: { ...box, tiltYDegrees: 35, turnDegrees: 4 },
          edge: {
            shape: { kind: 'rounded', radius: 0.08 },
            outline: { width: 0.03, colour: '#ffffff', where: 'inside' },
            shadow,
          },
        }),
      ],
      on,
    ),
    cell(
      'coloured shadow',
      [picture(a, { channels: box, edge: { shadow: { ...shadow, colour: '#33708f', opacity: 0.9, softness: 0.05 } } })],
      on,
    ),
    cell(
      'straightened',
      [
        picture(a, {
          channels: box,
          crop: { x: 0.5, y: 0.5, width: 0.8, height: 0.8, turnDegrees: 5 },
          edge: { shadow },
        }),
      ],
      on,
    ),
    cell(
      'turned by a quarter',
      [
        picture(a, {
          channels: { height: 0.8 },
          crop: { x: 0.5, y: 0.5, width: 2 / 3, height: 1.5, turnDegrees: -90 },
          edge: { shadow },
        }),
      ],
      on,
    ),
    cell(
      'keyed crop',
      [picture(a, { channels: { ...box, cropLeft: 0.2, cropTop: 0.1, cropRight: 0.15 }, edge: { shadow } })],
      on,
    ),
  ];
}

export function lightCells({ all }: Pictures): Cell[] {
  const a = all[6]!;
  const lights: [string, Light][] = [
    ['as it is', {}],
    ['exposure +1', { exposure: 1 }],
    ['exposure −1', { exposure: -1 }],
    ['contrast', { contrast: 0.7 }],
    ['less contrast', { contrast: -0.6 }],
    ['shadows lifted', { shadows: 0.9 }],
    ['highlights held', { highlights: -0.8 }],
    ['warmer', { temperature: 0.6 }],
    ['cooler', { temperature: -0.6 }],
    ['magenta', { tint: 0.7 }],
    ['saturation', { saturation: 0.7 }],
    ['vibrance', { vibrance: 0.9 }],
    ['levels', { levels: 'automatic' }],
    ['black and white', { blackAndWhite: 1 }],
    ['sepia', { sepia: 1 }],
    ['paling', { paling: 0.6 }],
    ['tone', { tone: { colour: '#33708f', amount: 0.8 } }],
    ['vignette', { vignette: 0.9 }],
    ['sharpen', { sharpen: 1 }],
    ...PRINT_EFFECTS.map((kind): [string, Light] => [kind.replace('-', ' '), { print: { kind, strength: 1 } }]),
  ];
  return lights.map(([label, light]) => cell(label, [picture(a, { light })]));
}

export function entranceCells({ all }: Pictures): Cell[] {
  const cells: Cell[] = [];
  for (const way of WORDS_WAYS)
    for (const by of WORDS_UNITS) {
      if (way === 'none' && by !== 'all') continue;
      cells.push(
        cell(
          `${way} by ${by}`,
          [
            picture(all[9]!, { light: { exposure: -0.7 } }),
            {
              kind: 'words',
              id: newId(),
              title: 'Lanterns at\nPort Ellery',
              subtitle: 'an evening in June',
              place: 'centre',
              style: { size: 0.16 },
              come: { entrance: { way, by, atMs: 0, lengthMs: 2000 }, exit: null },
            },
          ],
          { kind: 'automatic' },
          way === 'none' ? 2000 : 1100,
        ),
      );
    }
  return cells;
}

export function wordsCells({ all }: Pictures): Cell[] {
  const on = (style: WordsStyle, title: string, subtitle = ''): readonly Layer[] => [
    picture(all[3]!, { light: { exposure: -0.6 } }),
    {
      kind: 'words',
      id: newId(),
      title,
      subtitle,
      place: 'centre',
      style: { size: 0.15, measure: 0.95, ...style },
      come: { entrance: { way: 'none', by: 'all', atMs: 0, lengthMs: 0 }, exit: null },
    },
  ];
  const texts: [string, string, WordsStyle][] = [
    ['Bricolage', 'Regatta Night', {}],
    ['Instrument', 'Regatta Night', { font: 'instrument' }],
    ['Fraunces', 'Regatta Night', { font: 'fraunces', weight: 600 }],
    ['Caveat', 'Regatta Night', { font: 'caveat' }],
    ['mono', 'Regatta 19:40', { font: 'spline-mono', weight: 500 }],
    ['Playfair Display', 'Regatta Night', { font: 'playfair' }],
    ['Bodoni Moda', 'Regatta Night', { font: 'bodoni', weight: 600 }],
    ['Vollkorn', 'Regatta Night', { font: 'vollkorn', weight: 600 }],
    ['Cinzel', 'Regatta Night', { font: 'cinzel', weight: 500 }],
    ['Oswald', 'Regatta Night', { font: 'oswald', weight: 500 }],
    ['Josefin Sans', 'Regatta Night', { font: 'josefin', weight: 600 }],
    ['Outfit', 'Regatta Night', { font: 'outfit', weight: 600 }],
    ['Space Grotesk', 'Regatta Night', { font: 'space-grotesk' }],
    ['Quicksand', 'Regatta Night', { font: 'quicksand' }],
    ['Dancing Script', 'Regatta Night', { font: 'dancing-script' }],
    ['Arabic', 'مهرجان الفوانيس', {}],
    ['Hebrew', 'ליל הפנסים', {}],
    ['Devanagari', 'दीपों की रात', {}],
    ['Thai', 'คืนแห่งโคมไฟ', {}],
    ['Chinese', '灯笼赛舟之夜', {}],
    ['Japanese kana', 'ひかりのよる', {}],
    ['Korean', '등불 축제의 밤', {}],
    ['Traditional Chinese', '燈籠賽舟之夜', {}],
    ['Greek', 'Νύχτα με φανάρια', {}],
    ['Cyrillic', 'Ночь фонарей', {}],
    ['Cyrillic by hand', 'Ночь фонарей', { font: 'caveat' }],
    ['emoji', '🏮 Boats ⛵ & pie 🥧', {}],
    ['mixed directions', 'Boat 7 — فانوس — first', {}],
    ['kerning, ligatures', 'AVATAR office fjord', { font: 'fraunces' }],
    ['box', 'Pie stall', { box: { colour: '#d8371f', opacity: 0.9, padding: 0.35, radius: 0.2 }, shadow: 'none' }],
    ['outline', 'Brass band', { outline: { colour: '#171513', width: 0.05 }, shadow: 'none', colour: '#f4c542' }],
    ['spacing', 'HARBOUR', { letterSpacing: 0.3, weight: 400 }],
  ];
  return texts.map(([label, title, style]) =>
    cell(label, on(style, title, label === 'Instrument' ? 'and the rain that stopped in time' : '')),
  );
}

export function layerCells({ all, emblem }: Pictures): Cell[] {
  const [a, b, c, d, e, f] = [0, 5, 8, 11, 14, 16].map((index) => all[index % all.length]!) as [
    AssetId,
    AssetId,
    AssetId,
    AssetId,
    AssetId,
    AssetId,
  ];
  const ink: Backing = { kind: 'colour', colour: '#2b2622' };
  const modes: readonly BlendMode[] = ['multiply', 'screen', 'overlay', 'soft-light', 'lighten', 'darken', 'add'];
  const star: Layer = {
    kind: 'shape',
    id: newId(),
    shape: { kind: 'star', points: 7, depth: 0.5 },
    fill: { kind: 'colour', colour: '#ffffff' },
    channels: { width: 0.5, height: 0.88, turnDegrees: 12 },
    mask: { by: 'transparency', feather: 0.006, cuts: 'below' },
  };
  const faces = { front: a, back: b, left: c, right: d, top: e, bottom: f };
  const lantern = (x: number, y: number, z: number, turn: number): Layer => ({
    kind: 'box',
    id: newId(),
    depth: 0.3,
    channels: { x, y, z, width: 0.17, height: 0.3, tiltYDegrees: turn, tiltXDegrees: 14 },
    faces: Object.fromEntries(
      Object.entries(faces).map(([side, assetId]) => [side, { kind: 'picture', assetId }]),
    ) as never,
  });
  return [
    cell('perspective', [picture(a, { channels: { width: 0.7, tiltYDegrees: 48 } })], ink),
    cell('its back', [picture(a, { back: { assetId: b }, channels: { width: 0.7, tiltYDegrees: 150 } })], ink),
    cell(
      'lanterns',
      [
        {
          kind: 'group',
          id: newId(),
          space: { distance: 1.8 },
          layers: [
            lantern(0.2, 0.4, -0.4, 30),
            lantern(0.45, 0.62, 0.2, -25),
            lantern(0.78, 0.42, -0.1, 50),
            lantern(0.62, 0.25, -0.9, 10),
          ],
        },
      ],
      ink,
    ),
    cell(
      'overlapping in space',
      [
        {
          kind: 'group',
          id: newId(),
          channels: { tiltYDegrees: -30 },
          space: {},
          layers: [
            picture(c, { channels: { x: 0.6, width: 0.4, z: 0.3 } }),
            picture(d, { channels: { x: 0.42, width: 0.4, z: 0 } }),
            picture(e, { channels: { x: 0.5, y: 0.6, width: 0.4, z: -0.3 } }),
          ],
        },
      ],
      ink,
    ),
    cell('mask by a star', [picture(b), star], ink),
    cell(
      'mask by brightness',
      [
        picture(c),
        {
          kind: 'gradient',
          id: newId(),
          gradient: {
            kind: 'conic',
            stops: [
              { at: 0, colour: '#000000' },
              { at: 1, colour: '#ffffff' },
            ],
          },
          mask: { by: 'brightness', cuts: 'below' },
        },
      ],
      ink,
    ),
    cell(
      'words cut out',
      [
        picture(d),
        {
          kind: 'words',
          id: newId(),
          title: 'REGATTA',
          subtitle: '',
          place: 'centre',
          style: { size: 0.22, shadow: 'none', measure: 1 },
          come: { entrance: { way: 'none', by: 'all', atMs: 0, lengthMs: 0 }, exit: null },
          mask: { by: 'transparency', cuts: 'below' },
        },
      ],
      ink,
    ),
    cell(
      'linear gradient',
      [
        {
          kind: 'gradient',
          id: newId(),
          gradient: {
            kind: 'linear',
            angleDegrees: 30,
            stops: [
              { at: 0, colour: '#33708f' },
              { at: 0.5, colour: '#f4f0e8' },
              { at: 1, colour: '#d8371f' },
            ],
          },
        },
      ],
      ink,
    ),
    cell(
      'radial, clear',
      [
        picture(e),
        {
          kind: 'gradient',
          id: newId(),
          gradient: {
            kind: 'radial',
            stops: [
              { at: 0.3, colour: '#171513', opacity: 0 },
              { at: 1, colour: '#171513', opacity: 0.95 },
            ],
          },
        },
      ],
      ink,
    ),
    cell(
      'shapes',
      [
        {
          kind: 'shape',
          id: newId(),
          shape: { kind: 'polygon', sides: 6 },
          fill: { kind: 'colour', colour: '#c98a0c' },
          channels: { x: 0.25, width: 0.25, height: 0.44 },
        },
        {
          kind: 'shape',
          id: newId(),
          shape: { kind: 'ellipse' },
          fill: {
            kind: 'radial',
            stops: [
              { at: 0, colour: '#ffffff' },
              { at: 1, colour: '#4c7648' },
            ],
          },
          channels: { x: 0.55, width: 0.2, height: 0.36 },
        },
        {
          kind: 'shape',
          id: newId(),
          shape: { kind: 'rectangle', radius: 0.2 },
          fill: { kind: 'colour', colour: '#7a4a72' },
          channels: { x: 0.82, width: 0.18, height: 0.4, turnDegrees: 20 },
        },
      ],
      ink,
    ),
    cell(
      'emblem over a picture',
      [picture(f), { kind: 'drawing', id: newId(), assetId: emblem, channels: { x: 0.8, y: 0.7, width: 0.25 } }],
      ink,
    ),
    cell('layer blur', [picture(f, { channels: { blur: 0.02 } }), picture(a, { channels: { width: 0.45 } })], ink),
    ...modes.map((blend): Cell => cell(blend, [picture(a), picture(c, { channels: { width: 0.6 }, blend })], ink)),
  ];
}

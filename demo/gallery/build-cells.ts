import { LANTERN_SHAPES, lanterns, USUAL_LANTERNS } from '../../src/core/builds/lanterns';
import { loupe, USUAL_LOUPE } from '../../src/core/builds/loupe';
import { turnover, USUAL_TURNOVER } from '../../src/core/builds/turnover';
import { prepareShow, surroundingsOf } from '../../src/core/frame/plan-frame';
import type { FactsById } from '../../src/core/show/asset-facts';
import { layerId, showId, slideId, type AssetId } from '../../src/core/show/ids';
import type { Backing } from '../../src/core/show/show';
import { emptyShow } from '../../src/core/show/show';
import { picture, type Cell } from './cells';

const NIGHT: Backing = { kind: 'colour', colour: '#2b2622' };

/** The ready-made builds, each at moments of its way. */
export function buildCells(all: readonly AssetId[], band: AssetId, facts: FactsById): Cell[] {
  const base = picture(band);
  const show = {
    ...emptyShow(showId('builds'), 'Builds'),
    slides: [
      {
        id: slideId('b'),
        lengthMs: 6000,
        transition: { kind: 'cut' as const },
        backing: { kind: 'automatic' as const },
        layers: [base],
        sounds: [],
      },
    ],
  };
  const around = surroundingsOf(prepareShow(show, facts), 0, show.frame);
  const places = [0.16, 0.5, 0.84].map((x) => ({ x, y: 0.6 }));
  const glass = loupe(
    around,
    base,
    { ...USUAL_LOUPE, places, beginMs: 0, restMs: 700, glideMs: 900 },
    layerId('loupe'),
  );
  const turned = turnover(picture(all[2]!), { ...USUAL_TURNOVER, beginMs: 500, back: all[6]! });
  const cell = (label: string, second: Cell['second'], atMs: number, backing = NIGHT): Cell => ({
    label,
    first: [],
    second,
    backing,
    transition: { kind: 'cut' },
    atMs,
  });
  return [
    cell('loupe, first place', [base, glass], 900),
    cell('loupe, on its way', [base, glass], 1900),
    cell('loupe, second place', [base, glass], 2500),
    cell('turnover, a third', [turned], 1250),
    cell('turnover, two thirds', [turned], 1560),
    cell('turnover, its back', [turned], 2500),
    ...LANTERN_SHAPES.flatMap((shape) => {
      const pictures = Array.from({ length: 16 }, (_, index) => all[index % all.length]!);
      const made = [
        lanterns({ ...USUAL_LANTERNS, shape, pictures, overMs: 5000, beginMs: 0 }, show.frame, layerId(shape)),
      ];
      return [
        cell(`lanterns: ${shape}, rising`, made, 2300),
        cell(`lanterns: ${shape}, gathering`, made, 3700),
        cell(`lanterns: ${shape}`, made, 5800),
      ];
    }),
  ];
}

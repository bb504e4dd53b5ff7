import { cameraName, cameraOf, takenAt } from '../../show/camera-clock';
import { msOf } from '../../choosing/stacks';
import { mainLayerOf } from '../../show/show';
import { allOf, slidesOf } from '../helpers';
import type { SnagKind, SnagLook } from '../snag';

/** No camera that writes its time into files is older. */
const EARLIEST = Date.UTC(1995, 0, 1);
/** Two cameras at one event are not so far apart. */
const APART_MS = 200 * 86_400_000;
const DAY_MS = 86_400_000;
const FEWEST = 2;

/** When the pictures of each camera in the show were taken, rising, with the first slide that shows one. */
function cameras({ prepared }: SnagLook) {
  const found = new Map<string, { times: number[]; first: ReturnType<typeof allOf> & { slideId: string } }>();
  for (const place of slidesOf(prepared)) {
    const main = mainLayerOf(place.slide);
    const known = main && prepared.facts.get(main.assetId);
    if (!known || known.kind === 'sound') continue;
    const atMs = msOf(takenAt(known, prepared.show.clocks));
    if (Number.isNaN(atMs)) continue;
    const camera = cameraOf(known);
    const entry = found.get(camera) ?? { times: [], first: { ...allOf(place), slideId: place.slide.id } };
    entry.times.push(atMs);
    found.set(camera, entry);
  }
  for (const { times } of found.values()) times.sort((a, b) => a - b);
  return found;
}

/** Why a camera's clock must be wrong, as the end of a sentence; null when it may be right. */
function whyWrong(look: SnagLook, camera: string, all: ReturnType<typeof cameras>): string | null {
  const { times } = all.get(camera)!;
  if (times[0]! < EARLIEST) return 'says that its pictures are older than such cameras are';
  if (times.at(-1)! > msOf(look.now) + DAY_MS) return 'says that its pictures are of a day to come';
  const others = [...all].filter(([name, { times: of }]) => name !== camera && of.length > times.length);
  if (times.length < FEWEST || others.length === 0) return null;
  const [main] = others.sort((a, b) => b[1].times.length - a[1].times.length)[0]!;
  const usual = all.get(main)!.times;
  const apart = Math.max(usual[0]! - times.at(-1)!, times[0]! - usual.at(-1)!);
  return apart > APART_MS ? `is ${Math.round(apart / DAY_MS)} days away from ${cameraName(main)}` : null;
}

export const wrongClock: SnagKind = {
  title: 'Wrong camera clocks',
  advice: 'Set the camera’s clock right in Gather, from one picture whose time is known.',
  place: 'gather',
  *find(look) {
    const all = cameras(look);
    for (const [camera, { first }] of all) {
      const why = whyWrong(look, camera, all);
      if (why)
        yield {
          grave: false,
          slideId: first.slideId as never,
          fromMs: first.fromMs,
          toMs: first.toMs,
          of: camera.slice(0, 80),
          sentence: `The clock of ${cameraName(camera)} ${why}.`,
        };
    }
  },
  fixes(look, { of: camera = '' }) {
    const all = cameras(look);
    const own = [...all].find(([name]) => name.slice(0, 80) === camera);
    const main = [...all]
      .filter(([name]) => name !== own?.[0])
      .sort((a, b) => b[1].times.length - a[1].times.length)[0];
    if (!own || !main) return [];
    const before = look.prepared.show.clocks;
    const shift =
      main[1].times[0]! - own[1].times[0]! + (before && Object.hasOwn(before, own[0]) ? before[own[0]]! : 0);
    return [
      {
        name: `Let it begin with ${cameraName(main[0])}`,
        edit: { kind: 'set-clocks', clocks: [{ camera: own[0], shiftMs: shift }] },
      },
    ];
  },
};

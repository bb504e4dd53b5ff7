// From hundreds to the best, with real pictures taken in for real: npm run bench:bursts -- FOLDER [COUNT]
// Photographs of the folder become an event of eight hours: bursts of one to seven (each a little moved, turned, lighter or darker, with noise of its own), twenty
// of the pictures blurred by a moving hand. All are looked at as intake does; then about eighty are chosen.
import { mkdir, mkdtemp, readdir, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sharp, { type Kernel } from 'sharp';
import { chooseBest } from '../src/core/choosing/choose';
import type { Candidate } from '../src/core/choosing/stacks';
import { lookAtFile } from '../src/server/assets/look-at-file';
import { findFocus } from '../src/server/focus/find-focus';

const [folder, wanted = '80'] = process.argv.slice(3);
if (!folder) throw new Error('name a folder with photographs');
const ALL = 600;
const BLURRED = 20;
const HOURS = 8;
let seed = 11;
const random = () => {
  seed = (seed * 1_103_515_245 + 12_345) % 2 ** 31;
  return seed / 2 ** 31;
};
const between = (from: number, to: number) => from + (to - from) * random();

const named = (await readdir(folder)).filter((name) => /\.(jpe?g|png)$/i.test(name)).sort();
const sources: string[] = [];
for (const name of named) {
  const { width = 0, height = 0 } = await sharp(path.join(folder, name)).metadata();
  if (Math.min(width, height) >= 600) sources.push(path.join(folder, name));
}
const made = await mkdtemp(path.join(tmpdir(), 'tanager-bursts-'));
await mkdir(made, { recursive: true });

interface Taken extends Candidate<string> {
  readonly burst: number;
  readonly blurred: boolean;
}
const taken: Taken[] = [];
const blurs = new Set(Array.from({ length: BLURRED }, (_, index) => Math.floor(((index + 0.5) * ALL) / BLURRED)));
const startMs = Date.parse('2024-06-15T10:05:00Z');
const cpu: number[] = [];
try {
  for (let [burst, count] = [0, 0]; count < ALL; burst += 1) {
    const source = sources[burst % sources.length]!;
    // Where there are fewer photographs than bursts, one comes again from its other side: another scene to whoever looks at it.
    const mirrored = burst >= sources.length;
    const of = Math.min(ALL - count, Math.round(between(0.5, 7.5)));
    let atMs = startMs + (HOURS * 3_600_000 * 0.985 * count) / ALL;
    for (let shot = 0; shot < of; shot += 1, count += 1) {
      const id = `${String(count).padStart(3, '0')}.jpg`;
      const blurred = blurs.has(count);
      const { width, height } = await sharp(source)
        .rotate()
        .resize(1800, 1800, { fit: 'inside', withoutEnlargement: true })
        .toBuffer({ resolveWithObject: true })
        .then(({ info }) => info);
      const cut = { width: Math.floor(width * 0.9), height: Math.floor(height * 0.9) };
      let picture = sharp(source)
        .rotate()
        .resize(1800, 1800, { fit: 'inside', withoutEnlargement: true })
        .rotate(between(-0.6, 0.6), { background: '#777777' })
        .extract({
          left: Math.floor(width * between(0.03, 0.07)),
          top: Math.floor(height * between(0.03, 0.07)),
          ...cut,
        })
        .modulate({ brightness: between(0.94, 1.06) });
      if (mirrored) picture = picture.flop();
      if (blurred) picture = sharp(await picture.png().toBuffer()).convolve(motion(between(13, 17)));
      const { data, info } = await picture.removeAlpha().raw().toBuffer({ resolveWithObject: true });
      for (let at = 0; at < data.length; at += 1) data[at] = Math.max(0, Math.min(255, data[at]! + between(-6, 6)));
      const file = path.join(made, id);
      await sharp(data, { raw: { width: info.width, height: info.height, channels: info.channels } })
        .jpeg({ quality: 88 })
        .toFile(file);
      const before = process.cpuUsage();
      const { facts } = await lookAtFile(file);
      if (facts.kind !== 'picture') throw new Error(`${id} was not taken for a picture`);
      const focus = await findFocus(file);
      const used = process.cpuUsage(before);
      cpu.push((used.user + used.system) / 1000);
      const takenAt = new Date(atMs).toISOString().slice(0, 19);
      atMs += between(300, 1500);
      taken.push({ id, facts: { ...facts, focus }, takenAt, burst, blurred });
      if (count % 50 === 0) process.stdout.write(`${count} of ${ALL} taken in\n`);
    }
  }
} finally {
  await rm(made, { recursive: true });
}
const shuffled = taken.map((one) => [random(), one] as const).sort(([a], [b]) => a - b);
const startedMs = performance.now();
const { chosen, omitted } = chooseBest(
  shuffled.map(([, one]) => one),
  Number(wanted),
  () => null,
);
const tookMs = performance.now() - startedMs;
const byId = new Map(taken.map((one) => [one.id, one]));
const bursts = chosen.map(({ id }) => byId.get(id)!.burst);
const twice = bursts.length - new Set(bursts).size;
const hoursOf = (all: readonly Taken[]) => new Set(all.map(({ takenAt }) => takenAt!.slice(0, 13))).size;
const stand = chosen.map(({ id }) => byId.get(id)!);
process.stdout.write(
  `${taken.length} pictures of ${new Set(taken.map(({ burst }) => burst)).size} bursts, ${blurs.size} blurred: ${chosen.length} chosen in ${tookMs.toFixed(0)} ms; ` +
    `two of one burst ${twice}; blurred ones ${stand.filter(({ blurred }) => blurred).length}; hours ${hoursOf(stand)} of ${hoursOf(taken)}; ` +
    `said to be blurred ${omitted.filter(({ reason }) => reason.why === 'blurred').length}; ` +
    `CPU ${(cpu.reduce((sum, value) => sum + value, 0) / cpu.length).toFixed(0)} ms a picture\n`,
);

/** A hand that moved sideways: so many pixels in a row. */
function motion(widthPx: number): Kernel {
  const width = 2 * Math.floor(widthPx / 2) + 1;
  return {
    width,
    height: 3,
    kernel: [...Array<number>(width).fill(0), ...Array<number>(width).fill(1), ...Array<number>(width).fill(0)],
  };
}

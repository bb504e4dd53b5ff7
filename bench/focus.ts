// What pictures are about, against what a person says of them, and what moves by themselves make of it: npm run bench:focus -- FOLDER
// The folder holds pictures named in focus-truth.json (boxes by hand: left, top, width, height in shares of the upright picture), wherever in it they lie.
import { readdir, readFile } from 'node:fs/promises';
import path from 'node:path';
import { centre, shareWithin, type Box } from '../src/core/focus/box';
import { focusOf } from '../src/core/focus/focus-of';
import { windowOf } from '../src/core/focus/reframe';
import { automaticMove, cutsNone, standingFraming } from '../src/core/motion/automatic-move';
import { lookAtFile } from '../src/server/assets/look-at-file';
import { findFocus } from '../src/server/focus/find-focus';

const folder = process.argv[3];
if (!folder) throw new Error('name a folder with the pictures of focus-truth.json');
const truth = JSON.parse(await readFile('bench/focus-truth.json', 'utf8')) as Record<
  string,
  [number, number, number, number]
>;
const there = await readdir(folder, { recursive: true });
const frame = (widthPx: number, heightPx: number) => ({ widthPx, heightPx, rate: { frames: 30, seconds: 1 } });
const [wide, upright] = [frame(1920, 1080), frame(1080, 1920)];
const centred = { x: 0.5, y: 0.44 };

let [found, hits, cut] = [0, 0, 0];
const nearer: number[] = [];
const uprightShares: number[] = [];
const uprightCentred: number[] = [];
const cpuMs: number[] = [];
for (const [name, [left, top, width, height]] of Object.entries(truth)) {
  const file = there.find((one) => path.basename(one) === name);
  if (!file) continue;
  const box: Box = { left, top, width, height };
  const { facts } = await lookAtFile(path.join(folder, file));
  if (facts.kind !== 'picture') continue;
  const before = process.cpuUsage();
  const focusFacts = await findFocus(path.join(folder, file));
  const used = process.cpuUsage(before);
  cpuMs.push((used.user + used.system) / 1000);
  found += 1;
  const focus = focusOf(focusFacts, undefined, facts.widthPx / facts.heightPx);
  const at = focus ? centre(focus.about) : centred;
  const hit = at.x > left && at.x < left + width && at.y > top && at.y < top + height;
  if (hit) hits += 1;
  // Pictures as cameras make them; these are small, and enlarging them is not the question.
  const size = { widthPx: 6000, heightPx: Math.round((6000 * facts.heightPx) / facts.widthPx) };
  const moves = ['a', 'b', 'c', 'd', 'e', 'f'].map((seed) => automaticMove(size, wide, 6000, seed, { focus }));
  cut += moves.filter((move) => !cutsNone(move, focus)).length;
  const shares = moves.map((move) =>
    shareWithin(box, windowOf(move.first.width < move.last.width ? move.first : move.last)),
  );
  const share = shares.reduce((sum, value) => sum + value, 0) / shares.length;
  nearer.push(share);
  uprightShares.push(shareWithin(box, windowOf(standingFraming(size, upright, 3, { mustFill: true, focus }))));
  uprightCentred.push(shareWithin(box, windowOf(standingFraming(size, upright, 3, { mustFill: true }))));
  process.stdout.write(
    `${hit ? '✓' : '✗'} ${name.padEnd(30)} ${(focus?.from ?? 'nothing').padEnd(9)} in the nearer framing ${share.toFixed(2)}\n`,
  );
}
const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length);
process.stdout.write(
  `${found} pictures: centre on the subject ${hits} (${Math.round((100 * hits) / found)} %); subject within the nearer framing ${mean(nearer).toFixed(3)} on average; ` +
    `in an upright window ${mean(uprightShares).toFixed(3)} (centred ${mean(uprightCentred).toFixed(3)}); moves that cut a face ${cut}; ` +
    `CPU ${mean(cpuMs).toFixed(0)} ms a picture\n`,
);

// Images of discs of many pictures, in both standards: whether the image is read by another reader, every key pressed in every place, and what took how long. npm run bench:disc [pictures…]
import { execFile } from 'node:child_process';
import { copyFile, mkdtemp, rm, stat, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { discCommand } from '../src/cli/disc-command';
import { projectFolder } from '../src/server/paths';

const asked = process.argv.slice(3).map(Number).filter(Boolean);
const counts = asked.length > 0 ? asked : [20, 99, 300];
const folder = await mkdtemp(path.join(tmpdir(), 'tanager-bench-disc-'));
for (const [name, file] of [
  ['one.jpg', 'PE_0412.jpg'],
  ['two.jpg', 'PE_0423.jpg'],
])
  await copyFile(path.join(projectFolder(), 'demo/files', file!), path.join(folder, name!));
for (const count of counts) {
  const slides = Array.from({ length: count }, (_, index) => ({
    ...{ id: `s${index}`, lengthMs: 1200, transition: { kind: 'cut' }, backing: { kind: 'automatic' }, sounds: [] },
    layers: [{ kind: 'picture', id: `p${index}`, assetId: index % 2 ? 'two' : 'one', move: { kind: 'still' } }],
  }));
  const show = {
    ...{ format: 'tanager-show', version: 7, id: 'x', title: `${count} pictures`, defaultLengthMs: 1200 },
    ...{ cues: [], methods: {}, files: { one: 'one.jpg', two: 'two.jpg' }, slides },
    frame: { widthPx: 1280, heightPx: 720, rate: { frames: 25, seconds: 1 } },
  };
  await writeFile(path.join(folder, 'show.json'), JSON.stringify(show));
  for (const standard of ['pal', 'ntsc']) {
    let out = '';
    const from = performance.now();
    const args = ['show.json', '--out', 'disc.iso', '--standard', standard, '--chapters', 'slides'];
    await discCommand([...args, '--menu-seconds', '6', '--keep', 'keep', '--json'], {
      folder,
      out: (text) => void (out += text),
      tell: () => {},
    });
    const seconds = (performance.now() - from) / 1000;
    const image = path.join(folder, 'disc.iso');
    const listed = (await promisify(execFile)('lsdvd', ['-c', image])).stdout;
    const { chapters, pages, places, presses } = JSON.parse(out) as Record<string, number>;
    const read = /Length: ([\d:.]+) Chapters: (\d+)/.exec(listed);
    const megabytes = ((await stat(image)).size / 1e6).toFixed(0);
    process.stdout.write(
      `${count} pictures, ${standard}: ${megabytes} MB in ${seconds.toFixed(0)} s; ${chapters} chapters, ${pages} pages of a menu; ${presses} presses in ${places} places lead where they should; lsdvd reads ${read?.[1]}, ${read?.[2]} chapters\n`,
    );
    await rm(image);
  }
}
await rm(folder, { recursive: true, force: true });

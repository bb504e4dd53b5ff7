// Makes everything in demo/files again: node demo/make/make.mjs [pictures] [clip] [sounds]. Needs ffmpeg and espeak-ng. The results are committed.
import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { makePictures } from './pictures.mjs';
import { paintScene } from './scene.mjs';
import { makeSong, makeWater, RATE } from './sounds.mjs';

const folder = path.join(path.dirname(path.dirname(fileURLToPath(import.meta.url))), 'files');
const wanted = process.argv.slice(2);
const wants = (what) => wanted.length === 0 || wanted.includes(what);
const scratch = mkdtempSync(path.join(tmpdir(), 'tanager-demo-'));
const BITEXACT = ['-fflags', '+bitexact', '-flags:v', '+bitexact', '-flags:a', '+bitexact', '-map_metadata', '-1'];

const NARRATION =
  'Every June, when the light goes, Port Ellery puts its lanterns on the water. We set out at dusk: forty boats, on one rope.';

function ffmpeg(args, input) {
  const { status, stderr } = spawnSync('ffmpeg', ['-hide_banner', '-loglevel', 'error', '-y', ...args], {
    input,
    maxBuffer: 1 << 28,
  });
  if (status !== 0) throw new Error(String(stderr));
}

const pcm = (samples) => Buffer.from(samples.buffer);
const RAW = ['-f', 'f32le', '-ar', String(RATE), '-ac', '2', '-i', 'pipe:0'];

async function clip() {
  const plan = {
    width: 1280,
    height: 720,
    evening: 'blue',
    horizon: 0.5,
    boats: 6,
    lanterns: 5,
    stars: true,
    seed: 61,
    grain: 0,
    glow: 0.28,
  };
  const seconds = 8;
  const water = path.join(scratch, 'water.f32');
  writeFileSync(water, pcm(makeWater(seconds)));
  const child = spawn(
    'ffmpeg',
    [
      '-hide_banner',
      '-loglevel',
      'error',
      '-y',
      '-f',
      'rawvideo',
      '-pix_fmt',
      'rgba',
      '-s',
      '1280x720',
      '-r',
      '30',
      '-i',
      'pipe:0',
      '-f',
      'f32le',
      '-ar',
      String(RATE),
      '-ac',
      '2',
      '-i',
      water,
      '-c:v',
      'libx264',
      '-threads',
      '1',
      '-preset',
      'slow',
      '-crf',
      '27',
      '-pix_fmt',
      'yuv420p',
      '-vf',
      'scale=out_color_matrix=bt709:out_range=tv',
      '-colorspace',
      'bt709',
      '-color_primaries',
      'bt709',
      '-color_trc',
      'bt709',
      '-c:a',
      'aac',
      '-b:a',
      '96k',
      ...BITEXACT,
      '-movflags',
      '+faststart',
      path.join(folder, 'PE_0489-boats.mp4'),
    ],
    { stdio: ['pipe', 'inherit', 'inherit'] },
  );
  for (let frame = 0; frame < seconds * 30; frame += 1) {
    if (!child.stdin.write(Buffer.from(paintScene(plan, frame / 30).data()))) await once(child.stdin, 'drain');
    await new Promise(setImmediate);
  }
  child.stdin.end();
  await once(child, 'close');
}

function sounds() {
  ffmpeg(
    [
      ...RAW,
      '-c:a',
      'libmp3lame',
      '-b:a',
      '128k',
      ...BITEXACT,
      '-metadata',
      'title=Harbour Reel',
      '-metadata',
      'artist=The Slipway Band (made up)',
      path.join(folder, 'harbour-reel.mp3'),
    ],
    pcm(makeSong(156)),
  );
  const spoken = path.join(scratch, 'voice.wav');
  spawnSync('espeak-ng', ['-v', 'en-gb', '-s', '138', '-p', '38', '-g', '3', '-w', spoken, NARRATION]);
  ffmpeg([
    '-i',
    spoken,
    '-af',
    'highpass=f=80,equalizer=f=3200:t=q:w=1.2:g=-5,acompressor=threshold=-20dB:ratio=2.5:makeup=4dB,apad=pad_dur=0.2',
    '-ar',
    '48000',
    '-c:a',
    'flac',
    ...BITEXACT,
    '-metadata',
    'title=Opening words',
    path.join(folder, 'opening-words.flac'),
  ]);
}

try {
  if (wants('pictures')) await makePictures(folder);
  if (wants('clip')) await clip();
  if (wants('sounds')) sounds();
} finally {
  rmSync(scratch, { recursive: true, force: true });
}

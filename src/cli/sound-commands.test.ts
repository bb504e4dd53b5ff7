import { mkdtemp, readFile, rm, stat, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Show } from '../core/show/show';
import { bandCommand } from './band-command';
import { captionsCommand } from './captions-command';
import { tailorCommand } from './tailor-command';
import { voiceCommand } from './voice-command';

const demo = (name: string) => path.resolve('demo/files', name);
let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-voice-'));
  const slide = (id: string) => ({
    id,
    lengthMs: 5000,
    transition: { kind: 'cut' },
    backing: { kind: 'automatic' },
    sounds: [],
    layers: [{ kind: 'picture', id: `p-${id}`, assetId: 'boats', move: { kind: 'automatic' } }],
  });
  await writeFile(
    path.join(folder, 'show.json'),
    JSON.stringify({
      format: 'tanager-show',
      version: 7,
      id: 'x',
      title: '',
      frame: { widthPx: 1920, heightPx: 1080, rate: { frames: 30, seconds: 1 } },
      defaultLengthMs: 5000,
      cues: [],
      methods: {},
      files: { boats: demo('PE_0412.jpg') },
      slides: [slide('a'), slide('b')],
    }),
  );
});
afterAll(async () => {
  await rm(folder, { recursive: true, force: true });
});

const SCRIPT =
  'Every June, when the light goes, Port Ellery puts its lanterns on the water. We set out at dusk: forty boats, on one rope.';

async function ran(command: typeof voiceCommand, ...args: string[]) {
  let [out, told] = ['', ''];
  const code = await command(args, {
    folder,
    out: (text) => void (out += text),
    tell: (text) => void (told += text),
  });
  return { code, out, told };
}
const saved = async () => JSON.parse(await readFile(path.join(folder, 'show.json'), 'utf8')) as Show;

describe('tanager voice', () => {
  it('lays a recording on a slide, cleaned and trimmed, and the slide waits for it with its breath', async () => {
    const { code, out } = await ran(
      voiceCommand,
      'show.json',
      '--slide',
      '2',
      '--take',
      demo('opening-words.flac'),
      '--script',
      SCRIPT,
      '--json',
    );
    const report = JSON.parse(out) as { lengthMs: number; voiceMs: number; captions: { fromMs: number }[] };
    expect(code).toBe(0);
    const [, slide] = (await saved()).slides;
    expect(slide!.lengthMs).toBe(700 + report.voiceMs + 900);
    expect(slide).toMatchObject({
      script: SCRIPT,
      sounds: [
        { kind: 'voice', name: 'Take 1', cleaned: { how: { even: true } }, starts: { at: 'here', offsetMs: 700 } },
      ],
    });
    expect(report.captions.length).toBe(2);
  }, 60_000);
  it('keeps the take before beside a second one, and writes the captions of the one that is heard', async () => {
    await ran(voiceCommand, 'show.json', '--slide', '2', '--take', demo('opening-words.flac'), '--clean', 'no');
    const [, slide] = (await saved()).slides;
    expect(slide!.sounds.map(({ name, resting, cleaned }) => [name, resting ?? false, cleaned !== undefined])).toEqual([
      ['Take 1', true, true],
      ['Take 2', false, false],
    ]);
    const { code } = await ran(captionsCommand, 'show.json', '--out', 'words.srt');
    const srt = await readFile(path.join(folder, 'words.srt'), 'utf8');
    expect(code).toBe(0);
    expect(srt).toMatch(/^1\n00:00:05,\d{3} --> 00:00:1\d,\d{3}\nEvery June/);
    expect(srt).toContain('We set out at dusk:\nforty boats, on one rope.');
  }, 60_000);
  it('cleaned another way lies beside the first, which stays as it was', async () => {
    const first = path.join(folder, 'opening-words, cleaned.flac');
    const before = await readFile(first);
    const { out } = await ran(
      voiceCommand,
      'show.json',
      '--slide',
      '1',
      '--take',
      demo('opening-words.flac'),
      '--clean',
      'thoroughly',
      '--json',
    );
    expect((JSON.parse(out) as { cleaned: string }).cleaned).toBe(path.join(folder, 'opening-words, cleaned 2.flac'));
    expect((await readFile(first)).equals(before)).toBe(true);
  }, 60_000);
  it('says what is wrong, and leaves the show as it was', async () => {
    const before = await saved();
    await expect(ran(voiceCommand, 'show.json', '--slide', '9', '--take', demo('opening-words.flac'))).rejects.toThrow(
      'from 1 to 2',
    );
    await expect(ran(voiceCommand, 'show.json', '--slide', '1', '--take', demo('PE_0412.jpg'))).rejects.toThrow(
      'is not a sound but a picture',
    );
    await expect(ran(captionsCommand, 'show.json', '--out', 'words.srt', '--language', 'de')).rejects.toThrow(
      'there are some in en',
    );
    await expect(ran(captionsCommand, 'show.json', '--out', 'words.txt')).rejects.toThrow('.vtt or .srt');
    expect(await saved()).toEqual(before);
  }, 60_000);
});

describe('tanager tailor', () => {
  it('makes a song so long, and tells where it joined it', async () => {
    const { code, out } = await ran(
      tailorCommand,
      demo('harbour-reel.mp3'),
      '--to',
      '100',
      '--out',
      'song.wav',
      '--json',
    );
    const report = JSON.parse(out) as { lengthMs: number; joins: { fromMs: number; toMs: number; quality: number }[] };
    expect([code, report.lengthMs]).toEqual([0, 100_000]);
    expect(report.joins.length).toBeGreaterThan(0);
    expect((await stat(path.join(folder, 'song.wav'))).size).toBeGreaterThan(100 * 48_000 * 6);
    await expect(ran(tailorCommand, demo('harbour-reel.mp3'), '--to', '20', '--out', 'song.wav')).rejects.toThrow(
      'from 63 to 392 s',
    );
    await expect(ran(tailorCommand, demo('harbour-reel.mp3'), '--to', '100', '--out', 'song.mp3')).rejects.toThrow(
      '.wav',
    );
  }, 120_000);
});

describe('tanager band', () => {
  it('plays into a file, tells what it is, and writes its score', async () => {
    const { code, out } = await ran(
      bandCommand,
      ...['--style', 'march', '--mood', 'playful', '--seconds', '12', '--seed', '3', '--json'],
      ...['--out', 'march.wav', '--midi', 'march.mid', '--musicxml', 'march.musicxml'],
    );
    expect(code).toBe(0);
    const told = JSON.parse(out) as { lengthMs: number; lastChordMs: number; beatsMs: number[]; sections: unknown[] };
    expect([told.lengthMs, told.beatsMs.at(-1), told.sections.length > 0]).toEqual([12_000, told.lastChordMs, true]);
    // 24 bits, two channels, 48,000 a second.
    expect((await stat(path.join(folder, 'march.wav'))).size).toBeGreaterThan(12 * 48_000 * 6);
    expect((await readFile(path.join(folder, 'march.mid'))).subarray(0, 4).toString()).toBe('MThd');
    expect(await readFile(path.join(folder, 'march.musicxml'), 'utf8')).toContain('<score-partwise');
  });
  it.each([
    [['--style', 'polka', '--out', 'x.wav'], 'must be one of quiet-piano'],
    [['--style', 'march', '--out', 'x.mp3'], '--out must end in .opus or .wav'],
    [['--style', 'march', '--seconds', '3', '--out', 'x.wav'], 'from 8 to 1200'],
    [['--style', 'march', '--energy', '2', '--out', 'x.wav'], 'The band cannot play that'],
    [
      [
        '--style',
        'ambient',
        '--out',
        'x.wav',
        ...['pad', 'electric-piano', 'bells', 'violin'].flatMap((one) => ['--without', one]),
      ],
      'Somebody must play',
    ],
    [['--style', 'march', '--out', 'x.wav', '--without', 'piano'], 'There is no piano in March'],
    [['--style', 'quiet-piano', '--out', 'x.wav', '--with', 'piano'], 'Quiet piano has a piano already'],
  ])('refuses %j with a sentence', async (args, sentence) => {
    await expect(ran(bandCommand, ...args)).rejects.toThrow(sentence);
  });
});

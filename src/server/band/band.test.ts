import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { parseMidi } from 'midi-file';
import type { BandWishes } from '../../core/sound/band/band-wishes';
import { compose } from '../../core/sound/band/compose';
import { asMusicXml } from '../../core/sound/band/music-xml';
import { heardInScore } from '../../core/sound/band/piece-facts';
import { PIECES } from '../../core/sound/band/pieces';
import { showId } from '../../core/show/ids';
import { emptyShow } from '../../core/show/show';
import { lookAtFile } from '../assets/look-at-file';
import { runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { hearFile } from '../listening/hear-file';
import { pieceFile } from '../paths';
import { openServer, type RunningServer } from '../running-server';
import { playToFile } from './play-to-file';
import { asMidi } from './score-files';

const WISHES: BandWishes = { style: 'folk-guitar', mood: 'glad', energy: 0.7, lengthMs: 24_000, seed: 5 };
const SHOW = showId('with-a-band');
let folder: string;
let server: RunningServer;
let file: string;
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-band-'));
  process.env.TANAGER_DATA = path.join(folder, 'data');
  server = await openServer();
  await server.shows.put(emptyShow(SHOW, 'With a band'));
  server.runner.start();
  file = path.join(folder, 'piece.opus');
  await playToFile(WISHES, { as: 'opus', out: file });
}, 60_000);
afterAll(async () => {
  await server.close();
  delete process.env.TANAGER_DATA;
  await rm(folder, { recursive: true, force: true });
});
const nobody = new AbortController().signal;

describe('a file of the house band', () => {
  it('says what it is, is exactly as long as was wished, and is the same bytes every time', async () => {
    const { facts } = await lookAtFile(file);
    expect(facts).toMatchObject({
      kind: 'sound',
      title: 'Folk guitar in A, no. 5',
      artist: 'Tanager house band',
      band: { method: 1, wishes: WISHES },
    });
    expect(Math.abs((facts.kind === 'sound' ? facts.lengthMs : 0) - 24_000)).toBeLessThan(10);
    const again = path.join(folder, 'again.opus');
    await playToFile(WISHES, { as: 'opus', out: again });
    expect((await readFile(again)).equals(await readFile(file))).toBe(true);
  });
  it('has the beats and sections of its score, to the millisecond', async () => {
    const { beats, sections, joints } = await hearFile(file, true);
    expect({ beats, sections }).toEqual(heardInScore(compose(WISHES)));
    expect(joints).toBeDefined();
  });
  it('is listened to like any other once another program has cut it', async () => {
    const cut = path.join(folder, 'cut.opus');
    await runFfmpeg(['-i', file, '-t', '15', '-c', 'copy', '-y', cut]);
    const { facts } = await lookAtFile(cut);
    expect(facts.kind === 'sound' && facts.band).toBeFalsy();
    const { beats } = await hearFile(cut, true);
    expect(beats?.beatsMs).not.toEqual(heardInScore(compose(WISHES)).beats.beatsMs);
  });
  it.each(['{', '[]', '{"method":1}', `{"method":1,"wishes":{"style":"none"}}`, 'x'.repeat(30_000)])(
    'is no piece of the band when its tag says %.30s',
    async (tag) => {
      const odd = path.join(folder, 'odd.opus');
      await runFfmpeg([
        '-i',
        file,
        '-c',
        'copy',
        '-metadata',
        `TANAGER_BAND=${tag}`,
        '-metadata:s:a:0',
        `TANAGER_BAND=${tag}`,
        '-y',
        odd,
      ]);
      const { facts } = await lookAtFile(odd);
      expect(facts.kind === 'sound' && facts.band).toBeFalsy();
    },
  );
});

describe('the band of a server', () => {
  it('plays a piece onto the sheet, telling how far it is, and once only', async () => {
    const told: number[] = [];
    const entry = await server.band.play(SHOW, WISHES, (share) => told.push(share), nobody);
    expect([entry.made, entry.state, told.length > 5, told.at(-1)! > 0.98]).toEqual(['band', 'ready', true, true]);
    expect(told).toEqual(told.toSorted((a, b) => a - b));
    const again: number[] = [];
    const same = await server.band.play(SHOW, WISHES, (share) => again.push(share), nobody);
    expect([same.id, again]).toEqual([entry.id, []]);
  }, 60_000);
  it('plays once for two who want the same at the same time, and for the second when the first gives up', async () => {
    const wishes = { ...WISHES, seed: 6 };
    const [one, other]: number[][] = [[], []];
    const gone = new AbortController();
    const first = server.band.play(SHOW, wishes, (share) => (one!.push(share), gone.abort()), gone.signal);
    await new Promise((resolve) => setTimeout(resolve, 50));
    const second = server.band.play(SHOW, wishes, (share) => other!.push(share), nobody);
    const third = server.band.play(SHOW, wishes, () => {}, nobody);
    await expect(first).rejects.toThrow(/abort/iu);
    const [entry, same] = await Promise.all([second, third]);
    expect([entry.id, one!.length]).toEqual([same.id, 1]);
  }, 60_000);
  it('stops when nobody waits any more, and leaves nothing behind', async () => {
    const asked = new AbortController();
    const playing = server.band.play(SHOW, { ...WISHES, lengthMs: 600_000 }, () => asked.abort(), asked.signal);
    await expect(playing).rejects.toThrow(/abort/iu);
    expect((await server.sheet.entries(SHOW)).filter(({ made }) => made === 'band')).toHaveLength(2);
  }, 60_000);
  it('says so when nobody is left to play', async () => {
    const without = ['steel-guitar', 'guitar', 'double-bass', 'flute', 'shaker'] as const;
    await expect(server.band.play(SHOW, { ...WISHES, without }, () => {}, nobody)).rejects.toThrow(
      'Somebody must play',
    );
  });
  it('hands out the score of what it played, and of nothing else', async () => {
    const entry = (await server.sheet.entries(SHOW)).find(({ made }) => made === 'band')!;
    const { name, bytes } = await server.band.score(SHOW, entry.assetId, 'midi');
    expect([name, parseMidi(bytes).header.format]).toEqual(['Folk guitar in A, no. 5.mid', 1]);
    await expect(server.band.score(SHOW, '0'.repeat(64) as never, 'midi')).rejects.toThrow(
      'the house band did not play it',
    );
  });
  it('puts a piece that ships with Tanager onto the sheet, and refuses one that does not', async () => {
    const entry = await server.band.takePiece(SHOW, PIECES[0]!.name);
    expect(entry).toMatchObject({ fileName: `${PIECES[0]!.title}.opus`, made: null, state: 'ready' });
    expect(entry.facts).toMatchObject({ title: PIECES[0]!.title, artist: 'Tanager house band' });
    await expect(server.band.takePiece(SHOW, '../../package')).rejects.toThrow('There is no such piece');
  }, 60_000);
});

it.each(PIECES)(
  'the piece $name is what its wishes say',
  async ({ name, title, wishes, bpm }) => {
    const { facts } = await lookAtFile(pieceFile(name));
    expect(facts).toMatchObject({ title, band: { method: 1, wishes } });
    expect(compose(wishes).form.bpm).toBeCloseTo(bpm, 1);
    const { loudness } = await hearFile(pieceFile(name), false);
    expect(loudness.integratedLufs).toBeGreaterThan(-21);
    expect(loudness.integratedLufs).toBeLessThan(-15);
    expect(loudness.truePeakDb).toBeLessThan(-0.5);
  },
  60_000,
);

describe('a score', () => {
  const piece = compose(WISHES);
  it('as MIDI has every note once, in its place and on time', () => {
    const { header, tracks } = parseMidi(asMidi(piece));
    expect(header.ticksPerBeat).toBe(480);
    const ons = tracks.flatMap((track) => track.filter((event) => event.type === 'noteOn'));
    expect(ons).toHaveLength(piece.parts.reduce((sum, { notes }) => sum + notes.length, 0));
    // The tempo track says when each beat falls.
    let [ms, tempo] = [0, 0];
    const places: number[] = [];
    for (const event of tracks[0]!) {
      ms += (event.deltaTime * tempo) / 480 / 1000;
      if (event.type !== 'setTempo') continue;
      places.push(ms);
      tempo = event.microsecondsPerBeat;
    }
    expect(places).toHaveLength(piece.form.beatsMs.length);
    places.forEach((atMs, beat) => expect(Math.abs(atMs - piece.form.beatsMs[beat]!)).toBeLessThan(1));
  });
  it('as MusicXML fills every bar of every part, and ties what goes over its end', () => {
    const xml = asMusicXml(piece);
    const parts = xml.split('<part id=').slice(1);
    expect(parts).toHaveLength(piece.parts.length);
    for (const part of parts)
      for (const measure of part.split('<measure').slice(1)) {
        const notes = measure.split('<note>').slice(1);
        const ticks = notes
          .filter((note) => !note.includes('<chord/>'))
          .reduce((sum, note) => sum + Number(/<duration>(\d+)/u.exec(note)![1]), 0);
        expect(ticks).toBe(48);
      }
    const tied = asMusicXml(compose({ ...WISHES, style: 'organ', lengthMs: 60_000 }));
    const ties = (kind: string) => tied.split(`<tie type="${kind}"/>`).length - 1;
    expect(ties('start')).toBeGreaterThan(0);
    expect(ties('stop')).toBe(ties('start'));
  });
});

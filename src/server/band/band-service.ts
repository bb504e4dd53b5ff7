import { mkdir, readdir, rm } from 'node:fs/promises';
import path from 'node:path';
import { nanoid } from 'nanoid';
import PQueue from 'p-queue';
import { bandFault, compose } from '../../core/sound/band/compose';
import type { BandWishes } from '../../core/sound/band/band-wishes';
import { asMusicXml } from '../../core/sound/band/music-xml';
import { BAND_METHOD } from '../../core/sound/band/piece';
import { titleOfPiece } from '../../core/sound/band/piece-facts';
import { PIECES } from '../../core/sound/band/pieces';
import type { AssetId, ShowId } from '../../core/show/ids';
import { stableText } from '../../core/stable-text';
import type { ContactSheet, SheetEntry } from '../assets/contact-sheet';
import { takenIn } from '../assets/taken-in';
import { Refusal } from '../http/refusal';
import { pieceFile } from '../paths';
import { playApart } from './play-apart';
import { asMidi } from './score-files';

export type ScoreKind = 'midi' | 'musicxml';

/** The house band of the server: it plays one piece after another. */
export interface BandService {
  /**
   * Plays a piece onto a show's sheet; one that is there already is not played again.
   *
   * @param onProgress 0…1
   */
  play(show: ShowId, wishes: BandWishes, onProgress: (share: number) => void, signal: AbortSignal): Promise<SheetEntry>;
  /** The score of a piece on a show's sheet. */
  score(show: ShowId, asset: AssetId, as: ScoreKind): Promise<{ readonly name: string; readonly bytes: Uint8Array }>;
  /** Puts one of the pieces that ship with Tanager onto a show's sheet. */
  takePiece(show: ShowId, piece: string): Promise<SheetEntry>;
  /** Removes what an earlier server left half played. */
  tidy(): Promise<void>;
}

/** More than this waiting is more than anybody listens to. */
const MOST_WAITING = 8;

export function createBandService({
  sheet,
  folder,
}: {
  readonly sheet: Pick<ContactSheet, 'takeIn' | 'entries'>;
  readonly folder: string;
}): BandService {
  const queue = new PQueue({ concurrency: 1 });
  const underway = new Map<string, Promise<SheetEntry>>();

  async function playOnto(
    show: ShowId,
    wishes: BandWishes,
    onProgress: (share: number) => void,
    signal: AbortSignal,
  ): Promise<SheetEntry> {
    if (queue.size >= MOST_WAITING) throw new Refusal(503, 'The band has many pieces to play. Ask again in a minute.');
    const out = path.join(folder, `${nanoid(12)}.opus`);
    await mkdir(folder, { recursive: true });
    try {
      await queue.add(() => playApart({ wishes, out }, onProgress, signal), { signal });
      return await takenIn(sheet, show, out, `${titleOfPiece(compose(wishes))}.opus`, 'band');
    } finally {
      await rm(out, { force: true });
    }
  }

  return {
    async play(show, wishes, onProgress, signal) {
      const fault = bandFault(wishes);
      if (fault !== null) throw new Refusal(422, fault);
      const wanted = stableText({ method: BAND_METHOD, wishes });
      const there = (await sheet.entries(show)).find(
        ({ state, facts }) =>
          state === 'ready' && facts?.kind === 'sound' && facts.band && stableText(facts.band) === wanted,
      );
      if (there) return there;
      // Two windows on one show want the same: they wait for one piece. If the other one gave up, it is played after all.
      const key = `${show} ${wanted}`;
      for (let other = underway.get(key); other; other = underway.get(key)) {
        const entry = await other.catch(() => null);
        if (entry) return entry;
        if (underway.get(key) === other) underway.delete(key);
      }
      const own = playOnto(show, wishes, onProgress, signal);
      underway.set(key, own);
      return own.finally(() => {
        if (underway.get(key) === own) underway.delete(key);
      });
    },
    async score(show, asset, as) {
      const entry = (await sheet.entries(show)).find(({ assetId }) => assetId === asset);
      const piece = entry?.facts?.kind === 'sound' ? entry.facts.band : undefined;
      if (!piece) throw new Refusal(404, 'There is no score of this: the house band did not play it.');
      if (piece.method !== BAND_METHOD)
        throw new Refusal(409, 'An earlier house band played this. Have it played anew, then its score can be had.');
      const composed = compose(piece.wishes);
      const title = titleOfPiece(composed);
      return as === 'midi'
        ? { name: `${title}.mid`, bytes: asMidi(composed) }
        : { name: `${title}.musicxml`, bytes: new TextEncoder().encode(asMusicXml(composed)) };
    },
    async takePiece(show, name) {
      const piece = PIECES.find((one) => one.name === name);
      if (!piece) throw new Refusal(404, 'There is no such piece.');
      const file = pieceFile(name);
      return takenIn(sheet, show, file, `${piece.title}.opus`, null, 'copy');
    },
    async tidy() {
      for (const name of await readdir(folder).catch(() => [])) await rm(path.join(folder, name), { force: true });
    },
  };
}

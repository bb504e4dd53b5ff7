import { randomBytes } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, readdir, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { setTimeout as sleep } from 'node:timers/promises';
import { DISC_BYTES } from '../../core/disc/disc-standard';
import { escaped } from '../../core/publishing/letter';
import { openKept } from './kept';
import { answerJson, hour, NOT_KNOWN, sendOn, showPage, type StandIn, type Visit } from './visits';

interface Disc {
  /** As it is stamped into its hub. */
  readonly serial: string;
  readonly layers: 1 | 2;
  readonly writtenBytes: number;
  /** Begun, and broken off: nothing can be read from it. */
  readonly isSpoilt?: boolean;
  readonly at: number;
}
interface Drive {
  /** Null: the tray is out and empty. */
  readonly disc: Disc | null;
  readonly isOpen: boolean;
  /** Times the speed at which a film is read; 0: as fast as it can. */
  readonly speed: number;
  /** It breaks off after such a share of the next disc; null: it does not. */
  readonly failsAtPercent: number | null;
  /** A scratch: what is read back of the next disc differs in one byte. */
  readonly scratches: boolean;
  /** Discs that lie beside it, the latest first. */
  readonly shelf: readonly Disc[];
}
type Books = Readonly<Record<string, Drive>>;

const EMPTY: Drive = { disc: null, isOpen: true, speed: 16, failsAtPercent: null, scratches: false, shelf: [] };
/** Bytes a second at which a film is read. */
const SINGLE_SPEED = 1_385_000;
const SPEEDS = [4, 8, 16, 0];
/** So many written discs are kept; of older ones only what was written on them with a pen. */
const MOST_ON_SHELF = 3;

/** A disc drive: a tray, blank discs to put in, a speed; it can fail, a disc can be full or scratched. Each studio sees a drive of its own. */
export async function openDiscDrive(folder: string): Promise<StandIn> {
  await mkdir(folder, { recursive: true });
  const books = await openKept<Books>(path.join(folder, 'drives.json'), {});
  const driveOf = (studioId: string): Drive => ({ ...EMPTY, ...books.value()[studioId] });
  const change = (studioId: string, by: (drive: Drive) => Drive) =>
    books.change((value) => ({ ...value, [studioId]: by({ ...EMPTY, ...value[studioId] }) }));
  const fileOf = ({ serial }: Disc) => path.join(folder, `${serial}.disc`);
  const busy = new Map<string, { readonly what: 'writing' | 'reading'; bytes: number; readonly of: number }>();

  return {
    path: 'disc-drive',
    async visit(visit) {
      const { visitor, method } = visit;
      const { pathname } = visit.url;
      if (visitor === null)
        return pathname === '/disc-drive'
          ? showPage(visit, { title: 'Disc drive', place: 'disc-drive', status: 403, body: NOT_KNOWN })
          : answerJson(visit, 401, { problem: 'Nobody that is known.' });
      if (pathname === '/disc-drive/state' && method === 'GET') return answerJson(visit, 200, told(driveOf(visitor)));
      if (pathname === '/disc-drive/disc' && method === 'PUT') return written(visit, visitor);
      if (pathname === '/disc-drive/disc' && method === 'GET') return read(visit, visitor);
      if (pathname === '/disc-drive/tray' && method === 'POST') {
        await open(visitor);
        return answerJson(visit, 200, told(driveOf(visitor)));
      }
      if (pathname !== '/disc-drive') return false;
      if (method === 'POST') {
        await pressed(visitor, new URLSearchParams(await visit.body()));
        return sendOn(visit, '/disc-drive');
      }
      return showPage(visit, { title: 'Disc drive', place: 'disc-drive', body: page(visitor) });
    },
  };

  function told({ disc, isOpen, speed }: Drive) {
    return {
      tray: isOpen ? 'open' : 'closed',
      disc: disc && { serial: disc.serial, layers: disc.layers, isBlank: disc.writtenBytes === 0 && !disc.isSpoilt },
      speed,
    };
  }

  async function written(visit: Visit, studioId: string): Promise<boolean> {
    const { disc, isOpen, failsAtPercent } = driveOf(studioId);
    const bytes = Number(visit.request.headers['content-length']);
    const refuse = (status: number, problem: string) => {
      visit.request.resume();
      return answerJson(visit, status, { problem });
    };
    if (busy.has(studioId)) return refuse(409, 'busy');
    if (!disc || isOpen) return refuse(409, 'no-disc');
    if (disc.writtenBytes > 0 || disc.isSpoilt) return refuse(409, 'not-blank');
    if (!(bytes > 0)) return refuse(411, 'no-length');
    if (bytes > DISC_BYTES[disc.layers]) return refuse(413, 'full');
    const at = { what: 'writing' as const, bytes: 0, of: bytes };
    busy.set(studioId, at);
    const failsAt = failsAtPercent === null ? Infinity : (bytes * failsAtPercent) / 100;
    let broke = false;
    const breakOff = async () => {
      broke = true;
      await rm(fileOf(disc), { force: true });
      const spoilt: Disc = { ...disc, isSpoilt: true, writtenBytes: at.bytes, at: Date.now() };
      await change(studioId, (drive) => ({ ...drive, failsAtPercent: null, disc: spoilt }));
      busy.delete(studioId);
      const percent = failsAtPercent ?? Math.floor((at.bytes / bytes) * 100);
      if (!visit.response.headersSent) answerJson(visit, 500, { problem: 'write-failed', percent });
    };
    const startedMs = performance.now();
    const laser = new Transform({
      transform(chunk: Buffer, _encoding, done) {
        // What comes after it broke off is let go by: who sends it hears of it meanwhile.
        if (broke) {
          done();
          return;
        }
        at.bytes += chunk.length;
        if (at.bytes >= failsAt) {
          void breakOff().then(() => done(), done);
          return;
        }
        const { speed } = driveOf(studioId);
        const due = speed === 0 ? 0 : (at.bytes / (speed * SINGLE_SPEED)) * 1000 - (performance.now() - startedMs);
        void (due > 5 ? sleep(due) : Promise.resolve()).then(() => done(null, chunk));
      },
    });
    try {
      await pipeline(visit.request, laser, createWriteStream(fileOf(disc)));
      if (broke) return true;
      if (at.bytes !== bytes) throw new Error('it ended too soon');
      await change(studioId, (drive) => ({ ...drive, disc: { ...disc, writtenBytes: bytes, at: Date.now() } }));
      busy.delete(studioId);
      return answerJson(visit, 200, { serial: disc.serial });
    } catch {
      if (!broke) await breakOff();
      return true;
    }
  }

  async function read(visit: Visit, studioId: string): Promise<boolean> {
    const { disc, isOpen, scratches, speed } = driveOf(studioId);
    const size =
      disc && !isOpen
        ? await stat(fileOf(disc)).then(
            (found) => found.size,
            () => 0,
          )
        : 0;
    if (!disc || size === 0) return answerJson(visit, 409, { problem: 'unreadable' });
    let bytes = 0;
    const startedMs = performance.now();
    const eye = new Transform({
      transform(chunk: Buffer, _encoding, done) {
        if (scratches && bytes <= size / 2 && bytes + chunk.length > size / 2) chunk[0] = chunk[0]! ^ 1;
        bytes += chunk.length;
        // It reads twice as fast as it writes.
        const due = speed === 0 ? 0 : (bytes / (2 * speed * SINGLE_SPEED)) * 1000 - (performance.now() - startedMs);
        void (due > 5 ? sleep(due) : Promise.resolve()).then(() => done(null, chunk));
      },
    });
    visit.response.writeHead(200, { 'content-type': 'application/octet-stream', 'content-length': String(size) });
    await pipeline(createReadStream(fileOf(disc)), eye, visit.response).catch(() => visit.response.destroy());
    return true;
  }

  async function open(studioId: string): Promise<void> {
    await change(studioId, (drive) => ({ ...drive, isOpen: true }));
  }

  /** The disc that was in the tray goes onto the shelf when another is put in. */
  async function pressed(studioId: string, said: URLSearchParams): Promise<void> {
    const put = said.get('put');
    if (busy.has(studioId)) return;
    if (put === 'one' || put === 'two' || put === 'written') {
      const disc: Disc = {
        serial: `TN${randomBytes(5).toString('hex').toUpperCase()}`,
        layers: put === 'two' ? 2 : 1,
        writtenBytes: put === 'written' ? 700_000_000 : 0,
        at: Date.now(),
      };
      await change(studioId, (drive) => ({ ...drive, disc, isOpen: false, shelf: shelved(drive) }));
      await tidy();
    } else if (put === 'out')
      await change(studioId, (drive) => ({ ...drive, disc: null, isOpen: true, shelf: shelved(drive) }));
    else if (put === 'tray') await change(studioId, (drive) => ({ ...drive, isOpen: !drive.isOpen }));
    else {
      const speed = Number(said.get('speed'));
      const fails = Number(said.get('fails') ?? 0);
      await change(studioId, (drive) => ({
        ...drive,
        speed: SPEEDS.includes(speed) ? speed : drive.speed,
        failsAtPercent: fails >= 1 && fails <= 99 ? fails : null,
        scratches: said.get('scratches') === 'on',
      }));
    }
  }

  function shelved({ disc, shelf }: Drive): Disc[] {
    return [...(disc && disc.writtenBytes > 0 ? [disc] : []), ...shelf].slice(0, 20);
  }

  /** The last few discs can be read; of the others only the stamp is left. */
  async function tidy(): Promise<void> {
    const kept = new Set(
      Object.values(books.value()).flatMap(({ disc, shelf }) => [
        ...(disc ? [`${disc.serial}.disc`] : []),
        ...shelf.slice(0, MOST_ON_SHELF).map(({ serial }) => `${serial}.disc`),
      ]),
    );
    for (const name of await readdir(folder))
      if (name.endsWith('.disc') && !kept.has(name)) await rm(path.join(folder, name), { force: true });
  }

  function page(studioId: string): string {
    const { disc, isOpen, speed, failsAtPercent, scratches, shelf } = driveOf(studioId);
    const at = busy.get(studioId);
    const inside = disc
      ? `<p data-part="in-tray"><b>${escaped(disc.serial)}</b> ${disc.layers === 1 ? 'one layer' : 'two layers'}, ${
          disc.isSpoilt ? 'spoilt' : disc.writtenBytes > 0 ? `written, ${size(disc.writtenBytes)}` : 'blank'
        }</p>`
      : '<p class="quiet" data-part="in-tray">Nothing lies in it.</p>';
    const going = at
      ? `<p role="status">${at.what} … <progress max="${at.of}" value="${at.bytes}"></progress></p><meta http-equiv="refresh" content="2">`
      : '';
    return `<h1>Disc drive</h1><div class="two"><section class="sheet pad"><h2>${isOpen ? 'The tray is open' : 'The tray is closed'}</h2>${inside}${going}
<form method="post" class="line" aria-label="The tray"><button class="main" name="put" value="one" data-part="put-one">Put in a blank disc</button><button name="put" value="two" data-part="put-two">… with two layers</button><button name="put" value="written" data-part="put-written">… a written one</button>${
      disc ? '<button name="put" value="out" data-part="put-out">Take it out</button>' : ''
    }<button name="put" value="tray">${isOpen ? 'Close' : 'Open'} the tray</button></form>
<form method="post" class="switches" aria-label="What this drive does"><label>speed <select name="speed">${SPEEDS.map((one) => `<option value="${one}"${one === speed ? ' selected' : ''}>${one === 0 ? 'as fast as it can' : `${one} times`}</option>`).join('')}</select></label>
<label>fails at percent <input type="number" name="fails" min="0" max="99" value="${failsAtPercent ?? 0}"></label>
<label><span><input type="checkbox" name="scratches"${scratches ? ' checked' : ''}> discs get a scratch</span></label><button data-part="set-drive">Set</button></form></section>
<section><h2>Beside it</h2>${
      shelf.length === 0
        ? '<p class="quiet">Discs that were written and taken out come here.</p>'
        : `<ul class="rows sheet">${shelf.map((one) => `<li><span class="row"><b>${escaped(one.serial)}</b><span>${one.isSpoilt ? 'spoilt' : size(one.writtenBytes)}, ${hour(one.at)}</span></span></li>`).join('')}</ul>`
    }</section></div>`;
  }
}

const size = (bytes: number) => `${(bytes / 1e6).toFixed(0)} MB`;

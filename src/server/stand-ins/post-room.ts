import { randomBytes } from 'node:crypto';
import { readFile, writeFile } from 'node:fs/promises';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import { simpleParser } from 'mailparser';
import { SMTPServer } from 'smtp-server';
import { escaped } from '../../core/publishing/letter';
import { openKept } from './kept';
import { hour, NOT_KNOWN, sendOn, showPage, studioOf, type StandIn, type Visit } from './visits';

interface Letter {
  readonly id: string;
  readonly studioId: string;
  readonly from: string;
  readonly to: string;
  readonly subject: string;
  readonly at: number;
}
interface Switches {
  /** So many letters are told to come again later. */
  readonly busyFor: number;
  /** Boxes that are not there, as they begin. */
  readonly notThere: string;
}
interface Books {
  readonly letters: readonly Letter[];
  readonly switches: Readonly<Record<string, Switches>>;
}

const MOST_LETTERS = 2000;
const LARGEST_LETTER_BYTES = 25 * 1024 * 1024;
const USUAL: Switches = { busyFor: 0, notThere: 'nobody@' };

export interface PostRoom extends StandIn {
  readonly port: number;
  close(): Promise<void>;
}

/** An SMTP server (RFC 5321) that keeps letters instead of delivering them, and a page to read them on. Whoever hands a letter in says which studio it is from (AUTH). */
export async function openPostRoom(folder: string, secret: string, port = 0): Promise<PostRoom> {
  const books = await openKept<Books>(path.join(folder, 'letters.json'), { letters: [], switches: {} });
  const fileOf = (id: string) => path.join(folder, `${id}.eml`);
  const switchesOf = (studioId: string) => books.value().switches[studioId] ?? USUAL;
  const setSwitches = (studioId: string, change: Partial<Switches>) =>
    books.change((value) => ({
      ...value,
      switches: { ...value.switches, [studioId]: { ...switchesOf(studioId), ...change } },
    }));

  const smtp = new SMTPServer({
    banner: 'post room',
    disabledCommands: ['STARTTLS'],
    allowInsecureAuth: true,
    size: LARGEST_LETTER_BYTES,
    // The log is the server’s own.
    logger: false,
    onAuth({ username, password }, _session, done) {
      const studioId = studioOf(secret, `${username}.${password}`);
      if (studioId === null) done(refused(535, 'Not known here'));
      else done(null, { user: studioId });
    },
    onRcptTo({ address }, session, done) {
      const studioId = String(session.user);
      const { busyFor, notThere } = switchesOf(studioId);
      const begins = notThere.split(/[\s,]+/).filter((one) => one !== '');
      if (begins.some((one) => address.toLowerCase().startsWith(one.toLowerCase())))
        return done(refused(550, 'There is no such box'));
      if (busyFor === 0) return done();
      void setSwitches(studioId, { busyFor: busyFor - 1 }).then(
        () => done(refused(451, 'Busy, come again later')),
        done,
      );
    },
    onData(stream, session, done) {
      const take = async () => {
        const chunks: Buffer[] = [];
        for await (const chunk of stream as AsyncIterable<Buffer>) chunks.push(chunk);
        if (stream.sizeExceeded) throw refused(552, 'Too large');
        const bytes = Buffer.concat(chunks);
        const { subject = '' } = await simpleParser(bytes, {
          skipHtmlToText: true,
          skipTextToHtml: true,
          skipTextLinks: true,
        });
        const { mailFrom, rcptTo } = session.envelope;
        const letter: Letter = {
          id: `${Date.now().toString(36)}-${randomBytes(6).toString('hex')}`,
          studioId: String(session.user),
          from: mailFrom === false ? '' : mailFrom.address,
          to: rcptTo.map(({ address }) => address).join(', '),
          subject,
          at: Date.now(),
        };
        await writeFile(fileOf(letter.id), bytes);
        await books.change((value) => ({ ...value, letters: [letter, ...value.letters].slice(0, MOST_LETTERS) }));
      };
      take().then(
        () => done(null, 'Kept'),
        (error: Error) => done(error),
      );
    },
  });
  smtp.on('error', () => {});
  await new Promise<void>((resolve, reject) => {
    smtp.server.once('error', reject);
    smtp.listen(port, '127.0.0.1', resolve);
  });

  return {
    path: 'post-room',
    port: (smtp.server.address() as AddressInfo).port,
    close: () => new Promise((resolve) => smtp.close(resolve)),
    async visit(visit) {
      const { pathname, searchParams } = visit.url;
      if (visit.visitor === null)
        return showPage(visit, { title: 'Post room', place: 'post-room', status: 403, body: NOT_KNOWN });
      if (visit.method === 'POST' && pathname === '/post-room') {
        const said = new URLSearchParams(await visit.body());
        await setSwitches(visit.visitor, {
          busyFor: Math.min(1000, Math.max(0, Math.floor(Number(said.get('busyFor')) || 0))),
          notThere: (said.get('notThere') ?? '').slice(0, 500),
        });
        return sendOn(visit, '/post-room');
      }
      const own = books.value().letters.filter(({ studioId }) => studioId === visit.visitor);
      const inside = /^\/post-room\/([\w-]+)\/(html|source)$/.exec(pathname);
      if (inside) {
        const letter = own.find(({ id }) => id === inside[1]);
        return letter ? showInside(visit, letter, inside[2] === 'html') : false;
      }
      if (pathname !== '/post-room') return false;
      const open = own.find(({ id }) => id === searchParams.get('letter')) ?? own[0];
      return showPage(visit, {
        title: 'Post room',
        place: 'post-room',
        body: `${await room(own, open)}${switchForm(switchesOf(visit.visitor))}`,
      });
    },
  };

  async function showInside({ response }: Visit, { id }: Letter, html: boolean): Promise<true> {
    const bytes = await readFile(fileOf(id));
    // Shut in: no script runs, nothing is loaded, and the page has an origin of its own.
    const shut = {
      'cache-control': 'no-store',
      'x-content-type-options': 'nosniff',
      'content-security-policy':
        "sandbox allow-popups; default-src 'none'; img-src data:; style-src 'unsafe-inline'; frame-ancestors 'self'",
    };
    if (!html) {
      response.writeHead(200, { ...shut, 'content-type': 'text/plain; charset=utf-8' });
      response.end(bytes);
      return true;
    }
    const parsed = await simpleParser(bytes);
    response.writeHead(200, { ...shut, 'content-type': 'text/html; charset=utf-8' });
    response.end(parsed.html || '');
    return true;
  }

  async function room(own: readonly Letter[], open: Letter | undefined): Promise<string> {
    if (!open)
      return '<h1>No post yet</h1><p class="quiet">Letters about screenings are kept here instead of being delivered: in Send, “Send it on” writes them.</p>';
    const parsed = await simpleParser(await readFile(fileOf(open.id)));
    const rows = own
      .map(
        (letter) =>
          `<li><a class="row" href="/post-room?letter=${letter.id}"${letter === open ? ' aria-current="true"' : ''}><b>${escaped(letter.to)}</b><span>${escaped(letter.subject)}</span><span>${hour(letter.at)}</span></a></li>`,
      )
      .join('');
    return `<h1>Post room</h1><div class="two"><ul class="sheet rows" data-part="letters">${rows}</ul>
<article class="sheet" data-part="letter"><div class="pad"><span class="stamp">kept ${hour(open.at)}</span><h2>${escaped(open.subject)}</h2>
<dl><dt>from</dt><dd>${escaped(parsed.from?.text ?? open.from)}</dd><dt>to</dt><dd>${escaped(open.to)}</dd>${parsed.replyTo ? `<dt>answers</dt><dd>${escaped(parsed.replyTo.text)}</dd>` : ''}</dl>
<a href="/post-room/${open.id}/source">as it came</a></div>
<iframe title="The letter" sandbox="allow-popups" src="/post-room/${open.id}/html"></iframe>
<pre aria-label="The plain part">${escaped(parsed.text ?? '')}</pre></article></div>`;
  }
}

function switchForm({ busyFor, notThere }: Switches): string {
  return `<form method="post" class="switches" aria-label="What this room does"><label>busy for the next letters <input type="number" name="busyFor" min="0" max="1000" value="${busyFor}"></label>
<label>boxes that are not there begin with <input name="notThere" maxlength="500" value="${escaped(notThere)}"></label><button>Set</button></form>`;
}

/** What SMTP says when it does not take something. */
function refused(responseCode: number, message: string): Error {
  return Object.assign(new Error(message), { responseCode });
}

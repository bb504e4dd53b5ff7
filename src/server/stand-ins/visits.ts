import { createHmac, timingSafeEqual } from 'node:crypto';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { escaped } from '../../core/publishing/letter';

/** Somebody at the door of a stand-in. */
export interface Visit {
  readonly method: string;
  readonly url: URL;
  /** The studio whose things are shown; null: nobody that is known. */
  readonly visitor: string | null;
  readonly request: IncomingMessage;
  readonly response: ServerResponse;
  /** The body, no further than a megabyte. */
  body(): Promise<string>;
}

/** A place that answers below its own path. */
export interface StandIn {
  /** The first part of its paths. */
  readonly path: string;
  /** @returns false when it has nothing there */
  visit(visit: Visit): Promise<boolean>;
}

const LARGEST_BODY_BYTES = 1024 * 1024;

/** What a studio shows at the door: its id, sealed with the stand-ins’ own secret. */
export const keyOf = (secret: string, studioId: string): string => `${studioId}.${sealOf(secret, studioId)}`;

/** @returns the studio a key stands for; null when it is none of ours */
export function studioOf(secret: string, key: string | null | undefined): string | null {
  const [studioId, seal] = (key ?? '').split('.');
  if (!studioId || !seal) return null;
  const [said, right] = [Buffer.from(seal), Buffer.from(sealOf(secret, studioId))];
  return said.length === right.length && timingSafeEqual(said, right) ? studioId : null;
}

const sealOf = (secret: string, studioId: string): string =>
  createHmac('sha256', secret).update(studioId).digest('base64url');

export async function bodyOf(request: IncomingMessage): Promise<string> {
  const chunks: Buffer[] = [];
  let bytes = 0;
  for await (const chunk of request as AsyncIterable<Buffer>) {
    bytes += chunk.length;
    if (bytes > LARGEST_BODY_BYTES) throw new RangeError('too much at once');
    chunks.push(chunk);
  }
  return Buffer.concat(chunks).toString('utf8');
}

export function answerJson(
  { response }: Visit,
  status: number,
  value: unknown,
  headers: Record<string, string> = {},
): true {
  response.writeHead(status, { 'content-type': 'application/json', 'cache-control': 'no-store', ...headers });
  response.end(JSON.stringify(value));
  return true;
}

/** After a form: the page it stands on, as it is now. */
export function sendOn({ response }: Visit, to: string): true {
  response.writeHead(303, { location: to });
  response.end();
  return true;
}

interface PageParts {
  readonly title: string;
  /** Which of the places it is, for its colours. */
  readonly place: string;
  /** HTML. */
  readonly body: string;
  readonly status?: number;
  /** Where forms may lead to besides here. */
  readonly formsLeadTo?: string;
}

const PLACES = [
  ['post-room', 'Post room'],
  ['video-host', 'Video host'],
  ['social-page', 'Social page'],
  ['disc-drive', 'Disc drive'],
] as const;

/** A page of a stand-in: the three doors above, then what it holds. */
export function showPage(
  { response, url }: Visit,
  { title, place, body, status = 200, formsLeadTo = '' }: PageParts,
): true {
  const doors = PLACES.map(
    ([path, name]) => `<a href="/${path}"${url.pathname === `/${path}` ? ' aria-current="page"' : ''}>${name}</a>`,
  ).join('');
  response.writeHead(status, {
    'content-type': 'text/html; charset=utf-8',
    'cache-control': 'no-store',
    'x-content-type-options': 'nosniff',
    'referrer-policy': 'no-referrer',
    'content-security-policy': `default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; script-src 'none'; frame-ancestors 'none'; base-uri 'none'; form-action 'self' ${formsLeadTo}`,
  });
  response.end(`<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>${escaped(title)}</title><link rel="icon" href="data:,"><link rel="stylesheet" href="/style.css"></head>
<body class="${place}"><header><nav aria-label="Stand-ins">${doors}</nav><p>Came with Tanager, to try things out. Nothing leaves this machine.</p></header>
<main>${body}</main></body></html>`);
  return true;
}

/** “3 minutes ago” is wrong on a page that stays open; the hour is not. */
export const hour = (at: number): string =>
  new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' }).format(at);

export const NOT_KNOWN =
  '<h1>Who is there?</h1><p class="quiet">Come here from Tanager’s Send: “What went out” has the door. It says who you are.</p>';

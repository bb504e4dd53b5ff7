import { Refusal } from './refusal';

/** Names the server answers to, without ports. */
export function ownHosts(): string[] {
  const named = (process.env.TANAGER_HOSTS ?? 'localhost,127.0.0.1,[::1]')
    .split(',')
    .map((name) => name.trim().toLowerCase());
  const address = publicAddress();
  return address ? [...named, address.hostname.toLowerCase()] : named;
}

/** The address people reach the server under when a proxy stands before it. */
export function publicAddress(): URL | null {
  const text = process.env.TANAGER_ADDRESS;
  return text && URL.canParse(text) ? new URL(text) : null;
}

/** What is asked of a request before anything else: headers only, so that it can be asked everywhere. */
export interface Asked {
  readonly method: string;
  header(name: string): string | null;
}

/**
 * Guards against names that were made to point here (DNS rebinding) and against other sites’ pages: the host must be ours, and what changes something must
 * come from this site’s own pages or from no page at all.
 *
 * @throws {Refusal} 403
 */
export function assertOwnAddress(asked: Asked): void {
  const host = hostOf(asked);
  if (!ownHosts().includes(host.replace(/:\d+$/, '').toLowerCase()))
    throw new Refusal(403, 'This address is not one the server answers to; name it in TANAGER_HOSTS.');
  if (['GET', 'HEAD', 'OPTIONS'].includes(asked.method)) return;
  const origin = asked.header('origin');
  const site = asked.header('sec-fetch-site');
  // Pages that send no referrer leave the origin of their forms out; the browser still says that they are ours.
  const hushed = origin === 'null' && site === 'same-origin';
  if (site === 'cross-site' || site === 'same-site' || (origin !== null && !hushed && !isOwnOrigin(origin, host)))
    throw new Refusal(403, 'This request came from another site.');
}

/** Behind a trusted proxy the host the person asked for is the one it tells. */
function hostOf(asked: Asked): string {
  const forwarded = trustsProxy() ? asked.header('x-forwarded-host') : null;
  return (forwarded ?? asked.header('host') ?? '').split(',')[0]!.trim();
}

/** The address under which who asks reaches the server, for links in what is handed out. */
export function originOf(asked: Asked): string {
  const named = publicAddress();
  if (named) return named.origin;
  return `${cameByTls(asked) ? 'https' : 'http'}://${hostOf(asked)}`;
}

/** Whether the person’s own line is encrypted, as a trusted proxy tells or the named address says. */
export function cameByTls(asked: Asked): boolean {
  const told = trustsProxy() ? asked.header('x-forwarded-proto')?.split(',')[0]!.trim() : undefined;
  return told === undefined ? publicAddress()?.protocol === 'https:' : told === 'https';
}

/** Only where it is said that a proxy stands before the server may headers tell where a request came from. */
export function trustsProxy(): boolean {
  return process.env.TANAGER_TRUST_PROXY === '1';
}

function isOwnOrigin(origin: string, host: string): boolean {
  if (!URL.canParse(origin)) return false;
  const from = new URL(origin);
  return from.host === host || from.host === publicAddress()?.host;
}

/** @returns null when the browser holds none */
export function cookieOf(asked: Asked, name: string): string | null {
  const cookies = (asked.header('cookie') ?? '').split(/;\s*/);
  return cookies.find((cookie) => cookie.startsWith(`${name}=`))?.slice(name.length + 1) ?? null;
}

/** A cookie that scripts cannot read, sent to this site alone; over TLS, where the person came by it, only by it. @param value null: it is taken away */
export function cookieFor(asked: Asked, name: string, value: string | null, lastsMs: number): string {
  const secure = originOf(asked).startsWith('https:') ? '; Secure' : '';
  const age = value === null ? 0 : Math.floor(lastsMs / 1000);
  return `${name}=${value ?? ''}; Path=/; Max-Age=${age}; HttpOnly; SameSite=Lax${secure}`;
}

import { createHash, randomBytes, randomInt, timingSafeEqual } from 'node:crypto';
import type { ShowId } from '../../core/show/ids';

const CODE_DIGITS = 6;
/** Wrong codes from one address, and from all of them together, before nobody may try for a while. */
const TRIES_OF_ONE = 5;
const TRIES_OF_ALL = 20;
const PAUSE_MS = 60_000;

/** Who may hold a remote: a code lets in one phone, which then has a token of its own. */
export interface Pairing {
  /** A new code for a show; the one before is worth nothing any more. */
  invite(show: ShowId): string;
  /** @returns the phone's token; null for a wrong code, `later` when there were too many */
  pair(code: string, address: string): string | null | 'later';
  /** The show a token is for. */
  showOf(token: string): ShowId | null;
  /** Every remote of a show is let go, and its code. */
  end(show: ShowId): void;
}

export function createPairing(now: () => number = Date.now): Pairing {
  const codes = new Map<ShowId, string>();
  const tokens = new Map<string, ShowId>();
  const wrong: { address: string; atMs: number }[] = [];
  return {
    invite(show) {
      const code = String(randomInt(10 ** CODE_DIGITS)).padStart(CODE_DIGITS, '0');
      codes.set(show, code);
      return code;
    },
    pair(code, address) {
      const since = now() - PAUSE_MS;
      while (wrong[0] && wrong[0].atMs < since) wrong.shift();
      if (wrong.length >= TRIES_OF_ALL || wrong.filter((try_) => try_.address === address).length >= TRIES_OF_ONE)
        return 'later';
      for (const [show, right] of codes)
        if (isSame(code, right)) {
          codes.delete(show);
          const token = randomBytes(24).toString('base64url');
          tokens.set(token, show);
          return token;
        }
      wrong.push({ address, atMs: now() });
      return null;
    },
    showOf: (token) => tokens.get(token) ?? null,
    end(show) {
      codes.delete(show);
      for (const [token, of] of tokens) if (of === show) tokens.delete(token);
    },
  };
}

/** In the same time for every code. */
function isSame(one: string, other: string): boolean {
  const hash = (text: string) => createHash('sha256').update(text).digest();
  return timingSafeEqual(hash(one), hash(other));
}

import { createHash, randomBytes } from 'node:crypto';
import { escaped } from '../../core/publishing/letter';
import { openKept, type Kept } from './kept';
import { answerJson, NOT_KNOWN, sendOn, showPage, studioOf, type Visit } from './visits';

/** A place’s own account of somebody, by name. */
export interface Account {
  readonly id: string;
  readonly studioId: string;
  readonly name: string;
}

interface Token {
  readonly hash: string;
  readonly accountId: string;
  readonly use: 'access' | 'refresh';
  readonly until: number;
}
interface Books {
  readonly accounts: readonly Account[];
  readonly tokens: readonly Token[];
}
interface Code {
  readonly accountId: string;
  readonly challenge: string;
  readonly redirect: string;
  readonly until: number;
}

/** Where people sign in at a stand-in and let Tanager do something there: OAuth 2.0 (RFC 6749) with PKCE (RFC 7636), its addresses told by RFC 8414, tokens taken back by RFC 7009. */
export interface SignInDesk {
  visit(visit: Visit): Promise<boolean>;
  /** Whose token came with a request; null when it is none, or no longer. */
  bearer(visit: Visit): Account | null;
  accountsOf(studioId: string): readonly Account[];
  /** Takes all tokens of a studio back. */
  signOut(studioId: string): Promise<void>;
}

interface DeskParts {
  readonly file: string;
  /** Of the place: `video-host`. */
  readonly path: string;
  readonly name: string;
  /** “put films there” */
  readonly wants: string;
  readonly secret: string;
  readonly origin: () => string;
  readonly now?: () => number;
}

export const ACCESS_MS = 10 * 60_000;
const REFRESH_MS = 365 * 24 * 3_600_000;
const CODE_MS = 5 * 60_000;

export async function openSignInDesk(parts: DeskParts): Promise<SignInDesk> {
  const { path, name, wants, secret, origin, now = Date.now } = parts;
  const books: Kept<Books> = await openKept(parts.file, { accounts: [], tokens: [] });
  const codes = new Map<string, Code>();
  const hashed = (word: string) => createHash('sha256').update(word).digest('base64url');
  const account = (id: string) => books.value().accounts.find((one) => one.id === id) ?? null;

  return {
    accountsOf: (studioId) => books.value().accounts.filter((one) => one.studioId === studioId),
    signOut: (studioId) =>
      books.change(({ accounts, tokens }) => ({
        accounts,
        tokens: tokens.filter(({ accountId }) => account(accountId)?.studioId !== studioId),
      })),
    bearer({ request }) {
      const word = /^Bearer (\S+)$/.exec(request.headers.authorization ?? '')?.[1];
      if (!word) return null;
      const hash = hashed(word);
      const token = books.value().tokens.find((one) => one.hash === hash && one.use === 'access' && one.until > now());
      return token ? account(token.accountId) : null;
    },
    async visit(visit) {
      const { pathname } = visit.url;
      if (pathname === `/.well-known/oauth-authorization-server/${path}`)
        return answerJson(visit, 200, {
          issuer: `${origin()}/${path}`,
          authorization_endpoint: `${origin()}/${path}/sign-in`,
          token_endpoint: `${origin()}/${path}/token`,
          revocation_endpoint: `${origin()}/${path}/revoke`,
          response_types_supported: ['code'],
          grant_types_supported: ['authorization_code', 'refresh_token'],
          code_challenge_methods_supported: ['S256'],
          token_endpoint_auth_methods_supported: ['none'],
        });
      if (pathname === `/${path}/sign-in`) return visit.method === 'POST' ? decide(visit) : askAt(visit);
      if (visit.method !== 'POST') return false;
      if (pathname === `/${path}/token`) return exchange(visit);
      if (pathname === `/${path}/revoke`) {
        const word = new URLSearchParams(await visit.body()).get('token') ?? '';
        const given = books.value().tokens.find(({ hash }) => hash === hashed(word));
        if (given)
          await books.change(({ accounts, tokens }) => ({
            accounts,
            tokens: tokens.filter(({ accountId }) => accountId !== given.accountId),
          }));
        return answerJson(visit, 200, {});
      }
      return false;
    },
  };

  /** What is asked at the desk; null when it makes no sense. */
  function askedFor(said: URLSearchParams): { redirect: URL; challenge: string; state: string } | null {
    const redirect = said.get('redirect_uri') ?? '';
    const challenge = said.get('code_challenge') ?? '';
    const fits =
      said.get('response_type') === 'code' &&
      said.get('client_id') === 'tanager' &&
      said.get('code_challenge_method') === 'S256' &&
      /^[\w-]{43}$/.test(challenge) &&
      URL.canParse(redirect);
    const to = fits ? new URL(redirect) : null;
    if (!to || !/^https?:$/.test(to.protocol) || to.pathname !== '/api/v1/channels/arrival') return null;
    return { redirect: to, challenge, state: said.get('state') ?? '' };
  }

  function askAt(visit: Visit): true {
    const asked = askedFor(visit.url.searchParams);
    const studioId = studioOf(secret, visit.url.searchParams.get('login_hint')) ?? visit.visitor;
    if (!asked || !studioId)
      return showPage(visit, {
        title: name,
        place: path,
        status: 400,
        body: asked
          ? NOT_KNOWN
          : '<h1>That cannot be asked here</h1><p>The request is not whole. Begin again in Tanager.</p>',
      });
    const known = books.value().accounts.filter((one) => one.studioId === studioId);
    const hidden = [...visit.url.searchParams]
      .map(([key, value]) => `<input type="hidden" name="${escaped(key)}" value="${escaped(value)}">`)
      .join('');
    const choice =
      known.length === 0
        ? ''
        : `<label>Sign in as <select name="account">${known.map((one) => `<option value="${one.id}">${escaped(one.name)}</option>`).join('')}<option value="">somebody new</option></select></label>`;
    return showPage(visit, {
      title: `Sign in: ${name}`,
      place: path,
      formsLeadTo: asked.redirect.origin,
      body: `<div class="sheet pad desk"><h1>Tanager asks to be let in</h1><p>It wants to ${wants}, in your name, until you take that back here or there.</p>
<form method="post">${hidden}${choice}<label>${known.length === 0 ? 'What are you called here?' : 'Called, if new'} <input name="called" maxlength="60" value="${known.length === 0 ? 'Our films' : ''}"></label>
<div class="line"><button class="main" name="answer" value="yes">Let it in</button><button name="answer" value="no">No</button></div></form></div>`,
    });
  }

  async function decide(visit: Visit): Promise<true> {
    const said = new URLSearchParams(await visit.body());
    const asked = askedFor(said);
    const studioId = studioOf(secret, said.get('login_hint')) ?? visit.visitor;
    if (!asked || !studioId) return showPage(visit, { title: name, place: path, status: 400, body: NOT_KNOWN });
    const back = asked.redirect;
    back.searchParams.set('state', asked.state);
    back.searchParams.set('iss', `${origin()}/${path}`);
    if (said.get('answer') !== 'yes') {
      back.searchParams.set('error', 'access_denied');
      return sendOn(visit, back.href);
    }
    const chosen = account(said.get('account') ?? '');
    const one: Account =
      chosen?.studioId === studioId
        ? chosen
        : {
            id: randomBytes(9).toString('base64url'),
            studioId,
            name: (said.get('called') ?? '').trim().slice(0, 60) || 'Our films',
          };
    if (one !== chosen) await books.change(({ accounts, tokens }) => ({ tokens, accounts: [...accounts, one] }));
    const code = randomBytes(24).toString('base64url');
    codes.set(hashed(code), {
      accountId: one.id,
      challenge: asked.challenge,
      redirect: said.get('redirect_uri')!,
      until: now() + CODE_MS,
    });
    back.searchParams.set('code', code);
    return sendOn(visit, back.href);
  }

  async function exchange(visit: Visit): Promise<true> {
    const said = new URLSearchParams(await visit.body());
    const refused = (error: string) => answerJson(visit, 400, { error });
    if (said.get('client_id') !== 'tanager') return refused('invalid_client');
    if (said.get('grant_type') === 'authorization_code') {
      const key = hashed(said.get('code') ?? '');
      const code = codes.get(key);
      // A code is good once, whatever comes of it.
      codes.delete(key);
      const isRight =
        code !== undefined &&
        code.until > now() &&
        code.redirect === said.get('redirect_uri') &&
        code.challenge === hashed(said.get('code_verifier') ?? '');
      return isRight ? give(visit, code.accountId) : refused('invalid_grant');
    }
    if (said.get('grant_type') !== 'refresh_token') return refused('unsupported_grant_type');
    const hash = hashed(said.get('refresh_token') ?? '');
    const held = books.value().tokens.find((one) => one.hash === hash && one.use === 'refresh' && one.until > now());
    if (!held) return refused('invalid_grant');
    return give(visit, held.accountId, hash);
  }

  /** @param instead the token that is used up by it */
  async function give(visit: Visit, accountId: string, instead?: string): Promise<true> {
    const [access, refresh] = [randomBytes(32).toString('base64url'), randomBytes(32).toString('base64url')];
    await books.change(({ accounts, tokens }) => ({
      accounts,
      tokens: [
        // A word that renews takes along what was let in by the one before.
        ...tokens.filter(
          (one) =>
            one.hash !== instead &&
            one.until > now() &&
            !(instead !== undefined && one.accountId === accountId && one.use === 'access'),
        ),
        { hash: hashed(access), accountId, use: 'access', until: now() + ACCESS_MS },
        { hash: hashed(refresh), accountId, use: 'refresh', until: now() + REFRESH_MS },
      ],
    }));
    return answerJson(visit, 200, {
      access_token: access,
      refresh_token: refresh,
      token_type: 'bearer',
      expires_in: ACCESS_MS / 1000,
    });
  }
}

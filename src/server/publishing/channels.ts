import { and, eq, lt } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import * as oauth from 'oauth4webapi';
import type { ChannelRoom, ChannelRow, HostedPlace } from '../../core/publishing/publication';
import type { OpenDatabase } from '../database/open-database';
import { channelAsks, channels } from '../database/schema';
import { PassingError } from '../jobs/job-runner';
import { logger } from '../logger';
import { hashOfWord } from '../studio/secret-word';
import type { Person } from '../studio/sessions';
import { channelAt, roomAt, type LetIn } from './host-calls';
import type { HostPlace, Places } from './places';
import { SignedOutError } from './troubles';

const ASK_MS = 15 * 60_000;
/** Renewed when it is good for less than this. */
const NEARLY_OVER_MS = 60_000;
const ARRIVAL = '/api/v1/channels/arrival';

/** Where a studio is signed in elsewhere, and how it gets there: OAuth 2.0 with PKCE. */
export interface Channels {
  list(studioId: string): Promise<ChannelRow[]>;
  /**
   * Begins to sign in.
   *
   * @param origin our own address, as the person reaches it
   * @returns where to go to; null when there is no such place here
   * @throws {PassingError} when it cannot be reached
   */
  begin(person: Person, place: HostedPlace, show: string, origin: string): Promise<string | null>;
  /** Whoever comes back from there. @returns the show they came from, and whether they were let in; null: nobody was waited for */
  arrive(person: Person, said: URLSearchParams): Promise<{ show: string; letIn: boolean } | null>;
  /**
   * Who may ask a host for a channel.
   *
   * @param name as the channel was called when it was asked for
   * @throws {SignedOutError} when the studio is not signed in there any more
   */
  letIn(id: string, name: string): Promise<LetIn>;
  /** What room a channel has, as its host tells; null when it does not tell, cannot be reached, or nobody is signed in there. */
  room(channel: ChannelRow, signal: AbortSignal): Promise<ChannelRoom | null>;
  /** Signs out, there too when it can be reached. */
  remove(studioId: string, id: string): Promise<boolean>;
}

export function createChannels({ db, write }: OpenDatabase, places: Places, now: () => number = Date.now): Channels {
  const find = async (id: string) => (await db.select().from(channels).where(eq(channels.id, id)))[0];
  const set = (id: string, row: Partial<typeof channels.$inferInsert>) =>
    write((one) => one.update(channels).set(row).where(eq(channels.id, id)));
  /** The host takes what was given no more: it has to be signed in to anew. */
  const forget = (id: string) => set(id, { accessToken: null, refreshToken: null });
  /** Renewed one at a time: a word that renews is good once, and two who use it at the same time sign each other out. */
  const renewing = new Map<string, Promise<string>>();

  return {
    async list(studioId) {
      const rows = await db.select().from(channels).where(eq(channels.studioId, studioId));
      return rows.map(({ id, place, name, accessToken }) => ({ id, place, name, signedIn: accessToken !== null }));
    },
    async begin({ accountId, studioId }, place, show, origin) {
      const host = places.host(place, studioId);
      if (!host) return null;
      const server = await reached(() => discovered(host));
      const verifier = oauth.generateRandomCodeVerifier();
      const state = oauth.generateRandomState();
      const redirect = origin + ARRIVAL;
      await write(async (one) => {
        await one.delete(channelAsks).where(lt(channelAsks.until, now()));
        await one.insert(channelAsks).values({
          hash: hashOfWord(state),
          ...{ accountId, studioId, place, verifier, redirect, showId: show, until: now() + ASK_MS },
        });
      });
      const to = new URL(server.authorization_endpoint!);
      const asked = {
        response_type: 'code',
        client_id: host.clientId,
        redirect_uri: redirect,
        code_challenge: await oauth.calculatePKCECodeChallenge(verifier),
        code_challenge_method: 'S256',
        state,
        ...(host.hint !== null && { login_hint: host.hint }),
      };
      for (const [name, value] of Object.entries(asked)) to.searchParams.set(name, value);
      return to.href;
    },
    async arrive(person, said) {
      const state = said.get('state') ?? '';
      const asked = and(eq(channelAsks.hash, hashOfWord(state)), eq(channelAsks.accountId, person.accountId));
      const [ask] = await db.select().from(channelAsks).where(asked);
      // It is good once, whatever comes of it.
      if (ask) await write((one) => one.delete(channelAsks).where(asked));
      const host = ask && ask.until > now() ? places.host(ask.place, ask.studioId) : null;
      if (!ask || !host) return null;
      try {
        const server = await discovered(host);
        const client = clientOf(host);
        const right = oauth.validateAuthResponse(server, client, said, state);
        const given = await oauth.processAuthorizationCodeResponse(
          server,
          client,
          await oauth.authorizationCodeGrantRequest(
            server,
            client,
            authOf(host),
            right,
            ask.redirect,
            ask.verifier,
            insecureIfLocal(host.issuer),
          ),
        );
        const name = await nameAt(host, given.access_token);
        const row = { studioId: ask.studioId, place: ask.place, name, ...tokensOf(given) };
        await write(async (one) => {
          // The same channel signed in to again is the same channel.
          const own = and(eq(channels.studioId, ask.studioId), eq(channels.place, ask.place), eq(channels.name, name));
          const [before] = await one.select().from(channels).where(own);
          if (before) await one.update(channels).set(row).where(own);
          else await one.insert(channels).values({ id: nanoid(12), createdAt: now(), ...row });
        });
        return { show: ask.showId, letIn: true };
      } catch (error) {
        logger().info({ err: error, place: ask.place }, 'signing in elsewhere came to nothing');
        return { show: ask.showId, letIn: false };
      }
    },
    letIn,
    async room({ id, name }, signal) {
      try {
        return await roomAt(await letIn(id, name), signal);
      } catch (error) {
        logger().info({ err: error }, 'a host did not tell what room there is');
        return null;
      }
    },
    async remove(studioId, id) {
      const channel = await find(id);
      if (channel?.studioId !== studioId) return false;
      await write((one) => one.delete(channels).where(eq(channels.id, id)));
      const host = places.host(channel.place, studioId);
      const word = channel.refreshToken ?? channel.accessToken;
      if (host && word)
        try {
          const server = await discovered(host);
          await oauth.revocationRequest(server, clientOf(host), authOf(host), word, insecureIfLocal(host.issuer));
        } catch (error) {
          logger().info({ err: error }, 'a host was not told that it was signed out of');
        }
      return true;
    },
  };

  async function letIn(id: string, name: string): Promise<LetIn> {
    const channel = await find(id);
    const host = channel && places.host(channel.place, channel.studioId);
    if (!channel?.accessToken || !host) throw new SignedOutError(signInAgain(name));
    return {
      host,
      name,
      token: () => tokenOf(id, host),
      doubt: async (token) =>
        void (await write((one) =>
          one
            .update(channels)
            .set({ expiresAt: 0 })
            .where(and(eq(channels.id, id), eq(channels.accessToken, token))),
        )),
    };
  }

  /** Good for a while: renewed when its time is nearly over. @throws {SignedOutError} @throws {PassingError} */
  async function tokenOf(id: string, host: HostPlace): Promise<string> {
    const good = renewing.get(id) ?? goodOrRenewed(id, host).finally(() => renewing.delete(id));
    renewing.set(id, good);
    return good;
  }

  async function goodOrRenewed(id: string, host: HostPlace): Promise<string> {
    const channel = await find(id);
    if (!channel?.accessToken) throw new SignedOutError(signInAgain(channel?.name));
    const isGood = channel.expiresAt === null || channel.expiresAt - now() > NEARLY_OVER_MS;
    return isGood ? channel.accessToken : renew(channel, host);
  }

  async function renew({ id, name, refreshToken }: typeof channels.$inferSelect, host: HostPlace): Promise<string> {
    if (refreshToken === null) {
      await forget(id);
      throw new SignedOutError(signInAgain(name));
    }
    const server = await reached(() => discovered(host));
    const client = clientOf(host);
    const answer = await reached(() =>
      oauth.refreshTokenGrantRequest(server, client, authOf(host), refreshToken, insecureIfLocal(host.issuer)),
    );
    if (answer.status >= 500) throw new PassingError(`${name} cannot be reached at the moment.`);
    const given = await oauth.processRefreshTokenResponse(server, client, answer).catch(() => null);
    if (given === null) {
      await forget(id);
      throw new SignedOutError(signInAgain(name));
    }
    const row = tokensOf(given);
    await set(id, { ...row, refreshToken: row.refreshToken ?? refreshToken });
    return given.access_token;
  }

  function tokensOf(given: oauth.TokenEndpointResponse) {
    return {
      accessToken: given.access_token,
      refreshToken: given.refresh_token ?? null,
      expiresAt: given.expires_in === undefined ? null : now() + given.expires_in * 1000,
    };
  }
}

const signInAgain = (name: string | undefined): string =>
  name === undefined ? 'Nobody is signed in there any more.' : `“${name}” wants to be signed in to again.`;

const clientOf = (host: HostPlace): oauth.Client => ({ client_id: host.clientId });
const authOf = (host: HostPlace): oauth.ClientAuth =>
  host.clientSecret === null ? oauth.None() : oauth.ClientSecretBasic(host.clientSecret);

/** Without TLS on this machine only. */
function insecureIfLocal(address: URL): { [oauth.allowInsecureRequests]?: true } {
  return ['localhost', '127.0.0.1', '[::1]'].includes(address.hostname) ? { [oauth.allowInsecureRequests]: true } : {};
}

async function discovered({ issuer }: HostPlace): Promise<oauth.AuthorizationServer> {
  const answer = await oauth.discoveryRequest(issuer, { algorithm: 'oauth2', ...insecureIfLocal(issuer) });
  return oauth.processDiscoveryResponse(issuer, answer);
}

/** @throws {PassingError} instead of what the network or a broken host says */
async function reached<Answer>(ask: () => Promise<Answer>): Promise<Answer> {
  try {
    return await ask();
  } catch (error) {
    throw new PassingError('It cannot be reached at the moment.', { cause: error });
  }
}

async function nameAt(host: HostPlace, token: string): Promise<string> {
  const { name } = (await channelAt(host, token)) ?? {};
  return typeof name === 'string' && name.trim() !== '' ? name.slice(0, 200) : host.issuer.hostname;
}

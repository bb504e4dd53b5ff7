import {
  generateAuthenticationOptions,
  generateRegistrationOptions,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
  type AuthenticationResponseJSON,
  type PublicKeyCredentialCreationOptionsJSON,
  type PublicKeyCredentialRequestOptionsJSON,
  type RegistrationResponseJSON,
} from '@simplewebauthn/server';
import { and, eq } from 'drizzle-orm';
import { isIP } from 'node:net';
import type { OpenDatabase } from '../database/open-database';
import { accounts, passkeys } from '../database/schema';
import { Refusal } from '../http/refusal';
import { logger } from '../logger';

/** How long a device may take to answer. */
const ASKED_MS = 5 * 60_000;
const MOST_ASKED = 10_000;
const MOST_KEYS = 20;

/** Sign-in by a key in a person’s device (Web Authentication Level 2), checked by @simplewebauthn. */
export interface Passkeys {
  /** What a device is asked so that it makes a key. @param origin under which the person reaches the app @throws {Refusal} 422 for numbers as addresses */
  toAdd(accountId: string, origin: string): Promise<PublicKeyCredentialCreationOptionsJSON>;
  /** Keeps a device’s new key. @throws {Refusal} 422 when the answer is not to what was asked */
  add(accountId: string, origin: string, name: string, answer: RegistrationResponseJSON): Promise<void>;
  remove(accountId: string, id: string): Promise<boolean>;
  toSignIn(origin: string): Promise<PublicKeyCredentialRequestOptionsJSON>;
  /** @returns null when the key is not known or its answer is wrong */
  signIn(origin: string, answer: AuthenticationResponseJSON): Promise<{ readonly accountId: string } | null>;
}

export function createPasskeys({ db, write }: OpenDatabase, now: () => number = Date.now): Passkeys {
  /** What devices were asked and did not answer yet, by when it ends; each is answered once. */
  const asked = new Map<string, number>();
  const ask = (challenge: string) => {
    for (const [old, until] of asked) if (until < now() || asked.size >= MOST_ASKED) asked.delete(old);
    asked.set(challenge, now() + ASKED_MS);
  };
  const wasAsked = (challenge: string) => {
    const until = asked.get(challenge);
    asked.delete(challenge);
    return until !== undefined && until >= now();
  };
  const keysOf = (accountId: string) => db.select().from(passkeys).where(eq(passkeys.accountId, accountId));

  return {
    async toAdd(accountId, origin) {
      const [account] = await db.select().from(accounts).where(eq(accounts.id, accountId));
      const own = await keysOf(accountId);
      if (own.length >= MOST_KEYS) throw new Refusal(422, `More than ${MOST_KEYS} passkeys are not kept.`);
      const options = await generateRegistrationOptions({
        rpName: 'Tanager',
        rpID: hostOf(origin),
        userName: account!.email ?? account!.name,
        userDisplayName: account!.name,
        userID: new TextEncoder().encode(accountId),
        attestationType: 'none',
        excludeCredentials: own.map(({ id }) => ({ id })),
        authenticatorSelection: { residentKey: 'required', userVerification: 'preferred' },
      });
      ask(options.challenge);
      return options;
    },
    async add(accountId, origin, name, response) {
      const made = await verifyRegistrationResponse({
        response,
        expectedChallenge: wasAsked,
        expectedOrigin: origin,
        expectedRPID: hostOf(origin),
        requireUserVerification: false,
      }).catch(unusable);
      if (!made?.verified) throw new Refusal(422, 'The device’s answer does not fit. Try again.');
      const { credential } = made.registrationInfo;
      await write((one) =>
        one
          .insert(passkeys)
          .values({
            id: credential.id,
            accountId,
            publicKey: Buffer.from(credential.publicKey).toString('base64url'),
            counter: credential.counter,
            transports: credential.transports ?? [],
            name,
            createdAt: now(),
          })
          .onConflictDoNothing(),
      );
    },
    async remove(accountId, id) {
      const mine = and(eq(passkeys.accountId, accountId), eq(passkeys.id, id));
      return (await write((one) => one.delete(passkeys).where(mine))).rowsAffected > 0;
    },
    async toSignIn(origin) {
      const options = await generateAuthenticationOptions({ rpID: hostOf(origin), userVerification: 'preferred' });
      ask(options.challenge);
      return options;
    },
    async signIn(origin, response) {
      const [key] = await db.select().from(passkeys).where(eq(passkeys.id, response.id));
      if (!key) return null;
      const checked = await verifyAuthenticationResponse({
        response,
        expectedChallenge: wasAsked,
        expectedOrigin: origin,
        expectedRPID: hostOf(origin),
        requireUserVerification: false,
        credential: {
          id: key.id,
          publicKey: new Uint8Array(Buffer.from(key.publicKey, 'base64url')),
          counter: key.counter,
        },
      }).catch(unusable);
      if (!checked?.verified) return null;
      const { newCounter } = checked.authenticationInfo;
      await write((one) => one.update(passkeys).set({ counter: newCounter }).where(eq(passkeys.id, key.id)));
      return { accountId: key.accountId };
    },
  };
}

/** Keys belong to a name. @throws {Refusal} 422 where there is only a number */
function hostOf(origin: string): string {
  const { hostname, protocol } = new URL(origin);
  if (isIP(hostname.replace(/^\[|\]$/g, '')) || (protocol !== 'https:' && hostname !== 'localhost'))
    throw new Refusal(
      422,
      'Passkeys need the app to be reached by a name over HTTPS, or as “localhost” on this machine.',
    );
  return hostname;
}

function unusable(error: unknown): null {
  logger().warn({ err: error }, 'a passkey’s answer could not be used');
  return null;
}

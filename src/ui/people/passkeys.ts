import { browserSupportsWebAuthn, startAuthentication, startRegistration } from '@simplewebauthn/browser';
import { useSyncExternalStore } from 'react';
import type { OwnAccount } from '../../server/studio/accounts';
import { callServer } from '../show/call-server';

/** Whether passkeys can be used here: the browser has them and the address is one that keys can belong to. */
export type PasskeysHere = 'yes' | 'not-secure' | 'not-known';

const never = () => () => {};

/** Not known as long as the page is drawn on the server. */
export function usePasskeysHere(): PasskeysHere {
  return useSyncExternalStore<PasskeysHere>(never, passkeysHere, () => 'not-known');
}

function passkeysHere(): PasskeysHere {
  const isNumber = /^[\d.]+$|^\[/.test(location.hostname);
  if (!window.isSecureContext || isNumber) return 'not-secure';
  return browserSupportsWebAuthn() ? 'yes' : 'not-known';
}

type Asked<Start extends (asked: never) => unknown> = Parameters<Start>[0] extends { optionsJSON: infer Options }
  ? Options
  : never;

export async function signInByPasskey(): Promise<void> {
  const optionsJSON = await callServer<Asked<typeof startAuthentication>>('POST', '/api/v1/session/passkey/asked');
  await callServer('POST', '/api/v1/session/passkey', await startAuthentication({ optionsJSON }));
}

export async function addPasskey(name: string): Promise<OwnAccount> {
  const optionsJSON = await callServer<Asked<typeof startRegistration>>('POST', '/api/v1/account/passkeys/asked');
  const answer = await startRegistration({ optionsJSON });
  return callServer('POST', '/api/v1/account/passkeys', { name, answer });
}

/** Why nothing came of it, in words; null when the person thought better of it. */
export function passkeyFault(error: unknown): string | null {
  if (error instanceof Error && (error.name === 'NotAllowedError' || error.name === 'AbortError')) return null;
  return error instanceof Error ? error.message : 'The device did not answer.';
}

import { createReadStream } from 'node:fs';
import { Upload } from 'tus-js-client';
import type { ChannelRoom } from '../../core/publishing/publication';
import { PassingError } from '../jobs/job-runner';
import type { HostPlace } from './places';
import { NotTakenError, SignedOutError } from './troubles';

/** Who is let in, and where. */
export interface LetIn {
  readonly host: HostPlace;
  /** What is shown to be let in; asked for anew with each request, since it is not good for long. @throws {SignedOutError} @throws {PassingError} */
  token(): Promise<string>;
  /** The host said no to one that was thought good: the next is another, or nobody is signed in any more. */
  doubt(token: string): Promise<void>;
  /** As the host calls the channel. */
  readonly name: string;
}

/** Something at a host, as it tells of it. */
export interface Outside {
  readonly id: string;
  readonly state: string;
  readonly share: number | null;
  /** Where people look at it. */
  readonly address: string;
  /** Where its bytes are sent to, by tus 1.0. */
  readonly upload: string | null;
}

const PATIENCE_MS = 30_000;

/** The host took a word no more. */
class WordRefusedError extends PassingError {}

/** A word may be renewed while a request with the one before it is on its way: once, another is tried at once, and nobody has to be told. */
async function withAnotherWord<Value>(work: () => Promise<Value>): Promise<Value> {
  try {
    return await work();
  } catch (error) {
    if (!(error instanceof WordRefusedError)) throw error;
    return work();
  }
}

/**
 * Asks a host below `api/`.
 *
 * @returns null when the thing is not there
 * @throws {PassingError} for what may go otherwise later @throws {SignedOutError} when nobody is signed in @throws {NotTakenError} with the host’s own words
 */
export function callHost(
  to: LetIn,
  method: 'GET' | 'POST' | 'DELETE',
  path: string,
  signal: AbortSignal,
  more: HostQuestion = {},
): Promise<Outside | null> {
  return withAnotherWord(() => calledOnce(to, method, path, signal, more));
}

interface HostQuestion {
  readonly key?: string;
  readonly body?: unknown;
}

async function calledOnce(
  to: LetIn,
  method: string,
  path: string,
  signal: AbortSignal,
  more: HostQuestion,
): Promise<Outside | null> {
  const { host, name } = to;
  const token = await to.token();
  const answer = await fetch(`${host.issuer.href}/api/${path}`, {
    method,
    headers: {
      authorization: `Bearer ${token}`,
      ...(more.key !== undefined && { 'idempotency-key': more.key }),
      ...(more.body !== undefined && { 'content-type': 'application/json' }),
    },
    ...(more.body !== undefined && { body: JSON.stringify(more.body) }),
    redirect: 'error',
    signal: AbortSignal.any([signal, AbortSignal.timeout(PATIENCE_MS)]),
  }).catch((error: unknown) => {
    signal.throwIfAborted();
    throw new PassingError(`${name} cannot be reached.`, { cause: error });
  });
  const said = (await answer.json().catch(() => ({}))) as Partial<Outside> & { problem?: unknown };
  const words = typeof said.problem === 'string' ? said.problem.slice(0, 300) : `It answered ${answer.status}.`;
  if (answer.status >= 500 || answer.status === 429) throw new PassingError(`${name}: ${words}`);
  if (answer.status === 401) throw await doubted(to, token);
  if (answer.status === 404 || answer.status === 410) return null;
  if (!answer.ok) throw new NotTakenError(`${name} did not take it: ${words}`);
  const isWebAddress = (text: unknown): text is string => typeof text === 'string' && /^https?:\/\//.test(text);
  return {
    id: String(said.id ?? ''),
    state: String(said.state ?? ''),
    share: typeof said.share === 'number' ? said.share : null,
    address: isWebAddress(said.address) ? said.address : '',
    upload: isWebAddress(said.upload) ? said.upload : null,
  };
}

const ROOM_PATIENCE_MS = 5000;

/** What a host tells of the channel that a word lets in to; null when it does not. */
export async function channelAt(
  { issuer }: HostPlace,
  token: string,
  signal: AbortSignal = AbortSignal.timeout(PATIENCE_MS),
): Promise<{ readonly name?: unknown; readonly usedBytes?: unknown; readonly mostBytes?: unknown } | null> {
  const headers = { authorization: `Bearer ${token}` };
  const answer = await fetch(`${issuer.href}/api/channel`, { headers, redirect: 'error', signal });
  return answer.ok ? ((await answer.json()) as object) : null;
}

/** What a host tells of a channel’s room; null when it tells none. Who waits for it can do without. */
export async function roomAt({ host, token }: LetIn, signal: AbortSignal): Promise<ChannelRoom | null> {
  const patience = AbortSignal.any([signal, AbortSignal.timeout(ROOM_PATIENCE_MS)]);
  const { usedBytes, mostBytes } = (await channelAt(host, await token(), patience)) ?? {};
  const isCount = (value: unknown): value is number => Number.isSafeInteger(value) && (value as number) >= 0;
  return isCount(usedBytes) && isCount(mostBytes) ? { usedBytes, mostBytes } : null;
}

/** It is tried again with another word; where there is none, that says so. */
async function doubted(to: LetIn, token: string): Promise<WordRefusedError> {
  await to.doubt(token);
  return new WordRefusedError(`“${to.name}” wants to know again who asks.`);
}

interface Sending {
  readonly file: string;
  readonly byteCount: number;
  /** Where uploads begin. */
  readonly endpoint: string;
  readonly video: string;
  /** Of one that was begun before; null: none was. */
  readonly uploadUrl: string | null;
  readonly signal: AbortSignal;
  begun(uploadUrl: string): void;
  progress(share: number): void;
}

/** In pieces, so that little is sent twice after a line broke, and what is told of has arrived. */
const PIECE_BYTES = 1024 * 1024;

/** Sends a file by tus 1.0, going on where an earlier try ended. @throws {PassingError} @throws {SignedOutError} */
export function sendFile(to: LetIn, sending: Sending): Promise<void> {
  let { uploadUrl } = sending;
  const begun = (url: string) => {
    uploadUrl = url;
    sending.begun(url);
  };
  return withAnotherWord(() => sentOnce(to, { ...sending, uploadUrl, begun }));
}

function sentOnce(to: LetIn, sending: Sending): Promise<void> {
  const { file, byteCount, endpoint, video, uploadUrl, signal } = sending;
  let token = '';
  return new Promise((resolve, reject) => {
    const upload = new Upload(createReadStream(file), {
      endpoint,
      uploadUrl,
      uploadSize: byteCount,
      chunkSize: PIECE_BYTES,
      metadata: { video },
      // A long upload outlives its word: each piece is sent with one that is good.
      onBeforeRequest: async (request) => {
        token = await to.token();
        request.setHeader('authorization', `Bearer ${token}`);
      },
      // Trying again is the work of who ordered this: with pauses, and told.
      retryDelays: null,
      storeFingerprintForResuming: false,
      onUploadUrlAvailable: () => {
        if (upload.url) sending.begun(upload.url);
      },
      onChunkComplete: (_piece, arrived) => sending.progress(arrived / byteCount),
      onSuccess: () => resolve(),
      onError(error) {
        const status = 'originalResponse' in error ? error.originalResponse?.getStatus() : undefined;
        if (error instanceof SignedOutError) reject(error);
        else if (status === 401) doubted(to, token).then(reject, reject);
        else if (status !== undefined && status >= 400 && status < 500 && status !== 429 && status !== 409)
          reject(new NotTakenError(`${to.name} did not take the file: it answered ${status}.`));
        else reject(new PassingError(`The line to ${to.name} broke while the film was on its way.`, { cause: error }));
      },
    });
    const stop = () => void upload.abort().then(() => reject(signal.reason as Error), reject);
    if (signal.aborted) return stop();
    signal.addEventListener('abort', stop, { once: true });
    upload.start();
  });
}

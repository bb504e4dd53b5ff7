import { contentHash } from '../blobs/content-hash';
import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { request, type IncomingMessage } from 'node:http';
import { pipeline } from 'node:stream/promises';
import { Transform } from 'node:stream';
import type { DriveState } from '../../core/disc/disc-making';

/** The drive could not do something; `message` is for the person. */
export class DriveError extends Error {
  override readonly name = 'DriveError';
  constructor(
    message: string,
    /** Another disc, or a free drive, would help. */
    readonly waits: boolean,
  ) {
    super(message);
  }
}

/** A disc drive. */
export interface Drive {
  /** Null when it does not answer. */
  state(): Promise<DriveState | null>;
  /** Writes an image. @returns the serial number of the disc @throws {DriveError} */
  write(image: string, onShare: (share: number) => void, signal: AbortSignal): Promise<string>;
  /** Reads the disc back. @returns what is on it as a content hash @throws {DriveError} */
  read(onShare: (share: number) => void, signal: AbortSignal): Promise<string>;
  openTray(): Promise<void>;
}

const SENTENCES: Readonly<Record<string, readonly [sentence: string, waits: boolean]>> = {
  'no-disc': ['There is no disc in the drive.', true],
  'not-blank': ['The disc in the drive is not blank.', true],
  busy: ['The drive is at another disc.', true],
  full: ['The image does not fit on the disc that is in the drive.', false],
  unreadable: ['The disc cannot be read back.', false],
};

/** A drive that answers at an address. @param address where, with who asks */
export function driveAt(address: URL, key: string): Drive {
  const cookie = `tanager-stand-ins=${key}`;
  const at = (part: string) => new URL(`/disc-drive/${part}`, address);

  return {
    async state() {
      const answer = await fetch(at('state'), { headers: { cookie }, signal: AbortSignal.timeout(3000) }).catch(
        () => null,
      );
      return answer?.ok ? ((await answer.json()) as DriveState) : null;
    },
    async write(image, onShare, signal) {
      const { size } = await stat(image);
      const asked = request(at('disc'), { method: 'PUT', headers: { cookie, 'content-length': size }, signal });
      const answered = answerOf(asked);
      const sent = pipeline(createReadStream(image), counting(size, onShare), asked, { signal });
      // It may refuse before all is sent; then what it says counts.
      sent.catch(() => {});
      const { status, body } = await answered.finally(() => asked.destroy());
      if (status === 200) return String(body.serial);
      const problem = String(body.problem);
      if (problem === 'write-failed')
        throw new DriveError(
          `The drive broke off at ${Number(body.percent)} %. That disc is spoilt; put in another one.`,
          false,
        );
      throw driveError(problem);
    },
    async read(onShare, signal) {
      const asked = request(at('disc'), { headers: { cookie }, signal });
      asked.end();
      const response = await responseTo(asked);
      if (response.statusCode !== 200) throw driveError(String((await bodyOf(response)).problem));
      const hash = contentHash();
      const of = Number(response.headers['content-length']);
      let bytes = 0;
      for await (const chunk of response as AsyncIterable<Buffer>) {
        hash.update(chunk);
        bytes += chunk.length;
        onShare(of > 0 ? Math.min(1, bytes / of) : 0);
      }
      return hash.id();
    },
    async openTray() {
      await fetch(at('tray'), { method: 'POST', headers: { cookie }, signal: AbortSignal.timeout(3000) }).catch(
        () => {},
      );
    },
  };
}

function driveError(problem: string): DriveError {
  const [sentence, waits] = SENTENCES[problem] ?? ['The drive refused the disc.', false];
  return new DriveError(sentence, waits);
}

function counting(of: number, onShare: (share: number) => void): Transform {
  let bytes = 0;
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      bytes += chunk.length;
      onShare(of > 0 ? Math.min(1, bytes / of) : 0);
      done(null, chunk);
    },
  });
}

function responseTo(asked: ReturnType<typeof request>): Promise<IncomingMessage> {
  return new Promise((resolve, reject) => {
    asked.on('response', resolve);
    asked.on('error', reject);
  });
}

async function answerOf(asked: ReturnType<typeof request>) {
  const response = await responseTo(asked);
  return { status: response.statusCode ?? 0, body: await bodyOf(response) };
}

async function bodyOf(response: IncomingMessage): Promise<Record<string, unknown>> {
  let text = '';
  for await (const chunk of response.setEncoding('utf8') as AsyncIterable<string>) text += chunk;
  try {
    return JSON.parse(text) as Record<string, unknown>;
  } catch {
    return {};
  }
}

import { createHash, createHmac } from 'node:crypto';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';

export const KEYS = { id: 'TANAGERTEST', secret: 'not much of a secret' };

/** A store that speaks as much S3 as is used here, in memory: it checks who signed what (Signature Version 4, headers only) and every hash that is said. */
export interface ObjectServer {
  readonly endpoint: string;
  readonly objects: Map<string, Buffer>;
  /** What was asked, such as `GET originals/… bytes=0-9`. */
  readonly asked: string[];
  /** It answers nobody. */
  away: boolean;
  close(): Promise<void>;
}

const BUCKET = 'films';
/** Few, so that lists have pages. */
const PAGE = 3;
const sha = (bytes: Buffer | string) => createHash('sha256').update(bytes).digest('hex');
const hmac = (key: Buffer | string, text: string) => createHmac('sha256', key).update(text).digest();

export async function openObjectServer(): Promise<ObjectServer> {
  const objects = new Map<string, Buffer>();
  const cameAt = new Map<string, string>();
  const uploads = new Map<string, Map<number, Buffer>>();
  const asked: string[] = [];
  const state = { away: false };
  const server = createServer((request, response) => {
    if (state.away) return void request.socket.destroy();
    void answer(request, response).catch((error: unknown) => refuse(response, 500, 'InternalError', String(error)));
  });

  async function answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const body = Buffer.concat(await request.toArray());
    const url = new URL(request.url!, 'http://store');
    const fault = faultOfSignature(request, url, body);
    if (fault) return refuse(response, 403, fault, 'refused');
    const [, bucket, ...rest] = url.pathname.split('/');
    if (bucket !== BUCKET) return refuse(response, 404, 'NoSuchBucket', 'no such bucket');
    const key = decodeURIComponent(rest.join('/'));
    const query = url.searchParams;
    asked.push([request.method, key, request.headers.range ?? ''].join(' ').trim());
    if (key === '') return bucketAsked(request, response, query, body);
    const uploadId = query.get('uploadId');
    switch (request.method as string) {
      case 'POST': {
        if (query.has('uploads')) {
          const id = `u${uploads.size + 1}`;
          uploads.set(id, new Map());
          return xml(
            response,
            `<InitiateMultipartUploadResult><UploadId>${id}</UploadId></InitiateMultipartUploadResult>`,
          );
        }
        const parts = [...uploads.get(uploadId!)!].toSorted(([a], [b]) => a - b).map(([, part]) => part);
        objects.set(key, Buffer.concat(parts));
        cameAt.set(key, new Date().toISOString());
        uploads.delete(uploadId!);
        return xml(response, `<CompleteMultipartUploadResult><Key>${key}</Key></CompleteMultipartUploadResult>`);
      }
      case 'PUT':
        if (uploadId) uploads.get(uploadId)!.set(Number(query.get('partNumber')), body);
        else objects.set(key, body);
        cameAt.set(key, new Date().toISOString());
        response.setHeader('etag', `"${sha(body).slice(0, 32)}"`);
        return void response.end();
      case 'DELETE':
        if (uploadId) uploads.delete(uploadId);
        else objects.delete(key);
        response.statusCode = 204;
        return void response.end();
      default:
        return object(request, response, key);
    }
  }

  function object(request: IncomingMessage, response: ServerResponse, key: string): void {
    const bytes = objects.get(key);
    if (!bytes) return refuse(response, 404, 'NoSuchKey', 'no such key');
    const range = /^bytes=(\d+)-(\d+)$/.exec(request.headers.range ?? '');
    response.setHeader('last-modified', new Date().toUTCString());
    if (!range) {
      response.setHeader('content-length', bytes.length);
      return void response.end(request.method === 'HEAD' ? undefined : bytes);
    }
    const [from, to] = [Number(range[1]), Math.min(Number(range[2]), bytes.length - 1)];
    if (from >= bytes.length) return refuse(response, 416, 'InvalidRange', 'not that long');
    response.statusCode = 206;
    response.setHeader('content-range', `bytes ${from}-${to}/${bytes.length}`);
    response.end(bytes.subarray(from, to + 1));
  }

  function bucketAsked(request: IncomingMessage, response: ServerResponse, query: URLSearchParams, body: Buffer): void {
    if (request.method === 'HEAD') return void response.end();
    if (request.method === 'POST') {
      for (const [, key] of body.toString().matchAll(/<Key>(.*?)<\/Key>/g)) objects.delete(key!);
      return xml(response, '<DeleteResult></DeleteResult>');
    }
    const all = [...objects.keys()].filter((key) => key.startsWith(query.get('prefix') ?? '')).toSorted();
    const from = Number(query.get('continuation-token') ?? 0);
    const listed = all.slice(from, from + PAGE).map((key) => {
      const size = objects.get(key)!.length;
      return `<Contents><Key>${key}</Key><Size>${size}</Size><LastModified>${cameAt.get(key)}</LastModified></Contents>`;
    });
    const more = from + PAGE < all.length ? `<NextContinuationToken>${from + PAGE}</NextContinuationToken>` : '';
    xml(response, `<ListBucketResult>${listed.join('')}${more}</ListBucketResult>`);
  }

  await new Promise<void>((resolve) => {
    server.listen(0, '127.0.0.1', resolve);
  });
  return {
    endpoint: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    objects,
    asked,
    get away() {
      return state.away;
    },
    set away(away) {
      state.away = away;
    },
    close: () =>
      new Promise((resolve) => {
        server.closeAllConnections();
        server.close(() => resolve());
      }),
  };
}

/** Signature Version 4 in the authorization header; null when all is right. */
function faultOfSignature(request: IncomingMessage, url: URL, body: Buffer): string | null {
  const said = /^AWS4-HMAC-SHA256 Credential=([^/]+)\/([^,]+), SignedHeaders=([^,]+), Signature=([0-9a-f]+)$/.exec(
    request.headers.authorization ?? '',
  );
  if (!said) return 'AccessDenied';
  const [, id, scope, signed, signature] = said as unknown as [string, string, string, string, string];
  const bodyHash = String(request.headers['x-amz-content-sha256']);
  if (bodyHash !== 'UNSIGNED-PAYLOAD' && bodyHash !== sha(body)) return 'XAmzContentSHA256Mismatch';
  const encoded = (text: string) =>
    encodeURIComponent(text).replace(/[!'()*]/g, (sign) => `%${sign.charCodeAt(0).toString(16).toUpperCase()}`);
  const query = [...url.searchParams]
    .map(([name, value]) => `${encoded(name)}=${encoded(value)}`)
    .toSorted()
    .join('&');
  const headers = signed.split(';').map((name) => `${name}:${String(request.headers[name]).trim()}\n`);
  const canonical = [request.method, url.pathname, query, headers.join(''), signed, bodyHash].join('\n');
  const text = ['AWS4-HMAC-SHA256', request.headers['x-amz-date'], scope, sha(canonical)].join('\n');
  const key = scope.split('/').reduce<Buffer | string>((from, part) => hmac(from, part), `AWS4${KEYS.secret}`);
  return id === KEYS.id && hmac(key, text).toString('hex') === signature ? null : 'SignatureDoesNotMatch';
}

function xml(response: ServerResponse, text: string): void {
  response.setHeader('content-type', 'application/xml');
  response.end(`<?xml version="1.0" encoding="UTF-8"?>${text}`);
}

function refuse(response: ServerResponse, status: number, code: string, message: string): void {
  response.statusCode = status;
  xml(response, `<Error><Code>${code}</Code><Message>${message}</Message></Error>`);
}

import { patientFetch } from './patient-fetch';

interface Kept {
  readonly widthPx: number;
  readonly blob: Blob;
  readonly status: number;
  readonly headers: Headers;
}

/**
 * Fetches as `patientFetch` does and keeps every answer, so that what was once there is there when the server is not. Of a picture the largest size that was
 * asked for is kept, and stands for larger ones when they cannot be had.
 */
export function keepingFetch(): (url: string) => Promise<Response> {
  const kept = new Map<string, Kept>();
  return async (url) => {
    const [path, query = ''] = url.split('?') as [string, string?];
    const widthPx = Number(new URLSearchParams(query).get('width') ?? 0);
    const known = kept.get(path);
    if (known && known.widthPx >= widthPx) return answerOf(known);
    const response = known ? await fetch(url).catch(() => null) : await patientFetch(url);
    if (!response || (known && !response.ok)) return answerOf(known!);
    const fresh = { widthPx, blob: await response.blob(), status: response.status, headers: response.headers };
    if (response.ok) kept.set(path, fresh);
    return answerOf(fresh);
  };
}

function answerOf({ blob, status, headers }: Kept): Response {
  return new Response(blob, { status, headers });
}

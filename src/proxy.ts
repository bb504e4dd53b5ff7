import { NextResponse, type NextRequest } from 'next/server';
import { assertOwnAddress, cameByTls } from './server/http/own-address';
import { isRefusal } from './server/http/refusal';

// Routes below /api ask the same for themselves: a proxy in their way would cut uploads short.
export const config = { matcher: ['/((?!api/|_next/static/|drawing/|fonts/).*)'] };

/** The one page that other sites may show within theirs. */
const EMBEDDED = /^\/s\/[\w-]+\/embed$/;

/** What is asked of every page before it is made: whether the address is ours, and that it is only looked at; and what it may then load. */
export function proxy(request: NextRequest): NextResponse {
  const asked = { method: request.method, header: (name: string) => request.headers.get(name) };
  try {
    assertOwnAddress(asked);
  } catch (error) {
    if (isRefusal(error)) return new NextResponse(error.message, { status: error.status });
    throw error;
  }
  if (request.method !== 'GET' && request.method !== 'HEAD')
    return new NextResponse('Pages can only be looked at.', { status: 405, headers: { allow: 'GET, HEAD' } });
  const nonce = btoa(String.fromCharCode(...crypto.getRandomValues(new Uint8Array(18))));
  const policy = policyWith(nonce, EMBEDDED.test(request.nextUrl.pathname) ? '*' : "'none'");
  // Next reads the nonce from the policy and puts it on the scripts it writes into the page.
  const headers = new Headers(request.headers);
  headers.set('content-security-policy', policy);
  headers.set('x-tanager-path', request.nextUrl.pathname + request.nextUrl.search);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('content-security-policy', policy);
  // Who came over TLS comes over nothing less for a year.
  if (cameByTls(asked)) response.headers.set('strict-transport-security', 'max-age=31536000');
  return response;
}

/** Everything comes from here alone; scripts only those that Next wrote into this very page, and what those load. */
function policyWith(nonce: string, framedBy: string): string {
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic' 'wasm-unsafe-eval'${process.env.NODE_ENV === 'development' ? " 'unsafe-eval'" : ''}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' blob: data:",
    "media-src 'self' blob:",
    "worker-src 'self' blob:",
    "connect-src 'self'",
    "object-src 'none'",
    `frame-ancestors ${framedBy}`,
    "base-uri 'none'",
    "form-action 'self'",
  ].join('; ');
}

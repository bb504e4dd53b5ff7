import type { NextConfig } from 'next';

const config: NextConfig = {
  agentRules: false,
  poweredByHeader: false,
  reactStrictMode: true,
  serverExternalPackages: [
    '@napi-rs/canvas',
    '@libsql/client',
    'sharp',
    'harfbuzzjs',
    'file-type',
    'exifr',
    'send',
    '@tus/server',
    '@tus/file-store',
  ],
  typescript: { ignoreBuildErrors: true },
  headers: async () => [
    {
      source: '/:path*',
      headers: [
        { key: 'X-Content-Type-Options', value: 'nosniff' },
        { key: 'X-Frame-Options', value: 'DENY' },
        { key: 'Referrer-Policy', value: 'no-referrer' },
        // Next writes its start-up scripts into the page; everything else comes from here alone.
        {
          key: 'Content-Security-Policy',
          value:
            "default-src 'self'; script-src 'self' 'unsafe-inline' 'wasm-unsafe-eval'; style-src 'self' 'unsafe-inline'; img-src 'self' blob: data:; media-src 'self' blob:; worker-src 'self' blob:; connect-src 'self'; frame-ancestors 'none'; base-uri 'none'; form-action 'self'",
        },
      ],
    },
    { source: '/s/:token', headers: [{ key: 'X-Robots-Tag', value: 'noindex' }] },
  ],
};

export default config;

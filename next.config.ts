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
    'pino',
  ],
  typescript: { ignoreBuildErrors: true },
  headers: async () => [
    {
      source: '/:path*',
      headers: [
        { key: 'X-Content-Type-Options', value: 'nosniff' },
        { key: 'X-Frame-Options', value: 'DENY' },
        { key: 'Referrer-Policy', value: 'no-referrer' },
      ],
    },
    { source: '/s/:token', headers: [{ key: 'X-Robots-Tag', value: 'noindex' }] },
  ],
};

export default config;

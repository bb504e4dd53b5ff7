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
    'libraw-wasm',
    'send',
    '@tus/server',
    '@tus/file-store',
    'pino',
    '@node-rs/argon2',
    'nodemailer',
    'smtp-server',
    'mailparser',
    'tus-js-client',
    'bullmq',
    'ioredis',
    '@aws-sdk/client-s3',
    '@aws-sdk/lib-storage',
  ],
  typescript: { ignoreBuildErrors: true },
  headers: async () => [
    {
      source: '/:path*',
      headers: [
        { key: 'X-Content-Type-Options', value: 'nosniff' },
        { key: 'Referrer-Policy', value: 'no-referrer' },
      ],
    },
    // A film's embedded page alone may be framed.
    { source: '/((?!s/[^/]+/embed$).*)', headers: [{ key: 'X-Frame-Options', value: 'DENY' }] },
    { source: '/b/:path*', headers: [{ key: 'X-Robots-Tag', value: 'noindex' }] },
    { source: '/s/:path*', headers: [{ key: 'X-Robots-Tag', value: 'noindex' }] },
  ],
};

export default config;

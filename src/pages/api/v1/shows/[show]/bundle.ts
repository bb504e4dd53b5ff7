import { sendBundle } from '@/server/bundles/send-bundle';

// Beside the App Router: its route handlers drop Content-Length, which download bars need.
export const config = { api: { bodyParser: false, responseLimit: false } };

export default sendBundle('GET /api/v1/shows/[show]/bundle');

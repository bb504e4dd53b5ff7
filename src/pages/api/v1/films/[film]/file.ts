import type { NextApiRequest, NextApiResponse } from 'next';
import { sendFilm } from '@/server/films/send-film';

// Beside the App Router: its route handlers drop Content-Length, which players and download bars need.
export const config = { api: { bodyParser: false, responseLimit: false } };

export default function handler(request: NextApiRequest, response: NextApiResponse): Promise<void> {
  return sendFilm(request, response, 'GET /api/v1/films/[film]/file');
}

import type { NextApiRequest, NextApiResponse } from 'next';
import { sendFilm } from '@/server/films/send-film';

export const config = { api: { bodyParser: false, responseLimit: false } };

export default function handler(request: NextApiRequest, response: NextApiResponse): Promise<void> {
  return sendFilm(request, response, 'GET /api/v1/screenings/[token]/film');
}

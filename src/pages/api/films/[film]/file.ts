import type { NextApiRequest, NextApiResponse } from 'next';
import { sendFilm } from '@/server/films/send-film';
import { runningServer } from '@/server/running-server';

// Beside the App Router: its route handlers drop Content-Length, which players and download bars need.
export const config = { api: { bodyParser: false, responseLimit: false } };

export default async function handler(request: NextApiRequest, response: NextApiResponse): Promise<void> {
  const { films } = await runningServer();
  await sendFilm(request, response, await films.find(String(request.query.film)), 'download');
}

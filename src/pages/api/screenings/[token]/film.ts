import type { NextApiRequest, NextApiResponse } from 'next';
import { sendFilm } from '@/server/films/send-film';
import { runningServer } from '@/server/running-server';

export const config = { api: { bodyParser: false, responseLimit: false } };

export default async function handler(request: NextApiRequest, response: NextApiResponse): Promise<void> {
  const { films } = await runningServer();
  await sendFilm(request, response, await films.findByToken(String(request.query.token)), 'watch');
}

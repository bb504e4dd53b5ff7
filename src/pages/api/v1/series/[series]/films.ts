import { sendFilms } from '@/server/series/send-films';

export const config = { api: { bodyParser: false, responseLimit: false } };

export default sendFilms('GET /api/v1/series/[series]/films');

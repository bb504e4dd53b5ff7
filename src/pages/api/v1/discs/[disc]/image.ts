import { sendImage } from '@/server/disc/send-disc';

export const config = { api: { bodyParser: false, responseLimit: false } };

export default sendImage('GET /api/v1/discs/[disc]/image');

import { sendMoving } from '@/server/disc/send-disc';

export const config = { api: { bodyParser: false, responseLimit: false } };

export default sendMoving('GET /api/v1/discs/[disc]/pages/[page]/moving');

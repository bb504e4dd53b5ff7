import { sendMarks } from '@/server/assets/send-marks';

export default sendMarks('GET /api/v1/shows/[show]/marks');

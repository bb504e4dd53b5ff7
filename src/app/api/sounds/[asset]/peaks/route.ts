import { soundPart } from '@/server/assets/sound-part';

export const GET = soundPart('peaks', 'application/octet-stream');

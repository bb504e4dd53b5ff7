import { soundPart } from '@/server/assets/sound-part';

export const GET = soundPart('listening.opus', 'audio/ogg');

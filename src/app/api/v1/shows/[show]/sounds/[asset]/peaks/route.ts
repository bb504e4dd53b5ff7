import { route } from '@/server/http/route';
import { soundPart } from '@/server/assets/sound-part';

export const GET = route(
  'GET /api/v1/shows/[show]/sounds/[asset]/peaks',
  soundPart('peaks', 'application/octet-stream'),
);

import type { Asked } from '../http/own-address';
import { THE_STUDIO, type Actor } from './may-do';

/** Who asks. Everybody who reaches the server works for its one studio until there are accounts; only this and `mayDo` change then. */
export function actorOf(_asked: Asked): Extract<Actor, { kind: 'member' }> {
  return { kind: 'member', studioId: THE_STUDIO };
}

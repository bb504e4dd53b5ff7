/** How light the room of the studio’s people is; what strangers see does not change with it. */
export type Room = 'light' | 'dark';

export const ROOM_COOKIE = 'tanager-room';

export function roomOf(kept: string | undefined): Room {
  return kept === 'dark' ? 'dark' : 'light';
}

'use client';

import { Lightbulb, LightbulbOff } from 'lucide-react';
import { useSyncExternalStore } from 'react';
import { Button } from './button';
import { ROOM_COOKIE, roomOf, type Room } from './room';

const listeners = new Set<() => void>();
const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};
const here = (): Room => roomOf(document.documentElement.dataset.room);

/** Puts the light out, or on again. Kept for a year in a cookie, so that the first drawing is right already. */
export function switchRoom(): void {
  const next: Room = here() === 'dark' ? 'light' : 'dark';
  document.documentElement.dataset.room = next;
  document.cookie = `${ROOM_COOKIE}=${next}; path=/; max-age=31536000; samesite=lax`;
  for (const listener of listeners) listener();
}

export function RoomSwitch() {
  const room = useSyncExternalStore<Room | null>(subscribe, here, () => null);
  const dark = room === 'dark';
  return (
    <Button
      look="quiet"
      square
      aria-label="Dark room"
      aria-pressed={dark}
      title={dark ? 'Light on' : 'Light out: a dark room'}
      onClick={switchRoom}
      data-part="room"
    >
      {dark ? <LightbulbOff size={16} /> : <Lightbulb size={16} />}
    </Button>
  );
}

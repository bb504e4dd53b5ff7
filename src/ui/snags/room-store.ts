import { createStore } from 'zustand';
import type { SlideId } from '../../core/show/ids';

/** Whether the room where a show is looked over is open, and with what of it first. */
export const snagsRoom = createStore<{ readonly open: boolean; readonly at: SlideId | null }>(() => ({
  open: false,
  at: null,
}));

export function openSnags(at: SlideId | null = null): void {
  snagsRoom.setState({ open: true, at });
}

export function closeSnags(): void {
  snagsRoom.setState({ open: false, at: null });
}

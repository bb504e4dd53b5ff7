import { whenIdle } from '../kit/when-idle';
import { openMixOutput, type MixOutput } from './perform-mix';

/** What all players of a page sound through. Opening it holds the page up for a tenth of a second and more: it is done once, while nobody is busy. */
export interface SoundDevice {
  /** `output` is null inside when it could not be opened. */
  open(): { readonly context: AudioContext; readonly output: Promise<MixOutput | null> };
  /** A player that is done. With the last of them the device rests. */
  leave(): void;
}

let context: AudioContext | null = null;
let output: Promise<MixOutput | null> | null = null;
let players = 0;

/** For one player more. */
export function soundDevice(): SoundDevice {
  players += 1;
  if (!context) whenIdle(openResting);
  return {
    open,
    leave() {
      players -= 1;
      if (players === 0) void context?.suspend().catch(() => {});
    },
  };
}

function open(): ReturnType<SoundDevice['open']> {
  const opened = (context ??= new AudioContext({ sampleRate: 48_000 }));
  // The server is away, or the page is being left: pictures play without sound, and it is tried again with the next playing. A context asks for a module once.
  output ??= openMixOutput(opened).catch(() => {
    [context, output] = [null, null];
    void opened.close().catch(() => {});
    return null;
  });
  return { context: opened, output };
}

/** Until something plays the sound card sleeps; playing wakes it. */
function openResting(): void {
  if (!context)
    void open()
      .context.suspend()
      .catch(() => {});
}

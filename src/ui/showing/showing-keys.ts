import type { ShowingCommand } from '../../core/showing/showing';

/** What a key means in a showing. The small hand-held remotes that people present with send Page Up and Page Down, `.` or `b`, and often F5. */
export function commandOfKey({ key, ctrlKey, metaKey, altKey }: KeyboardEvent): ShowingCommand | null {
  if (ctrlKey || metaKey || altKey) return null;
  switch (key) {
    case ' ':
    case 'Enter':
    case 'ArrowRight':
    case 'ArrowDown':
    case 'PageDown':
      return { do: 'next' };
    case 'ArrowLeft':
    case 'ArrowUp':
    case 'PageUp':
    case 'Backspace':
      return { do: 'back' };
    case '.':
    case 'b':
    case 'B':
      return { do: 'black' };
    case 'h':
    case 'H':
      return { do: 'hold' };
    case 'F5':
    case 'Home':
      return { do: 'start' };
    case 't':
    case 'T':
      return { do: 'test' };
    default:
      return null;
  }
}

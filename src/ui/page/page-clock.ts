/** Further apart than this, picture and sound are brought together again. */
const MOST_APART_MS = 40;
const LOOK_EVERY_MS = 400;

export const clockNow = () => performance.timeOrigin + performance.now();

interface PageClockParts {
  /** What sounds, from the stretch's start on; null when nothing does. */
  readonly sound: HTMLAudioElement | null;
  readonly lengthMs: number;
  /** The pictures run on from a moment at a time of the clock. */
  readonly onRun: (momentMs: number, atMs: number) => void;
  /** They stand still. */
  readonly onStill: (momentMs: number) => void;
  /** Playing, standing, or at the end. */
  readonly onChange: () => void;
  /** The sound would not begin, and so nothing runs. */
  readonly onRefused: (error: unknown) => void;
}

/** Runs pictures and sound together; moments are counted from the start of what is played. */
export interface PageClock {
  readonly playing: boolean;
  momentMs(): number;
  play(): void;
  pause(): void;
  seek(momentMs: number): void;
}

export function createPageClock({ sound, lengthMs, onRun, onStill, onChange, onRefused }: PageClockParts): PageClock {
  /** While playing: what was seen when. */
  let run: { readonly momentMs: number; readonly atMs: number } | null = null;
  let playing = false;
  let still = 0;
  let counted = 0;
  let looking: ReturnType<typeof setInterval> | null = null;
  const last = lengthMs - 1;
  const momentMs = () => (run ? Math.min(last, run.momentMs + Math.max(0, clockNow() - run.atMs)) : still);

  async function start(fromMs: number): Promise<void> {
    counted += 1;
    const mine = counted;
    playing = true;
    run = null;
    still = fromMs;
    if (sound && fromMs < 1000 * (sound.duration || Infinity)) {
      sound.currentTime = fromMs / 1000;
      const refused = await sound.play().then(
        () => null,
        (error: unknown) => ({ error }),
      );
      // Stopped, or begun elsewhere, before it could sound.
      if (mine !== counted) return;
      if (refused) {
        stop(fromMs);
        return onRefused(refused.error);
      }
    }
    runFrom(sound && !sound.paused ? 1000 * sound.currentTime : fromMs);
    if (looking) clearInterval(looking);
    looking = setInterval(look, LOOK_EVERY_MS);
    onChange();
  }

  function runFrom(moment: number): void {
    run = { momentMs: moment, atMs: clockNow() };
    onRun(moment, run.atMs);
  }

  function look(): void {
    const now = momentMs();
    if (now >= last) return stop(last);
    if (!sound || sound.paused || sound.seeking) return;
    const heard = 1000 * sound.currentTime;
    if (Math.abs(heard - now) > MOST_APART_MS) runFrom(heard);
  }

  function stop(at: number): void {
    counted += 1;
    if (looking) clearInterval(looking);
    looking = null;
    sound?.pause();
    run = null;
    playing = false;
    still = at;
    onStill(at);
    onChange();
  }

  return {
    get playing() {
      return playing;
    },
    momentMs,
    play: () => void start(still >= last - 50 && !run ? 0 : momentMs()),
    pause: () => stop(momentMs()),
    seek(to) {
      const held = Math.max(0, Math.min(last, to));
      if (playing) void start(held);
      else {
        still = held;
        onStill(held);
        onChange();
      }
    },
  };
}

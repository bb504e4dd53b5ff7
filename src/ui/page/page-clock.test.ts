import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { createPageClock, type PageClock } from './page-clock';

/** A sound that begins when the test says so, and that does with a beginning cut short what a browser does. */
function heldSound() {
  let begun: { readonly yes: () => void; readonly no: (error: Error) => void } | null = null;
  const sound = {
    currentTime: 0,
    duration: 60,
    paused: true,
    seeking: false,
    play: () =>
      new Promise<void>((resolve, reject) => {
        begun?.no(new DOMException('interrupted', 'AbortError'));
        begun = { yes: resolve, no: reject };
      }),
    pause() {
      sound.paused = true;
      begun?.no(new DOMException('interrupted', 'AbortError'));
      begun = null;
    },
  };
  return {
    element: sound as unknown as HTMLAudioElement,
    sounds() {
      sound.paused = false;
      begun!.yes();
      begun = null;
    },
    refuses: (error: Error) => begun!.no(error),
  };
}

const settled = () =>
  new Promise((resolve) => {
    setImmediate(resolve);
  });

describe('the clock of a page', () => {
  let sound: ReturnType<typeof heldSound>;
  let clock: PageClock;
  let refusals: unknown[];
  let runs: number[];
  let stills: number[];
  beforeEach(() => {
    sound = heldSound();
    refusals = [];
    runs = [];
    stills = [];
    clock = createPageClock({
      sound: sound.element,
      lengthMs: 20_000,
      onRun: (momentMs) => runs.push(momentMs),
      onStill: (momentMs) => stills.push(momentMs),
      onChange: () => {},
      onRefused: (error) => refusals.push(error),
    });
  });
  afterEach(() => clock.pause());

  it('runs the pictures from where the sound begins, once it does', async () => {
    clock.seek(5000);
    clock.play();
    await settled();
    expect(runs).toEqual([]);
    sound.sounds();
    await settled();
    expect(runs).toEqual([5000]);
    expect(clock.momentMs()).toBeGreaterThanOrEqual(5000);
  });
  it('takes a stop before the sound began for a stop, not for a fault', async () => {
    clock.play();
    clock.pause();
    await settled();
    expect(clock.playing).toBe(false);
    expect([runs, refusals]).toEqual([[], []]);
  });
  it('goes where it was sent last, however fast it is sent about', async () => {
    clock.play();
    clock.seek(4000);
    clock.seek(9000);
    await settled();
    sound.sounds();
    await settled();
    expect([runs, refusals]).toEqual([[9000], []]);
  });
  it('stands where it stood when the sound is refused, and says so once', async () => {
    clock.seek(3000);
    clock.play();
    sound.refuses(new DOMException('press first', 'NotAllowedError'));
    await settled();
    expect(clock.playing).toBe(false);
    expect(clock.momentMs()).toBe(3000);
    expect(refusals).toHaveLength(1);
  });
  it('begins again from its end, and holds moments inside its length', () => {
    clock.seek(99_000);
    expect(stills.at(-1)).toBe(19_999);
    clock.seek(-5);
    expect(stills.at(-1)).toBe(0);
  });
});

import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals';
import { hearHands } from './busy-hands';

describe('hands at work', () => {
  let page: EventTarget;
  let heard: boolean[];
  let end: () => void;
  const does = (kind: string, more: object = {}) => page.dispatchEvent(Object.assign(new Event(kind), more));
  beforeEach(() => {
    jest.useFakeTimers();
    page = new EventTarget();
    heard = [];
    end = hearHands(page as Window, (busy) => heard.push(busy));
  });
  afterEach(() => {
    end();
    jest.useRealTimers();
  });

  it('are told once when they begin, and once when they have rested a while', () => {
    does('keydown');
    jest.advanceTimersByTime(500);
    does('wheel');
    jest.advanceTimersByTime(500);
    expect(heard).toEqual([true]);
    jest.advanceTimersByTime(300);
    expect(heard).toEqual([true, false]);
    does('pointerdown');
    expect(heard).toEqual([true, false, true]);
  });
  it('drag, and do not only pass over the page', () => {
    does('pointermove', { buttons: 0 });
    expect(heard).toEqual([]);
    does('pointermove', { buttons: 1 });
    expect(heard).toEqual([true]);
  });
  it('are heard no more once nobody asks', () => {
    does('keydown');
    end();
    does('wheel');
    jest.advanceTimersByTime(5000);
    expect(heard).toEqual([true]);
  });
});

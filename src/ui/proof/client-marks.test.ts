import { describe, expect, it } from '@jest/globals';
import { assetId } from '../../core/show/ids';
import { ServerRefusal } from '../show/call-server';
import { createClientMarks, type MarkSaid } from './client-marks';

const PICTURE = 'a'.repeat(64);

/** A studio that takes what it is told, and fails when it shall. */
function studio(failures: Error[] = []) {
  const heard: [string, MarkSaid][] = [];
  return {
    heard,
    send: (id: string, said: MarkSaid) => {
      const failure = failures.shift();
      if (failure) return Promise.reject(failure);
      heard.push([id, said]);
      return Promise.resolve();
    },
  };
}

describe('what a client says of pictures', () => {
  it('is seen at once and reaches the studio, the latest of each picture last', async () => {
    const { heard, send } = studio();
    const marks = createClientMarks([{ assetId: assetId(PICTURE), mark: 'linger', note: 'ours' }], send);
    marks.getState().say(PICTURE, { mark: 'keep' });
    marks.getState().say(PICTURE, { mark: 'leave-out' });
    expect(marks.getState().said.get(PICTURE)).toEqual({ mark: 'leave-out', note: 'ours' });
    expect(await marks.getState().settled()).toBe(true);
    expect(heard.at(-1)).toEqual([PICTURE, { mark: 'leave-out', note: 'ours' }]);
  });
  it('is tried again when the line is down, and says so meanwhile', async () => {
    const { heard, send } = studio([new TypeError('down'), new TypeError('down')]);
    const states: string[] = [];
    const marks = createClientMarks([], send, () => {
      states.push(marks.getState().state);
      return Promise.resolve();
    });
    marks.getState().say(PICTURE, { mark: 'keep' });
    expect(await marks.getState().settled()).toBe(true);
    expect([states, heard.length]).toEqual([['unsent', 'unsent'], 1]);
  });
  it('stops once the studio takes nothing more', async () => {
    const { heard, send } = studio([new ServerRefusal(409, 'It was sent.')]);
    const marks = createClientMarks([], send);
    marks.getState().say(PICTURE, { mark: 'keep' });
    expect(await marks.getState().settled()).toBe(false);
    marks.getState().say(PICTURE, { mark: 'linger' });
    expect([marks.getState().refusal, heard]).toEqual(['It was sent.', []]);
  });
});

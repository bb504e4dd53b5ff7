import { describe, expect, it } from '@jest/globals';
import { ServerRefusal } from './call-server';
import { faultSentence } from './say-fault';

describe('what went wrong', () => {
  it.each([
    [new ServerRefusal(409, 'It was changed meanwhile.'), 'It was changed meanwhile.'],
    [new Error('There is no logo yet.'), 'There is no logo yet.'],
    [new TypeError('Failed to fetch'), 'The server cannot be reached.'],
    ['nothing', 'The server cannot be reached.'],
  ])('%s is said in words for people', (error, says) => {
    expect(faultSentence(error)).toBe(says);
  });
});

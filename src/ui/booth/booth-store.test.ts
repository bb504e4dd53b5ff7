import { describe, expect, it } from '@jest/globals';
import { slideId } from '../../core/show/ids';
import { createBooth, loudnessOf, roomSentence, ROOM_MS, type Recorded } from './booth-store';
import { NoMicrophoneError } from './microphone';

const RATE = 48_000;
const room = (ms: number) => Float32Array.from({ length: (ms * RATE) / 1000 }, (_, at) => 0.0005 * Math.sin(at * 7.7));
const voice = (ms: number) => Float32Array.from({ length: (ms * RATE) / 1000 }, (_, at) => 0.2 * Math.sin(at / 20));

function opened() {
  const sent: Float32Array[] = [];
  const kept: Recorded[] = [];
  const letGo: string[] = [];
  const told: string[] = [];
  const failing: { now: () => void } = { now: () => {} };
  const waiting = { count: 0 };
  let hearing: { block(samples: Float32Array): void; gone(): void; muted(on: boolean): void } | null = null;
  const booth = createBooth({
    openMicrophone: async (_device, heard) => {
      hearing = heard;
      return { label: 'made-up microphone', deviceId: 'm1', close: () => {} };
    },
    begin: async () => 'take-1',
    sender: (_take, failed) => {
      failing.now = () => failed(new TypeError('Failed to fetch'));
      return {
        add: (samples) => void sent.push(samples),
        waiting: () => waiting.count,
        flush: async () => {},
        close: () => {},
      };
    },
    keep: async (recorded) => void kept.push(recorded),
    letGo: async (id) => void letGo.push(id),
    tell: (sentence) => void told.push(sentence),
  });
  const say = (samples: Float32Array) => {
    for (let from = 0; from < samples.length; from += 2400) hearing!.block(samples.slice(from, from + 2400));
  };
  return { booth, sent, kept, letGo, told, say, failing, waiting, hearing: () => hearing! };
}
const RECORDING = {
  name: 'Take 1',
  slideIds: [slideId('a'), slideId('b')],
  isRun: true,
  sentences: ['We set out at dusk.', 'The band played on.'],
  firstOf: [0, 1],
  cleaning: null,
};
const COUNTDOWN_MS = 2100;

describe('the booth', () => {
  it('listens to the room, counts down, records, and hands over everything from the first sample on', async () => {
    const { booth, say, sent, kept } = opened();
    await booth.hands.open(null);
    await booth.hands.record(RECORDING);
    expect(booth.getState().phase).toBe('room');
    say(room(ROOM_MS));
    expect(booth.getState()).toMatchObject({ phase: 'countdown', countdown: 3 });
    expect(booth.getState().roomDb).toBeLessThan(-60);
    say(room(COUNTDOWN_MS));
    expect(booth.getState().phase).toBe('recording');
    say(voice(1500));
    expect(booth.hands.next()).toBe(true);
    say(voice(1000));
    expect(booth.hands.next()).toBe(false);
    await booth.hands.stop();
    const all = sent.reduce((sum, samples) => sum + samples.length, 0);
    expect(all).toBe(((ROOM_MS + COUNTDOWN_MS + 2500) * RATE) / 1000);
    expect(kept[0]!.fromMs).toBe(ROOM_MS + COUNTDOWN_MS);
    expect(kept[0]!.presses).toEqual([
      { slideId: 'a', atMs: ROOM_MS + COUNTDOWN_MS },
      { slideId: 'b', atMs: ROOM_MS + COUNTDOWN_MS + 1500 },
    ]);
    expect(booth.getState().phase).toBe('ready');
  });
  it('leaves out what is said again, from the beginning of its sentence', async () => {
    const { booth, say, kept } = opened();
    await booth.hands.open(null);
    await booth.hands.record({ ...RECORDING, isRun: false, slideIds: [slideId('a')] });
    say(room(ROOM_MS + COUNTDOWN_MS));
    say(room(300));
    say(voice(1000));
    booth.hands.again();
    say(voice(1500));
    await booth.hands.stop();
    const [cut] = kept[0]!.leftOut;
    expect(cut!.fromMs).toBe(ROOM_MS + COUNTDOWN_MS);
    expect(cut!.toMs).toBe(ROOM_MS + COUNTDOWN_MS + 1300 + 250);
  });
  it('keeps what was said when the microphone is pulled out in the middle, and says so', async () => {
    const { booth, say, kept, hearing } = opened();
    await booth.hands.open(null);
    await booth.hands.record(RECORDING);
    say(room(ROOM_MS + COUNTDOWN_MS));
    say(voice(1000));
    hearing().gone();
    await new Promise((resolve) => setTimeout(resolve, 0));
    expect(kept[0]!.endMs).toBe(ROOM_MS + COUNTDOWN_MS + 1000);
    expect(booth.getState()).toMatchObject({
      phase: 'away',
      problem: expect.stringContaining('pulled out in the middle'),
    });
  });
  it('says when the microphone is muted, or gives nothing, and takes it back when it speaks again', async () => {
    const { booth, say, hearing } = opened();
    await booth.hands.open(null);
    hearing().muted(true);
    expect(booth.getState().problem).toContain('muted');
    hearing().muted(false);
    expect(booth.getState().problem).toBeNull();
    say(new Float32Array(2 * RATE));
    expect(booth.getState().problem).toContain('no sound at all');
    say(voice(100));
    expect(booth.getState().problem).toBeNull();
  });
  it('says when the server cannot be reached, and nothing more once what was said is safe', async () => {
    const { booth, say, failing, waiting } = opened();
    await booth.hands.open(null);
    await booth.hands.record(RECORDING);
    say(room(ROOM_MS + COUNTDOWN_MS));
    waiting.count = 3 * RATE;
    failing.now();
    say(voice(200));
    expect(booth.getState()).toMatchObject({
      problem: expect.stringContaining('kept here until it can'),
      unsafeMs: 3000,
    });
    waiting.count = 100;
    say(voice(200));
    expect(booth.getState().problem).toBeNull();
  });
  it('throws away what was stopped before it began, and says why a microphone cannot be had', async () => {
    const { booth, say, kept, letGo } = opened();
    await booth.hands.open(null);
    await booth.hands.record(RECORDING);
    say(room(500));
    await booth.hands.stop();
    expect([kept.length, letGo]).toEqual([0, ['take-1']]);
    const refused = createBooth({
      openMicrophone: () => Promise.reject(new NoMicrophoneError('There is no microphone.')),
      begin: async () => '',
      sender: () => ({ add: () => {}, waiting: () => 0, flush: async () => {}, close: () => {} }),
      keep: async () => {},
      letGo: async () => {},
      tell: () => {},
    });
    await refused.hands.open(null);
    expect(refused.getState()).toMatchObject({ phase: 'away', problem: 'There is no microphone.' });
  });
});

describe('levels in words', () => {
  it('say when a voice is too quiet, good, or too loud, and what the room is like', () => {
    expect([loudnessOf(-50, -40), loudnessOf(-22, -8), loudnessOf(-22, -0.5), loudnessOf(-6, -4)]).toEqual([
      'quiet',
      'good',
      'loud',
      'loud',
    ]);
    expect([roomSentence(-70).fine, roomSentence(-55).fine, roomSentence(-40).fine]).toEqual([true, true, false]);
  });
});

import { createStore, type StoreApi } from 'zustand';
import { createPrompter, type Prompter } from '../../core/captions/prompter';
import type { Press } from '../../core/narration/run-through';
import type { SlideId } from '../../core/show/ids';
import type { Cleaning } from '../../core/sound/voice/cleaning';
import type { LeftOut } from '../../core/sound/voice/leave-out';
import { decibels, LEVEL_MS } from '../../core/sound/voice/voice-levels';
import { NoMicrophoneError, RECORDING_RATE, type Microphone, type openMicrophone } from './microphone';
import type { TakeSender } from './take-sender';

/** What a recording is for. */
export interface Recording {
  readonly name: string;
  /** The slides it goes over, in order: one, or those of a run through the show. */
  readonly slideIds: readonly SlideId[];
  readonly isRun: boolean;
  /** What is read aloud, sentence by sentence. */
  readonly sentences: readonly string[];
  /** What is done to it once it is kept; null for nothing. */
  readonly cleaning: Cleaning | null;
  /** With which of them each slide begins. */
  readonly firstOf: readonly number[];
}

/** What is known of a recording when it is over; times from its first sample. */
export interface Recorded {
  readonly recording: Recording;
  readonly takeId: string;
  /** Where the room alone is heard. */
  readonly room: { readonly fromMs: number; readonly toMs: number };
  /** Where the countdown was over. */
  readonly fromMs: number;
  readonly endMs: number;
  readonly presses: readonly Press[];
  readonly leftOut: readonly LeftOut[];
}

export interface BoothState {
  readonly phase: 'away' | 'opening' | 'ready' | 'room' | 'countdown' | 'recording' | 'keeping';
  /** What is wrong, for the person; it may be that recording goes on. */
  readonly problem: string | null;
  readonly deviceId: string | null;
  readonly label: string | null;
  /** Of the last moments, dB below full scale. */
  readonly levelDb: number;
  readonly peakDb: number;
  /** How loud the room is when nobody speaks; null before it was measured. */
  readonly roomDb: number | null;
  readonly countdown: number;
  readonly recordedMs: number;
  readonly recording: Recording | null;
  /** In a run: which of its slides is being spoken over. */
  readonly slideAt: number;
  readonly sentence: number;
  /** How often something was said again. */
  readonly againCount: number;
  /** Sound that is not safe on the server yet. */
  readonly unsafeMs: number;
}

export interface BoothHands {
  open(deviceId: string | null): Promise<void>;
  close(): void;
  record(recording: Recording): Promise<void>;
  /** In a run: the next slide. @returns false when there is none */
  next(): boolean;
  /** From the beginning of the sentence that is being said: what was said of it is left out. */
  again(): void;
  goTo(sentence: number): void;
  /** Ends the recording and has it kept. */
  stop(): Promise<void>;
  /** Ends it and throws it away. */
  discard(): Promise<void>;
  setProblem(problem: string | null): void;
}

export type Booth = StoreApi<BoothState> & { readonly hands: BoothHands };

interface BoothParts {
  readonly openMicrophone: typeof openMicrophone;
  readonly begin: (recording: Recording) => Promise<string>;
  readonly sender: (takeId: string, failed: (error: unknown) => void) => TakeSender;
  readonly keep: (recorded: Recorded) => Promise<void>;
  readonly letGo: (takeId: string) => Promise<void>;
  readonly tell: (sentence: string) => void;
}

/** The room is listened to for so long, then it is counted down. */
export const ROOM_MS = 1200;
const COUNTS = 3;
const COUNT_MS = 700;
/** A microphone that gives nothing at all for so long is switched off somewhere. */
const DEAD_MS = 1500;
const DEAD_DB = -100;
/** Pressing the key is heard. */
const KEY_MS = 250;
const BEFORE_SENTENCE_MS = 120;
const STEP = (RECORDING_RATE * LEVEL_MS) / 1000;

const RESTING: BoothState = {
  phase: 'away',
  problem: null,
  deviceId: null,
  label: null,
  levelDb: -120,
  peakDb: -120,
  roomDb: null,
  countdown: 0,
  recordedMs: 0,
  recording: null,
  slideAt: 0,
  sentence: 0,
  againCount: 0,
  unsafeMs: 0,
};

interface Running {
  readonly recording: Recording;
  readonly takeId: string;
  readonly sender: TakeSender;
  count: number;
  fromMs: number;
  presses: Press[];
  leftOut: LeftOut[];
  prompter: Prompter | null;
  /** When each sentence began. */
  began: number[];
  roomLevels: number[];
}

/** The booth: a microphone, what it hears, and the recording that is under way. */
export function createBooth(parts: BoothParts): Booth {
  const store = createStore<BoothState>(() => RESTING);
  let microphone: Microphone | null = null;
  let running: Running | null = null;
  let silentMs = 0;
  let turn = 0;
  const msOf = (count: number) => (count * 1000) / RECORDING_RATE;

  function hear(samples: Float32Array): void {
    const { phase } = store.getState();
    const levels = levelsOf(samples);
    const peakDb = decibels(samples.reduce((most, sample) => Math.max(most, Math.abs(sample)), 0));
    const levelDb = Math.max(...levels);
    const before = store.getState();
    silentMs = peakDb < DEAD_DB ? silentMs + msOf(samples.length) : 0;
    const dead = silentMs > DEAD_MS;
    store.setState({
      // Quick to rise, slow to fall, as eyes like meters.
      levelDb: Math.max(levelDb, before.levelDb - 1.4),
      peakDb: Math.max(peakDb, before.peakDb - 0.6),
      ...(dead && { problem: DEAD }),
      ...(!dead && before.problem === DEAD && { problem: null }),
    });
    if (!running || phase === 'keeping' || phase === 'ready') return;
    running.sender.add(samples);
    running.count += samples.length;
    const now = msOf(running.count);
    if (phase === 'room') {
      running.roomLevels.push(...levels);
      if (now >= ROOM_MS) measured(running);
    } else if (phase === 'countdown') {
      const left = COUNTS - Math.floor((now - ROOM_MS) / COUNT_MS);
      if (left <= 0) started(running);
      else if (left !== before.countdown) store.setState({ countdown: left });
    } else if (phase === 'recording') {
      for (const level of levels) running.prompter?.hear(level);
      const sentence = running.prompter?.now() ?? 0;
      if (running.began[sentence] === undefined) running.began[sentence] = now - msOf(samples.length);
      store.setState({
        recordedMs: now - running.fromMs,
        sentence,
        unsafeMs: msOf(running.sender.waiting()),
        ...(running.sender.waiting() < RECORDING_RATE && reached(before.problem)),
      });
    }
  }

  function measured(run: Running): void {
    const levels = run.roomLevels.slice(20).toSorted((a, b) => a - b);
    store.setState({ phase: 'countdown', countdown: COUNTS, roomDb: levels[levels.length >> 1] ?? -70 });
  }

  function started(run: Running): void {
    run.fromMs = msOf(run.count);
    run.presses = [{ slideId: run.recording.slideIds[0]!, atMs: run.fromMs }];
    run.prompter = createPrompter(run.recording.sentences, Math.max(-75, store.getState().roomDb ?? -70));
    run.began = [run.fromMs];
    store.setState({ phase: 'recording', countdown: 0, recordedMs: 0, sentence: 0, slideAt: 0, againCount: 0 });
  }

  /** Sound was cut off: what was said so far is kept. */
  function gone(): void {
    microphone?.close();
    microphone = null;
    const wasRunning = running !== null;
    store.setState({ problem: wasRunning ? GONE_IN_THE_MIDDLE : GONE, label: null });
    if (wasRunning) void hands.stop();
    else store.setState({ phase: 'away' });
  }

  const hands: BoothHands = {
    async open(deviceId) {
      const mine = (turn += 1);
      microphone?.close();
      microphone = null;
      store.setState({ phase: 'opening', problem: null });
      try {
        const opened = await parts.openMicrophone(deviceId, {
          block: hear,
          gone,
          muted: (on) =>
            store.setState((before) => ({ problem: on ? MUTED : before.problem === MUTED ? null : before.problem })),
        });
        if (mine !== turn) return opened.close();
        microphone = opened;
        store.setState({ phase: 'ready', label: opened.label, deviceId: opened.deviceId });
      } catch (error) {
        if (!(error instanceof NoMicrophoneError)) throw error;
        if (mine === turn) store.setState({ phase: 'away', problem: error.message });
      }
    },
    close() {
      turn += 1;
      microphone?.close();
      microphone = null;
      // What was said so far goes on its way: it waits there as broken off.
      if (running) void running.sender.flush();
      running = null;
      store.setState(RESTING, true);
    },
    async record(recording) {
      if (store.getState().phase !== 'ready' || recording.slideIds.length === 0) return;
      let takeId: string;
      try {
        takeId = await parts.begin(recording);
      } catch (error) {
        store.setState({ problem: sentenceOf(error) });
        return;
      }
      const sender = parts.sender(takeId, (error) =>
        store.setState({
          problem: `${UNREACHABLE} (${sentenceOf(error)}) Go on: what you say is kept here until it can.`,
        }),
      );
      running = {
        recording,
        takeId,
        sender,
        count: 0,
        fromMs: 0,
        presses: [],
        leftOut: [],
        prompter: null,
        began: [],
        roomLevels: [],
      };
      store.setState({ phase: 'room', problem: null, recording, recordedMs: 0, unsafeMs: 0 });
    },
    next() {
      const run = running;
      const { slideAt, phase } = store.getState();
      if (!run || phase !== 'recording' || slideAt + 1 >= run.recording.slideIds.length) return false;
      run.presses.push({ slideId: run.recording.slideIds[slideAt + 1]!, atMs: msOf(run.count) });
      store.setState({ slideAt: slideAt + 1 });
      const first = run.recording.firstOf[slideAt + 1];
      if (first !== undefined && first < run.recording.sentences.length) hands.goTo(first);
      return true;
    },
    again() {
      const run = running;
      if (!run || store.getState().phase !== 'recording') return;
      const now = msOf(run.count);
      const sentence = run.prompter?.now() ?? 0;
      const last = run.leftOut.at(-1);
      // Of a run no more than the slide that is spoken over is said again: the presses before it stand.
      const earliest = Math.max(run.fromMs, last?.toMs ?? 0, run.recording.isRun ? run.presses.at(-1)!.atMs : 0);
      const fromMs = Math.max(earliest, (run.began[sentence] ?? run.fromMs) - BEFORE_SENTENCE_MS);
      run.leftOut.push({ fromMs, toMs: now + KEY_MS });
      run.prompter?.goTo(sentence);
      run.began = run.began.slice(0, sentence);
      run.began[sentence] = now + KEY_MS;
      store.setState((before) => ({ againCount: before.againCount + 1 }));
    },
    goTo(sentence) {
      if (!running?.prompter) return;
      running.prompter.goTo(sentence);
      running.began[sentence] = msOf(running.count);
      store.setState({ sentence });
    },
    async stop() {
      const run = running;
      const { phase } = store.getState();
      if (!run || phase === 'keeping') return;
      if (phase !== 'recording') return hands.discard();
      store.setState({ phase: 'keeping' });
      await run.sender.flush();
      const endMs = msOf(run.count);
      try {
        await parts.keep({
          recording: run.recording,
          takeId: run.takeId,
          room: { fromMs: 100, toMs: ROOM_MS - 50 },
          fromMs: run.fromMs,
          endMs,
          presses: run.presses,
          leftOut: run.leftOut.map(({ fromMs, toMs }) => ({ fromMs, toMs: Math.min(endMs, toMs) })),
        });
      } catch (error) {
        parts.tell(`${sentenceOf(error)} What you said is safe: it waits under “not kept yet”.`);
      }
      over();
    },
    async discard() {
      const run = running;
      if (!run) return;
      run.sender.close();
      over();
      await parts.letGo(run.takeId).catch(() => {});
    },
    setProblem: (problem) => store.setState({ problem }),
  };
  return Object.assign(store, { hands });

  function over(): void {
    running = null;
    store.setState((before) => ({
      phase: microphone ? 'ready' : 'away',
      recording: null,
      countdown: 0,
      unsafeMs: 0,
      ...reached(before.problem),
    }));
  }
}

function levelsOf(samples: Float32Array): number[] {
  const levels: number[] = [];
  for (let from = 0; from + STEP <= samples.length + STEP / 2; from += STEP) {
    const part = samples.subarray(from, from + STEP);
    if (part.length === 0) break;
    levels.push(decibels(Math.sqrt(part.reduce((sum, sample) => sum + sample * sample, 0) / part.length)));
  }
  return levels;
}

const sentenceOf = (error: unknown) => (error instanceof Error ? error.message : String(error));

const UNREACHABLE = 'The server cannot be reached';
/** Once it can be again nothing is said of it any more. */
const reached = (problem: string | null) => (problem?.startsWith(UNREACHABLE) ? { problem: null } : {});

const DEAD = 'The microphone gives no sound at all. Is it switched off at itself, or turned down in the system?';
const MUTED = 'The system has muted the microphone. Let it speak again, and go on.';
const GONE = 'The microphone was pulled out. Plug it in, then open it again.';
const GONE_IN_THE_MIDDLE =
  'The microphone was pulled out in the middle. What you said until then is kept; plug it in to go on.';

/** How loud a voice is for a recording. */
export type Loudness = 'quiet' | 'good' | 'loud';

export function loudnessOf(levelDb: number, peakDb: number): Loudness {
  if (peakDb > -1.5 || levelDb > -9) return 'loud';
  return levelDb < -34 ? 'quiet' : 'good';
}

/** What the room is like, in words. */
export function roomSentence(roomDb: number): { readonly text: string; readonly fine: boolean } {
  if (roomDb < -62) return { text: 'The room is quiet.', fine: true };
  if (roomDb < -50)
    return { text: 'The room can be heard a little: a fan, or the street. Cleaning takes it away.', fine: true };
  return {
    text: 'The room is loud. Close the window, switch the fan off, or come nearer to the microphone.',
    fine: false,
  };
}

/** Built from `recorder-worklet.ts`. */
const RECORDER_FILE = '/sound/recorder.js';
export const RECORDING_RATE = 48_000;

export interface Microphone {
  readonly label: string;
  readonly deviceId: string;
  close(): void;
}

interface Hearing {
  /** One channel at `RECORDING_RATE`. */
  block(samples: Float32Array): void;
  /** It was pulled out, or something else took it away. */
  gone(): void;
  muted(on: boolean): void;
}

/** Why there is no sound, and what to do; the message is for the person. */
export class NoMicrophoneError extends Error {
  override readonly name = 'NoMicrophoneError';
}

/**
 * Opens a microphone as it is: nothing of what browsers do for telephone calls.
 *
 * @param deviceId null for the usual one
 * @throws {NoMicrophoneError}
 */
export async function openMicrophone(deviceId: string | null, hearing: Hearing): Promise<Microphone> {
  const stream = await askFor(deviceId);
  const track = stream.getAudioTracks()[0]!;
  // Nothing is heard through it: larger pieces are safer where the machine is busy.
  const context = new AudioContext({ sampleRate: RECORDING_RATE, latencyHint: 'playback' });
  try {
    await context.audioWorklet.addModule(RECORDER_FILE);
    await context.resume();
  } catch (cause) {
    track.stop();
    void context.close();
    throw new NoMicrophoneError('The part that records could not be fetched. Reload the page and try again.', {
      cause,
    });
  }
  const source = context.createMediaStreamSource(stream);
  const recorder = new AudioWorkletNode(context, 'recorder', {
    numberOfInputs: 1,
    numberOfOutputs: 0,
    channelCount: 1,
    channelCountMode: 'explicit',
  });
  recorder.port.onmessage = (event: MessageEvent<Float32Array>) => hearing.block(event.data);
  source.connect(recorder);
  track.onended = () => hearing.gone();
  track.onmute = () => hearing.muted(true);
  track.onunmute = () => hearing.muted(false);
  return {
    label: track.label,
    deviceId: track.getSettings().deviceId ?? '',
    close() {
      recorder.port.onmessage = null;
      track.onended = null;
      track.stop();
      void context.close();
    },
  };
}

async function askFor(deviceId: string | null): Promise<MediaStream> {
  if (!('mediaDevices' in navigator))
    throw new NoMicrophoneError(
      'Browsers give the microphone only to pages on this machine or over HTTPS. Open Tanager by https:// or as localhost.',
    );
  try {
    return await navigator.mediaDevices.getUserMedia({
      audio: {
        ...(deviceId && { deviceId: { exact: deviceId } }),
        channelCount: 1,
        echoCancellation: false,
        noiseSuppression: false,
        autoGainControl: false,
      },
    });
  } catch (cause) {
    throw new NoMicrophoneError(whyNot(cause), { cause });
  }
}

function whyNot(error: unknown): string {
  switch (error instanceof DOMException ? error.name : '') {
    case 'NotAllowedError':
    case 'SecurityError':
      return 'The browser may not use the microphone here. Allow it by the sign beside the address, then open it again.';
    case 'NotFoundError':
      return 'There is no microphone. Plug one in, then open it again.';
    case 'OverconstrainedError':
      return 'That microphone is not there any more. Choose another.';
    case 'NotReadableError':
    case 'AbortError':
      return 'The microphone is in use by another program, or the system does not give it. Close what uses it, then open it again.';
    default:
      return `The microphone cannot be opened${error instanceof Error ? `: ${error.message}` : ''}.`;
  }
}

/** The microphones there are; named only once one was allowed. */
export async function microphones(): Promise<MediaDeviceInfo[]> {
  if (!('mediaDevices' in navigator)) return [];
  return (await navigator.mediaDevices.enumerateDevices()).filter((device) => device.kind === 'audioinput');
}

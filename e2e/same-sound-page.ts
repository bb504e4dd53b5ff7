// Bundled into the page by `same-sound.test.ts`: performs a mix as the viewer does, but into memory.
import type { MixPart, MixPlan } from '../src/core/sound/mix-plan';
import { openMixOutput, performMix } from '../src/ui/viewer/perform-mix';
import { stretchedSound } from '../src/ui/viewer/stretched-sound';

/** @param sounds interleaved stereo at 48 kHz, by asset, as base64 @returns the same of the mix */
async function renderMix(plan: MixPlan, sounds: Readonly<Record<string, string>>): Promise<string> {
  const context = new OfflineAudioContext(2, Math.ceil(plan.lengthMs * 48), 48_000);
  const buffers = new Map(
    Object.entries(sounds).map(([id, text]) => {
      const samples = new Float32Array(Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0)).buffer);
      const buffer = context.createBuffer(2, samples.length / 2, 48_000);
      for (const channel of [0, 1]) {
        const data = buffer.getChannelData(channel);
        for (let at = 0; at < data.length; at += 1) data[at] = samples[2 * at + channel]!;
      }
      return [id, buffer] as const;
    }),
  );
  const output = await openMixOutput(context);
  const stretched = new Map<MixPart, AudioBuffer>();
  for (const part of plan.parts) {
    const whole = buffers.get(part.assetId);
    if (part.tempo === undefined || !whole) continue;
    const channels = [whole.getChannelData(0), whole.getChannelData(1)];
    stretched.set(part, await stretchedSound(context, { channels, rate: 48_000 }, part));
  }
  performMix(context, output, plan, (part) => stretched.get(part) ?? buffers.get(part.assetId) ?? null, 0, 0);
  const rendered = await context.startRendering();
  const [left, right] = [rendered.getChannelData(0), rendered.getChannelData(1)];
  const mix = new Float32Array(2 * left.length);
  for (let at = 0; at < left.length; at += 1) {
    mix[2 * at] = left[at]!;
    mix[2 * at + 1] = right[at]!;
  }
  const bytes = new Uint8Array(mix.buffer);
  let text = '';
  for (let at = 0; at < bytes.length; at += 8192) text += String.fromCharCode(...bytes.subarray(at, at + 8192));
  return btoa(text);
}

Object.assign(globalThis, { renderMix });

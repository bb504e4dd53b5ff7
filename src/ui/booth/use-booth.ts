'use client';

import { nanoid } from 'nanoid';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { takeKept, type RecordedVoice } from '../../core/narration/kept-take';
import { runThroughKept } from '../../core/narration/run-through';
import { cueId, type SlideId } from '../../core/show/ids';
import type { Cleaning } from '../../core/sound/voice/cleaning';
import { momentLeft, type LeftOut } from '../../core/sound/voice/leave-out';
import type { KeptTake } from '../../server/recording/recording-service';
import { answerOf, callServer, ServerRefusal } from '../show/call-server';
import { useShowStore } from '../show/show-provider';
import type { ShowStore } from '../show/show-store';
import { createBooth, type Booth, type Recorded } from './booth-store';
import { openMicrophone, RECORDING_RATE } from './microphone';
import { createTakeSender } from './take-sender';

/** Before the countdown was over somebody may have begun already. */
const EAGER_MS = 300;

/** The booth of the open show. */
export function useBooth(): Booth {
  const store = useShowStore();
  const [booth] = useState(() => {
    const routes = `/api/v1/shows/${store.getState().show.id}/takes`;
    return createBooth({
      openMicrophone,
      async begin({ name, slideIds, isRun }) {
        const { id } = await callServer<{ id: string }>('POST', routes, {
          slideId: isRun ? null : slideIds[0],
          name,
          rate: RECORDING_RATE,
        });
        return id;
      },
      sender: (takeId, failed) =>
        createTakeSender(
          async (from, samples) => {
            const response = await fetch(`${routes}/${takeId}/samples?from=${from}`, {
              method: 'POST',
              headers: { 'content-type': 'application/octet-stream' },
              body: samples as Float32Array<ArrayBuffer>,
            });
            return (await answerOf<{ sampleCount: number }>(response)).sampleCount;
          },
          (error) => error instanceof ServerRefusal && [404, 413, 422].includes(error.status),
          failed,
        ),
      keep: (recorded) => keptRecording(store, recorded),
      letGo: (takeId) => callServer('DELETE', `${routes}/${takeId}`),
      tell: (sentence) => void toast(sentence),
    });
  });
  useEffect(() => () => booth.hands.close(), [booth]);
  return booth;
}

/** Has a recording kept on the server and lays it on its slides; only then its samples are let go. */
async function keptRecording(store: ShowStore, recorded: Recorded): Promise<void> {
  const { recording, room, leftOut } = recorded;
  const how = recording.cleaning && { ...recording.cleaning, room };
  const kept = await keepTake(store, recorded.takeId, how, leftOut);
  const at = (ms: number) => momentLeft(ms, leftOut);
  const voice = voiceOfTake(kept, recording.name, how, {
    fromMs: at(recorded.fromMs) - EAGER_MS,
    toMs: at(recorded.endMs),
  });
  const { show, edit } = store.getState();
  const newId = () => cueId(nanoid(10));
  const presses = recorded.presses.map((press) => ({ ...press, atMs: at(press.atMs) }));
  const laid = recording.isRun
    ? runThroughKept(show, voice, presses, at(recorded.endMs), newId)
    : takeKept(show, recording.slideIds[0]!, newId(), voice);
  if (laid && edit(laid)) await letGoOnceSaved(store, recorded.takeId);
  if (kept.cleaned && !kept.cleaned.trim)
    toast('Nothing that sounds like speech was heard in this recording. It is kept all the same.');
}

/** @returns what the server made of it, known here as well */
export async function keepTake(
  store: ShowStore,
  takeId: string,
  how: Cleaning | null,
  leftOut: readonly LeftOut[],
): Promise<KeptTake> {
  const { show, mergeEntries } = store.getState();
  const kept = await callServer<KeptTake>('POST', `/api/v1/shows/${show.id}/takes/${takeId}`, { how, leftOut });
  mergeEntries([kept.entry, ...(kept.cleaned ? [kept.cleaned.entry] : [])]);
  return kept;
}

export async function letGoOnceSaved(store: ShowStore, takeId: string): Promise<void> {
  if (!(await store.getState().whenSaved())) return;
  await callServer('DELETE', `/api/v1/shows/${store.getState().show.id}/takes/${takeId}`).catch(() => {});
}

/** A kept take as what is laid on slides: as cleaned, and trimmed to what is said, where that is wanted. */
export function voiceOfTake(
  kept: KeptTake,
  name: string,
  how: Cleaning | null,
  within: { readonly fromMs: number; readonly toMs: number },
): RecordedVoice {
  const { facts } = kept.entry;
  const lengthMs = facts?.kind === 'sound' ? facts.lengthMs : within.toMs;
  const trim = kept.cleaned?.trim ?? within;
  const fromMs = Math.max(0, within.fromMs, trim.fromMs);
  return {
    assetId: kept.cleaned?.entry.assetId ?? kept.entry.assetId,
    name,
    lengthMs,
    fromMs,
    toMs: Math.max(fromMs + 100, Math.min(lengthMs, within.toMs, trim.toMs)),
    ...(kept.cleaned && how && { cleaned: { from: kept.entry.assetId, how } }),
  };
}

/** Which slides a run through the show goes over: from one to the last. */
export function slidesFrom(ids: readonly SlideId[], first: SlideId | null): SlideId[] {
  const at = first ? ids.indexOf(first) : 0;
  return ids.slice(Math.max(0, at));
}

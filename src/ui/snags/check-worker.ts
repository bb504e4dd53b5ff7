/// <reference lib="webworker" />
// Looks the show over while a person works: what the document and the facts tell at once, what must be drawn slide by slide.
import { prepareShow, type PreparedShow } from '../../core/frame/plan-frame';
import type { SlideId } from '../../core/show/ids';
import type { Slide } from '../../core/show/show';
import { lookOver } from '../../core/snags/look-over';
import type { SlideSeen } from '../../core/snags/slide-seen';
import type { SnagLook } from '../../core/snags/snag';
import { openChecking, seeSlide, type Checking } from '../../drawing/checking/checking';
import { fixesThatHelp, whatReadsBest } from '../../drawing/checking/try-fixes';
import { loadKernels } from '../../drawing/kernel-module';
import { createPlateStore } from '../../drawing/plates/plate-store';
import { patientFetch } from '../viewer/patient-fetch';
import { openPlateMaker } from '../viewer/plate-maker';
import { withChange } from '../viewer/show-change';
import type { FromChecker, ToChecker } from './check-messages';

const ROOM_BYTES = 32 * 1024 * 1024;
/** Hands that work are waited for. */
const AFTER_EDIT_MS = 250;
const MEASURE_AFTER_MS = 900;
/** What is found on the way is told so often. */
const TELL_EVERY_MS = 500;

const scope = self as unknown as DedicatedWorkerGlobalScope;
const say = (message: FromChecker) => scope.postMessage(message);

let prepared: PreparedShow | null = null;
let around: Pick<SnagLook, 'files' | 'films'> = { files: new Map(), films: [] };
let rest = false;
/** What was measured, with all it depended on. */
const seen = new Map<SlideId, { readonly on: readonly unknown[]; readonly seen: SlideSeen }>();
let checking: Checking | null = null;
let shape = '';
let measuring = false;
let telling: ReturnType<typeof setTimeout> | null = null;
let beginning: ReturnType<typeof setTimeout> | null = null;

const kernels = await loadKernels(new Uint8Array(await (await patientFetch('/drawing/kernels.wasm')).arrayBuffer()));
const store = createPlateStore({ kernels, make: await openPlateMaker(kernels), roomBytes: ROOM_BYTES });
scope.onmessage = (event: MessageEvent<ToChecker>) => hear(event.data);
say({ kind: 'ready' });

function hear(message: ToChecker): void {
  switch (message.kind) {
    case 'show':
      return take(prepareShow(message.show, message.facts));
    case 'change':
      return take(
        prepareShow(withChange(prepared!.show, message.change), new Map([...prepared!.facts, ...message.facts])),
      );
    case 'around':
      around = message;
      return tellSoon();
    case 'rest':
      rest = message.rest;
      return measureSoon();
    case 'fixes':
      return void answer(message.id, async (look) => {
        const snag = lookOver(look).find(({ key }) => key === message.key);
        return snag ? fixesThatHelp(checkingFor(look.prepared), look, snag) : [];
      });
    case 'best':
      return void answer(message.id, async (look) => {
        const best = await whatReadsBest(checkingFor(look.prepared), look, message.slideId, message.layerId);
        return best ? [best] : [];
      });
  }
}

async function answer(id: number, work: (look: SnagLook) => Promise<Awaited<ReturnType<typeof fixesThatHelp>>>) {
  try {
    say({ kind: 'fixes', id, fixes: prepared ? await work(lookNow(prepared)) : [] });
  } catch (error) {
    say({ kind: 'fixes', id, fixes: null });
    // It is told to who asked, and stands in the browser's own log.
    reportError(error);
  }
}

function take(next: PreparedShow): void {
  prepared = next;
  tellSoon();
  measureSoon();
}

function lookNow(of: PreparedShow): SnagLook {
  return {
    prepared: of,
    ...around,
    seen: new Map([...seen].map(([id, entry]) => [id, entry.seen])),
    now: new Date().toISOString().slice(0, 19),
  };
}

function tellSoon(): void {
  telling ??= setTimeout(() => {
    telling = null;
    tell();
  }, AFTER_EDIT_MS);
}

function tell(): void {
  if (!prepared) return;
  const { slides } = prepared.show;
  const there = new Set(slides.map(({ id }) => id));
  for (const id of seen.keys()) if (!there.has(id)) seen.delete(id);
  const measured = slides.filter((_slide, index) => isMeasured(index)).length;
  say({ kind: 'found', snags: lookOver(lookNow(prepared)), measured, slideCount: slides.length });
}

function measureSoon(): void {
  if (beginning) clearTimeout(beginning);
  beginning = setTimeout(() => {
    beginning = null;
    void measure();
  }, MEASURE_AFTER_MS);
}

/** All that the frames of a slide depend on, by identity. */
function dependsOn(of: PreparedShow, index: number): readonly unknown[] {
  const { show, spans, moves, facts } = of;
  const near = [index - 1, index, index + 1].map((at) => show.slides[at]);
  return [
    ...near,
    ...near.map((slide) => slide && moves.get(slide.id)),
    spans[index]!.transitionMs,
    spans[index]!.leavesMs - spans[index]!.startMs,
    show.frame.widthPx / show.frame.heightPx,
    ...near.flatMap((slide) => factsOf(slide, facts)),
  ];
}

function factsOf(slide: Slide | undefined, facts: PreparedShow['facts']): unknown[] {
  return slide ? slide.layers.map((layer) => ('assetId' in layer ? facts.get(layer.assetId) : null)) : [];
}

function isMeasured(index: number): boolean {
  const of = prepared!;
  const known = seen.get(of.show.slides[index]!.id);
  const on = dependsOn(of, index);
  return known !== undefined && known.on.length === on.length && known.on.every((value, at) => value === on[at]);
}

async function measure(): Promise<void> {
  if (measuring || rest || !prepared) return;
  measuring = true;
  let toldAt = performance.now();
  try {
    for (let index = 0; prepared && index < prepared.show.slides.length; index += 1) {
      if (rest || beginning) break;
      if (isMeasured(index)) continue;
      const of: PreparedShow = prepared;
      const on = dependsOn(of, index);
      const { id } = of.show.slides[index]!;
      seen.set(id, { on, seen: await seeSlide(checkingFor(of), of, index) });
      if (performance.now() - toldAt > TELL_EVERY_MS) {
        tell();
        toldAt = performance.now();
      }
      // Messages that came meanwhile are heard.
      await new Promise((resolve) => {
        setTimeout(resolve, 0);
      });
    }
  } finally {
    measuring = false;
    tell();
  }
}

function checkingFor({ show: { frame } }: PreparedShow): Checking {
  const wanted = `${frame.widthPx}:${frame.heightPx}`;
  if (checking && shape === wanted) return checking;
  checking?.close();
  shape = wanted;
  checking = openChecking(kernels, store, frame);
  return checking;
}

import { toast } from 'sonner';
import { createStore } from 'zustand';
import type { AssetId, ShowId } from '../../core/show/ids';
import type { EvenedWay, EvenedWish } from '../../core/timing/evened-clip';
import { madeOnServer } from '../show/made-on-server';
import type { ShowStore } from '../show/show-store';

/** An evened copy of a clip that is asked for: how far it is, or the file it became. */
export interface EvenedCopy {
  readonly share: number;
  /** About how long it will still take. */
  readonly leftMs: number;
  readonly made: AssetId | null;
  /** Not wanted any more. */
  stop(): void;
}

/** The copies that were asked for on this page, by show, clip and wish: one lies on the sheet of its show alone; they go on while a person looks at something else. */
export const evenedCopies = createStore<Readonly<Record<string, EvenedCopy>>>(() => ({}));

export const copyKey = (show: ShowId, asset: AssetId, { rate, way }: EvenedWish) =>
  `${show} ${asset} ${rate.frames}/${rate.seconds} ${way}`;

/** So much must be made before its own pace says how long the rest takes. */
const PACE_KNOWN = 0.05;

/** Has a copy made. @param withinMs how long that takes on a plain machine */
export async function makeEvened(store: ShowStore, asset: AssetId, wish: EvenedWish, withinMs: number): Promise<void> {
  const key = copyKey(store.getState().show.id, asset, wish);
  if (evenedCopies.getState()[key]) return;
  const asked = new AbortController();
  const begunMs = performance.now();
  const told = (share: number, made: AssetId | null = null) => {
    const goneMs = performance.now() - begunMs;
    const inAllMs = share > PACE_KNOWN ? goneMs / share : Math.max(goneMs, withinMs);
    const copy: EvenedCopy = { share, leftMs: inAllMs * (1 - share), made, stop: () => asked.abort() };
    evenedCopies.setState({ [key]: copy });
  };
  told(0);
  try {
    const path = `clips/${asset}/evened`;
    const entry = await madeOnServer(store, path, wish, { signal: asked.signal, onProgress: told });
    told(1, entry.assetId);
  } catch (error) {
    evenedCopies.setState((all) => withoutKey(all, key), true);
    if (!asked.signal.aborted) toast.error(error instanceof Error ? error.message : 'The copy could not be made.');
  }
}

function withoutKey(all: Readonly<Record<string, EvenedCopy>>, key: string): Readonly<Record<string, EvenedCopy>> {
  const { [key]: _gone, ...kept } = all;
  return kept;
}

/** What is done to the frames, as an order on a button; what to expect of it; and what is done with the copy that came of it. */
export const WAY_NAMES: Record<EvenedWay, { readonly make: string; readonly expect: string; readonly lay: string }> = {
  mixed: {
    make: 'Mix its frames',
    expect: 'Soft: what moves fast is seen double for a moment.',
    lay: 'Put the mixed copy in its place',
  },
  drawn: {
    make: 'Draw frames between',
    expect: 'Clear: what moves is carried along; where things pass one another it may shimmer.',
    lay: 'Put the drawn copy in its place',
  },
};

import type { FramePlan } from '../../core/frame/frame-plan';
import type { AssetId } from '../../core/show/ids';
import type { Kernels } from '../kernel-module';
import { blocksOf } from './carried-plate';
import type { Made } from './make-plate';
import { keyOf, platesOf, type Plate } from './plate';

/** Everything the plans need beside themselves, made once, kept while there is room, let go oldest first. */
export interface PlateStore {
  /** Makes what the plan needs and does not yet have. Unreadable pictures are reported through `problems`, not thrown. */
  prepare(plan: FramePlan): Promise<void>;
  isReady(plan: FramePlan): boolean;
  /** What was made for a plate; null when it is not there or could not be made. */
  made<Kind extends Made['kind']>(plate: Plate, kind: Kind): Extract<Made, { kind: Kind }> | null;
  isTransparent(id: AssetId): boolean;
  problems(): ReadonlyMap<AssetId, Error>;
  close(): void;
}

interface PlateStoreParts {
  readonly kernels: Kernels;
  /** Makes a plate in the kernels' memory: here (`makePlate`) or in another thread. */
  readonly make: (plate: Plate) => Promise<Made>;
  /** Room for what is kept, in bytes; what the latest plan needs is kept even beyond it. */
  readonly roomBytes: number;
}

export function createPlateStore({ kernels, make, roomBytes }: PlateStoreParts): PlateStore {
  // A Map keeps the order of insertion; what is used is put in again, so the first entry is the one unused for longest.
  const kept = new Map<string, Made>();
  const underWay = new Map<string, Promise<void>>();
  const problems = new Map<AssetId, Error>();
  const transparent = new Set<AssetId>();
  let closed = false;
  const isTransparent = (id: AssetId) => transparent.has(id);
  const wanted = (plan: FramePlan) => platesOf(plan, isTransparent).map((plate) => ({ plate, key: keyOf(plate) }));

  return {
    async prepare(plan) {
      const needed = wanted(plan);
      await Promise.all(needed.map(({ key, plate }) => fetch(key, plate)));
      // Which pictures are transparent is known only once they are read; their plates then differ.
      const again = wanted(plan).filter(({ key }) => !kept.has(key));
      await Promise.all(again.map(({ key, plate }) => fetch(key, plate)));
      makeRoom(new Set([...needed, ...again].map(({ key }) => key)));
    },
    isReady: (plan) => wanted(plan).every(({ key }) => kept.has(key)),
    made<Kind extends Made['kind']>(plate: Plate, kind: Kind) {
      const found = touch(keyOf(plate));
      return found?.kind === kind ? (found as Extract<Made, { kind: Kind }>) : null;
    },
    isTransparent,
    problems: () => problems,
    close() {
      closed = true;
      for (const entry of kept.values()) letGo(entry);
      kept.clear();
    },
  };

  function touch(key: string): Made | undefined {
    const found = kept.get(key);
    if (found) {
      kept.delete(key);
      kept.set(key, found);
    }
    return found;
  }

  async function fetch(key: string, plate: Plate): Promise<void> {
    if (touch(key)) return;
    const running = underWay.get(key);
    if (running) return running;
    const started = guarded(plate)
      .then((made) => {
        if (closed) return letGo(made);
        kept.set(key, made);
      })
      .finally(() => underWay.delete(key));
    underWay.set(key, started);
    return started;
  }

  async function guarded(plate: Plate): Promise<Made> {
    try {
      const made = await make(plate);
      if (plate.kind === 'picture' && made.kind === 'planes' && made.planes.alpha !== 0) transparent.add(plate.assetId);
      return made;
    } catch (error) {
      // A picture that cannot be read must not stop the show: the frame is drawn without it and the person is told.
      const known = error instanceof Error ? error : new Error(String(error));
      const assetId =
        'assetId' in plate
          ? plate.assetId
          : plate.kind === 'wipe-map' && plate.look.kind === 'own-pattern'
            ? plate.look.assetId
            : null;
      if (!assetId) throw known;
      problems.set(assetId, known);
      return { kind: 'nothing' };
    }
  }

  function makeRoom(needed: ReadonlySet<string>): void {
    let usedBytes = 0;
    for (const entry of kept.values()) usedBytes += sizeOf(entry);
    for (const [key, entry] of kept) {
      if (usedBytes <= roomBytes) return;
      if (needed.has(key) || sizeOf(entry) === 0) continue;
      kept.delete(key);
      usedBytes -= sizeOf(entry);
      letGo(entry);
    }
  }

  function letGo(entry: Made): void {
    for (const block of blocksOf(entry)) kernels.release(block.at);
  }
}

function sizeOf(entry: Made): number {
  return blocksOf(entry).reduce((sum, { byteCount }) => sum + byteCount, 0);
}

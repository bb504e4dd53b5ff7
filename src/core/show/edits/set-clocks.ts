import { object, orNull } from '../../schema/schema';
import { CAMERA, SHIFT, shiftOf } from '../camera-clock';
import { done, many } from './changing';
import type { EditRecord } from './edit-record';

interface Entry {
  readonly camera: string;
  /** Null when its clock was right. */
  readonly shiftMs: number | null;
}

/** Puts the clocks of cameras right, for all their pictures at once. */
export interface SetClocks {
  readonly kind: 'set-clocks';
  readonly clocks: readonly Entry[];
}

export const setClocks: EditRecord<SetClocks> = {
  kind: 'set-clocks',
  parts: { clocks: many(object<Entry>({ camera: CAMERA, shiftMs: orNull(SHIFT) })) },
  apply(show, edit) {
    const before = edit.clocks.map(({ camera }) => ({ camera, shiftMs: shiftOf(show.clocks, camera) || null }));
    const shifts = new Map(Object.entries(show.clocks ?? {}));
    for (const { camera, shiftMs } of edit.clocks) {
      if (shiftMs) shifts.set(camera, shiftMs);
      else shifts.delete(camera);
    }
    const { clocks: _before, ...rest } = show;
    return done(shifts.size === 0 ? rest : { ...rest, clocks: Object.fromEntries(shifts) }, {
      kind: 'set-clocks',
      clocks: before,
    });
  },
  touched: (edit) => edit.clocks.map((entry) => `clocks/${entry.camera}`),
  sentence: (edit) => (edit.clocks.length === 1 ? 'put a camera’s clock right' : 'put the cameras’ clocks right'),
};

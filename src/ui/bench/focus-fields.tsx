'use client';

import type { FocusRing } from '../../core/focus/focus-facts';
import type { AssetId } from '../../core/show/ids';
import { Button } from '../kit/button';
import { useShow } from '../show/show-provider';

interface FocusFieldsProps {
  /** Of all chosen pictures. */
  readonly assetIds: readonly AssetId[];
  /** What a person said of the picture at hand; undefined when nobody did. */
  readonly said: readonly FocusRing[] | undefined;
  /** Where what was found lies, and what it is. */
  readonly found: { readonly ring: FocusRing; readonly what: 'faces' | 'subjects' | 'colours' } | null;
  readonly onRings: (rings: readonly FocusRing[]) => void;
}

const FOUND = { faces: 'its faces', subjects: 'who is in it', colours: 'what stands out' } as const;
const MIDDLE: FocusRing = { x: 0.5, y: 0.45, radius: 0.15 };

/** What the picture is about, in words and buttons; the rings themselves lie on it. */
export function FocusFields({ assetIds, said, found, onRings }: FocusFieldsProps) {
  const edit = useShow((state) => state.edit);
  const forAll = (rings: readonly FocusRing[] | null) =>
    edit({ kind: 'set-focus', focus: assetIds.map((assetId) => ({ assetId, rings })) });
  return (
    <div className="mt-2 flex flex-wrap items-center gap-1.5" data-part="focus-fields">
      <span className="text-soft">About</span>
      <Button className="h-7" aria-pressed={said === undefined} onClick={() => forAll(null)} data-part="focus-found">
        {found ? FOUND[found.what] : 'what is found in it'}
      </Button>
      <Button className="h-7" aria-pressed={said?.length === 0} onClick={() => forAll([])}>
        nothing special
      </Button>
      <Button
        className="h-7"
        onClick={() => onRings([...(said ?? []), said?.length ? MIDDLE : (found?.ring ?? MIDDLE)])}
        data-part="add-ring"
      >
        + ring
      </Button>
    </div>
  );
}

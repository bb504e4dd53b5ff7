'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import { lookGiven, partsOf, type CopiedLook, type LookPart } from '../../core/show/copied-look';
import type { SlideId } from '../../core/show/ids';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { useShow } from '../show/show-provider';

interface LookDialogProps {
  readonly look: CopiedLook;
  readonly slideIds: readonly SlideId[];
  readonly onClose: () => void;
}

const NAMES: Record<LookPart, readonly [name: string, says: string]> = {
  light: ['Light', 'exposure, colour, print effects'],
  edge: ['Edge', 'shape, outline, shadow'],
  crop: ['Crop', 'and straightening'],
  move: ['Move', 'first and last framing, easing, rests'],
  words: ['Words’ look', 'font, colour, place, how they come and go; not what they say'],
};

/** Which parts of a copied look the chosen slides are given. */
export function LookDialog({ look, slideIds, onClose }: LookDialogProps) {
  const slides = useShow((state) => state.show.slides);
  const facts = useShow((state) => state.facts);
  const edit = useShow((state) => state.edit);
  const there = partsOf(look);
  const [parts, setParts] = useState<ReadonlySet<LookPart>>(
    () => new Set(there.filter((part) => part !== 'crop' && part !== 'move')),
  );
  const give = () => {
    const wanted = lookGiven(
      slides.filter((slide) => slideIds.includes(slide.id)),
      look,
      parts,
      facts,
    );
    if (wanted) edit(wanted);
    else toast('Nothing on these slides can take that.');
    onClose();
  };
  return (
    <Dialog title="Give the copied look" open onClose={onClose} className="w-[440px]">
      <ul className="flex flex-col gap-1.5" data-part="look-parts">
        {there.map((part) => (
          <li key={part}>
            <label className="flex cursor-pointer items-baseline gap-2.5 rounded-md border border-rule px-3 py-2 has-checked:border-red has-checked:bg-red-wash/50">
              <input
                type="checkbox"
                checked={parts.has(part)}
                onChange={(event) => {
                  const next = new Set(parts);
                  if (event.target.checked) next.add(part);
                  else next.delete(part);
                  setParts(next);
                }}
                className="accent-red"
              />
              <span>
                <span className="font-medium">{NAMES[part][0]}</span>{' '}
                <span className="text-soft">{NAMES[part][1]}</span>
              </span>
            </label>
          </li>
        ))}
      </ul>
      <div className="mt-4 flex justify-end gap-2">
        <Button onClick={onClose}>Not now</Button>
        <Button look="main" disabled={parts.size === 0} onClick={give} data-part="give-look">
          {slideIds.length === 1 ? 'Give it to this slide' : `Give it to ${slideIds.length} slides`}
        </Button>
      </div>
    </Dialog>
  );
}

'use client';

import { useMemo, useState } from 'react';
import { barredPictures, type BarredPicture } from '../../core/light/barred-pictures';
import { cropOfSides, croppedSize } from '../../core/motion/crop';
import type { PictureLayer } from '../../core/show/layer';
import { runCommand } from '../commands/use-commands';
import { Button } from '../kit/button';
import { CroppedPrint } from '../kit/cropped-print';
import { Dialog } from '../kit/dialog';
import { useShow } from '../show/show-provider';
import { cropEdit } from '../../core/motion/crop-edit';

const BOX = { widthPx: 208, heightPx: 132 };

/** The pictures with dark bars, and a way to see them trimmed. */
export function useBars(): { readonly found: readonly BarredPicture[]; readonly open: () => void } {
  const slides = useShow((state) => state.show.slides);
  const facts = useShow((state) => state.facts);
  const found = useMemo(() => barredPictures(slides, facts), [slides, facts]);
  return { found, open: () => runCommand('trim-bars') };
}

const nameOf = ({ slideId, layer }: BarredPicture): string => `${slideId} ${layer.id}`;

/** Every picture with dark bars, as it is and as it would be, side by side; the chosen ones are trimmed together. */
export function BarsDialog({ onClose }: { onClose: () => void }) {
  const { found } = useBars();
  const facts = useShow((state) => state.facts);
  const edit = useShow((state) => state.edit);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const chosen = found.filter((entry) => !left.has(nameOf(entry)));
  const trim = () => {
    const bars = new Map(chosen.map((entry) => [entry.layer, entry.bars]));
    const change = cropEdit(chosen, facts, (layer, picture) =>
      cropOfSides(bars.get(layer as PictureLayer)!, 0, picture),
    );
    if (change)
      edit({
        kind: 'together',
        name: `trim the dark bars of ${chosen.length} ${chosen.length === 1 ? 'picture' : 'pictures'}`,
        edits: [change],
      });
    onClose();
  };
  return (
    <Dialog title="Dark bars" open onClose={onClose} className="w-[560px]">
      {found.length === 0 ? (
        <p className="text-base text-soft">
          No picture of this show has dark bars baked into it, or all of them are trimmed. Bars are looked for when a
          file comes in.
        </p>
      ) : (
        <>
          <p className="text-soft">These files have dark bars baked in. Untick a picture to leave it as it is.</p>
          <ul className="mt-3 flex max-h-[56vh] flex-col gap-3 overflow-y-auto scroll-thin" data-part="bars-list">
            {found.map((entry) => {
              const { slideIndex, layer, bars } = entry;
              const name = nameOf(entry);
              const picture = facts.get(layer.assetId);
              if (picture?.kind !== 'picture') return null;
              const crop = cropOfSides(bars, 0, picture);
              const after = croppedSize(picture, crop);
              const scale = Math.min(BOX.widthPx / picture.widthPx, BOX.heightPx / picture.heightPx);
              return (
                <li key={name}>
                  <label className="flex items-center gap-4">
                    <input
                      type="checkbox"
                      className="size-4 accent-red"
                      checked={!left.has(name)}
                      aria-label={`Trim the picture of slide ${slideIndex + 1}`}
                      onChange={(event) =>
                        setLeft(
                          new Set(event.target.checked ? [...left].filter((other) => other !== name) : [...left, name]),
                        )
                      }
                    />
                    <span className="flex flex-1 items-center justify-between gap-3">
                      <span>
                        <CroppedPrint
                          assetId={layer.assetId}
                          picture={picture}
                          crop={undefined}
                          widthPx={picture.widthPx * scale}
                          heightPx={picture.heightPx * scale}
                        />
                        <span className="text-soft">
                          slide <span className="tabular">{slideIndex + 1}</span> as it is
                        </span>
                      </span>
                      <span>
                        <CroppedPrint
                          assetId={layer.assetId}
                          picture={picture}
                          crop={crop}
                          widthPx={after.widthPx * scale}
                          heightPx={after.heightPx * scale}
                        />
                        <span className="text-soft">trimmed</span>
                      </span>
                    </span>
                  </label>
                </li>
              );
            })}
          </ul>
          <div className="mt-4 flex justify-end gap-2">
            <Button onClick={onClose}>Leave them</Button>
            <Button look="main" disabled={chosen.length === 0} onClick={trim} data-part="trim-bars">
              Trim {chosen.length} {chosen.length === 1 ? 'picture' : 'pictures'}
            </Button>
          </div>
        </>
      )}
    </Dialog>
  );
}

'use client';

import { FlipHorizontal2, FlipVertical2, RotateCcw, RotateCw } from 'lucide-react';
import { useState } from 'react';
import {
  cropOn,
  cropOfShape,
  cropOfSides,
  croppedSize,
  furthestInside,
  partsOfTurn,
  quarterTurned,
  straightened,
  sidesOf,
  WHOLE_CROP,
  type Crop,
} from '../../core/motion/crop';
import type { ClipFacts, PictureFacts } from '../../core/show/asset-facts';
import type { ClipLayer, Flip, PictureLayer } from '../../core/show/layer';
import type { Slide } from '../../core/show/show';
import type { PreparedShow } from '../../core/frame/plan-frame';
import { Amount } from '../kit/amount';
import { Button } from '../kit/button';
import { NumberField } from '../kit/number-field';
import { Pick } from '../kit/pick';
import { useShow } from '../show/show-provider';
import { useBars } from './bars-dialog';
import { layersOf, useChosenSlides } from './chosen-layers';
import { cropEdit } from '../../core/motion/crop-edit';
import { CropStage } from './crop-stage';
import { LevelFields } from './level-fields';

type Shape = 'free' | 'frame' | 'own' | 'square';

interface CropTabProps {
  readonly slide: Slide;
  readonly layer: PictureLayer | ClipLayer;
  readonly prepared: PreparedShow;
}

/** What of the picture or clip is used, and how it lies: sides, straightening, quarter turns, flips, dark bars. */
export function CropTab({ slide, layer, prepared }: CropTabProps) {
  const edit = useShow((state) => state.edit);
  const chosen = useChosenSlides(slide);
  const bars = useBars();
  const [shape, setShape] = useState<Shape>('free');
  const picture = prepared.facts.get(layer.assetId);
  if (!picture || picture.kind !== layer.kind)
    return <p className="text-soft">Nothing is known about this picture’s file yet.</p>;
  const crop = layer.crop ? cropOn(picture, layer.crop) : WHOLE_CROP;
  const all = layersOf(chosen, slide, layer).flatMap(({ slideId, layer: entry }) =>
    entry.kind === layer.kind ? [{ slideId, layer: entry as PictureLayer | ClipLayer }] : [],
  );
  const { frame } = prepared.show;
  const aspectOf = (of: Shape, facts: PictureFacts | ClipFacts) =>
    ({ free: null, frame: frame.widthPx / frame.heightPx, own: facts.widthPx / facts.heightPx, square: 1 })[of];
  /** In all chosen pictures. */
  const cropAll = (next: (crop: Crop, facts: PictureFacts | ClipFacts) => Crop | null, joins?: string) => {
    const change = cropEdit(all, prepared.facts, (of, facts) => next(of.crop ?? WHOLE_CROP, facts));
    if (change) edit(change, joins && `${joins} ${layer.id}`);
  };
  const cropThis = (next: Crop) => {
    const change = cropEdit([{ slideId: slide.id, layer }], prepared.facts, () => next);
    if (change) edit(change, `crop ${layer.id}`);
  };
  const sides = sidesOf(crop, picture);
  const setSides = (next: typeof sides) =>
    cropThis(furthestInside(crop, cropOfSides(next, crop.turnDegrees, picture), picture));
  const reshape = (next: Shape) => {
    setShape(next);
    if (next !== 'free') cropAll((of, facts) => cropOfShape(of, aspectOf(next, facts)!, facts));
  };
  const flipAll = (which: keyof Flip) => {
    const on = !layer.flip?.[which];
    const ids = new Set(all.map(({ layer: entry }) => entry.id));
    const slides = chosen.map((other) => ({
      ...other,
      layers: other.layers.map((entry) =>
        (entry.kind === 'picture' || entry.kind === 'clip') && ids.has(entry.id) ? withFlip(entry, which, on) : entry,
      ),
    }));
    edit({
      kind: 'together',
      name: all.length > 1 ? `flip ${all.length} pictures` : `flip the ${layer.kind}`,
      edits: [{ kind: 'put-slides', slides }],
    });
  };
  // A crop turned one way shows the picture turned the other.
  const clockwise = 0 - partsOfTurn(crop.turnDegrees).straighten;
  const straighten = (degrees: number) => cropAll((of, facts) => straightened(of, 0 - degrees, facts), 'straighten');
  const left = croppedSize(picture, layer.crop);
  return (
    <div className="flex gap-4" data-part="crop">
      <CropStage
        assetId={layer.assetId}
        clipMs={layer.kind === 'clip' ? layer.trimStartMs : null}
        picture={picture}
        crop={crop}
        aspect={aspectOf(shape, picture)}
        mostWidthPx={232}
        mostHeightPx={196}
        onSides={setSides}
      />
      <div className="flex min-w-0 flex-1 flex-col gap-2.5">
        <div className="flex flex-wrap items-center gap-1.5">
          <Button
            square
            className="size-7"
            aria-label="Turn by a quarter, anticlockwise"
            onClick={() => cropAll((of, facts) => quarterTurned(of, facts, false))}
          >
            <RotateCcw size={14} />
          </Button>
          <Button
            square
            className="size-7"
            aria-label="Turn by a quarter, clockwise"
            onClick={() => cropAll((of, facts) => quarterTurned(of, facts, true))}
          >
            <RotateCw size={14} />
          </Button>
          <Button
            square
            className="size-7"
            aria-label="Flip left and right"
            aria-pressed={Boolean(layer.flip?.across)}
            onClick={() => flipAll('across')}
          >
            <FlipHorizontal2 size={14} />
          </Button>
          <Button
            square
            className="size-7"
            aria-label="Flip top and bottom"
            aria-pressed={Boolean(layer.flip?.down)}
            onClick={() => flipAll('down')}
          >
            <FlipVertical2 size={14} />
          </Button>
          <Pick
            label="Shape of what is left"
            value={shape}
            groups={[
              {
                name: null,
                options: [
                  { value: 'free', label: 'any shape' },
                  { value: 'frame', label: 'the film’s shape' },
                  { value: 'own', label: `the ${layer.kind}’s own` },
                  { value: 'square', label: 'square' },
                ],
              },
            ]}
            onChange={reshape}
          />
          <Button
            className="h-7"
            disabled={all.every(({ layer: entry }) => !entry.crop)}
            onClick={() => {
              setShape('free');
              cropAll(() => null);
            }}
          >
            whole again
          </Button>
        </div>
        <Amount
          narrow
          label="Straighten"
          value={clockwise}
          min={-20}
          max={20}
          rest={0}
          onChange={straighten}
          shown={
            <NumberField
              label="Straighten, degrees clockwise"
              value={clockwise}
              min={-44}
              max={44}
              step={0.1}
              unit="°"
              onCommit={straighten}
              className="text-ink"
            />
          }
        />
        <LevelFields layers={all} prepared={prepared} />
        <fieldset className="grid grid-cols-4 gap-x-2">
          <legend className="mb-0.5 text-soft">Cut off, percent</legend>
          {(['left', 'top', 'right', 'bottom'] as const).map((side) => (
            <span key={side} className="flex flex-col gap-0.5">
              <NumberField
                label={`Cut off the ${side}, percent`}
                value={100 * Math.max(0, sides[side])}
                min={0}
                max={99}
                onCommit={(value) => setSides({ ...sides, [side]: value / 100 })}
              />
              <span className="text-xs text-soft">{side}</span>
            </span>
          ))}
        </fieldset>
        <p className="text-soft">
          <span className="tabular">
            {left.widthPx} × {left.heightPx}
          </span>{' '}
          pixels are left
          {all.length > 1 && (
            <>
              ; turns, flips and straightening apply to all <b className="tabular text-ink">{all.length}</b> chosen
            </>
          )}
          .
        </p>
        {bars.found.length > 0 && (
          <p className="flex flex-wrap items-center gap-x-2 gap-y-1 rounded-md bg-saffron/15 px-2 py-1.5 text-saffron-deep">
            {bars.found.some((entry) => entry.layer.id === layer.id)
              ? 'Dark bars are baked into this picture.'
              : `Dark bars are baked into ${bars.found.length} ${bars.found.length === 1 ? 'picture' : 'pictures'}.`}
            <Button className="h-7" data-part="bars" onClick={bars.open}>
              See them trimmed
            </Button>
          </p>
        )}
      </div>
    </div>
  );
}

function withFlip(layer: PictureLayer | ClipLayer, which: keyof Flip, on: boolean): PictureLayer | ClipLayer {
  const { flip: before, ...rest } = layer;
  const { [which]: _before, ...other } = before ?? {};
  const flip: Flip = on ? { ...other, [which]: true } : other;
  return Object.keys(flip).length === 0 ? rest : { ...rest, flip };
}

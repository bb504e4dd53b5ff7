'use client';

import { useState, type PointerEvent } from 'react';
import { sidesOf, type Crop, type CropSides } from '../../core/motion/crop';
import type { AssetId } from '../../core/show/ids';
import { draggedSides, type CropHandle } from './crop-drag';
import { useClipFrameUrl, usePictureUrl } from '../show/file-url';

interface CropStageProps {
  readonly assetId: AssetId;
  /** Of a clip: the frame at this moment is what is cropped here. */
  readonly clipMs: number | null;
  readonly picture: { readonly widthPx: number; readonly heightPx: number };
  readonly crop: Crop;
  /** Width over height that is kept while dragging, or null. */
  readonly aspect: number | null;
  readonly mostWidthPx: number;
  readonly mostHeightPx: number;
  readonly onSides: (sides: CropSides) => void;
}

const SIDES = ['left', 'top', 'right', 'bottom'] as const;
const CORNERS = ['top left', 'top right', 'bottom left', 'bottom right'] as const;
const STEP = 0.01;

/** The whole picture as it lies under the crop's turn; what is cut away is dimmed. Sides and corners are dragged, or moved by arrow keys. */
export function CropStage({
  assetId,
  clipMs,
  picture,
  crop,
  aspect,
  mostWidthPx,
  mostHeightPx,
  onSides,
}: CropStageProps) {
  const pictureUrl = usePictureUrl();
  const frameUrl = useClipFrameUrl();
  const [held, setHeld] = useState<{ handle: CropHandle; x: number; y: number; start: CropSides } | null>(null);
  const radians = (crop.turnDegrees * Math.PI) / 180;
  const [cos, sin] = [Math.abs(Math.cos(radians)), Math.abs(Math.sin(radians))];
  const [boxW, boxH] = [cos * picture.widthPx + sin * picture.heightPx, sin * picture.widthPx + cos * picture.heightPx];
  const scale = Math.min(mostWidthPx / boxW, mostHeightPx / boxH);
  const [widthPx, heightPx] = [boxW * scale, boxH * scale];
  const sides = sidesOf(crop, picture);
  const kept = aspect === null ? null : (aspect * boxH) / boxW;
  const hold = (handle: CropHandle) => ({
    onPointerDown: (event: PointerEvent<HTMLElement>) => {
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      setHeld({ handle, x: event.clientX, y: event.clientY, start: sides });
    },
    onPointerMove: (event: PointerEvent<HTMLElement>) => {
      if (held?.handle === handle)
        onSides(
          draggedSides(
            held.start,
            handle,
            (event.clientX - held.x) / widthPx,
            (event.clientY - held.y) / heightPx,
            kept,
          ),
        );
    },
    onPointerUp: () => setHeld(null),
  });
  const at = {
    left: sides.left * widthPx,
    top: sides.top * heightPx,
    width: (1 - sides.left - sides.right) * widthPx,
    height: (1 - sides.top - sides.bottom) * heightPx,
  };
  const printWidth = picture.widthPx * scale;
  const printHeight = picture.heightPx * scale;
  return (
    <div
      className="relative shrink-0 touch-none overflow-hidden bg-surround select-none"
      style={{ width: widthPx, height: heightPx }}
      data-part="crop-stage"
    >
      {/* eslint-disable-next-line @next/next/no-img-element */}
      <img
        src={clipMs === null ? pictureUrl(assetId, 960) : frameUrl(assetId, clipMs)}
        alt=""
        draggable={false}
        className="absolute max-w-none"
        style={{
          width: printWidth,
          height: printHeight,
          left: (widthPx - printWidth) / 2,
          top: (heightPx - printHeight) / 2,
          transform: `rotate(${-crop.turnDegrees}deg)`,
        }}
      />
      <div
        className="absolute cursor-move outline outline-white"
        style={{ ...at, boxShadow: '0 0 0 999px rgb(23 21 19 / 0.62)' }}
        {...hold('all')}
      >
        {held && (
          <span
            aria-hidden="true"
            className="pointer-events-none absolute inset-0 bg-[linear-gradient(to_right,transparent_33%,#fff8_33%,#fff8_calc(33%+1px),transparent_calc(33%+1px),transparent_66.6%,#fff8_66.6%,#fff8_calc(66.6%+1px),transparent_calc(66.6%+1px)),linear-gradient(to_bottom,transparent_33%,#fff8_33%,#fff8_calc(33%+1px),transparent_calc(33%+1px),transparent_66.6%,#fff8_66.6%,#fff8_calc(66.6%+1px),transparent_calc(66.6%+1px))]"
          />
        )}
      </div>
      {CORNERS.map((corner) => (
        <span
          key={corner}
          aria-hidden="true"
          className="absolute size-4 -translate-1/2"
          style={{
            left: corner.includes('left') ? at.left : at.left + at.width,
            top: corner.includes('top') ? at.top : at.top + at.height,
            cursor: corner === 'top left' || corner === 'bottom right' ? 'nwse-resize' : 'nesw-resize',
          }}
          {...hold(corner)}
        />
      ))}
      {SIDES.map((side) => {
        const upright = side === 'left' || side === 'right';
        return (
          <button
            key={side}
            type="button"
            role="slider"
            aria-label={`Cut away at the ${side}`}
            aria-orientation={upright ? 'horizontal' : 'vertical'}
            aria-valuemin={0}
            aria-valuemax={100}
            aria-valuenow={Math.round(100 * sides[side])}
            aria-valuetext={`${(100 * sides[side]).toFixed(1)} percent`}
            className="absolute -translate-1/2 rounded-full border border-ink bg-print"
            style={{
              left: upright
                ? side === 'left'
                  ? Math.max(4, at.left)
                  : Math.min(widthPx - 4, at.left + at.width)
                : at.left + at.width / 2,
              top: upright
                ? at.top + at.height / 2
                : side === 'top'
                  ? Math.max(4, at.top)
                  : Math.min(heightPx - 4, at.top + at.height),
              width: upright ? 8 : 26,
              height: upright ? 26 : 8,
              cursor: upright ? 'ew-resize' : 'ns-resize',
            }}
            onKeyDown={(event) => {
              const [dx, dy] = (
                { ArrowLeft: [-STEP, 0], ArrowRight: [STEP, 0], ArrowUp: [0, -STEP], ArrowDown: [0, STEP] } as Record<
                  string,
                  [number, number]
                >
              )[event.key] ?? [0, 0];
              if (dx === 0 && dy === 0) return;
              event.preventDefault();
              event.stopPropagation();
              onSides(draggedSides(sides, side, dx, dy, kept));
            }}
            {...hold(side)}
          />
        );
      })}
    </div>
  );
}

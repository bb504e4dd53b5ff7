'use client';

import { useMemo } from 'react';
import { inSpace } from '../../core/frame/matrix';
import { layerPoses, parentsOf } from '../../core/frame/layer-poses';
import { slideMoment, USUAL_DISTANCE } from '../../core/frame/slide-moment';
import { everyLayer, type GroupLayer, type Layer } from '../../core/show/layer';
import { useChosenLayer, useOpenSlide } from './use-slide';
import { useSpaceDrag } from './use-space-drag';
import { useWide } from './wide-store';

const HIGH_PX = 184;

/** Who stands where in a space, seen from above: the frame as a line, the camera below it, nearer things lower. Layers and the camera are dragged. */
export function SpaceMap() {
  const { slide, around, nameOf } = useOpenSlide();
  const chosen = useChosenLayer();
  const offsetMs = useWide((state) => state.offsetMs);
  const space = useMemo(() => (chosen ? spaceAround(slide.layers, chosen) : null), [slide.layers, chosen]);
  const drag = useSpaceDrag();
  const seen = useMemo(() => {
    if (!space?.space) return null;
    const poses = layerPoses(around, offsetMs);
    const moment = slideMoment(around, offsetMs);
    const { widthPx, heightPx } = around.frame;
    const parts = [...everyLayer(space.layers)]
      .filter((layer) => layer.kind !== 'group' && !layer.hidden)
      .map((layer) => {
        const box = poses.box(layer);
        const [l, r] = [inSpace(box, 0, 0.5), inSpace(box, 1, 0.5)];
        const spot = ([x, , z]: readonly [number, number, number]) => ({
          x: (x - widthPx / 2) / heightPx,
          z: z / heightPx,
        });
        return { layer, left: spot(l), right: spot(r) };
      });
    const camera = {
      x: (moment.at(space.space.x, 0) * widthPx) / heightPx,
      z: moment.at(space.space.distance, USUAL_DISTANCE) - moment.at(space.space.z, 0),
      looks: moment.at(space.space.tiltYDegrees, 0),
    };
    return { parts, camera, half: widthPx / heightPx / 2 };
  }, [space, around, offsetMs]);
  if (!space?.space || !seen) return null;
  const { parts, camera, half } = seen;
  const zs = parts.flatMap(({ left, right }) => [left.z, right.z]);
  const [far, near] = [Math.min(-1, ...zs) - 0.2, Math.max(camera.z, 1, ...zs) + 0.25];
  const wide = Math.max(half + 0.4, ...parts.flatMap(({ left, right }) => [Math.abs(left.x), Math.abs(right.x)])) + 0.1;
  const scale = HIGH_PX / (near - far);
  const width = Math.max(280, 2 * wide * scale);
  const px = (x: number) => width / 2 + x * scale;
  const py = (z: number) => (z - far) * scale;
  return (
    <div className="flex shrink-0 items-start gap-4 border-t border-white/10 px-5 py-2" data-part="space-map">
      <h3 className="w-24 shrink-0 pt-1 text-base leading-tight">
        From above{' '}
        <span className="block font-sans text-xs font-normal text-lamp-soft">
          nearer is lower; drag who stands where
        </span>
      </h3>
      <div className="min-w-0 flex-1 overflow-x-auto scroll-thin">
        <svg
          width={width}
          height={HIGH_PX}
          className="mx-auto block touch-none"
          role="img"
          aria-label={`${parts.length} layers and the camera from above`}
        >
          <path d={`M${px(-half)} ${py(0)}H${px(half)}`} className="stroke-lamp-soft" strokeDasharray="4 4" />
          <path
            d={`M${px(-half)} ${py(0)}L${px(camera.x)} ${py(camera.z)}L${px(half)} ${py(0)}`}
            className="stroke-white/20"
            fill="none"
          />
          {parts.map(({ layer, left, right }) => (
            <line
              key={layer.id}
              x1={px(left.x)}
              y1={py(left.z)}
              x2={
                px(right.x) + (Math.abs(px(right.x) - px(left.x)) < 1 && Math.abs(py(right.z) - py(left.z)) < 1 ? 2 : 0)
              }
              y2={py(right.z)}
              strokeWidth={chosen?.id === layer.id ? 7 : 5}
              strokeLinecap="round"
              className={`cursor-move ${chosen?.id === layer.id ? 'stroke-red' : layer.kind === 'box' ? 'stroke-saffron' : 'stroke-slate'}`}
              data-part="space-layer"
              data-layer={layer.id}
              onPointerDown={(event) => drag.begin(event, 'layer', layer, scale)}
              onPointerMove={drag.move}
              onPointerUp={drag.end}
            >
              <title>{nameOf(layer)}</title>
            </line>
          ))}
          <g
            transform={`translate(${px(camera.x)} ${py(camera.z)}) rotate(${camera.looks})`}
            className="cursor-move"
            data-part="space-camera"
            onPointerDown={(event) => drag.begin(event, 'camera', space, scale)}
            onPointerMove={drag.move}
            onPointerUp={drag.end}
          >
            <path d="M-9 8h18v-10h-5l-4 -6l-4 6h-5z" className="fill-lamp stroke-black" />
            <title>The camera: drag it nearer, farther, aside</title>
          </g>
        </svg>
      </div>
    </div>
  );
}

/** The group with a space that a layer is, or stands in. */
function spaceAround(layers: readonly Layer[], layer: Layer): GroupLayer | null {
  const parents = parentsOf(layers);
  for (let at: Layer | undefined = layer; at; at = parents.get(at.id)) if (at.kind === 'group' && at.space) return at;
  return null;
}

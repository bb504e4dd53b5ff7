'use client';

import { useState } from 'react';
import { firstValue, type Channel } from '../../core/keys/channel';
import { isMoving } from '../../core/keys/edit-keys';
import { factsInUse } from '../../core/motion/crop';
import { EDGE_SHAPES, type EdgeShapeName } from '../../core/show/edge-shapes';
import type { ClipLayer, Edge, EdgeShape, PictureLayer } from '../../core/show/layer';
import type { Slide } from '../../core/show/show';
import { Amount } from '../kit/amount';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { ColourField } from '../kit/colour-field';
import { Pick } from '../kit/pick';
import { withPart } from '../kit/with-part';
import { useShow } from '../show/show-provider';
import { useChosenLayers } from './chosen-layers';
import { HandDrawnEdge } from './hand-drawn-edge';

const SHADOW: NonNullable<Edge['shadow']> = { x: 0.012, y: 0.018, softness: 0.018, colour: '#000000', opacity: 0.55 };
const USUAL_RADIUS = 0.08;

type ShapeChoice = 'plain' | 'rounded' | 'ellipse' | EdgeShapeName | 'hand';
const SHAPES: readonly {
  readonly name: string | null;
  readonly options: readonly { readonly value: ShapeChoice; readonly label: string }[];
}[] = [
  {
    name: null,
    options: [
      { value: 'plain', label: 'plain' },
      { value: 'rounded', label: 'rounded' },
      { value: 'ellipse', label: 'oval' },
    ],
  },
  {
    name: 'cut to a shape',
    options: [
      ...(Object.keys(EDGE_SHAPES) as EdgeShapeName[]).map((name) => ({ value: name, label: name })),
      { value: 'hand' as const, label: 'drawn by hand' },
    ],
  },
];

/** How a shadow goes over the slide's time. */
type ShadowCourse = 'stands' | 'comes' | 'goes';

/** Size, shape, outline, feather and shadow of the picture; a change applies to all chosen slides. */
export function EdgeTab({ slide, layer: own }: { slide: Slide; layer: PictureLayer | ClipLayer }) {
  const edit = useShow((state) => state.edit);
  const facts = useShow((state) => state.facts.get(own.assetId));
  const layers = useChosenLayers(slide, own);
  const [byHand, setByHand] = useState(false);
  const edge = own.edge ?? {};
  const change = (part: Partial<Record<keyof Edge, unknown>>, joins?: string) =>
    edit(
      {
        kind: 'set-edge',
        edges: layers.map(({ slideId, layer }) => ({ slideId, layerId: layer.id, edge: withPart(layer.edge, part) })),
      },
      joins && `${joins} ${own.id}`,
    );
  const shape = shapeChoice(edge.shape);
  const reshape = (choice: ShapeChoice) => {
    setByHand(choice === 'hand');
    if (choice !== 'hand') change({ shape: shapeOf(choice) });
  };
  const shadow = edge.shadow;
  const [opacity, course] = shadow ? shadowOf(shadow.opacity) : [0, 'stands' as const];
  const reshade = (part: Partial<NonNullable<Edge['shadow']>>, joins: string) =>
    change({ shadow: { ...SHADOW, ...shadow, ...part } }, joins);
  const size = firstValue(own.channels?.width, 1);
  const resize = (width: number) => {
    edit(
      {
        kind: 'together',
        name: layers.length === 1 ? 'change the size of the picture' : `change the size of ${layers.length} pictures`,
        edits: layers.map(({ slideId, layer }) => ({
          kind: 'set-channels',
          slideId,
          layerId: layer.id,
          channels: { width: width === 1 ? null : width },
        })),
      },
      `size ${own.id}`,
    );
  };
  const shown = facts && facts.kind !== 'sound' ? factsInUse(own, facts) : null;
  return (
    <div data-part="edge" className="flex flex-col gap-2">
      <div className="flex flex-wrap items-center gap-2">
        <Pick label="Shape" value={byHand ? 'hand' : shape} groups={SHAPES} onChange={reshape} />
        <Button
          className="h-7"
          disabled={layers.every(({ layer }) => !layer.edge)}
          onClick={() => {
            setByHand(false);
            edit({
              kind: 'set-edge',
              edges: layers.map(({ slideId, layer }) => ({ slideId, layerId: layer.id, edge: null })),
            });
          }}
        >
          as it was
        </Button>
        {layers.length > 1 && <span className="text-soft">for {layers.length} chosen pictures</span>}
      </div>
      {(byHand || shape === 'hand') && facts && shown && facts.kind !== 'sound' && (
        <HandDrawnEdge
          assetId={own.assetId}
          picture={facts}
          shown={shown}
          crop={own.kind === 'picture' ? own.crop : undefined}
          path={edge.shape?.kind === 'free' ? edge.shape.path : null}
          onDraw={(path) => change({ shape: { kind: 'free', path } })}
        />
      )}
      {own.channels?.height === undefined && (
        <Amount
          label="Size in the frame"
          value={size}
          min={0.2}
          max={1}
          rest={1}
          shown={`${Math.round(100 * size)} %`}
          onChange={resize}
        />
      )}
      {edge.shape?.kind === 'rounded' && (
        <Amount
          label="Roundness"
          value={edge.shape.radius}
          min={0}
          max={0.5}
          rest={USUAL_RADIUS}
          shown={percent(edge.shape.radius)}
          onChange={(radius) => change({ shape: { kind: 'rounded', radius } }, 'edge radius')}
        />
      )}
      <Amount
        label="Feather"
        keyed={isMoving(edge.feather)}
        value={firstValue(edge.feather)}
        min={0}
        max={0.4}
        rest={0}
        shown={percent(firstValue(edge.feather))}
        onChange={(feather) => change({ feather: feather === 0 ? undefined : feather }, 'edge feather')}
      />
      <Amount
        label="Outline"
        keyed={isMoving(edge.outline?.width)}
        value={firstValue(edge.outline?.width)}
        min={0}
        max={0.1}
        rest={0}
        shown={percent(firstValue(edge.outline?.width))}
        onChange={(width) =>
          change(
            { outline: width === 0 ? undefined : { colour: '#ffffff', where: 'inside', ...edge.outline, width } },
            'edge outline',
          )
        }
      />
      {edge.outline && (
        <div className="flex items-center gap-2 pl-[7rem]">
          <ColourField
            label="Colour of the outline"
            value={edge.outline.colour}
            onChange={(colour) => change({ outline: { ...edge.outline, colour } }, 'edge colour')}
          />
          <Choice
            label="Where the outline lies"
            value={edge.outline.where}
            onChange={(where) => change({ outline: { ...edge.outline, where } })}
            options={[
              { value: 'inside', label: 'inside' },
              { value: 'centre', label: 'centre' },
              { value: 'outside', label: 'outside' },
            ]}
          />
        </div>
      )}
      <Amount
        label="Shadow"
        value={opacity}
        min={0}
        max={1}
        rest={0}
        shown={`${Math.round(100 * opacity)}`}
        onChange={(next) =>
          next === 0
            ? change({ shadow: undefined }, 'edge shadow')
            : reshade({ opacity: shadowOver(next, course) }, 'edge shadow')
        }
      />
      {shadow && (
        <>
          <div className="flex items-center gap-2 pl-[7rem]">
            <ColourField
              label="Colour of the shadow"
              value={shadow.colour}
              onChange={(colour) => reshade({ colour }, 'edge shadow colour')}
            />
            <Pick
              label="Shadow over time"
              value={course}
              groups={[
                {
                  name: null,
                  options: [
                    { value: 'stands', label: 'stays as it is' },
                    { value: 'comes', label: 'grows over the slide' },
                    { value: 'goes', label: 'fades over the slide' },
                  ],
                },
              ]}
              onChange={(next) => reshade({ opacity: shadowOver(opacity, next) }, 'edge shadow course')}
            />
          </div>
          <Amount
            label="… softness"
            keyed={isMoving(shadow.softness)}
            value={firstValue(shadow.softness)}
            min={0}
            max={0.1}
            rest={SHADOW.softness as number}
            shown={percent(firstValue(shadow.softness))}
            onChange={(softness) => reshade({ softness }, 'edge softness')}
          />
          <Amount
            label="… across"
            keyed={isMoving(shadow.x)}
            value={firstValue(shadow.x)}
            min={-0.1}
            max={0.1}
            rest={SHADOW.x as number}
            shown={percent(firstValue(shadow.x))}
            onChange={(x) => reshade({ x }, 'edge shadow x')}
          />
          <Amount
            label="… down"
            keyed={isMoving(shadow.y)}
            value={firstValue(shadow.y)}
            min={-0.1}
            max={0.1}
            rest={SHADOW.y as number}
            shown={percent(firstValue(shadow.y))}
            onChange={(y) => reshade({ y }, 'edge shadow y')}
          />
        </>
      )}
      <p className="text-soft">
        An edge shows where the picture leaves room in the frame: make it smaller, or show it whole.
      </p>
    </div>
  );
}

function percent(value: number): string {
  return `${(100 * value).toFixed(1)} %`;
}

function shapeChoice(shape: EdgeShape | undefined): ShapeChoice {
  if (!shape) return 'plain';
  if (shape.kind !== 'free') return shape.kind;
  const named = Object.entries(EDGE_SHAPES).find(([, path]) => path === shape.path);
  return named ? (named[0] as EdgeShapeName) : 'hand';
}

function shapeOf(choice: Exclude<ShapeChoice, 'hand'>): EdgeShape | undefined {
  if (choice === 'plain') return undefined;
  if (choice === 'rounded') return { kind: 'rounded', radius: USUAL_RADIUS };
  return choice === 'ellipse' ? { kind: 'ellipse' } : { kind: 'free', path: EDGE_SHAPES[choice] };
}

function shadowOver(opacity: number, course: ShadowCourse): Channel {
  if (course === 'stands') return opacity;
  const [from, to] = course === 'comes' ? [0, opacity] : [opacity, 0];
  return {
    keys: [
      { at: { tied: 'stretch', share: 0 }, value: from, easing: 'linear' },
      { at: { tied: 'stretch', share: 1 }, value: to },
    ],
  };
}

function shadowOf(channel: Channel): readonly [opacity: number, course: ShadowCourse] {
  if (typeof channel === 'number') return [channel, 'stands'];
  const [first, last] = [channel.keys[0]!.value, channel.keys.at(-1)!.value];
  return last >= first ? [last, 'comes'] : [first, 'goes'];
}

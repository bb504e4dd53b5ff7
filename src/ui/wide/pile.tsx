'use client';

import {
  DndContext,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type DragMoveEvent,
} from '@dnd-kit/core';
import { clsx } from 'clsx';
import {
  Blend,
  Box,
  Circle,
  Eye,
  EyeOff,
  Folder,
  Image as ImageIcon,
  LockKeyhole,
  LockKeyholeOpen,
  PenTool,
  Scissors,
  Square,
  Type,
  type LucideIcon,
} from 'lucide-react';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { mayLieIn, placed, steppedOnce } from '../../core/layers/stack';
import type { LayerId } from '../../core/show/ids';
import type { GroupLayer, Layer } from '../../core/show/layer';
import { LONGEST_NAME } from '../../core/show/limits';
import { Button } from '../kit/button';
import { selectionAfterClick, selectionAfterStep } from '../kit/selection';
import { usePictureUrl } from '../show/file-url';
import { layerSays } from './layer-says';
import { say, useOpenSlide } from './use-slide';
import { usePickLayer } from './use-pick-layer';
import { useWide, useWideStore } from './wide-store';

const ICONS: { readonly [Kind in Layer['kind']]: LucideIcon } = {
  picture: ImageIcon,
  clip: ImageIcon,
  drawing: PenTool,
  words: Type,
  shape: Circle,
  gradient: Blend,
  solid: Square,
  box: Box,
  group: Folder,
};

/** A layer as it lies in the pile that is seen, nearest first. */
interface Row {
  readonly layer: Layer;
  readonly group: GroupLayer | null;
  readonly depth: number;
}
type Side = 'above' | 'below' | 'into';

function rowsOf(layers: readonly Layer[], group: GroupLayer | null = null, depth = 0): Row[] {
  return [...layers]
    .reverse()
    .flatMap((layer) => [
      { layer, group, depth },
      ...(layer.kind === 'group' ? rowsOf(layer.layers, layer, depth + 1) : []),
    ]);
}

/** The layers of the slide as they lie on each other. Dragged, or moved with Alt and the arrow keys; hidden, locked, named. */
export function Pile() {
  const store = useWideStore();
  const { slide, edit, nameOf } = useOpenSlide();
  const chosen = useWide((state) => state.chosen);
  const anchor = useWide((state) => state.anchor);
  const asking = useWide((state) => state.asking);
  const pick = usePickLayer();
  const rows = rowsOf(slide.layers);
  const order = rows.map(({ layer }) => layer.id);
  const [over, setOver] = useState<{ id: LayerId; side: Side } | null>(null);
  const [naming, setNaming] = useState<LayerId | null>(null);
  const list = useRef<HTMLDivElement>(null);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  useEffect(() => {
    const ask = (event: Event) => setNaming((event as CustomEvent<LayerId>).detail);
    window.addEventListener('tanager-name-layer', ask);
    return () => window.removeEventListener('tanager-name-layer', ask);
  }, []);
  useEffect(() => {
    if (anchor !== null) list.current?.querySelector(`[data-layer="${anchor}"]`)?.scrollIntoView({ block: 'nearest' });
  }, [anchor]);
  if (rows.length === 0)
    return <p className="px-4 py-3 text-soft">Nothing lies on this slide yet. Lay something on it.</p>;
  const spot = (event: DragMoveEvent): { id: LayerId; side: Side } | null => {
    const target = rows.find(({ layer }) => layer.id === event.over?.id);
    if (!target || !event.over || target.layer.id === event.active.id) return null;
    const y = (event.activatorEvent as unknown as { clientY: number }).clientY + event.delta.y;
    const share = (y - event.over.rect.top) / event.over.rect.height;
    const side: Side =
      target.layer.kind === 'group' && share > 0.3 && share < 0.75 ? 'into' : share < 0.5 ? 'above' : 'below';
    const into = side === 'into' ? target.layer.id : (target.group?.id ?? null);
    return mayLieIn(slide, event.active.id as LayerId, into) ? { id: target.layer.id, side } : null;
  };
  const drop = (event: DragMoveEvent) => {
    const to = spot(event);
    setOver(null);
    const target = rows.find(({ layer }) => layer.id === to?.id);
    if (!to || !target) return;
    const id = event.active.id as LayerId;
    const inside = to.side === 'into' && target.layer.kind === 'group' ? target.layer : null;
    const pile = (inside ? inside.layers : (target.group?.layers ?? slide.layers)).filter((layer) => layer.id !== id);
    const at = pile.findIndex((layer) => layer.id === target.layer.id);
    const aboveId = inside
      ? (pile.at(-1)?.id ?? null)
      : to.side === 'above'
        ? target.layer.id
        : (pile[at - 1]?.id ?? null);
    edit(placed(slide, id, inside ? inside.id : (target.group?.id ?? null), aboveId));
  };
  const keys = (event: KeyboardEvent) => {
    const by = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0;
    if (by === 0 || event.ctrlKey || event.metaKey || (event.target as Element).closest('input')) return;
    event.preventDefault();
    event.stopPropagation();
    if (event.altKey) {
      const step = anchor === null ? null : steppedOnce(slide, anchor, by < 0 ? 1 : -1);
      if (step) edit(step);
      else say('It lies there already.');
      return;
    }
    const next = selectionAfterStep(order, anchor, anchor, by, event.shiftKey);
    if (!next) return;
    store.getState().choose(next.ids, next.anchor);
    list.current?.querySelector<HTMLElement>(`[data-layer="${next.focus}"]`)?.focus();
  };
  return (
    <DndContext
      sensors={sensors}
      onDragMove={(event) => setOver(spot(event))}
      onDragEnd={(event) => drop(event)}
      onDragCancel={() => setOver(null)}
    >
      <div
        ref={list}
        role="tree"
        aria-label="Layers, nearest first"
        aria-multiselectable="true"
        data-part="pile"
        onKeyDown={keys}
      >
        {rows.map(({ layer, depth }) => (
          <LayerRow
            key={layer.id}
            layer={layer}
            depth={depth}
            chosen={chosen.has(layer.id)}
            reached={layer.id === (anchor ?? order[0])}
            over={over?.id === layer.id ? over.side : null}
            naming={naming === layer.id}
            says={layerSays(layer, nameOf)}
            name={nameOf(layer)}
            onName={(name) => {
              setNaming(null);
              if (name === null || name === (layer.name ?? '')) return;
              edit({
                kind: 'set-layer-properties',
                slideId: slide.id,
                layerId: layer.id,
                properties: { name: name.trim() === '' ? null : name.trim() },
              });
            }}
            onNaming={() => setNaming(layer.id)}
            onClick={(event) => {
              if (asking) return pick(layer.id);
              const next = selectionAfterClick(order, chosen, anchor, layer.id, event);
              store.getState().choose(next.ids, next.anchor);
            }}
            onToggle={(part) =>
              edit({
                kind: 'set-layer-properties',
                slideId: slide.id,
                layerId: layer.id,
                properties: { [part]: layer[part] ? null : true },
              })
            }
          />
        ))}
      </div>
    </DndContext>
  );
}

interface LayerRowProps {
  readonly layer: Layer;
  readonly depth: number;
  readonly chosen: boolean;
  /** The Tab key comes here. */
  readonly reached: boolean;
  readonly over: Side | null;
  readonly naming: boolean;
  readonly says: string;
  readonly name: string;
  readonly onName: (name: string | null) => void;
  readonly onNaming: () => void;
  readonly onClick: (keys: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) => void;
  readonly onToggle: (part: 'hidden' | 'locked') => void;
}

function LayerRow({
  layer,
  depth,
  chosen,
  reached,
  over,
  naming,
  says,
  name,
  onName,
  onNaming,
  onClick,
  onToggle,
}: LayerRowProps) {
  const { setNodeRef: setDrag, listeners, isDragging } = useDraggable({ id: layer.id });
  const { setNodeRef: setDrop } = useDroppable({ id: layer.id });
  const pictureUrl = usePictureUrl();
  const Icon = layer.mask ? Scissors : ICONS[layer.kind];
  const asset = layer.kind === 'picture' || layer.kind === 'drawing' ? layer.assetId : null;
  return (
    <div
      ref={(node) => {
        setDrag(node);
        setDrop(node);
      }}
      role="treeitem"
      aria-selected={chosen}
      aria-level={depth + 1}
      aria-expanded={layer.kind === 'group' ? true : undefined}
      tabIndex={reached ? 0 : -1}
      data-part="layer"
      data-layer={layer.id}
      data-kind={layer.kind}
      onClick={(event) => {
        if (!(event.target as Element).closest('button, input')) onClick(event);
      }}
      onDoubleClick={onNaming}
      style={{ paddingLeft: 12 + depth * 20 }}
      className={clsx(
        'relative flex h-11 items-center gap-2.5 border-b border-rule/70 pr-2 -outline-offset-2 select-none',
        chosen && 'bg-field shadow-[inset_3px_0_0_var(--color-red)]',
        isDragging && 'opacity-40',
        over === 'into' && 'bg-red-wash',
      )}
      {...listeners}
    >
      {(over === 'above' || over === 'below') && (
        <span
          aria-hidden="true"
          className={clsx(
            'pointer-events-none absolute inset-x-2 z-10 h-[3px] rounded-full bg-red',
            over === 'above' ? '-top-[2px]' : '-bottom-[2px]',
          )}
        />
      )}
      <span
        className={clsx(
          'grid h-7 w-9 shrink-0 place-items-center overflow-hidden border border-rule bg-paper text-soft',
          layer.hidden && 'opacity-40',
        )}
      >
        {asset ? (
          // eslint-disable-next-line @next/next/no-img-element
          <img src={pictureUrl(asset, 320)} alt="" className="h-full w-full object-cover" />
        ) : (
          <Icon size={14} aria-hidden="true" />
        )}
      </span>
      <span className="min-w-0 flex-1">
        {naming ? (
          <input
            autoFocus
            aria-label="Name of the layer"
            maxLength={LONGEST_NAME}
            defaultValue={layer.name ?? name}
            className="h-7 w-full rounded-md border border-rule bg-field px-1.5"
            onFocus={(event) => event.target.select()}
            onPointerDown={(event) => event.stopPropagation()}
            onBlur={(event) => onName(event.target.value)}
            onKeyDown={(event) => {
              event.stopPropagation();
              if (event.key === 'Enter') event.currentTarget.blur();
              if (event.key === 'Escape') {
                event.currentTarget.value = layer.name ?? '';
                onName(null);
              }
            }}
          />
        ) : (
          <>
            <span
              className={clsx(
                'block truncate leading-tight',
                chosen && 'font-semibold',
                layer.hidden && 'text-soft line-through',
              )}
            >
              {name}
            </span>
            {says && (
              <span
                className={clsx(
                  'block truncate text-xs leading-tight',
                  layer.mask ? 'text-plum' : layer.tether ? 'text-slate' : 'text-soft',
                )}
                title={says}
              >
                {says}
              </span>
            )}
          </>
        )}
      </span>
      <Button
        look="quiet"
        square
        className="size-7"
        aria-label={`${layer.hidden ? 'Show' : 'Hide'} ${name}`}
        aria-pressed={Boolean(layer.hidden)}
        data-part="hide"
        onClick={() => onToggle('hidden')}
      >
        {layer.hidden ? <EyeOff size={14} /> : <Eye size={14} />}
      </Button>
      <Button
        look="quiet"
        square
        className="size-7"
        aria-label={`${layer.locked ? 'Unlock' : 'Lock'} ${name}`}
        aria-pressed={Boolean(layer.locked)}
        data-part="lock"
        onClick={() => onToggle('locked')}
      >
        {layer.locked ? <LockKeyhole size={14} /> : <LockKeyholeOpen size={14} className="opacity-40" />}
      </Button>
    </div>
  );
}

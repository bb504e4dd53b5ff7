'use client';

import { useEffect, useMemo, useState } from 'react';
import { Group, Panel, Separator } from 'react-resizable-panels';
import { aloneShow } from '../../core/frame/alone';
import { prepareShow } from '../../core/frame/plan-frame';
import { withMaskSeen } from '../../core/layers/mask-seen';
import { layerIn } from '../../core/show/pile';
import { useCommands } from '../commands/use-commands';
import { useShow } from '../show/show-provider';
import { KeysPanel } from './keys-panel';
import { LayerPanel } from './layer-panel';
import { Stage } from './stage';
import { SlideContext, useOpenSlide, useSlideOpened } from './use-slide';
import { useWideActions } from './use-wide-actions';
import { createWideStore, useWide, WideContext } from './wide-store';

interface WideBenchProps {
  /** Where the viewer stood when it was opened. */
  readonly momentMs: number;
  readonly onFold: (momentMs: number) => void;
}

/** The bench opened wide: the keys of the chosen layer, time running down, at the left; the slide by itself in the middle; its pile of layers at the right. */
export function WideBench({ momentMs, onFold }: WideBenchProps) {
  const anchor = useShow((state) => state.anchor);
  const slides = useShow((state) => state.show.slides);
  const index = slides.findIndex((slide) => slide.id === anchor);
  const open = useSlideOpened(index);
  // Taken off in another window: there is nothing to work on any more.
  const gone = open === null;
  useEffect(() => {
    if (gone) onFold(momentMs);
  }, [gone, momentMs, onFold]);
  if (!open) return null;
  return (
    <SlideContext key={open.slide.id} value={open}>
      <OpenedWide beginMs={momentMs - open.prepared.spans[index]!.startMs} onFold={onFold} />
    </SlideContext>
  );
}

function OpenedWide({ beginMs, onFold }: { beginMs: number; onFold: (momentMs: number) => void }) {
  const open = useOpenSlide();
  const { slide, seenMs, prepared, index } = open;
  const [store] = useState(() =>
    createWideStore(
      Math.min(Math.max(0, beginMs), seenMs - 1),
      slide.layers.length > 0 ? [slide.layers.at(-1)!.id] : [],
    ),
  );
  // Layers that are gone, by undo or another hand, are not chosen any more.
  useEffect(() => {
    const { chosen, anchor, choose } = store.getState();
    const left = [...chosen].filter((id) => layerIn(slide.layers, id) !== null);
    if (left.length < chosen.size) choose(left, anchor !== null && left.includes(anchor) ? anchor : (left[0] ?? null));
  }, [store, slide.layers]);
  return (
    <WideContext value={store}>
      <Rooms onFold={() => onFold(prepared.spans[index]!.startMs + store.getState().offsetMs)} />
    </WideContext>
  );
}

function Rooms({ onFold }: { onFold: () => void }) {
  const { prepared, index, slide } = useOpenSlide();
  const maskSeen = useWide((state) => state.maskSeen);
  const alone = useMemo(() => {
    const show = aloneShow(prepared, index);
    return prepareShow(maskSeen === null ? show : withMaskSeen(show, maskSeen), prepared.facts);
  }, [prepared, index, maskSeen]);
  useCommands(useWideActions(onFold));
  return (
    <Group orientation="horizontal" className="min-h-0 min-w-0 flex-1" data-part="wide" data-slide={slide.id}>
      <Panel defaultSize="23%" minSize="16%" maxSize="40%" className="flex flex-col bg-paper">
        <KeysPanel />
      </Panel>
      <Separator
        aria-label="Width of the keys"
        className="w-[5px] bg-rule/70 outline-none hover:bg-soft/60 focus-visible:bg-red"
      />
      <Panel minSize="34%" className="flex flex-col">
        <Stage show={alone.show} onFold={onFold} />
      </Panel>
      <Separator
        aria-label="Width of the pile"
        className="w-[5px] bg-rule/70 outline-none hover:bg-soft/60 focus-visible:bg-red"
      />
      <Panel defaultSize="27%" minSize="22%" maxSize="42%" className="flex flex-col bg-card">
        <LayerPanel />
      </Panel>
    </Group>
  );
}

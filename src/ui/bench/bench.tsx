'use client';

import { Tabs } from 'radix-ui';
import { mainLayerOf } from '../../core/show/show';
import { usePrepared, useShow } from '../show/show-provider';
import { EdgeTab } from './edge-tab';
import { LightTab } from './light-tab';
import { RostrumTab } from './rostrum-tab';
import { TimeTab } from './time-tab';
import { WordsTab } from './words-tab';

const TABS = [['rostrum', 'Rostrum'], ['words', 'Words'], ['light', 'Light'], ['edge', 'Edge'], ['time', 'Time']] as const;

/** Where the chosen slide is worked on. */
export function Bench() {
  const prepared = usePrepared();
  const anchor = useShow((state) => state.anchor);
  const entries = useShow((state) => state.entries);
  const index = prepared.show.slides.findIndex((candidate) => candidate.id === anchor);
  const slide = prepared.show.slides[index];
  if (!slide) {
    return <div className="grid h-full place-items-center bg-card p-6 text-center text-soft" data-part="bench">Choose a slide in the order to work on it here.</div>;
  }
  const layer = mainLayerOf(slide);
  const facts = layer ? prepared.facts.get(layer.assetId) : undefined;
  const fileName = layer ? entries.find((entry) => entry.assetId === layer.assetId)?.fileName : undefined;
  return (
    <Tabs.Root defaultValue="rostrum" className="flex h-full flex-col bg-card" data-part="bench">
      <div className="flex h-10 shrink-0 items-center border-b border-rule px-4">
        <Tabs.List aria-label="Bench" className="flex h-full gap-5">
          {TABS.map(([value, name]) => (
            <Tabs.Trigger key={value} value={value} className="relative h-full text-base font-medium text-soft data-[state=active]:text-ink data-[state=active]:after:absolute data-[state=active]:after:inset-x-0 data-[state=active]:after:bottom-0 data-[state=active]:after:h-[3px] data-[state=active]:after:bg-red">{name}</Tabs.Trigger>
          ))}
        </Tabs.List>
        <span className="ml-auto truncate pl-4 text-soft">slide <span className="tabular">{index + 1}</span>{fileName && ` · ${fileName}`}{facts && facts.kind !== 'sound' && <> · <span className="tabular">{facts.widthPx} × {facts.heightPx}</span></>}</span>
      </div>
      <Tabs.Content value="rostrum" className="min-h-0 flex-1 overflow-y-auto p-4 scroll-thin"><RostrumTab key={slide.id} slide={slide} prepared={prepared} index={index} /></Tabs.Content>
      <Tabs.Content value="words" className="min-h-0 flex-1 overflow-y-auto p-4 scroll-thin"><WordsTab key={slide.id} slide={slide} /></Tabs.Content>
      <Tabs.Content value="light" className="min-h-0 flex-1 overflow-y-auto p-4 scroll-thin"><LightTab key={slide.id} slide={slide} /></Tabs.Content>
      <Tabs.Content value="edge" className="min-h-0 flex-1 overflow-y-auto p-4 scroll-thin"><EdgeTab key={slide.id} slide={slide} /></Tabs.Content>
      <Tabs.Content value="time" className="min-h-0 flex-1 overflow-y-auto p-4 scroll-thin"><TimeTab key={slide.id} slide={slide} prepared={prepared} index={index} /></Tabs.Content>
    </Tabs.Root>
  );
}

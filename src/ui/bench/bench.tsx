'use client';

import { Tabs } from 'radix-ui';
import { useState } from 'react';
import { picturesOf } from '../../core/show/layout';
import { Choice } from '../kit/choice';
import { usePrepared, useShow } from '../show/show-provider';
import { CropTab } from './crop-tab';
import { EdgeTab } from './edge-tab';
import { LayersTab } from './layers-tab';
import { LightTab } from './light-tab';
import { MountTab } from './mount-tab';
import { PicturesTab } from './pictures-tab';
import { RostrumTab } from './rostrum-tab';
import { TimeTab } from './time-tab';
import { WordsTab } from './words-tab';

const TABS = [
  ['rostrum', 'Rostrum'],
  ['crop', 'Crop'],
  ['words', 'Words'],
  ['light', 'Light'],
  ['edge', 'Edge'],
  ['pictures', 'Pictures'],
  ['layers', 'Layers'],
  ['time', 'Time'],
  ['mount', 'Mount'],
] as const;
/** Tabs that work on one picture, or on all pictures of all chosen slides. */
const OF_A_PICTURE = new Set<string>(['rostrum', 'crop', 'light', 'edge']);

/** Where the chosen slide is worked on. */
export function Bench() {
  const prepared = usePrepared();
  const anchor = useShow((state) => state.anchor);
  const entries = useShow((state) => state.entries);
  const [tab, setTab] = useState<string>('rostrum');
  const [picked, setPicked] = useState(0);
  const index = prepared.show.slides.findIndex((candidate) => candidate.id === anchor);
  const slide = prepared.show.slides[index];
  if (!slide) {
    return (
      <div className="grid h-full place-items-center bg-card p-6 text-center text-soft" data-part="bench">
        Choose a slide in the order to work on it here.
      </div>
    );
  }
  const pictures = picturesOf(slide);
  const layer = pictures[Math.min(picked, pictures.length - 1)];
  const fileName = layer ? entries.find((entry) => entry.assetId === layer.assetId)?.fileName : undefined;
  const blank = <p className="text-soft">A blank slide has no picture. Its colour is under Time.</p>;
  const content = 'min-h-0 flex-1 overflow-y-auto p-4 scroll-more';
  return (
    <Tabs.Root value={tab} onValueChange={setTab} className="flex h-full flex-col bg-card" data-part="bench">
      <div className="flex h-10 shrink-0 items-center border-b border-rule px-4">
        <Tabs.List aria-label="Bench" className="flex h-full gap-3.5">
          {TABS.map(([value, name]) => (
            <Tabs.Trigger
              key={value}
              value={value}
              className="relative h-full text-base font-medium text-soft data-[state=active]:text-ink data-[state=active]:after:absolute data-[state=active]:after:inset-x-0 data-[state=active]:after:bottom-0 data-[state=active]:after:h-[3px] data-[state=active]:after:bg-red"
            >
              {value === 'rostrum' && layer?.kind === 'clip' ? 'Clip' : name}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        <span className="tabular ml-auto pl-4 whitespace-nowrap text-soft max-[1420px]:hidden" title={fileName}>
          {index + 1} / {prepared.show.slides.length}
        </span>
      </div>
      {pictures.length > 1 && OF_A_PICTURE.has(tab) && (
        <div className="flex items-center gap-2 px-4 pt-3">
          <span className="text-soft">picture</span>
          <Choice
            label="Picture of this slide"
            value={String(Math.min(picked, pictures.length - 1))}
            onChange={(value) => setPicked(Number(value))}
            options={pictures.map((_, at) => ({ value: String(at), label: String(at + 1) }))}
          />
        </div>
      )}
      <Tabs.Content value="rostrum" className={content}>
        {layer ? <RostrumTab key={layer.id} slide={slide} layer={layer} prepared={prepared} index={index} /> : blank}
      </Tabs.Content>
      <Tabs.Content value="crop" className={content}>
        {layer ? <CropTab key={layer.id} slide={slide} layer={layer} prepared={prepared} /> : blank}
      </Tabs.Content>
      <Tabs.Content value="words" className={content}>
        <WordsTab key={slide.id} slide={slide} />
      </Tabs.Content>
      <Tabs.Content value="light" className={content}>
        {layer ? <LightTab key={layer.id} slide={slide} layer={layer} /> : blank}
      </Tabs.Content>
      <Tabs.Content value="edge" className={content}>
        {layer ? <EdgeTab key={layer.id} slide={slide} layer={layer} /> : blank}
      </Tabs.Content>
      <Tabs.Content value="pictures" className={content}>
        {layer ? <PicturesTab key={slide.id} slide={slide} /> : blank}
      </Tabs.Content>
      <Tabs.Content value="layers" className={content}>
        <LayersTab slide={slide} />
      </Tabs.Content>
      <Tabs.Content value="time" className={content}>
        <TimeTab key={slide.id} slide={slide} prepared={prepared} index={index} />
      </Tabs.Content>
      <Tabs.Content value="mount" className={content}>
        <MountTab key={slide.id} slide={slide} />
      </Tabs.Content>
    </Tabs.Root>
  );
}

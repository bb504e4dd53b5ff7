'use client';

import { useChosenLayer } from './use-slide';
import { ContentFields } from './content-fields';
import { EdgeFields } from './edge-fields';
import { LayOnMenu } from './lay-on-menu';
import { LightFields } from './light-fields';
import { Pile } from './pile';
import { SpaceFields } from './space-fields';
import { StandFields } from './stand-fields';
import { TieFields } from './tie-fields';
import { useWide } from './wide-store';

/** The pile of layers and, below it, everything that can be said of the chosen one. */
export function LayerPanel() {
  const layer = useChosenLayer();
  const count = useWide((state) => state.chosen.size);
  return (
    <section aria-label="Pile of layers" className="flex h-full min-h-0 flex-col" data-part="layer-panel">
      <div className="flex h-11 shrink-0 items-center gap-2 border-b border-rule px-4">
        <h2 className="text-base">Pile</h2>
        <span className="truncate text-soft">top lies nearest</span>
        <span className="ml-auto">
          <LayOnMenu />
        </span>
      </div>
      <div className="max-h-[46%] min-h-24 shrink-0 overflow-y-auto scroll-thin">
        <Pile />
      </div>
      <div
        className="min-h-0 flex-1 overflow-y-auto border-t border-rule px-4 py-3 scroll-more"
        data-part="layer-fields"
      >
        {layer ? (
          <div key={layer.id} className="flex flex-col gap-4">
            <ContentFields layer={layer} />
            <StandFields layer={layer} />
            {layer.kind === 'group' && <SpaceFields group={layer} />}
            <TieFields layer={layer} />
            <LightFields layer={layer} />
            <EdgeFields layer={layer} />
          </div>
        ) : (
          <p className="text-soft">
            {count > 1
              ? `${count} layers are chosen: move them together on the stage, or press G to make them a group.`
              : 'Choose a layer to see what can be said of it.'}
          </p>
        )}
      </div>
    </section>
  );
}

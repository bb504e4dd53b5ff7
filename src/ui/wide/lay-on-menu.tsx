'use client';

import { Plus } from 'lucide-react';
import { nanoid } from 'nanoid';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { parentsOf } from '../../core/frame/layer-poses';
import { newFileLayer, newLayer, type NewLayerKind } from '../../core/layers/new-layer';
import type { Layer } from '../../core/show/layer';
import { ChoosePrintDialog } from '../gather/choose-print-dialog';
import { runCommand } from '../commands/use-commands';
import { Button } from '../kit/button';
import { say, useOpenSlide } from './use-slide';
import { useWideStore } from './wide-store';

const KINDS: readonly { readonly kind: NewLayerKind; readonly name: string }[] = [
  { kind: 'words', name: 'words' },
  { kind: 'rectangle', name: 'rectangle' },
  { kind: 'ellipse', name: 'ellipse' },
  { kind: 'star', name: 'star' },
  { kind: 'gradient', name: 'gradient' },
  { kind: 'solid', name: 'solid colour' },
  { kind: 'box', name: 'box' },
  { kind: 'group', name: 'empty group' },
];
const FILES = { picture: 'a picture …', clip: 'a clip …', drawing: 'a drawing …' } as const;

const ITEM =
  'flex h-7 cursor-default items-center rounded-sm px-3 text-sm outline-none select-none data-[highlighted]:bg-rule/60';

/** What can be laid on the slide: above the chosen layer, or on top. */
export function LayOnMenu() {
  const store = useWideStore();
  const { slide, prepared, edit } = useOpenSlide();
  const [choosing, setChoosing] = useState<keyof typeof FILES | null>(null);
  const lay = (layer: Layer) => {
    const { anchor, choose } = store.getState();
    const parent = anchor === null ? null : (parentsOf(slide.layers).get(anchor) ?? null);
    const aboveId = anchor ?? slide.layers.at(-1)?.id ?? null;
    const done = edit({
      kind: 'add-layers',
      slideId: slide.id,
      runs: [{ into: parent?.id ?? null, aboveId, layers: [layer] }],
    });
    if (done) choose([layer.id], layer.id);
  };
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger asChild>
          <Button className="h-7" data-part="lay-on">
            <Plus size={13} /> lay on
          </Button>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="end"
            sideOffset={4}
            className="z-30 grid grid-cols-2 gap-x-2 rounded-lg border border-rule bg-card p-1.5 shadow-raised"
          >
            <div>
              {(Object.keys(FILES) as (keyof typeof FILES)[]).map((kind) => (
                <DropdownMenu.Item key={kind} className={ITEM} onSelect={() => setChoosing(kind)}>
                  {FILES[kind]}
                </DropdownMenu.Item>
              ))}
              {KINDS.map(({ kind, name }) => (
                <DropdownMenu.Item
                  key={kind}
                  className={ITEM}
                  onSelect={() => lay(newLayer(kind, prepared.show.frame, () => nanoid(10)))}
                >
                  {name}
                </DropdownMenu.Item>
              ))}
            </div>
            <div className="border-l border-rule pl-2">
              <DropdownMenu.Label className="px-3 py-1 text-xs text-soft">ready-made</DropdownMenu.Label>
              <DropdownMenu.Item className={ITEM} onSelect={() => runCommand('loupe')}>
                a loupe over the picture …
              </DropdownMenu.Item>
              <DropdownMenu.Item className={ITEM} onSelect={() => runCommand('turnover')}>
                a picture that turns over …
              </DropdownMenu.Item>
              <DropdownMenu.Item className={ITEM} onSelect={() => runCommand('lanterns')}>
                lanterns of many pictures …
              </DropdownMenu.Item>
            </div>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {choosing && (
        <ChoosePrintDialog
          title={`Lay on ${FILES[choosing].replace(' …', '')}`}
          kind={choosing === 'clip' ? 'clip' : 'picture'}
          part="lay-on-file"
          onChoose={(entry) => {
            const facts = prepared.facts.get(entry.assetId);
            const layer = facts && newFileLayer(entry.assetId, facts, choosing === 'drawing', () => nanoid(10));
            if (layer) lay(layer);
            else say('That file is not ready to be shown yet.');
          }}
          onClose={() => setChoosing(null)}
        />
      )}
    </>
  );
}

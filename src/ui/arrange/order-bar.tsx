'use client';

import { ChevronDown, ChevronUp, CopyPlus, Plus, Stamp, SwatchBook, Trash2 } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useStore } from 'zustand';
import { LAYOUT_NAMES, layoutsFor, picturesOf } from '../../core/show/layout';
import { runCommand } from '../commands/use-commands';
import { Button } from '../kit/button';
import { NumberField } from '../kit/number-field';
import { useShow } from '../show/show-provider';
import { copiedLook } from './copied-look-store';
import { LayoutSketch } from './layout-sketch';
import type { OrderActions } from './use-order-actions';

interface OrderBarProps {
  readonly actions: OrderActions;
  readonly trayOpen: boolean;
  readonly trayCount: number;
  readonly onTray: () => void;
}

/** What can be done with the chosen slides, under the order. */
export function OrderBar({ actions, trayOpen, trayCount, onTray }: OrderBarProps) {
  const slides = useShow((state) => state.show.slides);
  const selection = useShow((state) => state.selection);
  const frame = useShow((state) => state.show.frame);
  const hasLook = useStore(copiedLook, (state) => state.look !== null);
  const chosen = slides.filter((slide) => selection.has(slide.id));
  const pictures = chosen.flatMap(picturesOf).length;
  const same = chosen.every((slide) => slide.lengthMs === chosen[0]!.lengthMs);
  return (
    <div
      role="toolbar"
      aria-label="Chosen slides"
      data-part="order-bar"
      className="flex h-12 shrink-0 items-center gap-2 border-t border-rule bg-card px-4 whitespace-nowrap"
    >
      {chosen.length === 0 ? (
        <span className="truncate text-soft">
          Click a slide, or press ↓. Drag it elsewhere; drag a line for lengths.
        </span>
      ) : (
        <>
          <span>
            <b className="tabular">{chosen.length}</b> chosen
          </span>
          <NumberField
            label={
              chosen.length === 1 ? 'Length of the chosen slide in seconds' : 'Length of each chosen slide in seconds'
            }
            value={same ? chosen[0]!.lengthMs / 1000 : null}
            min={0.2}
            max={86_400}
            step={0.5}
            unit={chosen.length === 1 ? 's' : 's each'}
            onCommit={(seconds) => actions.setLength(Math.round(seconds * 1000))}
          />
          <span className="flex items-center" role="group" aria-label="Seam after the chosen slides">
            <span className="mr-1.5 text-soft">seam</span>
            <Button
              className="h-7 rounded-r-none px-1.5"
              aria-label="Seam half a second earlier; the next slide takes it"
              title="( the next slide takes half a second"
              onClick={() => actions.moveSeam(-500, 'roll')}
            >
              <ChevronUp size={14} />
            </Button>
            <Button
              className="-ml-px h-7 rounded-l-none px-1.5"
              aria-label="Seam half a second later; the next slide gives it"
              title=") the next slide gives half a second"
              onClick={() => actions.moveSeam(500, 'roll')}
            >
              <ChevronDown size={14} />
            </Button>
          </span>
          {chosen.length > 1 && pictures > 1 && pictures <= 12 && (
            <DropdownMenu.Root>
              <DropdownMenu.Trigger asChild>
                <Button className="h-7" data-part="join">
                  On one slide <ChevronDown size={13} />
                </Button>
              </DropdownMenu.Trigger>
              <DropdownMenu.Portal>
                <DropdownMenu.Content
                  align="start"
                  side="top"
                  sideOffset={4}
                  className="z-30 rounded-lg border border-rule bg-card p-1.5 shadow-raised"
                >
                  {layoutsFor(pictures).map((layout) => (
                    <DropdownMenu.Item
                      key={layout}
                      onSelect={() => actions.join(actions.chosen(), layout)}
                      className="flex h-10 cursor-default items-center gap-3 rounded-md px-2.5 outline-none data-[highlighted]:bg-rule/60"
                    >
                      <LayoutSketch layout={layout} count={pictures} frame={frame} /> {LAYOUT_NAMES[layout]}
                    </DropdownMenu.Item>
                  ))}
                </DropdownMenu.Content>
              </DropdownMenu.Portal>
            </DropdownMenu.Root>
          )}
          <Button className="h-7" title="Lay a mount (A)" onClick={() => runCommand('mounts')} data-part="bar-mounts">
            Mount
          </Button>
          <Button
            look="quiet"
            square
            aria-label="Duplicate the slides"
            title="Duplicate (Ctrl D)"
            onClick={actions.duplicate}
          >
            <CopyPlus size={15} />
          </Button>
          <Button
            look="quiet"
            square
            aria-label="Copy the look of the slide"
            title="Copy the look (Y)"
            onClick={() => runCommand('copy-look')}
          >
            <SwatchBook size={15} />
          </Button>
          {hasLook && (
            <Button
              look="quiet"
              square
              aria-label="Give the copied look to the slides"
              title="Give the copied look (Shift Y)"
              onClick={() => runCommand('give-look')}
              data-part="open-give-look"
            >
              <Stamp size={15} />
            </Button>
          )}
          <Button
            look="quiet"
            square
            aria-label="Remove the slides"
            title="Remove (Delete)"
            onClick={() => actions.remove()}
          >
            <Trash2 size={15} />
          </Button>
        </>
      )}
      <span className="ml-auto flex items-center gap-1">
        <Button
          look="quiet"
          className="h-8 px-2"
          aria-label="Insert a blank slide"
          title="A blank slide (B)"
          onClick={actions.blank}
        >
          <Plus size={13} /> Blank
        </Button>
        <Button className="h-7" aria-expanded={trayOpen} onClick={onTray} data-part="open-tray">
          {trayCount === 0 ? (
            'All prints are in'
          ) : (
            <>
              Prints to lay in <b className="tabular">{trayCount}</b>
            </>
          )}{' '}
          {trayOpen ? <ChevronDown size={13} /> : <ChevronUp size={13} />}
        </Button>
      </span>
    </div>
  );
}

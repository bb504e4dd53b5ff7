'use client';

import { nanoid } from 'nanoid';
import { useMemo, useState, type ReactNode } from 'react';
import { toast } from 'sonner';
import type { Built } from '../../core/builds/make-builds';
import type { LayerId, SlideId } from '../../core/show/ids';
import type { PreparedShow } from '../../core/frame/plan-frame';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { usePrepared, useShow, useShowStore } from '../show/show-provider';
import { BuildPreview } from './build-preview';
import { LanternsSettings, useLanterns } from './lanterns-settings';
import { LoupeSettings, useLoupe } from './loupe-settings';
import { TurnoverSettings, useTurnover } from './turnover-settings';

export type Build = 'loupe' | 'turnover' | 'lanterns';

interface BuildDialogProps {
  readonly build: Build;
  readonly onClose: () => void;
  readonly onMade: (slideId: SlideId, layerId: LayerId) => void;
}

/** A ready-made build: seen playing with the person's own pictures before it is made, made as one step. */
export function BuildDialog({ build, onClose, onMade }: BuildDialogProps) {
  // What is chosen and how the show is stay as they were when the window opened: nothing under it changes meanwhile.
  const store = useShowStore();
  const prepared = usePrepared();
  const [chosen] = useState<readonly SlideId[]>(() => {
    const { show, selection, anchor } = store.getState();
    const ids = show.slides.filter((slide) => selection.has(slide.id)).map((slide) => slide.id);
    return ids.length > 0 ? ids : anchor ? [anchor] : [];
  });
  const [id] = useState(() => nanoid(8));
  const parts = { prepared, chosen, id };
  switch (build) {
    case 'loupe':
      return <LoupeWindow {...parts} onClose={onClose} onMade={onMade} />;
    case 'turnover':
      return <TurnoverWindow {...parts} onClose={onClose} onMade={onMade} />;
    case 'lanterns':
      return <LanternsWindow {...parts} onClose={onClose} onMade={onMade} />;
  }
}

export interface BuildParts {
  readonly prepared: PreparedShow;
  readonly chosen: readonly SlideId[];
  /** Of what is made. */
  readonly id: string;
}
type WindowProps = BuildParts & Omit<BuildDialogProps, 'build'>;

function LoupeWindow({ onClose, onMade, ...parts }: WindowProps) {
  const loupe = useLoupe(parts);
  return (
    <BuildWindow
      title="A loupe over the picture"
      prepared={parts.prepared}
      built={loupe.built}
      make="Lay it on"
      onClose={onClose}
      onMade={onMade}
    >
      <LoupeSettings {...loupe} />
    </BuildWindow>
  );
}

function TurnoverWindow({ onClose, onMade, ...parts }: WindowProps) {
  const turned = useTurnover(parts);
  return (
    <BuildWindow
      title="A picture that turns over"
      prepared={parts.prepared}
      built={turned.built}
      make="Let it turn over"
      onClose={onClose}
      onMade={onMade}
    >
      <TurnoverSettings {...turned} />
    </BuildWindow>
  );
}

function LanternsWindow({ onClose, onMade, ...parts }: WindowProps) {
  const made = useLanterns(parts);
  return (
    <BuildWindow
      title="Lanterns"
      prepared={parts.prepared}
      built={made.built}
      make="Make the lanterns"
      onClose={onClose}
      onMade={onMade}
    >
      <LanternsSettings {...made} />
    </BuildWindow>
  );
}

function BuildWindow({
  title,
  prepared,
  built,
  make,
  onClose,
  onMade,
  children,
}: {
  title: string;
  prepared: PreparedShow;
  built: Built;
  make: string;
  onClose: () => void;
  onMade: (slideId: SlideId, layerId: LayerId) => void;
  children: ReactNode;
}) {
  const edit = useShow((state) => state.edit);
  const shown = useMemo(() => (built.ok ? built : null), [built]);
  return (
    <Dialog title={title} open onClose={onClose} className="w-[1000px]">
      <div className="grid grid-cols-[minmax(0,1fr)_300px] gap-6" data-part="build">
        <div className="grid min-h-64 place-items-center">
          {shown ? (
            <BuildPreview prepared={prepared} built={shown} />
          ) : (
            <p role="alert" className="max-w-sm text-center text-base" data-part="build-fault">
              {!built.ok && built.sentence}
            </p>
          )}
        </div>
        <div className="flex flex-col gap-3">{children}</div>
      </div>
      <div className="mt-5 flex items-center justify-end gap-2">
        <span className="mr-auto text-soft">
          One step, and Undo takes it back. Everything in it can be changed afterwards.
        </span>
        <Button onClick={onClose}>Not now</Button>
        <Button
          look="main"
          disabled={!built.ok}
          data-part="build-make"
          onClick={() => {
            if (!built.ok) return;
            onClose();
            if (edit(built.edit)) onMade(built.slideId, built.layerId);
            else toast('It could not be made.');
          }}
        >
          {make}
        </Button>
      </div>
    </Dialog>
  );
}

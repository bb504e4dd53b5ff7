'use client';

import { Feather, Plus, Table2 } from 'lucide-react';
import { nanoid } from 'nanoid';
import Link from 'next/link';
import { useCallback, useRef, useState } from 'react';
import { Group, Panel, Separator } from 'react-resizable-panels';
import type { SlideId } from '../../core/show/ids';
import { blankSlide } from '../../core/show/new-slide';
import { BuildDialog, type Build } from '../builds/build-dialog';
import { BarsDialog } from '../bench/bars-dialog';
import { Bench } from '../bench/bench';
import { KeepMountDialog } from '../reuse/keep-mount-dialog';
import { MountsDialog } from '../reuse/mounts-dialog';
import { PlumagePanel } from '../reuse/plumage-panel';
import { useCommands } from '../commands/use-commands';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { LengthsLine } from '../show/lengths-line';
import { PaceBar } from '../show/pace-bar';
import type { ShowState } from '../show/show-store';
import { usePrepared, useShow, useShowStore } from '../show/show-provider';
import { useKeptMoment } from '../show/kept-moment';
import type { ViewerHands } from '../viewer/use-viewer';
import { useHoldBefore } from '../viewer/before-light';
import { Viewer } from '../viewer/viewer';
import { PasteDialog } from '../words/paste-dialog';
import { WordsHands } from '../words/words-hands';
import { WideBench } from '../wide/wide-bench';
import { BorderHands } from './border-hands';
import type { Scale } from './row-heights';
import { TableDialog } from './table-dialog';
import { RunningOrder, type RunningOrderHands } from './running-order';

/** Where the show is put in order: the running order, the viewer, the bench. */
export function ArrangeStation() {
  const store = useShowStore();
  const prepared = usePrepared();
  const slideCount = useShow((state) => state.show.slides.length);
  const [scale, setScale] = useState<Scale>('even');
  const [barsOpen, setBarsOpen] = useState(false);
  const [build, setBuild] = useState<Build | null>(null);
  const [reuse, setReuse] = useState<'mounts' | 'keep' | null>(null);
  const [plumageOpen, setPlumageOpen] = useState(false);
  const [tableOpen, setTableOpen] = useState(false);
  /** The slides a text is laid on. */
  const [textOn, setTextOn] = useState<readonly SlideId[] | null>(null);
  const anchor = useShow((state) => state.anchor);
  /** Where the viewer stood when the bench was opened wide; null while it is folded. */
  const [wideAt, setWideAt] = useState<number | null>(null);
  const kept = useKeptMoment();
  const openWide = useCallback(
    (id: SlideId) => {
      const { select, selection } = store.getState();
      if (store.getState().anchor !== id) select(selection.has(id) ? [...selection] : [id], id);
      setWideAt(kept.getState().momentMs);
    },
    [store, kept],
  );
  const fold = useCallback(
    (momentMs: number) => {
      setWideAt(null);
      kept.getState().go(momentMs);
    },
    [kept],
  );
  const viewer = useRef<ViewerHands>(null);
  const order = useRef<RunningOrderHands>(null);
  const go = useCallback((momentMs: number) => viewer.current?.seek(momentMs), []);
  const play = useCallback((fromMs: number, untilMs: number) => viewer.current?.play(fromMs, untilMs), []);
  const showMoment = useCallback((momentMs: number) => order.current?.showMoment(momentMs), []);
  const holdBefore = useHoldBefore();
  useCommands({
    'before-light': slideCount > 0 && wideAt === null ? holdBefore : undefined,
    'trim-bars': wideAt === null ? () => setBarsOpen(true) : undefined,
    'open-wide': anchor && wideAt === null ? () => openWide(anchor) : undefined,
    loupe: anchor ? () => setBuild('loupe') : undefined,
    turnover: anchor ? () => setBuild('turnover') : undefined,
    lanterns: anchor ? () => setBuild('lanterns') : undefined,
    mounts: slideCount > 0 && wideAt === null ? () => setReuse('mounts') : undefined,
    'keep-mount': anchor && wideAt === null ? () => setReuse('keep') : undefined,
    plumage: slideCount > 0 && wideAt === null ? () => setPlumageOpen(!plumageOpen) : undefined,
    'order-table': slideCount > 0 && wideAt === null ? () => setTableOpen(true) : undefined,
    'paste-text': anchor && wideAt === null ? () => setTextOn(slidesForText(store.getState())) : undefined,
    scale: wideAt !== null ? undefined : () => setScale(scale === 'even' ? 'true' : 'even'),
    play:
      slideCount > 0 && wideAt === null
        ? () => {
            if (viewer.current?.playing) viewer.current.pause();
            else viewer.current?.play();
          }
        : undefined,
  });
  const builds = build && (
    <BuildDialog
      build={build}
      onClose={() => setBuild(null)}
      onMade={(id) => {
        store.getState().select([id], id);
        openWide(id);
      }}
    />
  );
  if (wideAt !== null)
    return (
      <>
        <WideBench momentMs={wideAt} onFold={fold} />
        {builds}
      </>
    );
  return (
    <Group orientation="horizontal" className="min-w-0 flex-1" data-part="arrange">
      <Panel defaultSize="56%" minSize="38%" className="flex flex-col">
        <div className="flex min-h-11 shrink-0 flex-wrap items-center gap-x-2 gap-y-1.5 border-b border-rule px-3 py-1.5">
          <LengthsLine />
          <span className="ml-auto flex items-center gap-2">
            <PaceBar />
            <Button
              className="h-7 px-2"
              aria-pressed={plumageOpen}
              title="The look of the whole show (D)"
              onClick={() => setPlumageOpen(!plumageOpen)}
              data-part="open-plumage"
            >
              <Feather size={13} /> <span className="max-[1420px]:sr-only">Plumage</span>
            </Button>
            <Button
              square
              className="size-7"
              disabled={slideCount === 0}
              aria-label="The order as a table"
              title="The order as a table (Shift S)"
              onClick={() => setTableOpen(true)}
              data-part="open-table"
            >
              <Table2 size={13} />
            </Button>
            <Choice
              label="Scale"
              value={scale}
              onChange={setScale}
              options={[
                { value: 'even', label: 'even' },
                { value: 'true', label: 'true' },
              ]}
            />
          </span>
        </div>
        {slideCount === 0 ? (
          <EmptyOrder
            onBlank={() =>
              store.getState().edit({
                kind: 'add-slides',
                runs: [{ afterId: null, slides: [blankSlide(5000, '#211d19', () => nanoid(10))] }],
              })
            }
          />
        ) : (
          <RunningOrder ref={order} scale={scale} onGo={go} onPlay={play} onOpen={openWide} />
        )}
      </Panel>
      <Separator
        aria-label="Width of the running order"
        className="w-[5px] bg-rule/70 outline-none hover:bg-soft/60 focus-visible:bg-red"
      />
      <Panel minSize="30%" className="flex flex-col">
        <Group orientation="vertical">
          <Panel defaultSize="56%" minSize="30%">
            <Viewer
              ref={viewer}
              onMoment={showMoment}
              over={(stands) => (
                <>
                  <WordsHands prepared={prepared} {...stands} />
                  <BorderHands prepared={prepared} index={stands.index} />
                </>
              )}
            />
          </Panel>
          <Separator
            aria-label="Height of the viewer"
            className="h-[5px] bg-rule/70 outline-none hover:bg-soft/60 focus-visible:bg-red"
          />
          <Panel minSize="20%">
            {plumageOpen ? <PlumagePanel onClose={() => setPlumageOpen(false)} /> : <Bench />}
          </Panel>
        </Group>
      </Panel>
      {tableOpen && <TableDialog onClose={() => setTableOpen(false)} />}
      {textOn && <PasteDialog slideIds={textOn} onClose={() => setTextOn(null)} />}
      {barsOpen && <BarsDialog onClose={() => setBarsOpen(false)} />}
      {builds}
      {reuse === 'mounts' && (
        <MountsDialog
          onClose={() => setReuse(null)}
          onLaid={(ids) => store.getState().select(ids.slice(0, 1), ids[0] ?? null)}
        />
      )}
      {reuse === 'keep' && <KeepMountDialog onClose={() => setReuse(null)} />}
    </Group>
  );
}

/** Those that are chosen when there are several, else from the chosen one on. */
function slidesForText({ show, selection, anchor }: ShowState): readonly SlideId[] {
  const ids = show.slides.map(({ id }) => id);
  return selection.size > 1 ? ids.filter((id) => selection.has(id)) : ids.slice(Math.max(0, ids.indexOf(anchor!)));
}

function EmptyOrder({ onBlank }: { onBlank: () => void }) {
  const show = useShow((state) => state.show.id);
  return (
    <div className="grid flex-1 place-items-center p-8 text-center">
      <div className="max-w-sm">
        <h2 className="text-lg">The order is empty</h2>
        <p className="mt-1.5 text-base text-soft">
          Choose prints on the contact sheet and lay them in. They stand here one below the other, as time runs.
        </p>
        <p className="mt-4 flex justify-center gap-2">
          <Link
            href={`/shows/${show}/gather`}
            className="inline-flex h-9 items-center rounded-md bg-red px-4 font-semibold text-white hover:bg-red-hover"
          >
            Go to the contact sheet
          </Link>
          <Button className="h-9" onClick={onBlank}>
            <Plus size={14} /> Blank slide
          </Button>
        </p>
      </div>
    </div>
  );
}

'use client';

import { Feather, ImagePlus, Layers, Layers2, Sparkle, Send } from 'lucide-react';
import { useSearchParams } from 'next/navigation';
import { useMemo, useRef, useState } from 'react';
import type { Mark } from '../../core/show/mark';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { callServer } from '../show/call-server';
import { useFolderPicker } from '../kit/use-folder-picker';
import { useCommands } from '../commands/use-commands';
import { Button } from '../kit/button';
import { selectionAfterClick, selectionAfterStep } from '../kit/selection';
import { useKept } from '../kit/use-kept';
import { IntakeNote } from '../show/intake-note';
import { useShow } from '../show/show-provider';
import { useUploads } from '../show/uploads-provider';
import { Arrivals } from './arrivals';
import { ClocksDialog } from './clocks-dialog';
import { ContactSheet } from './contact-sheet';
import { FactsPanel } from './facts-panel';
import { StartDialog } from '../reuse/start-dialog';
import { ChooseDialog } from './choose-dialog';
import { useStacks } from './use-stacks';
import { usePlayUnder } from './use-play-under';
import { LayInBar } from './lay-in-bar';
import { OneByOne } from './one-by-one';
import { useIsGuest } from '../people/me';
import { ProofsDialog } from '../proof/proofs-dialog';
import { useProofs, type ClientSays } from '../proof/use-proofs';
import { MissingFiles } from './missing-files';
import { RatingsNote } from './ratings-note';
import { ServerFolderDialog } from './server-folder-dialog';
import { BringIn, FilterMenu, OrderMenu, Tally } from './sheet-bar';
import { EVERYTHING, filtered, isSheetOrder, prints, slidesByAsset, toLayIn, type SheetOrder } from './sheet-view';
import { SwapDialog } from './swap-dialog';
import { useWarnings } from './use-warnings';

const ACCEPT =
  '.jpg,.jpeg,.png,.gif,.webp,.avif,.heic,.heif,.tif,.tiff,.svg,.dng,.cr2,.cr3,.crw,.nef,.nrw,.arw,.sr2,.orf,.rw2,.raf,.pef,.srw,.x3f,.3fr,.iiq,.mrw,.mp4,.mov,.webm,.mkv,.avi,.mp3,.m4a,.wav,.flac,.ogg,.opus,.xmp,image/*,video/*,audio/*';
const isTruth = (value: unknown): value is boolean => typeof value === 'boolean';
const NOTHING_SAID: readonly ClientSays[] = [];
const NO_MARKS: Readonly<Record<string, Mark>> = {};

/** Where files come in and are chosen: the contact sheet, the facts of what is under the hand, and the way into the order. */
export function GatherStation() {
  const isGuest = useIsGuest();
  const slides = useShow((state) => state.show.slides);
  const showId = useShow((state) => state.show.id);
  const marks = useShow((state) => state.show.marks) ?? NO_MARKS;
  const clocks = useShow((state) => state.show.clocks);
  const entries = useShow((state) => state.entries);
  const edit = useShow((state) => state.edit);
  const uploads = useUploads();
  const picker = useRef<HTMLInputElement>(null);
  const { pick: pickFolder, picker: folderPicker } = useFolderPicker(
    'A folder for this show',
    'folder-picker',
    (files) => uploads.add(files),
  );
  /** The purpose it was begun for on the shelf. */
  const begins = useSearchParams()?.get('start') ?? null;
  const [filter, setFilter] = useState(EVERYTHING);
  const [order, setOrder] = useKept<SheetOrder>(`tanager-sheet-order-${showId}`, 'taken', isSheetOrder);
  const [selection, setSelection] = useState<ReadonlySet<string>>(new Set());
  const [anchor, setAnchor] = useState<string | null>(null);
  const [focus, setFocus] = useState<string | null>(null);
  const [open, setOpen] = useState<
    'one-by-one' | 'server-folder' | 'swap' | 'clocks' | 'choose' | 'start' | 'proofs' | null
  >(begins === null ? null : 'start');

  /** A window that closes late does not close another one. */
  const close = (which: typeof open) => setOpen((now) => (now === which ? null : now));

  const usedOn = useMemo(() => slidesByAsset(slides), [slides]);
  const sheet = useMemo(() => prints(entries, order, clocks), [entries, order, clocks]);
  const through = useMemo(() => filtered(sheet, filter, usedOn, marks), [sheet, filter, usedOn, marks]);
  const [stacking, setStacking] = useKept<boolean>(`tanager-sheet-stacks-${showId}`, true, isTruth);
  const { entries: shown, places, toggle, stackCount } = useStacks(sheet, through, clocks, stacking);
  const warnings = useWarnings(shown);
  const { proofs, says, refresh } = useProofs(showId);
  const sounds = entries.filter((entry) => entry.facts?.kind === 'sound' && entry.made === null);
  const playUnder = usePlayUnder();
  const cues = useShow((state) => state.show.cues);
  const unheard = sounds.find((entry) => !cues.some((cue) => cue.assetId === entry.assetId));
  const looking = entries.some((entry) => entry.state === 'arrived');
  const ids = useMemo(() => shown.map((entry) => entry.id), [shown]);
  const chosen = shown.filter((entry) => selection.has(entry.id));
  const focused = shown.find((entry) => entry.id === focus) ?? null;
  const marked = chosen.length > 0 ? chosen : focused ? [focused] : [];
  const commonMark = new Set(marked.map((entry) => marks[entry.assetId] ?? null));
  const leftOver = sheet.filter(({ assetId }) => !usedOn.has(assetId) && marks[assetId] === undefined).length;
  const layIn = useMemo(() => toLayIn(shown, selection, usedOn, marks), [shown, selection, usedOn, marks]);

  const take = (selected: { ids: readonly string[]; anchor: string | null }, now: string | null) => {
    setSelection(new Set(selected.ids));
    setAnchor(selected.anchor);
    setFocus(now);
  };
  const step = (by: number, stretch: boolean) => {
    const next = selectionAfterStep(ids, anchor, focus, by, stretch);
    if (next) take(next, next.focus);
  };
  const setMarks = (which: readonly SheetEntry[], mark: Mark | null) => {
    const changing = which.filter((entry) => (marks[entry.assetId] ?? null) !== mark);
    if (changing.length > 0)
      edit({ kind: 'set-marks', marks: changing.map((entry) => ({ assetId: entry.assetId, mark })) });
  };
  const pencil = marked.length === 0 ? () => undefined : (mark: Mark | null) => () => setMarks(marked, mark);
  useCommands({
    'all-prints': () => take({ ids, anchor: ids[0] ?? null }, focus),
    'no-prints': () => take({ ids: [], anchor: null }, null),
    keep: pencil('keep'),
    linger: pencil('linger'),
    'leave-out': pencil('leave-out'),
    unmark: pencil(null),
    'play-under': unheard ? () => playUnder(unheard) : undefined,
    'bring-in': () => picker.current?.click(),
    'open-stack': focused && places.has(focused.id) ? () => toggle(focused.id) : undefined,
    'ask-client': sheet.length > 0 && !isGuest ? () => setOpen('proofs') : undefined,
    'choose-for-me': sheet.length > 1 ? () => setOpen('choose') : undefined,
    start: sheet.length > 0 ? () => setOpen('start') : undefined,
    clocks: shown.length > 0 ? () => setOpen('clocks') : undefined,
    'one-by-one': shown.length > 0 ? () => setOpen('one-by-one') : undefined,
    'swap-print': focused && usedOn.has(focused.assetId) ? () => setOpen('swap') : undefined,
  });

  return (
    <div className="relative flex min-w-0 flex-1" data-part="gather">
      <input
        ref={picker}
        type="file"
        multiple
        accept={ACCEPT}
        aria-label="Files for this show"
        className="sr-only"
        tabIndex={-1}
        data-part="file-picker"
        onChange={(event) => {
          uploads.add([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
      {folderPicker}
      <div className="flex min-w-0 flex-1 flex-col">
        <div className="flex h-11 shrink-0 items-center gap-3 border-b border-rule px-4 whitespace-nowrap">
          <Tally>
            <Count n={sheet.filter((entry) => entry.facts?.kind === 'picture').length} one="picture" />{' '}
            <Count n={sheet.filter((entry) => entry.facts?.kind === 'clip').length} one="clip" optional />{' '}
            <Count n={sounds.length} one="sound" optional />
          </Tally>
          <IntakeNote />
          <span className="ml-auto flex items-center gap-2">
            {stackCount > 0 && (
              <Button
                className="h-7"
                aria-pressed={stacking}
                title="Bursts and pictures nearly alike lie on each other, the best in front"
                onClick={() => setStacking(!stacking)}
                data-part="stacking"
              >
                <Layers size={13} /> <span className="tabular">{stackCount}</span>{' '}
                {stackCount === 1 ? 'stack' : 'stacks'}
              </Button>
            )}
            <OrderMenu order={order} onChange={setOrder} />
            <FilterMenu filter={filter} onChange={setFilter} shownCount={shown.length} />
            <Button
              className="h-7"
              disabled={sheet.length === 0}
              title="A wedding, a house tour, a school year … (D)"
              onClick={() => setOpen('start')}
              data-part="open-start"
            >
              <Feather size={13} /> Make a show
            </Button>
            <Button
              className="h-7"
              disabled={sheet.length < 2}
              onClick={() => setOpen('choose')}
              data-part="open-choose"
            >
              <Sparkle size={13} /> Choose for me
            </Button>
            <Button
              className="h-7"
              disabled={shown.length === 0}
              onClick={() => setOpen('one-by-one')}
              data-part="open-one-by-one"
            >
              <Layers2 size={14} /> One by one
            </Button>
            <BringIn
              onFiles={() => picker.current?.click()}
              onFolder={pickFolder}
              onServer={isGuest ? null : () => setOpen('server-folder')}
              marksAt={Object.keys(marks).length > 0 ? `/api/v1/shows/${showId}/marks` : null}
            />
          </span>
        </div>
        <MissingFiles className="shrink-0 border-b border-rule" />
        <RatingsNote />
        <Arrivals />
        {sheet.length === 0 ? (
          <div className="grid min-h-0 flex-1 place-items-center">
            <button
              type="button"
              onClick={() => picker.current?.click()}
              className="grid h-72 w-[560px] place-items-center rounded-xl border-2 border-dashed border-soft/40 text-center hover:border-red"
            >
              <span>
                <ImagePlus className="mx-auto mb-3 text-soft" size={34} strokeWidth={1.4} />
                <span className="block font-display text-lg font-semibold">
                  {looking ? 'Your files have arrived and are being looked at' : 'Drop pictures, clips and a song here'}
                </span>
                <span className="mt-1.5 block text-soft">a whole folder is fine · or choose files</span>
                <span className="mt-3 block text-xs text-soft">
                  JPEG, PNG, GIF, WebP, AVIF, HEIC, TIFF, SVG, RAW · MP4, MOV, WebM, MKV, AVI · MP3, M4A, WAV, FLAC,
                  OGG, Opus
                </span>
              </span>
            </button>
          </div>
        ) : (
          <ContactSheet
            entries={shown}
            usedOn={usedOn}
            marks={marks}
            says={says}
            warnings={warnings}
            stacks={places}
            onStack={toggle}
            selection={selection}
            focus={focus}
            onClick={(entry, keys) => take(selectionAfterClick(ids, selection, anchor, entry.id, keys), entry.id)}
            onOpen={(entry) => {
              setFocus(entry.id);
              setOpen('one-by-one');
            }}
            onStep={step}
            onBand={(picked) => take({ ids: picked, anchor: picked[0] ?? null }, picked.at(-1) ?? null)}
          />
        )}
        {sheet.length > 0 && shown.length === 0 && (
          <p className="absolute inset-x-0 top-40 text-center text-soft">
            No print is like that.{' '}
            <button
              type="button"
              className="text-ink underline underline-offset-2"
              onClick={() => setFilter(EVERYTHING)}
            >
              Show all
            </button>
          </p>
        )}
        {sheet.length > 0 && (
          <LayInBar entries={layIn.entries} why={layIn.why} leftOver={leftOver}>
            {!isGuest && (
              <Button
                className="h-10 px-4"
                title="A link under which a client marks pictures"
                onClick={() => setOpen('proofs')}
                data-part="open-proofs"
              >
                <Send size={14} /> Ask a client
              </Button>
            )}
          </LayInBar>
        )}
      </div>
      <FactsPanel
        entry={focused}
        chosenCount={chosen.length}
        mark={commonMark.size === 1 ? [...commonMark][0]! : null}
        says={focused ? (says.get(focused.assetId) ?? NOTHING_SAID) : NOTHING_SAID}
        warning={focused ? (warnings.get(focused.id)?.advice ?? null) : null}
        sounds={sounds}
        usedOn={usedOn}
        onMark={(mark) => setMarks(marked, mark)}
        onSwap={() => setOpen('swap')}
        onClocks={() => setOpen('clocks')}
      />
      {open === 'proofs' && (
        <ProofsDialog
          sheet={sheet}
          chosen={chosen}
          marks={marks}
          proofs={proofs}
          onDone={refresh}
          onClose={() => close('proofs')}
        />
      )}
      {open === 'start' && <StartDialog from={begins} onClose={() => close('start')} />}
      {open === 'choose' && <ChooseDialog sheet={sheet} onClose={() => close('choose')} />}
      {open === 'one-by-one' && (
        <OneByOne
          entries={shown}
          focus={focus}
          marks={marks}
          onFocus={(id) => take({ ids: [], anchor: id }, id)}
          onMark={(entry, mark) => setMarks([entry], mark)}
          onClose={() => close('one-by-one')}
        />
      )}
      {open === 'server-folder' && (
        <ServerFolderDialog
          onTake={(folder) => callServer('POST', `/api/v1/shows/${showId}/folder`, { folder })}
          onClose={() => close('server-folder')}
        />
      )}
      {open === 'clocks' && <ClocksDialog entry={focused} onClose={() => close('clocks')} />}
      {open === 'swap' && focused && <SwapDialog entry={focused} onClose={() => close('swap')} />}
    </div>
  );
}

function Count({ n, one, optional = false }: { n: number; one: string; optional?: boolean }) {
  if (n === 0 && optional) return null;
  return (
    <span className="mr-3">
      <b className="tabular">{n}</b> {n === 1 ? one : `${one}s`}
    </span>
  );
}

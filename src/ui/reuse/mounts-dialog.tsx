'use client';

import { nanoid } from 'nanoid';
import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import type { TooFew, TooMany } from '../../core/mounts/deal-out';
import { dealFor, groundOf, layEdit, withMount, type Laid, type LayMount } from '../../core/mounts/lay-mount';
import { filesOfMount } from '../../core/mounts/mount-document';
import { pictureWindows, takesOf, type Mount } from '../../core/mounts/mount';
import type { SlideId } from '../../core/show/ids';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { Dialog } from '../kit/dialog';
import { Pick } from '../kit/pick';
import { usePrepared, useShow, useShowStore } from '../show/show-provider';
import { LaidPreview } from './laid-preview';
import { MountCard } from './mount-card';
import { lendFiles, lookFor, mountsOf, useStudio, useWardrobe } from './studio-store';
import { WindowList } from './window-list';

const RANDOM_ID = () => nanoid(10);

/** All mounts, with the chosen pictures in them; one is looked at playing, its windows are filled otherwise, and it is laid as one step. */
export function MountsDialog({ onClose, onLaid }: { onClose: () => void; onLaid: (ids: readonly SlideId[]) => void }) {
  const store = useShowStore();
  const edit = useShow((state) => state.edit);
  const prepared = usePrepared();
  const { profile, kept, loaded } = useStudio();
  const wardrobe = useWardrobe(prepared.facts);
  // What is chosen and how the show is stay as they were when the window opened: nothing under it changes meanwhile.
  const [show] = useState(() => store.getState().show);
  const [chosen] = useState<readonly SlideId[]>(() => {
    const { selection, anchor } = store.getState();
    const ids = show.slides.filter(({ id }) => selection.has(id)).map(({ id }) => id);
    return ids.length > 0 ? ids : anchor ? [anchor] : [];
  });
  const ground = useMemo(() => groundOf(show, chosen, RANDOM_ID), [show, chosen]);
  const mounts = useMemo(() => mountsOf(kept), [kept]);
  const shelves = useMemo(() => [...new Set(mounts.map(({ shelf }) => shelf))], [mounts]);
  const count = ground.subjects.length;
  const [shelf, setShelf] = useState(() => (count > 1 ? 'Several pictures' : 'Openers'));
  const [part, setPart] = useState('');
  const shown = mounts.filter((mount) =>
    part.trim() === ''
      ? mount.shelf === shelf
      : `${mount.name} ${mount.description}`.toLowerCase().includes(part.trim().toLowerCase()),
  );
  const [pickedId, setPickedId] = useState<string | null>(null);
  const picked = shown.find(({ id }) => id === pickedId) ?? shown[0] ?? null;
  const look = useMemo(() => lookFor(show, profile), [show, profile]);
  const common = useMemo(
    () => ({ look, facts: wardrobe.facts, studio: wardrobe.studio, newId: RANDOM_ID }),
    [look, wardrobe],
  );
  const pick = (mount: Mount) => {
    setPickedId(mount.id);
    const document = kept.find(({ id }) => id === mount.id)?.document;
    const files = document ? filesOfMount(document) : [];
    void lendFiles(show.id, files).then((entries) => entries && store.getState().setEntries(entries));
  };
  const lay = (parts: LayMount) => {
    const result = layEdit(show, ground, parts);
    if (!result.ok) return void toast(result.sentence);
    onClose();
    if (edit(result.edit)) onLaid(result.slideIds);
  };
  return (
    <Dialog title="Mounts" open onClose={onClose} className="h-[92vh] w-[1180px]">
      <div
        className="grid min-h-0 flex-1 grid-cols-[150px_minmax(0,1fr)_400px] gap-5"
        data-part="mounts"
        data-loaded={loaded}
      >
        <nav aria-label="Shelves of mounts" className="flex flex-col gap-0.5 overflow-y-auto scroll-thin">
          <input
            type="search"
            aria-label="Find a mount"
            placeholder="find a mount"
            value={part}
            onChange={(event) => setPart(event.target.value)}
            className="mb-2 h-8 w-full rounded-md border border-rule bg-field px-2"
          />
          {shelves.map((name) => (
            <button
              key={name}
              type="button"
              aria-current={part === '' && name === shelf ? 'true' : undefined}
              onClick={() => {
                setPart('');
                setShelf(name);
              }}
              className="rounded-md px-2.5 py-1.5 text-left text-base text-soft hover:bg-rule/50 aria-[current]:bg-chosen aria-[current]:text-card"
            >
              {name}
            </button>
          ))}
        </nav>
        <ul
          aria-label="Mounts of this shelf"
          className="grid auto-rows-min grid-cols-2 gap-4 overflow-y-auto p-1.5 scroll-thin"
        >
          {shown.map((mount) => (
            <li key={mount.id}>
              <MountCard
                mount={mount}
                ground={ground}
                common={common}
                picked={mount.id === picked?.id}
                onPick={() => pick(mount)}
              />
            </li>
          ))}
          {shown.length === 0 && <li className="col-span-2 text-soft">No mount is called that.</li>}
        </ul>
        {picked && (
          <PickedMount
            key={picked.id}
            mount={picked}
            ground={ground}
            common={common}
            ready={loaded}
            onLay={lay}
            onClose={onClose}
          />
        )}
      </div>
    </Dialog>
  );
}

type Common = Pick<LayMount, 'look' | 'facts' | 'studio' | 'newId'>;

function PickedMount({
  mount,
  ground,
  common,
  ready,
  onLay,
  onClose,
}: {
  mount: Mount;
  ground: ReturnType<typeof groundOf>;
  common: Common;
  /** The studio is known, of which some words speak. */
  ready: boolean;
  onLay: (parts: LayMount) => void;
  onClose: () => void;
}) {
  const { show, subjects } = ground;
  const fits = useMemo(() => mount.fits(show.frame, common.look), [mount, show.frame, common.look]);
  const [fit, setFit] = useState<string>('by itself');
  const [tooFew, setTooFew] = useState<TooFew>('repeat');
  const [tooMany, setTooMany] = useState<TooMany>('again');
  const [said, setSaid] = useState<Readonly<Record<string, string>>>({});
  /** Changed places, by run and window; they are forgotten when the deal is another. */
  const [moved, setMoved] = useState<{
    readonly of: string;
    readonly runs: readonly (readonly (number | null)[])[];
  } | null>(null);
  const chosenFit = fit === 'by itself' ? {} : { fit };
  const base: LayMount = { ...common, mount, ...chosenFit, tooFew, tooMany, said };
  const deal = `${fit} ${tooFew} ${tooMany}`;
  const dealtByItself = useMemo(
    () => dealFor(ground, { ...common, mount, ...(fit === 'by itself' ? {} : { fit }), tooFew, tooMany }),
    [ground, common, mount, fit, tooFew, tooMany],
  );
  const dealt = useMemo(
    () =>
      moved?.of === deal
        ? {
            ...dealtByItself,
            runs: dealtByItself.runs.map((run, index) => ({ ...run, filled: moved.runs[index] ?? run.filled })),
          }
        : dealtByItself,
    [dealtByItself, moved, deal],
  );
  const parts: LayMount = { ...base, dealt };
  const laid: Laid = useMemo(
    () =>
      withMount(ground, { ...common, mount, ...(fit === 'by itself' ? {} : { fit }), tooFew, tooMany, said, dealt }),
    [ground, common, mount, fit, tooFew, tooMany, said, dealt],
  );
  const takes = [...new Set(fits.map(takesOf))].sort((a, b) => a - b);
  const first = dealt.runs[0];
  const fields = first?.fit.words ?? [];
  const names = [...new Set(fields.map(({ name }) => name))];
  const few = first && subjects.length < takesOf(first.fit);
  const many = subjects.length > Math.max(...takes) && Math.max(...takes) > 0;
  return (
    <div className="flex min-h-0 flex-col gap-3 overflow-y-auto pr-1 scroll-thin" data-part="picked-mount">
      {laid.ok ? (
        <LaidPreview laid={laid} facts={common.facts} />
      ) : (
        <p
          role="alert"
          className="grid aspect-video place-items-center bg-field p-6 text-center text-base"
          data-part="mount-fault"
        >
          {laid.sentence}
        </p>
      )}
      <div>
        <h3 className="text-lg">{mount.name}</h3>
        <p className="text-soft">{mount.description}</p>
        {mount.author && <p className="text-soft">by {mount.author}</p>}
      </div>
      <p data-part="mount-count">
        {takesSentence(takes)} <b className="tabular">{subjects.length}</b> {subjects.length === 1 ? 'is' : 'are'}{' '}
        chosen
        {dealt.runs.length > 1 && `; it is laid ${dealt.runs.length === 2 ? 'twice' : `${dealt.runs.length} times`}`}
        {dealt.left.length > 0 && takes.at(-1)! > 0 && `; ${dealt.left.length} stay slides of their own`}.
      </p>
      {fits.length > 1 && (
        <label className="flex items-center gap-2">
          <span className="text-soft">fit</span>
          <Pick
            label="Fit"
            value={fit}
            onChange={setFit}
            groups={[
              {
                name: null,
                options: [{ value: 'by itself', label: first ? `by itself: ${first.fit.name}` : 'by itself' }],
              },
              { name: 'Always', options: fits.map(({ name }) => ({ value: name, label: name })) },
            ]}
          />
        </label>
      )}
      {few && takesOf(first.fit) > 0 && (
        <label className="flex items-center gap-2">
          <span className="text-soft">too few pictures</span>
          <Choice
            label="When there are too few pictures"
            value={tooFew}
            onChange={setTooFew}
            options={[
              { value: 'repeat', label: 'show some again' },
              { value: 'empty', label: 'leave windows empty' },
            ]}
          />
        </label>
      )}
      {many && (
        <label className="flex items-center gap-2">
          <span className="text-soft">more than it takes</span>
          <Choice
            label="When there are more pictures than it takes"
            value={tooMany}
            onChange={setTooMany}
            options={[
              { value: 'again', label: 'lay it again' },
              { value: 'leave', label: 'leave the rest' },
            ]}
          />
        </label>
      )}
      {first && pictureWindows(first.fit).length > 1 && (
        <WindowList
          runs={dealt.runs}
          subjects={subjects}
          onMove={(run, from, to) => {
            const runs = dealt.runs.map(({ filled }) => [...filled]);
            const own = runs[run]!;
            [own[from], own[to]] = [own[to]!, own[from]!];
            setMoved({ of: deal, runs });
          }}
        />
      )}
      {names.map((name) => (
        <label key={name} className="grid gap-0.5">
          <span className="text-soft">{name}</span>
          <textarea
            rows={fields.find((field) => field.name === name)!.from === 'credits' ? 4 : 1}
            value={said[name] ?? (laid.ok ? sayingOf(laid, name) : '')}
            onChange={(event) => setSaid({ ...said, [name]: event.target.value })}
            className="min-h-8 resize-none rounded-md border border-rule bg-field px-2 py-1 [field-sizing:content]"
          />
        </label>
      ))}
      <div className="sticky bottom-0 mt-auto flex items-center gap-2 bg-card pt-2">
        <span className="mr-auto text-xs text-soft">One step. It comes off again and leaves what was there.</span>
        <Button onClick={onClose}>Not now</Button>
        <Button look="main" disabled={!laid.ok || !ready} data-part="lay-mount" onClick={() => onLay(parts)}>
          Lay it
        </Button>
      </div>
    </div>
  );
}

function takesSentence(takes: readonly number[]): string {
  const [least, most] = [takes[0] ?? 0, takes.at(-1) ?? 0];
  if (most === 0) return 'It takes no picture and goes beside what is chosen.';
  if (least === most) return most === 1 ? 'It takes one picture;' : `It takes ${most} pictures;`;
  return takes.length === most - least + 1
    ? `It takes ${least} to ${most} pictures;`
    : `It takes ${takes.slice(0, -1).join(', ')} or ${most} pictures;`;
}

function sayingOf(laid: Extract<Laid, { ok: true }>, name: string): string {
  for (const slide of laid.show.slides) {
    if (!laid.slideIds.includes(slide.id)) continue;
    const field = slide.mounted?.words?.find((one) => one.name === name);
    const layer = field && slide.layers.find(({ id }) => id === field.layerId);
    if (field && layer?.kind === 'words') return layer[field.part];
  }
  return '';
}

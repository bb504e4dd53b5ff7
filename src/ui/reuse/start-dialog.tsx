'use client';

import { nanoid } from 'nanoid';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import { startEdit, startedShow, type StartFile } from '../../core/starting/start-show';
import { STARTING_POINTS, type StartingPoint } from '../../core/starting/starting-points';
import { showLengthMs } from '../../core/timing/slide-span';
import { Button } from '../kit/button';
import { clock } from '../kit/clock';
import { Dialog } from '../kit/dialog';
import { NumberField } from '../kit/number-field';
import { Pick } from '../kit/pick';
import { Playing } from '../builds/build-preview';
import { usePrepared, useShow, useShowStore } from '../show/show-provider';
import { lendFiles, plumageOf, useStudio, useWardrobe } from './studio-store';

/** A show made of what lies on the sheet, for a purpose: watched before it is made, made as one step. */
export function StartDialog({ from, onClose }: { from: string | null; onClose: () => void }) {
  const store = useShowStore();
  const router = useRouter();
  const prepared = usePrepared();
  const entries = useShow((state) => state.entries);
  const edit = useShow((state) => state.edit);
  const { profile, loaded } = useStudio();
  const wardrobe = useWardrobe(prepared.facts);
  const [point, setPoint] = useState<StartingPoint>(
    () => STARTING_POINTS.find(({ id }) => id === from) ?? STARTING_POINTS[0]!,
  );
  const [plumageId, setPlumageId] = useState<string | null>(null);
  const [words, setWords] = useState<Partial<StartingPoint['words']>>({});
  const [most, setMost] = useState<number | null>(null);
  const { show } = prepared;
  const plumage = plumageOf(profile).find(({ id }) => id === (plumageId ?? point.plumage)) ?? plumageOf(profile)[0]!;
  const files = useMemo(
    () =>
      entries.flatMap(({ assetId, fileName, facts, made }): StartFile[] =>
        facts && made === null ? [{ assetId, fileName, facts }] : [],
      ),
    [entries],
  );
  const waiting = entries.filter(({ state }) => state === 'arrived').length;
  const unknown = files.filter(({ facts }) => facts.kind === 'picture' && !facts.focus).length;
  const pictures = files.filter(({ facts }) => facts.kind !== 'sound').length;
  const wanted = most ?? Math.min(pictures, point.most ?? pictures);
  const title = words.title ?? (show.title === 'New show' ? point.words.title : show.title);
  const started = useMemo(() => {
    if (pictures === 0) return null;
    const all = {
      point,
      plumage,
      with: point.with,
      words: { ...point.words, ...words, title },
      most: wanted >= pictures ? null : wanted,
      credits: point.credits,
      logo: { first: profile.newShows.logoFirst, last: profile.newShows.logoLast },
      ...(profile.newShows.watermark && profile.logo && { watermark: { assetId: profile.logo, ...profile.watermark } }),
    };
    return startedShow(show, files, all, wardrobe, () => nanoid(10));
  }, [show, files, pictures, point, plumage, words, title, wanted, wardrobe, profile]);
  const make = async () => {
    if (!started) return;
    const wantedEdit = startEdit(show, started, point.name);
    if (!wantedEdit) return void toast('The show is like that already.');
    const lent = await lendFiles(show.id, profile.logo ? [profile.logo] : []).catch(() => null);
    if (lent) store.getState().setEntries(lent);
    onClose();
    if (!edit(wantedEdit)) return;
    const first = store.getState().show.slides[0]?.id ?? null;
    store.getState().select(first ? [first] : [], first);
    router.push(`/shows/${show.id}/arrange`);
  };
  const field = 'h-8 w-full rounded-md border border-rule bg-field px-2';
  return (
    <Dialog title="Make a show of them" open onClose={onClose} className="w-[1120px]">
      <div className="grid grid-cols-[330px_minmax(0,1fr)] gap-6" data-part="start">
        <ul aria-label="What the show is for" className="flex flex-col gap-1.5">
          {STARTING_POINTS.map((one) => (
            <li key={one.id}>
              <button
                type="button"
                aria-pressed={one.id === point.id}
                onClick={() => {
                  setPoint(one);
                  setPlumageId(null);
                  setWords({});
                  setMost(null);
                }}
                data-start={one.id}
                className="block w-full rounded-md border border-rule px-3 py-2 text-left hover:border-soft aria-pressed:border-ink aria-pressed:bg-field"
              >
                <b className="text-base font-medium">{one.name}</b>
                <span className="block text-xs text-soft">{one.description}</span>
              </button>
            </li>
          ))}
        </ul>
        <div className="flex min-w-0 flex-col gap-3">
          {started ? (
            <Playing show={{ ...started.show, cues: [] }} facts={wardrobe.facts} />
          ) : (
            <p className="grid aspect-video place-items-center bg-field text-base text-soft">
              Bring pictures in first: drop a folder anywhere on the sheet.
            </p>
          )}
          <div className="grid grid-cols-[110px_minmax(0,1fr)] items-center gap-x-3 gap-y-2">
            <label htmlFor="start-title" className="text-soft">
              title
            </label>
            <input
              id="start-title"
              className={field}
              maxLength={300}
              value={title}
              onChange={(event) => setWords({ ...words, title: event.target.value })}
            />
            <label htmlFor="start-subtitle" className="text-soft">
              below it
            </label>
            <input
              id="start-subtitle"
              className={field}
              maxLength={300}
              placeholder="when the pictures were taken"
              value={words.subtitle ?? point.words.subtitle}
              onChange={(event) => setWords({ ...words, subtitle: event.target.value })}
            />
            <label htmlFor="start-closing" className="text-soft">
              at the end
            </label>
            <input
              id="start-closing"
              className={field}
              maxLength={300}
              value={words.closing ?? point.words.closing}
              onChange={(event) => setWords({ ...words, closing: event.target.value })}
            />
            <span className="text-soft">plumage</span>
            <span className="flex flex-wrap items-center gap-4">
              <Pick
                label="Plumage"
                value={plumage.id}
                onChange={setPlumageId}
                groups={[
                  { name: null, options: plumageOf(profile).map(({ id, name }) => ({ value: id, label: name })) },
                ]}
              />
              <NumberField
                label="Pictures at most"
                value={wanted}
                min={1}
                max={Math.max(1, pictures)}
                digits={0}
                unit={`of ${pictures} pictures`}
                onCommit={setMost}
              />
            </span>
          </div>
          <p className="text-soft" data-part="start-tally">
            {started
              ? `${started.show.slides.length} slides, about ${clock(showLengthMs(started.show))}${started.omitted > 0 ? `; ${started.omitted} are left out: alike, blurred, or more than enough of one moment` : ''}.`
              : ''}
            {waiting + unknown > 0 &&
              ` ${waiting + unknown} are still being looked at: what is chosen gets better when that is done.`}
          </p>
          <div className="mt-auto flex items-center justify-end gap-2">
            <span className="mr-auto text-xs text-soft">
              {show.slides.length > 0
                ? `One step: the ${show.slides.length} slides in the order make way, and Undo brings them back.`
                : 'One step. Everything in it can be changed afterwards.'}
            </span>
            <Button onClick={onClose}>Not now</Button>
            <Button look="main" disabled={!started || !loaded} onClick={() => void make()} data-part="start-make">
              Make the show
            </Button>
          </div>
        </div>
      </div>
    </Dialog>
  );
}

'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import { documentOf, draftsOf, fitOf, type WindowDraft, type WordsDraft } from '../../core/mounts/keep-mount';
import { builtFrom, transitionDocument } from '../../core/mounts/kept-transition';
import { suitsOf } from '../../core/mounts/deal-out';
import { WORDS_FROM } from '../../core/mounts/mount';
import type { WordsFrom } from '../../core/mounts/mount';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { NumberField } from '../kit/number-field';
import { Pick } from '../kit/pick';
import { callServer } from '../show/call-server';
import { usePictureUrl } from '../show/file-url';
import { usePrepared, useShowStore } from '../show/show-provider';
import { studioStore, useStudio } from './studio-store';
import { sayFault } from '../show/say-fault';

const IS: Readonly<Record<WindowDraft['is'], string>> = {
  picture: 'a window for a picture',
  backing: 'a window for the backing',
  logo: 'the studio’s logo',
  design: 'part of the design',
};
const FROM: Readonly<Record<WordsFrom, string>> = {
  words: 'what stood on the slides',
  title: 'the title of the show',
  dates: 'when the pictures were taken',
  chapter: 'the name of the chapter',
  studio: 'the studio’s name',
  contact: 'how to reach the studio',
  credits: 'the credits',
  own: 'these words, to be rewritten',
};
const NEW = 'a new mount';
const TRANSITION = 'a transition';

/** Keeps the chosen slides as a mount: which pictures are windows, which words are filled, what it is called. */
export function KeepMountDialog({ onClose }: { onClose: () => void }) {
  const store = useShowStore();
  const prepared = usePrepared();
  const pictureUrl = usePictureUrl();
  const { kept } = useStudio();
  const [slides] = useState(() => {
    const { show, selection, anchor } = store.getState();
    const chosen = show.slides.filter(({ id }) => selection.has(id));
    return chosen.length > 0 ? chosen : show.slides.filter(({ id }) => id === anchor);
  });
  const [drafts, setDrafts] = useState(() => draftsOf(slides));
  const [about, setAbout] = useState({
    name: '',
    author: studioStore.getState().profile.name,
    description: '',
    shelf: 'Our own',
  });
  const [posterMs, setPosterMs] = useState(() => Math.round((slides[0]?.lengthMs ?? 5000) * 0.6));
  const [into, setInto] = useState(NEW);
  const [busy, setBusy] = useState(false);
  const { frame, id: showId } = prepared.show;
  const fileNames = new Map(store.getState().entries.map(({ assetId, fileName }) => [assetId, fileName]));
  const setWindow = (index: number, next: Partial<WindowDraft>) =>
    setDrafts({ ...drafts, windows: drafts.windows.map((one, at) => (at === index ? { ...one, ...next } : one)) });
  const setWords = (index: number, next: Partial<WordsDraft>) =>
    setDrafts({ ...drafts, words: drafts.words.map((one, at) => (at === index ? { ...one, ...next } : one)) });
  const move = (index: number) => {
    const windows = [...drafts.windows];
    [windows[index - 1], windows[index]] = [windows[index]!, windows[index - 1]!];
    setDrafts({ ...drafts, windows });
  };
  const keepTransition = async () => {
    const [leaving, coming] = drafts.windows.filter(({ is }) => is === 'picture');
    const name = about.name.trim();
    const built = leaving && coming ? builtFrom(slides[0]!, leaving.assetId, coming.assetId, name) : null;
    if (built === null || typeof built === 'string')
      return void toast(
        built ?? 'A transition takes two pictures of the slide: one stands for what leaves, another for what comes.',
      );
    setBusy(true);
    try {
      const mount = transitionDocument(
        { name, author: about.author, shelf: about.shelf.trim() || 'Our own' },
        built,
        frame,
        fileNames,
      );
      await callServer('POST', '/api/v1/mounts', { from: showId, mount });
      await studioStore.getState().load();
      toast(`“${name}” is kept: you find it among your own transitions.`);
      onClose();
    } catch (error) {
      sayFault(error);
      setBusy(false);
    }
  };
  const keep = async () => {
    if (into === TRANSITION) return keepTransition();
    const whole = kept.find(({ id }) => id === into)?.document ?? null;
    const windows = drafts.windows.filter(({ is }) => is === 'picture');
    const aspects = windows.map(({ assetId }) => {
      const known = prepared.facts.get(assetId);
      return known && known.kind !== 'sound' ? known.widthPx / known.heightPx : 1;
    });
    const suits = suitsOf(aspects);
    const shape = suits === 'any' || suits === 'square' ? '' : `${suits} `;
    const plain =
      windows.length === 0
        ? 'without pictures'
        : `${windows.length} ${shape}${windows.length === 1 ? 'picture' : 'pictures'}`;
    const taken = new Set(whole?.fits.map(({ name }) => name));
    let name = plain;
    for (let count = 2; taken.has(name); count += 1) name = `${plain}, ${count}`;
    const fit = fitOf({ name, suits, frame, slides, ...drafts });
    const mount = whole
      ? documentOf(whole, [...whole.fits, fit], new Map([...fileNames, ...Object.entries(whole.files)] as never))
      : documentOf(
          { ...about, name: about.name.trim(), shelf: about.shelf.trim() || 'Our own', posterMs, goes: 'before' },
          [fit],
          fileNames,
        );
    setBusy(true);
    try {
      await callServer('POST', '/api/v1/mounts', { from: showId, mount });
      if (whole) await callServer('DELETE', `/api/v1/mounts/${into}`);
      await studioStore.getState().load();
      toast(
        whole ? `“${whole.name}” has a fit more: ${name}.` : `“${mount.name}” is kept: you find it among the mounts.`,
      );
      onClose();
    } catch (error) {
      sayFault(error);
      setBusy(false);
    }
  };
  if (slides.length === 0)
    return (
      <Dialog title="Keep as a mount" open onClose={onClose} className="w-[420px]">
        <p>Choose the slide or the run of slides that is to be a mount.</p>
      </Dialog>
    );
  const field = 'h-8 rounded-md border border-rule bg-field px-2';
  return (
    <Dialog title="Keep as a mount" open onClose={onClose} className="w-[760px]">
      <div className="flex flex-col gap-5" data-part="keep-mount">
        <div className="grid grid-cols-[120px_minmax(0,1fr)] items-center gap-x-4 gap-y-2">
          <span className="text-soft">kept as</span>
          <span>
            <Pick
              label="Kept as"
              value={into}
              onChange={setInto}
              groups={[
                {
                  name: null,
                  options: [
                    { value: NEW, label: NEW },
                    { value: TRANSITION, label: 'a transition: the first picture leaves, the second comes' },
                  ],
                },
                {
                  name: 'Another fit of',
                  options: kept
                    .filter(({ removed }) => !removed)
                    .map(({ id, document }) => ({ value: id, label: document.name })),
                },
              ]}
            />
          </span>
          {(into === NEW || into === TRANSITION) && (
            <>
              <label htmlFor="mount-name" className="text-soft">
                called
              </label>
              <input
                id="mount-name"
                className={field}
                maxLength={200}
                value={about.name}
                onChange={(event) => setAbout({ ...about, name: event.target.value })}
              />
              <label htmlFor="mount-description" className="text-soft">
                what it is
              </label>
              <input
                id="mount-description"
                className={field}
                maxLength={500}
                value={about.description}
                onChange={(event) => setAbout({ ...about, description: event.target.value })}
              />
              <label htmlFor="mount-shelf" className="text-soft">
                on the shelf
              </label>
              <input
                id="mount-shelf"
                className={field}
                maxLength={200}
                value={about.shelf}
                onChange={(event) => setAbout({ ...about, shelf: event.target.value })}
              />
              <label htmlFor="mount-author" className="text-soft">
                made by
              </label>
              <input
                id="mount-author"
                className={field}
                maxLength={200}
                value={about.author}
                onChange={(event) => setAbout({ ...about, author: event.target.value })}
              />
              <span className="text-soft">stands for it</span>
              <NumberField
                label="Moment that stands for it, in seconds"
                value={posterMs / 1000}
                min={0}
                max={(slides[0]!.lengthMs - 50) / 1000}
                step={0.5}
                digits={1}
                unit="s into its first slide"
                onCommit={(seconds) => setPosterMs(Math.round(seconds * 1000))}
              />
            </>
          )}
        </div>
        {drafts.windows.length > 0 && (
          <ul className="flex flex-col gap-2" aria-label="Pictures of these slides">
            {drafts.windows.map((draft, index) => (
              <li key={draft.assetId} className="flex items-center gap-3">
                {/* eslint-disable-next-line @next/next/no-img-element */}
                <img
                  src={pictureUrl(draft.assetId, 320)}
                  alt=""
                  className="h-10 w-14 bg-print object-cover p-[2px] shadow-print"
                />
                <Pick
                  label={`What picture ${index + 1} is`}
                  value={draft.is}
                  onChange={(is) => setWindow(index, { is })}
                  groups={[
                    {
                      name: null,
                      options: (Object.keys(IS) as WindowDraft['is'][]).map((value) => ({ value, label: IS[value] })),
                    },
                  ]}
                />
                {draft.is !== 'design' && (
                  <input
                    aria-label={`Name of window ${index + 1}`}
                    className={`${field} flex-1`}
                    maxLength={200}
                    value={draft.name}
                    onChange={(event) => setWindow(index, { name: event.target.value })}
                  />
                )}
                <Button className="h-7" disabled={index === 0} onClick={() => move(index)}>
                  Earlier
                </Button>
              </li>
            ))}
          </ul>
        )}
        {drafts.words.length > 0 && (
          <ul className="flex flex-col gap-2" aria-label="Words of these slides">
            {drafts.words.map((draft, index) => (
              <li key={`${draft.layerId} ${draft.part}`} className="flex items-center gap-3">
                <input
                  aria-label={`Name of words ${index + 1}`}
                  className={`${field} w-40`}
                  maxLength={200}
                  value={draft.name}
                  onChange={(event) => setWords(index, { name: event.target.value })}
                />
                <span className="text-soft">filled from</span>
                <Pick
                  label={`What words ${index + 1} are filled from`}
                  value={draft.from ?? 'fixed'}
                  onChange={(from) => setWords(index, { from: from === 'fixed' ? null : (from as WordsFrom) })}
                  groups={[
                    {
                      name: null,
                      options: [
                        { value: 'fixed', label: 'nothing: they stay as they are' },
                        ...WORDS_FROM.map((value) => ({ value, label: FROM[value] })),
                      ],
                    },
                  ]}
                />
              </li>
            ))}
          </ul>
        )}
      </div>
      <div className="mt-5 flex items-center justify-end gap-2">
        <span className="mr-auto text-soft">Moves, keys, masks, lengths, transitions and their sounds come along.</span>
        <Button onClick={onClose}>Not now</Button>
        <Button
          look="main"
          disabled={busy || ((into === NEW || into === TRANSITION) && about.name.trim() === '')}
          onClick={() => void keep()}
          data-part="keep-mount-do"
        >
          Keep it
        </Button>
      </div>
    </Dialog>
  );
}

'use client';

import { Dices, Pin, PinOff, X } from 'lucide-react';
import { useMemo } from 'react';
import { toast } from 'sonner';
import { usualParts } from '../../core/plumage/usual-parts';
import { dressEdit, undressEdit, type Dress } from '../../core/plumage/dress';
import { differencesFrom, givenBackEdit, pinEdit } from '../../core/plumage/differences-from';
import type { Plumage, PlumageWith } from '../../core/plumage/plumage';
import type { ShowEdit } from '../../core/show/edit';
import type { AssetId } from '../../core/show/ids';
import { hasLogo, logoEdit, type LogoPlace } from '../../core/studio/logo';
import { FONTS } from '../bench/words-fonts';
import { Button } from '../kit/button';
import { usePrepared, useShow, useShowStore } from '../show/show-provider';
import { lendFiles, lookFor, plumageOf, studioStore, useStudio, useWardrobe } from './studio-store';
import { WatermarkFields } from './watermark-fields';
import { nanoid } from 'nanoid';
import { sayFault } from '../show/say-fault';

const PARTS: readonly [keyof PlumageWith, string][] = [
  ['opener', 'an opener'],
  ['chapters', 'chapter cards'],
  ['closer', 'a closer'],
  ['several', 'some slides of several pictures'],
];

/** The look of the whole show, beside the running order: each click dresses it at once, as one step. */
export function PlumagePanel({ onClose }: { onClose: () => void }) {
  const prepared = usePrepared();
  const { show } = prepared;
  const edit = useShow((state) => state.edit);
  const selection = useShow((state) => state.selection);
  const select = useShow((state) => state.select);
  const { profile, loaded } = useStudio();
  const wardrobe = useWardrobe(prepared.facts);
  const inUse = show.plumage ?? null;
  const parts = inUse?.with ?? usualParts(show);
  const dress = (given: Partial<Dress> & { plumage: Plumage }, name?: string) => {
    const { edit: wanted, missing } = dressEdit(
      show,
      { with: parts, seed: inUse?.seed ?? 0, ...given },
      wardrobe,
      name,
    );
    for (const sentence of missing.values()) toast(sentence);
    if (wanted) edit(wanted);
  };
  const perform = (wanted: ShowEdit | null) => wanted && edit(wanted);
  const differences = useMemo(() => differencesFrom(show, wardrobe), [show, wardrobe]);
  const chosen = show.slides.filter(({ id }) => selection.has(id));
  const pinned = chosen.length > 0 && chosen.every((slide) => slide.chosen?.transition === 'hand');
  const keep = async () => {
    if (!inUse) return;
    const own = {
      ...inUse.is,
      id: nanoid(10),
      name: `${inUse.is.name} of ${show.title}`.slice(0, 60),
      temperament: show.temperament ?? 'even',
    };
    try {
      await studioStore.getState().setProfile({ ...profile, plumage: [...profile.plumage, withShowsOwn(own, show)] });
      toast(`“${own.name}” is kept among the plumage.`);
    } catch (error) {
      sayFault(error);
    }
  };
  return (
    <aside
      aria-label="Plumage"
      className="flex h-full flex-col overflow-hidden bg-card"
      data-part="plumage"
      data-loaded={loaded}
    >
      <header className="flex h-11 shrink-0 items-center gap-2 border-b border-rule px-4">
        <h2 className="text-base font-semibold">Plumage</h2>
        <span className="text-soft">the look of the whole show</span>
        <Button look="quiet" square className="ml-auto" aria-label="Close the plumage" onClick={onClose}>
          <X size={15} />
        </Button>
      </header>
      <div className="min-h-0 flex-1 overflow-y-auto p-4 scroll-more">
        <ul className="grid grid-cols-2 gap-2.5">
          {plumageOf(profile).map((plumage) => (
            <li key={plumage.id}>
              <PlumageCard
                plumage={plumage}
                worn={inUse?.is.id === plumage.id}
                ready={loaded}
                onWear={() => dress({ plumage })}
              />
            </li>
          ))}
        </ul>
        <fieldset className="mt-4">
          <legend className="mb-1 text-soft">with</legend>
          <div className="flex flex-wrap gap-x-5 gap-y-1.5">
            {PARTS.map(([name, label]) => (
              <label key={name} className="flex items-center gap-2">
                <input
                  type="checkbox"
                  checked={parts[name]}
                  disabled={!inUse}
                  onChange={(event) =>
                    inUse && dress({ plumage: inUse.is, with: { ...parts, [name]: event.target.checked } })
                  }
                />
                {label}
              </label>
            ))}
          </div>
        </fieldset>
        <StudioParts />
        {inUse && (
          <>
            <div className="mt-4 flex flex-wrap items-center gap-2">
              <Button
                look="main"
                data-part="vary"
                onClick={() =>
                  dress({ plumage: inUse.is, seed: inUse.seed + 1 }, 'deal moves, transitions and mounts again')
                }
              >
                <Dices size={15} /> Vary
              </Button>
              <Button
                disabled={chosen.length === 0}
                onClick={() =>
                  perform(
                    pinEdit(
                      show,
                      chosen.map(({ id }) => id),
                      !pinned,
                    ),
                  )
                }
                title="A pinned slide keeps its move and its transition when it is dealt again"
              >
                {pinned ? <PinOff size={14} /> : <Pin size={14} />} {pinned ? 'Unpin' : 'Pin'} the chosen
              </Button>
              <Button onClick={() => void keep()}>Keep as a plumage</Button>
              <Button onClick={() => perform(undressEdit(show))} data-part="undress">
                Take it off
              </Button>
            </div>
            <section className="mt-4">
              <div className="flex items-center gap-2">
                <h3 className="text-soft">
                  {differences.length === 0
                    ? 'Everything is as the plumage has it.'
                    : `${differences.length} ${differences.length === 1 ? 'thing differs' : 'things differ'}: set by hand`}
                </h3>
                {differences.length > 1 && (
                  <Button className="ml-auto h-7" onClick={() => perform(givenBackEdit(show, differences, wardrobe))}>
                    Give all back
                  </Button>
                )}
              </div>
              <ul className="mt-1.5 flex flex-col">
                {differences.slice(0, 200).map((one) => (
                  <li
                    key={`${one.slideId} ${one.what} ${one.layerId ?? ''}`}
                    className="flex items-center gap-2 border-t border-rule py-1"
                  >
                    <button
                      type="button"
                      className="text-left hover:text-red-deep"
                      onClick={() => select([one.slideId], one.slideId)}
                    >
                      slide {show.slides.findIndex(({ id }) => id === one.slideId) + 1}: {SAID[one.what]}
                    </button>
                    <Button className="ml-auto h-6 px-2" onClick={() => perform(givenBackEdit(show, [one], wardrobe))}>
                      Give it back
                    </Button>
                  </li>
                ))}
              </ul>
            </section>
          </>
        )}
      </div>
    </aside>
  );
}

/** The studio's logo at both ends, and as a watermark over all of it. */
function StudioParts() {
  const store = useShowStore();
  const show = useShow((state) => state.show);
  const edit = useShow((state) => state.edit);
  const prepared = usePrepared();
  const { profile, loaded } = useStudio();
  const wardrobe = useWardrobe(prepared.facts);
  const withLogo = async (work: (logo: AssetId) => void) => {
    if (!profile.logo) return void toast('There is no logo yet: put one into the studio’s profile, from the shelf.');
    try {
      const lent = await lendFiles(show.id, [profile.logo]);
      if (lent) store.getState().setEntries(lent);
      work(profile.logo);
    } catch (error) {
      sayFault(error);
    }
  };
  const place = (where: LogoPlace, on: boolean) => {
    const now = store.getState().show;
    const given = {
      look: lookFor(now, profile),
      facts: wardrobe.facts,
      studio: wardrobe.studio,
      newId: () => nanoid(10),
    };
    const wanted = logoEdit(now, where, on, given);
    if (!wanted.ok) toast(wanted.sentence);
    else if (wanted.edit) edit(wanted.edit);
  };
  return (
    <fieldset className="mt-4" data-part="studio-parts" disabled={!loaded}>
      <legend className="mb-1 text-soft">of your studio</legend>
      <div className="flex flex-wrap gap-x-5 gap-y-1.5">
        {(['first', 'last'] as const).map((where) => (
          <label key={where} className="flex items-center gap-2">
            <input
              type="checkbox"
              checked={hasLogo(show, where)}
              onChange={(event) => {
                const on = event.target.checked;
                void withLogo(() => place(where, on));
              }}
            />
            logo {where === 'first' ? 'to begin with' : 'at the end'}
          </label>
        ))}
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={show.watermark !== undefined}
            onChange={(event) => {
              if (event.target.checked)
                void withLogo((logo) =>
                  edit({ kind: 'set-watermark', watermark: { assetId: logo, ...profile.watermark } }),
                );
              else edit({ kind: 'set-watermark', watermark: null });
            }}
          />
          watermark
        </label>
      </div>
      {show.watermark && (
        <WatermarkFields
          watermark={show.watermark}
          onChange={(watermark) => edit({ kind: 'set-watermark', watermark }, 'watermark')}
        />
      )}
    </fieldset>
  );
}

const SAID = {
  transition: 'its transition',
  backing: 'its backing',
  move: 'a move',
  words: 'the look of its words',
  mount: 'its mount',
} as const;

interface PlumageCardProps {
  readonly plumage: Plumage;
  readonly worn: boolean;
  /** Its mounts speak of the studio, which is known. */
  readonly ready: boolean;
  readonly onWear: () => void;
}

function PlumageCard({ plumage, worn, ready, onWear }: PlumageCardProps) {
  const { palette, letters, name, description } = plumage;
  return (
    <button
      type="button"
      aria-pressed={worn}
      disabled={!ready}
      onClick={onWear}
      title={description}
      data-plumage={plumage.id}
      className="block w-full overflow-hidden rounded-md border border-rule text-left outline-offset-2 aria-pressed:outline-[3px] aria-pressed:outline-red"
    >
      <span
        className="flex h-14 items-center justify-between gap-2 px-3"
        style={{ background: palette.paper, color: palette.ink }}
      >
        <span
          className="truncate text-xl"
          style={{
            fontFamily: `'${FONTS[letters.title].family}'`,
            fontWeight: letters.weight,
            letterSpacing: `${letters.spacing}em`,
          }}
        >
          {name}
        </span>
        <span aria-hidden="true" className="flex shrink-0">
          {[palette.ink, palette.accent, palette.soft].map((colour) => (
            <span key={colour} className="h-8 w-3" style={{ background: colour }} />
          ))}
        </span>
      </span>
      <span className="line-clamp-2 block px-3 py-1.5 text-xs text-soft">{description}</span>
    </button>
  );
}

/** The transitions that hands chose in the show are dealt along with the others. */
function withShowsOwn(
  plumage: Plumage,
  show: {
    readonly slides: readonly {
      readonly transition: Plumage['transitions'][number];
      readonly chosen?: { readonly transition?: string };
    }[];
  },
): Plumage {
  const own = show.slides.filter(({ chosen }) => chosen?.transition === 'hand').map(({ transition }) => transition);
  const all = new Map([...own, ...plumage.transitions].map((one) => [JSON.stringify(one), one]));
  return { ...plumage, transitions: [...all.values()].slice(0, 40) };
}

'use client';

import { useEffect, useMemo } from 'react';
import { useStore } from 'zustand';
import { createStore } from 'zustand/vanilla';
import { mountOf } from '../../core/mounts/mount-document';
import { keptTransition, type KeptTransition } from '../../core/mounts/kept-transition';
import type { Look, Mount } from '../../core/mounts/mount';
import { PLAIN_LOOK } from '../../core/mounts/plain-look';
import { SHIPPED_MOUNTS, shippedMount } from '../../core/mounts/shipped/shipped-mounts';
import { SHIPPED_PLUMAGE } from '../../core/plumage/shipped-plumage';
import type { Plumage } from '../../core/plumage/plumage';
import type { Wardrobe } from '../../core/plumage/dress';
import type { AssetFacts } from '../../core/show/asset-facts';
import type { AssetId, ShowId } from '../../core/show/ids';
import type { Show } from '../../core/show/show';
import { EMPTY_PROFILE, type StudioProfile } from '../../core/studio/studio-profile';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import type { KeptMount, OpenedStudio } from '../../server/reuse/studio-service';
import { useIsGuest } from '../people/me';
import { callServer } from '../show/call-server';

interface StudioState {
  readonly profile: StudioProfile;
  readonly revision: number;
  /** The show whose sheet holds the studio's files; null until it is known. */
  readonly shelf: ShowId | null;
  readonly kept: readonly KeptMount[];
  readonly entries: readonly SheetEntry[];
  readonly loaded: boolean;
  load(): Promise<void>;
  setProfile(profile: StudioProfile): Promise<void>;
}

/** What the studio has beside its shows: its profile, its mounts, its files. One for the window. */
export const studioStore = createStore<StudioState>((set, get) => ({
  profile: EMPTY_PROFILE,
  revision: 0,
  shelf: null,
  kept: [],
  entries: [],
  loaded: false,
  async load() {
    const [studio, { mounts }] = await Promise.all([
      callServer<OpenedStudio>('GET', '/api/v1/studio'),
      callServer<{ mounts: readonly KeptMount[] }>('GET', '/api/v1/mounts'),
    ]);
    const { entries } = await callServer<{ entries: readonly SheetEntry[] }>(
      'GET',
      `/api/v1/shows/${studio.shelf}/sheet`,
    );
    set({ ...studio, kept: mounts, entries, loaded: true });
  },
  async setProfile(profile) {
    const changed = await callServer<OpenedStudio>('PATCH', '/api/v1/studio', {
      profile,
      knownRevision: get().revision,
    });
    set(changed);
  },
}));

/** The studio, loaded anew when it is first asked for on a page. */
export function useStudio(): StudioState {
  const state = useStore(studioStore);
  const isGuest = useIsGuest();
  useEffect(() => {
    void (isGuest ? Promise.reject(new Error('not a guest’s')) : studioStore.getState().load())
      // Without it the shipped mounts and plumage are there all the same.
      .catch(() => studioStore.setState({ loaded: true }));
  }, [isGuest]);
  return state;
}

/** Every mount there is: the studio's own first. */
export function mountsOf(kept: readonly KeptMount[]): Mount[] {
  const own = kept.filter(({ removed, document }) => !removed && !document.holds);
  return [...own.map(({ id, document }) => mountOf(id, document)), ...SHIPPED_MOUNTS];
}

/** The studio's own transitions. */
export function transitionsOf(kept: readonly KeptMount[]): KeptTransition[] {
  return kept.flatMap(({ id, document, removed }) => {
    const one = removed ? null : keptTransition(id, document);
    return one ? [one] : [];
  });
}

/** What dressing and laying need, of the studio and the show. */
export function useWardrobe(showFacts: ReadonlyMap<AssetId, AssetFacts>): Wardrobe {
  const { profile, kept, entries } = useStore(studioStore);
  return useMemo(() => {
    const facts = new Map(showFacts);
    for (const { assetId, facts: known } of entries) if (known && !facts.has(assetId)) facts.set(assetId, known);
    const own = new Map(kept.map(({ id, document }) => [id, mountOf(id, document)]));
    return {
      facts,
      studio: { name: profile.name, contact: profile.contact, logo: profile.logo },
      mountOf: (id) => own.get(id) ?? shippedMount(id),
    };
  }, [showFacts, profile, kept, entries]);
}

export function plumageOf(profile: StudioProfile): readonly Plumage[] {
  return [...profile.plumage, ...SHIPPED_PLUMAGE];
}

/** Letters and colours for a mount in a show: of its plumage, else of the studio, else plain ones. */
export function lookFor(show: Pick<Show, 'plumage'>, profile: StudioProfile): Look {
  const { letters, palette } = show.plumage?.is ?? {};
  return {
    letters: letters ?? profile.letters ?? PLAIN_LOOK.letters,
    palette: palette ?? profile.palette ?? PLAIN_LOOK.palette,
  };
}

/** Puts files of the studio's onto a show's sheet, so that the show can be drawn with them. */
export async function lendFiles(show: ShowId, files: readonly AssetId[]): Promise<readonly SheetEntry[] | null> {
  const { shelf } = studioStore.getState();
  if (!shelf || files.length === 0) return null;
  const lent = await callServer<{ entries: readonly SheetEntry[] }>('POST', `/api/v1/shows/${show}/loans`, {
    from: shelf,
    slides: [],
    files,
  });
  return lent.entries;
}

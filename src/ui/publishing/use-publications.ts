'use client';

import type { ChannelRow, HostedPlace, Place, PublicationRow } from '../../core/publishing/publication';
import type { ToldPlaces } from '../../server/http/answers';
import { useAnswer } from '../show/use-answer';

/** What was handed over of a show, newest first; null until it has been asked for. */
export function usePublications(showId: string): {
  readonly rows: readonly PublicationRow[] | null;
  refresh(): Promise<void>;
} {
  const { answer, refresh } = useAnswer<{ publications: PublicationRow[] }>(`/api/v1/shows/${showId}/publications`, {
    hears: 'tanager-publications focus',
  });
  return { rows: answer && answer.publications, refresh };
}

export interface KnownPlaces {
  readonly channels: readonly ChannelRow[];
  /** Where the studio is signed in. */
  signedInAt(place: HostedPlace): readonly ChannelRow[];
  has(place: Place): boolean;
  /** The page of a stand-in; null: the real thing, or none. */
  door(place: Place): string | null;
  refresh(): Promise<void>;
}

/** Which places outside there are; null until that is known. */
export function usePlaces(): KnownPlaces | null {
  const { answer, refresh } = useAnswer<ToldPlaces>('/api/v1/channels', { hears: 'focus' });
  if (!answer) return null;
  const { places, channels } = answer;
  return {
    channels,
    signedInAt: (place) => channels.filter((one) => one.place === place),
    has: (place) => places.some((one) => one.place === place),
    door: (place) => places.find((one) => one.place === place)?.door ?? null,
    refresh,
  };
}

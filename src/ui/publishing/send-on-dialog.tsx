'use client';

import { useState } from 'react';
import type { NewPublication, Place } from '../../core/publishing/publication';
import type { FilmRow } from '../../server/films/film-row';
import type { ScreeningRow } from '../../server/screenings/screening-service';
import { Choice } from '../kit/choice';
import { Dialog } from '../kit/dialog';
import { callServer } from '../show/call-server';
import { sayFault } from '../show/say-fault';
import { useShow } from '../show/show-provider';
import { LetterForm } from './letter-form';
import { PostForm } from './post-form';
import type { KnownPlaces } from './use-publications';
import { VideoForm } from './video-form';

const NAMES: Readonly<Record<Place, string>> = { mail: 'By letter', video: 'To a video host', post: 'As a post' };

export interface SentOn {
  /** What is sent on. */
  readonly title: string;
  /** The finest first; never none. */
  readonly films: readonly FilmRow[];
  /** Null: a film that has no screening: it can go to a host only. */
  readonly screening: ScreeningRow | null;
}

interface SendOnDialogProps {
  readonly what: SentOn;
  readonly places: KnownPlaces;
  readonly onClose: () => void;
  readonly onDone: () => Promise<void>;
}

/** Sends a screening’s link on by letter or as a post, or its film to a host. */
export function SendOnDialog({ what, places, onClose, onDone }: SendOnDialogProps) {
  const showId = useShow((state) => state.show.id);
  const there = (['mail', 'video', 'post'] as const).filter(
    (place) => places.has(place) && (what.screening !== null || place === 'video'),
  );
  const [place, setPlace] = useState<Place>(there[0] ?? 'mail');
  /** @returns whether it was taken */
  const order = async (wanted: NewPublication): Promise<boolean> => {
    try {
      await callServer('POST', `/api/v1/shows/${showId}/publications`, wanted);
      await onDone();
      onClose();
      return true;
    } catch (error) {
      sayFault(error);
      return false;
    }
  };
  return (
    <Dialog
      title={what.screening ? `Send “${what.title}” on` : `Put “${what.title}” on a video host`}
      open
      onClose={onClose}
      className="w-[640px]"
    >
      <div data-part="send-on">
        {there.length === 0 && (
          <p className="text-soft">
            This server’s settings name no post office, video host or social page. The screening’s link can be copied
            all the same.
          </p>
        )}
        {there.length > 1 && (
          <div className="mb-5">
            <Choice
              label="How it is sent on"
              value={place}
              options={there.map((value) => ({ value, label: NAMES[value] }))}
              onChange={setPlace}
            />
          </div>
        )}
        {there.includes(place) && place === 'mail' && what.screening && (
          <LetterForm title={what.title} screening={what.screening} onOrder={order} />
        )}
        {there.includes(place) && place === 'video' && <VideoForm what={what} places={places} onOrder={order} />}
        {there.includes(place) && place === 'post' && what.screening && (
          <PostForm title={what.title} screening={what.screening} places={places} onOrder={order} />
        )}
      </div>
    </Dialog>
  );
}

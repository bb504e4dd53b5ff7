'use client';

import { useState, type FormEvent } from 'react';
import { SEEN_BY, type NewPublication, type SeenBy } from '../../core/publishing/publication';
import { purposeTitle } from '../../core/film/purposes/purposes';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { megabytes } from '../kit/clock';
import { Pick } from '../kit/pick';
import { useKept } from '../kit/use-kept';
import { ChannelChoice } from './channel-choice';
import { ChannelRoomNote } from './channel-room-note';
import { FIELD, isText, Labelled } from './form-parts';
import type { SentOn } from './send-on-dialog';
import type { KnownPlaces } from './use-publications';

const SEEN: Readonly<Record<SeenBy, string>> = {
  everybody: 'everybody',
  link: 'who has the link',
  nobody: 'you alone',
};

interface VideoFormProps {
  readonly what: SentOn;
  readonly places: KnownPlaces;
  readonly onOrder: (wanted: NewPublication) => Promise<boolean>;
}

/** A film to a host that shows videos. */
export function VideoForm({ what, places, onOrder }: VideoFormProps) {
  const channels = places.signedInAt('video');
  const [chosen, setChosen] = useState<string | null>(null);
  const channel = channels.find(({ id }) => id === chosen) ?? channels.find(({ signedIn }) => signedIn) ?? channels[0];
  const [film, setFilm] = useState(what.films[0]!.id);
  const [title, setTitle] = useKept(`tanager-video-title-${film}`, what.title, isText);
  const [about, setAbout] = useKept(`tanager-video-about-${film}`, '', isText);
  const [seenBy, setSeenBy] = useState<SeenBy>('link');
  const [busy, setBusy] = useState(false);
  const send = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    await onOrder({ kind: 'video', channel: channel!.id, film, title, about, seenBy });
    setBusy(false);
  };
  return (
    <form onSubmit={(event) => void send(event)} className="flex flex-col gap-3.5" data-part="video-form">
      <ChannelChoice place="video" places={places} value={channel?.id ?? null} onChange={setChosen} />
      {channel?.signedIn && (
        <>
          {what.films.length > 1 && (
            <div className="flex items-center gap-3">
              <span className="text-soft">Film</span>
              <Pick
                label="Film"
                value={film}
                onChange={setFilm}
                groups={[
                  {
                    name: null,
                    options: what.films.map(({ id, spec, byteCount }) => ({
                      value: id,
                      label: `${purposeTitle(spec.purpose)}, ${spec.widthPx} × ${spec.heightPx}, ${megabytes(byteCount ?? 0)}`,
                    })),
                  },
                ]}
              />
            </div>
          )}
          <Labelled label="Title">
            <input
              value={title}
              onChange={({ target }) => setTitle(target.value)}
              maxLength={200}
              required
              className={FIELD}
            />
          </Labelled>
          <Labelled label="About it">
            <textarea
              rows={4}
              value={about}
              maxLength={5000}
              onChange={({ target }) => setAbout(target.value)}
              className={FIELD}
            />
          </Labelled>
          <div className="flex items-center gap-3">
            <span className="text-soft">It is seen by</span>
            <Choice
              label="Who sees it there"
              value={seenBy}
              options={SEEN_BY.map((value) => ({ value, label: SEEN[value] }))}
              onChange={setSeenBy}
            />
          </div>
          <ChannelRoomNote channel={channel.id} byteCount={what.films.find(({ id }) => id === film)?.byteCount ?? 0} />
          <div>
            <Button
              look="main"
              type="submit"
              className="h-9 px-5"
              disabled={busy || title.trim() === ''}
              data-part="send-video"
            >
              Put it there
            </Button>
          </div>
        </>
      )}
    </form>
  );
}

'use client';

import { useState, type FormEvent } from 'react';
import type { NewPublication } from '../../core/publishing/publication';
import type { ScreeningRow } from '../../server/screenings/screening-service';
import { Button } from '../kit/button';
import { useKept } from '../kit/use-kept';
import { ChannelChoice } from './channel-choice';
import { FIELD, isText, Labelled } from './form-parts';
import type { KnownPlaces } from './use-publications';

interface PostFormProps {
  readonly title: string;
  readonly screening: ScreeningRow;
  readonly places: KnownPlaces;
  readonly onOrder: (wanted: NewPublication) => Promise<boolean>;
}

/** A post with the screening’s link. */
export function PostForm({ title, screening, places, onOrder }: PostFormProps) {
  const channels = places.signedInAt('post');
  const [chosen, setChosen] = useState<string | null>(null);
  const channel = channels.find(({ id }) => id === chosen) ?? channels.find(({ signedIn }) => signedIn) ?? channels[0];
  const [words, setWords] = useKept(`tanager-post-${screening.id}`, `${title}: the film is there.`, isText);
  const [busy, setBusy] = useState(false);
  const send = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    await onOrder({ kind: 'post', channel: channel!.id, screening: screening.id, words });
    setBusy(false);
  };
  return (
    <form onSubmit={(event) => void send(event)} className="flex flex-col gap-3.5" data-part="post-form">
      <ChannelChoice place="post" places={places} value={channel?.id ?? null} onChange={setChosen} />
      {channel?.signedIn && (
        <>
          <Labelled
            label="Words"
            says={
              screening.asksPassword
                ? 'The link comes with them. It asks for the password, so its card shows neither title nor picture.'
                : 'The link comes with them, as a card with the film’s title and picture.'
            }
          >
            <textarea
              rows={4}
              value={words}
              maxLength={1000}
              required
              onChange={({ target }) => setWords(target.value)}
              className={FIELD}
            />
          </Labelled>
          <div>
            <Button
              look="main"
              type="submit"
              className="h-9 px-5"
              disabled={busy || words.trim() === ''}
              data-part="send-post"
            >
              Post it
            </Button>
          </div>
        </>
      )}
    </form>
  );
}

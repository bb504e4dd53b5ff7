'use client';

import { useState } from 'react';
import type { HostedPlace } from '../../core/publishing/publication';
import { Button } from '../kit/button';
import { Pick } from '../kit/pick';
import { callServer } from '../show/call-server';
import { sayFault } from '../show/say-fault';
import { useShow } from '../show/show-provider';
import type { KnownPlaces } from './use-publications';

const WHERE: Readonly<Record<HostedPlace, string>> = { video: 'the video host', post: 'the social page' };

interface ChannelChoiceProps {
  readonly place: HostedPlace;
  readonly places: KnownPlaces;
  /** Null: none yet. */
  readonly value: string | null;
  readonly onChange: (channel: string) => void;
}

/** Which of the studio’s channels it goes to; signing in and out. */
export function ChannelChoice({ place, places, value, onChange }: ChannelChoiceProps) {
  const showId = useShow((state) => state.show.id);
  const whenSaved = useShow((state) => state.whenSaved);
  const [busy, setBusy] = useState(false);
  const all = places.signedInAt(place);
  const chosen = all.find(({ id }) => id === value);
  const go = async () => {
    setBusy(true);
    try {
      await whenSaved();
      const { address } = await callServer<{ address: string }>('POST', '/api/v1/channels', { place, show: showId });
      location.assign(address);
    } catch (error) {
      sayFault(error);
      setBusy(false);
    }
  };
  const leave = async (id: string) => {
    try {
      await callServer('DELETE', `/api/v1/channels/${id}`);
      await places.refresh();
    } catch (error) {
      sayFault(error);
    }
  };
  return (
    <div className="flex flex-wrap items-center gap-2" data-part="channel">
      {all.length > 0 && (
        <Pick
          label="Channel"
          value={value ?? ''}
          onChange={onChange}
          groups={[
            {
              name: null,
              options: all.map(({ id, name, signedIn }) => ({
                value: id,
                label: signedIn ? name : `${name} (signed out there)`,
              })),
            },
          ]}
        />
      )}
      {all.length === 0 && <span>You are not signed in at {WHERE[place]}.</span>}
      {(all.length === 0 || chosen?.signedIn === false) && (
        <Button look="main" disabled={busy} onClick={() => void go()} data-part="sign-in-there">
          Sign in there
        </Button>
      )}
      {chosen?.signedIn === true && (
        <>
          <Button look="quiet" disabled={busy} onClick={() => void go()}>
            Another channel
          </Button>
          <Button look="quiet" onClick={() => void leave(chosen.id)}>
            Sign out there
          </Button>
        </>
      )}
    </div>
  );
}

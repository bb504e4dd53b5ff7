'use client';

import { Smartphone } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import type { ShowId } from '../../core/show/ids';
import type { HallInvitation } from '../../server/http/answers';
import { Button } from '../kit/button';
import { callServer } from '../show/call-server';

/** Lets a phone in the hall be a remote: where it goes, and the code it types. */
export function HallRemote({ show }: { show: ShowId }) {
  const [invitation, setInvitation] = useState<HallInvitation | null>(null);
  const ask = (end: boolean) =>
    void callServer<HallInvitation>('POST', `/api/v1/shows/${show}/hall`, end ? { end: true } : {}).then(
      (answer) => {
        setInvitation(end ? null : answer);
        if (end) toast('No phone is a remote any more.');
      },
      () => toast('The server cannot be reached; the showing goes on without it.'),
    );
  return (
    <section aria-label="Remote" data-part="hall-remote" className="mt-auto rounded-lg border border-white/15 p-4">
      {invitation === null ? (
        <Button look="dark" className="border-white/25" onClick={() => ask(false)} data-part="invite">
          <Smartphone size={15} /> A phone as remote
        </Button>
      ) : invitation.code === null ? (
        <p data-part="hall-shut">
          This machine does not listen to others. Start Tanager with <code className="tabular">--hall</code>, and phones
          in the same network can be remotes.
        </p>
      ) : (
        <div className="flex flex-wrap items-center gap-x-6 gap-y-2">
          <p>
            <span className="text-lamp-soft">open </span>
            <b data-part="hall-address">{invitation.addresses[0]}</b>
          </p>
          <p>
            <span className="text-lamp-soft">and type </span>
            <b className="tabular font-display text-[24px] tracking-[0.15em]" data-part="hall-code">
              {invitation.code}
            </b>
          </p>
          <span className="ml-auto flex gap-2">
            <Button look="dark" onClick={() => ask(false)} title="The code lets one phone in">
              Another code
            </Button>
            <Button look="dark" onClick={() => ask(true)} data-part="end-remotes">
              Let all phones go
            </Button>
          </span>
        </div>
      )}
    </section>
  );
}

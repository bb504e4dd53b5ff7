'use client';

import { KeyRound, Trash2 } from 'lucide-react';
import { useState, type FormEvent } from 'react';
import { toast } from 'sonner';
import { SHORTEST_ACCOUNT_PASSWORD } from '../../core/studio/account';
import type { OwnAccount } from '../../server/studio/accounts';
import type { SessionRow } from '../../server/studio/sessions';
import { Button } from '../kit/button';
import { callServer } from '../show/call-server';
import { Field } from './field';
import { addPasskey, passkeyFault, usePasskeysHere } from './passkeys';
import { Head, StudioFrame } from './studio-bar';
import { useAnswer } from '../show/use-answer';
import { dayOf } from './day-of';
import { faultSentence, sayFault } from '../show/say-fault';

/** What somebody says of themselves, how they sign in, and where they are signed in. */
export function AccountPage() {
  const { answer: account, setAnswer } = useAnswer<OwnAccount>('/api/v1/account');
  return (
    <StudioFrame here="/account" part="account">
      <main className="mx-auto grid w-full max-w-[1000px] gap-x-14 gap-y-10 px-6 py-8 md:grid-cols-2">
        {account && (
          <>
            <div className="flex flex-col gap-10">
              <Profile account={account} changed={setAnswer} />
              <Password account={account} changed={setAnswer} />
            </div>
            <div className="flex flex-col gap-10">
              <Passkeys account={account} changed={setAnswer} />
              <SignedInAt />
            </div>
          </>
        )}
      </main>
    </StudioFrame>
  );
}

interface PartProps {
  readonly account: OwnAccount;
  changed(account: OwnAccount): void;
}

function Profile({ account, changed }: PartProps) {
  const [name, setName] = useState(account.name);
  const save = async (event: FormEvent) => {
    event.preventDefault();
    try {
      changed(await callServer<OwnAccount>('PATCH', '/api/v1/account', { name }));
      toast('Your name is changed.');
    } catch (error) {
      sayFault(error);
    }
  };
  return (
    <form onSubmit={(event) => void save(event)} className="flex flex-col gap-4" data-part="own-name">
      <Head title="Who you are" />
      <Field
        label="Your name"
        required
        maxLength={200}
        autoComplete="name"
        value={name}
        onChange={(event) => setName(event.target.value)}
        hint="Stands beside what you do, for the others of the studio."
      />
      <div>
        <Button type="submit" disabled={name.trim() === '' || name === account.name}>
          Change the name
        </Button>
      </div>
    </form>
  );
}

function Password({ account, changed }: PartProps) {
  const [problem, setProblem] = useState<string | null>(null);
  const save = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = event.currentTarget;
    const said = new FormData(form);
    setProblem(null);
    const [email, password, old] = ['email', 'password', 'old'].map((name) => String(said.get(name) ?? ''));
    try {
      const next = await callServer<OwnAccount>('PATCH', '/api/v1/account', {
        email,
        ...(password !== '' && { password }),
        oldPassword: old === '' ? null : old,
      });
      changed(next);
      form.reset();
      toast(
        password === ''
          ? 'Your address is changed.'
          : 'From now on you sign in with this password. Other browsers are signed out.',
      );
    } catch (error) {
      setProblem(faultSentence(error));
    }
  };
  return (
    <form onSubmit={(event) => void save(event)} className="flex flex-col gap-4" data-part="own-password">
      <Head title="E-mail address and password" />
      {!account.hasPassword && (
        <p className="text-soft">
          You came by a one-time link. Set a password, or add a passkey, so that you can come back without one.
        </p>
      )}
      <Field
        key={account.email}
        label="E-mail address"
        name="email"
        type="email"
        required
        autoComplete="username"
        defaultValue={account.email ?? ''}
      />
      <Field
        label={account.hasPassword ? 'New password' : 'Password'}
        name="password"
        type="password"
        required={!account.hasPassword}
        minLength={SHORTEST_ACCOUNT_PASSWORD}
        maxLength={200}
        autoComplete="new-password"
        hint={`At least ${SHORTEST_ACCOUNT_PASSWORD} letters. A few words in a row are best.`}
      />
      {account.hasPassword && (
        <Field label="The password you have now" name="old" type="password" required autoComplete="current-password" />
      )}
      {problem && (
        <p role="alert" className="text-red-deep" data-part="password-problem">
          {problem}
        </p>
      )}
      <div>
        <Button type="submit">{account.hasPassword ? 'Change it' : 'Set the password'}</Button>
      </div>
    </form>
  );
}

function Passkeys({ account, changed }: PartProps) {
  const here = usePasskeysHere();
  const add = async () => {
    try {
      changed(await addPasskey(`Key ${account.passkeys.length + 1}`));
      toast('This device opens the studio from now on.');
    } catch (error) {
      const fault = passkeyFault(error);
      if (fault) toast(fault);
    }
  };
  return (
    <section className="flex flex-col gap-4" data-part="passkeys">
      <Head title="Passkeys" />
      <p className="text-soft">
        A key in your computer or phone: sign in by finger, face or its own code, with nothing to remember.
      </p>
      <ul className="empty:hidden">
        {account.passkeys.map(({ id, name, createdAt }) => (
          <li key={id} className="flex items-center gap-2 border-t border-rule py-1.5">
            <KeyRound size={14} className="text-soft" /> {name}
            <span className="text-soft">since {dayOf(createdAt)}</span>
            <Button
              look="quiet"
              square
              className="ml-auto"
              aria-label={`Remove ${name}`}
              onClick={() =>
                void callServer<OwnAccount>('DELETE', `/api/v1/account/passkeys/${encodeURIComponent(id)}`).then(
                  changed,
                  sayFault,
                )
              }
            >
              <Trash2 size={14} />
            </Button>
          </li>
        ))}
      </ul>
      {here === 'not-secure' ? (
        <p className="text-soft" data-part="not-secure">
          At this address browsers allow none. Open the app by its name over HTTPS, or as “localhost” on its own
          machine; the microphone and a second screen ask for the same.
        </p>
      ) : (
        <div>
          <Button onClick={() => void add()} disabled={here !== 'yes'} data-part="add-passkey">
            Add this device
          </Button>
        </div>
      )}
    </section>
  );
}

function SignedInAt() {
  const { answer, refresh } = useAnswer<{ sessions: readonly SessionRow[] }>('/api/v1/account/sessions');
  const sessions = answer?.sessions ?? [];
  const end = (path: string, said: string) =>
    void callServer('DELETE', path)
      .then(() => toast(said))
      .catch(sayFault)
      .then(refresh);
  return (
    <section className="flex flex-col gap-3" data-part="sessions">
      <Head title="Where you are signed in" />
      <ul>
        {sessions.map(({ id, browser, seenAt, here }) => (
          <li key={id} className="flex items-center gap-2 border-t border-rule py-1.5 first:border-0" data-session={id}>
            {browser}
            <span className="text-soft">{here ? 'this one' : `seen ${dayOf(seenAt)}`}</span>
            {!here && (
              <Button
                className="ml-auto h-7"
                aria-label={`Sign out ${browser}`}
                onClick={() => end(`/api/v1/account/sessions/${id}`, 'It is signed out.')}
              >
                Sign out
              </Button>
            )}
          </li>
        ))}
      </ul>
      <div>
        <Button
          disabled={sessions.length < 2}
          onClick={() => end('/api/v1/account/sessions', 'Only this browser is signed in now.')}
        >
          Sign out everywhere else
        </Button>
      </div>
    </section>
  );
}

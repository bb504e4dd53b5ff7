'use client';

import { useState, type FormEvent } from 'react';
import { SHORTEST_ACCOUNT_PASSWORD, type Role } from '../../core/studio/account';
import { Button } from '../kit/button';
import { callServer } from '../show/call-server';
import { DoorPage } from './door-page';
import { Field } from './field';
import { faultSentence } from '../show/say-fault';

interface JoinPageProps {
  readonly word: string;
  /** Empty when the studio has not said its name. */
  readonly studio: string;
  readonly role: Role;
  /** Of guests: what they are let into. */
  readonly show: string | null;
  /** Who is signed in in this browser; null: nobody. */
  readonly me: string | null;
}

/** Where an invitation leads. */
export function JoinPage({ word, studio, role, show, me }: JoinPageProps) {
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const attempt = async (work: () => Promise<string>) => {
    setBusy(true);
    setProblem(null);
    try {
      location.assign(await work());
    } catch (error) {
      setProblem(faultSentence(error));
      setBusy(false);
    }
  };
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const said = Object.fromEntries(new FormData(event.currentTarget));
    void attempt(async () => {
      await callServer('POST', `/api/v1/joining/${word}/account`, said);
      return '/';
    });
  };
  const who = studio === '' ? 'A studio' : studio;
  const what =
    role === 'guest'
      ? `${who} lets you into one show: you see it and work on it with them.`
      : role === 'owner'
        ? `${who} makes you an owner: all of its shows, and who else is in it.`
        : `${who} takes you in: all of its shows are yours to work on.`;
  return (
    <DoorPage title={show ?? `Welcome${studio === '' ? '' : ` to ${studio}`}`} words={what}>
      {me !== null && show !== null && (
        <div className="mb-6 border-b border-rule pb-6">
          <Button
            look="main"
            className="h-10 px-5"
            disabled={busy}
            onClick={() =>
              void attempt(async () => {
                const { id } = await callServer<{ id: string }>('POST', `/api/v1/joining/${word}/visit`);
                return `/shows/${id}/arrange`;
              })
            }
          >
            Go in as {me}
          </Button>
          <p className="mt-3 text-soft">Or as somebody new:</p>
        </div>
      )}
      <form onSubmit={submit} className="flex flex-col gap-4" data-part="join">
        <Field label="Your name" name="name" required maxLength={200} autoComplete="name" />
        <Field label="E-mail address" name="email" type="email" required autoComplete="username" />
        <Field
          label="Password"
          name="password"
          type="password"
          required
          minLength={SHORTEST_ACCOUNT_PASSWORD}
          maxLength={200}
          autoComplete="new-password"
          hint={`At least ${SHORTEST_ACCOUNT_PASSWORD} letters. A few words in a row are best.`}
        />
        {problem && (
          <p role="alert" className="text-red-deep" data-part="join-problem">
            {problem}
          </p>
        )}
        <div>
          <Button
            look={me !== null && show !== null ? 'plain' : 'main'}
            type="submit"
            disabled={busy}
            className="h-10 px-5"
          >
            Join
          </Button>
        </div>
      </form>
    </DoorPage>
  );
}

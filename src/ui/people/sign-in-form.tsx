'use client';

import { KeyRound } from 'lucide-react';
import { useState, type FormEvent } from 'react';
import { Button } from '../kit/button';
import { callServer } from '../show/call-server';
import { Field } from './field';
import { passkeyFault, signInByPasskey, usePasskeysHere } from './passkeys';
import { faultSentence } from '../show/say-fault';

/** Asks who one is, by password or passkey. @param done is called once it is known */
export function SignInForm({ done }: { done(): void }) {
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const here = usePasskeysHere();
  const attempt = async (work: () => Promise<unknown>, fault: (error: unknown) => string | null) => {
    setBusy(true);
    setProblem(null);
    try {
      await work();
      done();
    } catch (error) {
      setProblem(fault(error));
      setBusy(false);
    }
  };
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const said = new FormData(event.currentTarget);
    void attempt(
      () =>
        callServer('POST', '/api/v1/session/password', { email: said.get('email'), password: said.get('password') }),
      (error) => faultSentence(error),
    );
  };
  return (
    <form onSubmit={submit} className="flex flex-col gap-4" data-part="sign-in">
      <Field label="E-mail address" name="email" type="email" required autoComplete="username webauthn" />
      <Field label="Password" name="password" type="password" required autoComplete="current-password" />
      {problem && (
        <p role="alert" className="text-red-deep" data-part="sign-in-problem">
          {problem}
        </p>
      )}
      <div className="mt-1 flex flex-wrap gap-2">
        <Button look="main" type="submit" disabled={busy} className="h-10 px-5">
          Sign in
        </Button>
        {here === 'yes' && (
          <Button
            className="h-10"
            disabled={busy}
            data-part="by-passkey"
            onClick={() => void attempt(signInByPasskey, passkeyFault)}
          >
            <KeyRound size={15} /> With a passkey
          </Button>
        )}
      </div>
    </form>
  );
}

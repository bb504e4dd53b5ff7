'use client';

import { Copy, Trash2 } from 'lucide-react';
import { useState, type FormEvent, type ReactNode } from 'react';
import { toast } from 'sonner';
import {
  HOOK_EVENTS,
  HOOK_WORDS,
  SCOPES,
  SCOPE_WORDS,
  type HookEvent,
  type HookRow,
  type Scope,
  type TokenRow,
} from '../../core/studio/api-token';
import { Button } from '../kit/button';
import { dayOf } from '../people/day-of';
import { Head, StudioFrame } from '../people/studio-bar';
import { FIELD, Labelled } from '../publishing/form-parts';
import { callServer } from '../show/call-server';
import { copied } from '../show/copied';
import { sayFault } from '../show/say-fault';
import { useAnswer } from '../show/use-answer';

/** Tokens by which programs ask, addresses that are told what happens, and everything that can be asked. */
export function ProgramsPage({ children }: { children: ReactNode }) {
  return (
    <StudioFrame here="/programs" part="programs">
      <main className="mx-auto grid w-full max-w-[1000px] gap-y-10 px-6 py-8">
        <Tokens />
        <Hooks />
        {children}
      </main>
    </StudioFrame>
  );
}

function Tokens() {
  const { answer, refresh } = useAnswer<{ tokens: TokenRow[] }>('/api/v1/tokens');
  const [name, setName] = useState('');
  const [scopes, setScopes] = useState<readonly Scope[]>(['look']);
  const [days, setDays] = useState('365');
  const [word, setWord] = useState<string | null>(null);
  const make = async (event: FormEvent) => {
    event.preventDefault();
    try {
      const body = { name, scopes, ...(days !== '' && { days: Number(days) }) };
      setWord((await callServer<{ word: string }>('POST', '/api/v1/tokens', body)).word);
      setName('');
      await refresh();
    } catch (error) {
      sayFault(error);
    }
  };
  const remove = async ({ id, name: called }: TokenRow) => {
    try {
      await callServer('DELETE', `/api/v1/tokens/${id}`);
      toast(`“${called}” lets nothing in any more.`);
      await refresh();
    } catch (error) {
      sayFault(error);
    }
  };
  return (
    <section aria-labelledby="tokens">
      <Head title="Tokens" />
      <p id="tokens" className="mt-2 max-w-2xl text-soft">
        A program that sends one asks as you, for what the token is good for. It is shown once; keep it where you keep
        passwords.
      </p>
      <ul>
        {(answer?.tokens ?? []).map((token) => (
          <li key={token.id} className="flex items-center gap-3 border-b border-rule py-2" data-part="token">
            <span className="min-w-0 flex-1">
              <b className="font-medium">{token.name}</b>{' '}
              <span className="text-soft">
                {token.scopes.join(', ')} · made {dayOf(token.createdAt)}
                {token.usedAt === null ? ', never used' : `, last used ${dayOf(token.usedAt)}`}
                {token.until !== null && `, until ${dayOf(token.until)}`}
              </span>
            </span>
            <Button look="quiet" square aria-label={`Take “${token.name}” away`} onClick={() => void remove(token)}>
              <Trash2 size={15} />
            </Button>
          </li>
        ))}
      </ul>
      {word && <Told word={word} what="The token" onDone={() => setWord(null)} />}
      <form
        onSubmit={(event) => void make(event)}
        className="mt-4 grid grid-cols-[1fr_1.4fr_8rem_auto] items-end gap-4"
      >
        <Labelled label="What uses it">
          <input
            value={name}
            onChange={({ target }) => setName(target.value)}
            maxLength={100}
            required
            placeholder="The script in the office"
            className={FIELD}
          />
        </Labelled>
        <Checks label="It may" values={SCOPES} words={SCOPE_WORDS} chosen={scopes} onChange={setScopes} />
        <Labelled label="Good for days">
          <input
            value={days}
            inputMode="numeric"
            pattern="[1-9][0-9]{0,3}"
            onChange={({ target }) => setDays(target.value)}
            placeholder="no end"
            className={FIELD}
          />
        </Labelled>
        <Button
          type="submit"
          className="h-9"
          disabled={name.trim() === '' || scopes.length === 0}
          data-part="make-token"
        >
          Make a token
        </Button>
      </form>
    </section>
  );
}

function Hooks() {
  const { answer, refresh } = useAnswer<{ hooks: HookRow[] }>('/api/v1/hooks', { hears: 'focus' });
  const [url, setUrl] = useState('');
  const [events, setEvents] = useState<readonly HookEvent[]>(['film.ready']);
  const [secret, setSecret] = useState<string | null>(null);
  const act = async (work: () => Promise<unknown>) => {
    try {
      await work();
    } catch (error) {
      sayFault(error);
    }
    await refresh();
  };
  const make = (event: FormEvent) => {
    event.preventDefault();
    void act(async () => {
      setSecret((await callServer<{ secret: string }>('POST', '/api/v1/hooks', { url, events })).secret);
      setUrl('');
    });
  };
  return (
    <section aria-labelledby="hooks">
      <Head title="Told what happens" />
      <p id="hooks" className="mt-2 max-w-2xl text-soft">
        These addresses are sent a signed note when something happens, again and again for most of an hour until they
        take it.
      </p>
      <ul>
        {(answer?.hooks ?? []).map((hook) => (
          <li key={hook.id} className="flex items-center gap-3 border-b border-rule py-2" data-part="hook">
            <span className="min-w-0 flex-1">
              <b className="block truncate font-medium">{hook.url}</b>
              <span className="text-soft">
                {hook.events.map((event) => HOOK_WORDS[event]).join(', ')}
                {hook.last && ` · ${hook.last}`}
              </span>
            </span>
            <Button
              onClick={() => void act(() => callServer('POST', `/api/v1/hooks/${hook.id}/trial`, {}))}
              data-part="try-hook"
            >
              Try it
            </Button>
            <Button
              look="quiet"
              square
              aria-label={`Tell ${hook.url} no more`}
              onClick={() => void act(() => callServer('DELETE', `/api/v1/hooks/${hook.id}`))}
            >
              <Trash2 size={15} />
            </Button>
          </li>
        ))}
      </ul>
      {secret && <Told word={secret} what="The word that signs" onDone={() => setSecret(null)} />}
      <form onSubmit={make} className="mt-4 grid grid-cols-[1fr_1.4fr_auto] items-end gap-4">
        <Labelled label="Address">
          <input
            value={url}
            type="url"
            onChange={({ target }) => setUrl(target.value)}
            maxLength={2000}
            required
            placeholder="https://office.example/tanager"
            className={FIELD}
          />
        </Labelled>
        <Checks label="When" values={HOOK_EVENTS} words={HOOK_WORDS} chosen={events} onChange={setEvents} />
        <Button type="submit" className="h-9" disabled={url === '' || events.length === 0} data-part="make-hook">
          Tell it
        </Button>
      </form>
    </section>
  );
}

interface ChecksProps<Value extends string> {
  readonly label: string;
  readonly values: readonly Value[];
  readonly words: Readonly<Record<Value, string>>;
  readonly chosen: readonly Value[];
  readonly onChange: (chosen: readonly Value[]) => void;
}

function Checks<Value extends string>({ label, values, words, chosen, onChange }: ChecksProps<Value>) {
  return (
    <fieldset>
      <legend className="mb-1 text-soft">{label}</legend>
      {values.map((value) => (
        <label key={value} className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={chosen.includes(value)}
            onChange={({ target }) =>
              onChange(target.checked ? [...chosen, value] : chosen.filter((one) => one !== value))
            }
            className="accent-red"
          />
          {words[value]}
        </label>
      ))}
    </fieldset>
  );
}

/** A word that is shown this once. */
function Told({ word, what, onDone }: { word: string; what: string; onDone: () => void }) {
  return (
    <div className="mt-3 flex items-center gap-3 rounded-lg bg-red-wash px-4 py-3" role="status" data-part="told-word">
      <span className="min-w-0 flex-1">
        {what}, shown this once: <code className="block truncate font-mono">{word}</code>
      </span>
      <Button onClick={() => void copied(word, `${what} is copied.`)}>
        <Copy size={14} /> Copy
      </Button>
      <Button look="quiet" onClick={onDone}>
        I have it
      </Button>
    </div>
  );
}

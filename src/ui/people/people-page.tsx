'use client';

import { Copy, MoreHorizontal } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { toast } from 'sonner';
import type { Role } from '../../core/studio/account';
import type { PersonRow } from '../../server/studio/accounts';
import type { InvitationRow } from '../../server/studio/invitations';
import type { ShelfEntry } from '../../server/shows/show-service';
import { Button } from '../kit/button';
import { Pick } from '../kit/pick';
import { callServer } from '../show/call-server';
import { copied } from '../show/copied';
import { AuditList } from './audit-list';
import { dayOf } from './day-of';
import { useMe } from './me';
import { Head, StudioFrame } from './studio-bar';
import { useAnswer } from '../show/use-answer';
import { sayFault } from '../show/say-fault';

const ROLE_WORDS: Readonly<Record<Role, string>> = {
  owner: 'owner',
  member: 'member',
  guest: 'guest',
};
const ITEM = 'cursor-default rounded-md px-2.5 py-1.5 outline-none data-[highlighted]:bg-rule/60';

/** Who is in the studio, who is invited, and who did what. */
export function PeoplePage() {
  const { role } = useMe();
  const { answer, refresh } = useAnswer<{ people: readonly PersonRow[] }>('/api/v1/people');
  /** Counts what was done here: the list of what was done is asked for anew. */
  const [turn, setTurn] = useState(0);
  const [link, setLink] = useState<{ readonly words: string; readonly to: string } | null>(null);
  const isOwner = role === 'owner';
  const act = (work: Promise<unknown>, said: string) =>
    void work
      .then(() => toast(said))
      .catch(sayFault)
      .then(refresh)
      .then(acted);
  const acted = () => setTurn((before) => before + 1);
  const told = (made: { readonly words: string; readonly to: string }) => {
    setLink(made);
    acted();
  };
  return (
    <StudioFrame here="/people" part="people">
      <main className="mx-auto grid w-full max-w-[1000px] gap-y-10 px-6 py-8">
        <section>
          <Head title="In the studio" />
          <ul>
            {(answer?.people ?? []).map((one) => (
              <li
                key={one.id}
                data-person={one.id}
                className="grid grid-cols-[1.2fr_1.6fr_6rem_1fr_2rem] items-center gap-3 border-b border-rule py-2"
              >
                <span className="truncate font-medium">{one.name}</span>
                <span className="truncate text-soft">{one.email ?? 'comes by one-time links'}</span>
                <span>{ROLE_WORDS[one.role]}</span>
                <span className="truncate text-soft">
                  {one.role === 'guest' ? one.shows.map(({ title }) => title).join(', ') : seen(one.seenAt)}
                </span>
                {isOwner && (
                  <DropdownMenu.Root>
                    <DropdownMenu.Trigger asChild>
                      <Button look="quiet" square aria-label={`Change ${one.name}`}>
                        <MoreHorizontal size={15} />
                      </Button>
                    </DropdownMenu.Trigger>
                    <DropdownMenu.Portal>
                      <DropdownMenu.Content
                        align="end"
                        className="z-30 w-56 rounded-lg border border-rule bg-card p-1.5 shadow-raised"
                      >
                        {one.role !== 'guest' && (
                          <DropdownMenu.Item
                            className={ITEM}
                            onSelect={() => {
                              const next = one.role === 'owner' ? 'member' : 'owner';
                              act(
                                callServer('PATCH', `/api/v1/people/${one.id}`, { role: next }),
                                `${one.name} is ${next === 'owner' ? 'an owner' : 'a member'} now.`,
                              );
                            }}
                          >
                            {one.role === 'owner' ? 'Make a member' : 'Make an owner'}
                          </DropdownMenu.Item>
                        )}
                        <DropdownMenu.Item
                          className={ITEM}
                          onSelect={() =>
                            void callServer<{ word: string }>('POST', `/api/v1/people/${one.id}/entry`).then(
                              ({ word }) =>
                                told({
                                  words: `Signs ${one.name} in, once, within a day. Hand it over in person or by a way you trust.`,
                                  to: `${location.origin}/enter#${word}`,
                                }),
                              sayFault,
                            )
                          }
                        >
                          Make a sign-in link
                        </DropdownMenu.Item>
                        <DropdownMenu.Item
                          className={ITEM}
                          onSelect={() =>
                            act(
                              callServer('DELETE', `/api/v1/people/${one.id}`),
                              `${one.name} is not in the studio any more. What they made stays.`,
                            )
                          }
                        >
                          Take out of the studio
                        </DropdownMenu.Item>
                      </DropdownMenu.Content>
                    </DropdownMenu.Portal>
                  </DropdownMenu.Root>
                )}
              </li>
            ))}
          </ul>
        </section>
        {link && <LinkLine {...link} />}
        {isOwner ? (
          <>
            <Inviting made={told} />
            <AuditList key={turn} />
          </>
        ) : (
          <p className="text-soft">Owners invite people and say what they are.</p>
        )}
      </main>
    </StudioFrame>
  );
}

function seen(at: number | null): string {
  return at === null ? 'signed in nowhere' : `seen ${dayOf(at)}`;
}

/** A link that is told once. */
function LinkLine({ words, to }: { words: string; to: string }) {
  return (
    <section className="flex flex-col gap-2 rounded-lg border border-rule bg-card p-4" data-part="made-link">
      <p>{words}</p>
      <div className="flex gap-2">
        <input
          readOnly
          aria-label="The link"
          value={to}
          onFocus={(event) => event.currentTarget.select()}
          className="h-8 flex-1 rounded-md border border-rule bg-field px-2 font-mono text-sm"
        />
        <Button onClick={() => void copied(to, 'The link is copied.')}>
          <Copy size={14} /> Copy
        </Button>
      </div>
      <p className="text-soft">It is shown only now.</p>
    </section>
  );
}

function Inviting({ made }: { made(link: { words: string; to: string }): void }) {
  const { answer, refresh } = useAnswer<{ invitations: readonly InvitationRow[] }>('/api/v1/invitations');
  const { answer: shelf } = useAnswer<{ shows: readonly ShelfEntry[] }>('/api/v1/shows');
  const shows = (shelf?.shows ?? []).filter(({ place }) => place !== 'removed');
  const [role, setRole] = useState<Role>('member');
  const [show, setShow] = useState<string | null>(null);
  const [label, setLabel] = useState('');
  const chosen = show ?? shows[0]?.id ?? null;
  const invite = async () => {
    try {
      const { word } = await callServer<{ word: string }>('POST', '/api/v1/invitations', {
        role,
        show: role === 'guest' ? chosen : null,
        label,
      });
      made({
        words: `Lets ${label.trim() === '' ? 'one person' : label.trim()} in as ${role === 'owner' ? 'an owner' : `a ${role}`}, within two weeks.`,
        to: `${location.origin}/join/${word}`,
      });
      setLabel('');
      await refresh();
    } catch (error) {
      sayFault(error);
    }
  };
  return (
    <section className="flex flex-col gap-3" data-part="inviting">
      <Head title="Invite somebody" />
      <div className="flex flex-wrap items-center gap-2">
        <input
          aria-label="For whom"
          placeholder="for whom"
          maxLength={200}
          value={label}
          onChange={(event) => setLabel(event.target.value)}
          className="h-8 w-48 rounded-md border border-rule bg-field px-2"
        />
        <Pick
          label="As what"
          value={role}
          onChange={(next) => setRole(next as Role)}
          groups={[
            {
              name: null,
              options: [
                { value: 'member', label: 'member: all shows' },
                { value: 'owner', label: 'owner: people as well' },
                { value: 'guest', label: 'guest: one show' },
              ],
            },
          ]}
        />
        {role === 'guest' && chosen !== null && (
          <Pick
            label="Which show"
            value={chosen}
            onChange={setShow}
            groups={[{ name: null, options: shows.map(({ id, title }) => ({ value: id, label: title })) }]}
          />
        )}
        <Button look="main" disabled={role === 'guest' && chosen === null} onClick={() => void invite()}>
          Make the link
        </Button>
      </div>
      <p className="text-soft">
        Guests see one show and work on it. They make no films, open no screenings, and see nothing else of the studio.
      </p>
      <ul>
        {(answer?.invitations ?? []).map(({ id, role: as, label: whom, show: into, until }) => (
          <li key={id} className="flex items-center gap-2 border-t border-rule py-1.5">
            {whom === '' ? 'somebody' : whom}
            <span className="text-soft">
              {ROLE_WORDS[as]}
              {into ? ` of “${into.title}”` : ''}, until {dayOf(until)}
            </span>
            <Button
              className="ml-auto h-7"
              aria-label={`Take back the invitation for ${whom === '' ? 'somebody' : whom}`}
              onClick={() =>
                void callServer('DELETE', `/api/v1/invitations/${id}`)
                  .then(() => toast('The link leads nowhere now.'))
                  .catch(sayFault)
                  .then(refresh)
              }
            >
              Take back
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

'use client';

import { ArrowDown, ArrowUp, Copy, ExternalLink } from 'lucide-react';
import { useState, type FormEvent } from 'react';
import { toast } from 'sonner';
import type { BillChange, BillChoice, BillRow } from '../../core/screening/bill';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { FIELD, Labelled } from '../publishing/form-parts';
import { callServer } from '../show/call-server';
import { copied } from '../show/copied';
import { sayFault } from '../show/say-fault';
import { useAnswer } from '../show/use-answer';

/** Pages of several screenings, for clients with more than one film. */
export function BillsDialog({ onClose }: { onClose: () => void }) {
  const { answer, refresh } = useAnswer<{ bills: BillRow[]; choices: BillChoice[] }>('/api/v1/bills', {
    hears: 'focus',
  });
  return (
    <Dialog title="A page of several films" open onClose={onClose} className="w-[760px]">
      <div data-part="bills">
        <p className="text-soft">
          One link for a client with several films, of this show and of others. Each film keeps its own password, end
          and guest book.
        </p>
        {answer && <NewBillForm choices={answer.choices} onDone={refresh} />}
        {answer && answer.bills.length > 0 && (
          <ul className="mt-6 border-t border-rule">
            {answer.bills.map((bill) => (
              <BillLine key={bill.id} bill={bill} choices={answer.choices} onDone={refresh} />
            ))}
          </ul>
        )}
      </div>
    </Dialog>
  );
}

function NewBillForm({ choices, onDone }: { choices: readonly BillChoice[]; onDone: () => Promise<void> }) {
  const [title, setTitle] = useState('');
  const [words, setWords] = useState('');
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const [busy, setBusy] = useState(false);
  const make = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    try {
      await callServer('POST', '/api/v1/bills', { title, words, screenings: chosen });
      setTitle('');
      setWords('');
      setChosen([]);
      await onDone();
    } catch (error) {
      sayFault(error);
    }
    setBusy(false);
  };
  return (
    <form onSubmit={(event) => void make(event)} className="mt-4 flex flex-col gap-3.5">
      <Labelled label="Title">
        <input
          value={title}
          onChange={({ target }) => setTitle(target.value)}
          maxLength={300}
          required
          placeholder="The wedding in three films"
          className={FIELD}
        />
      </Labelled>
      <Labelled label="Words above the films">
        <textarea
          rows={2}
          value={words}
          maxLength={2000}
          onChange={({ target }) => setWords(target.value)}
          className={FIELD}
        />
      </Labelled>
      <Films choices={choices} chosen={chosen} onChange={setChosen} />
      <div>
        <Button
          look="main"
          type="submit"
          className="h-9 px-5"
          disabled={busy || title.trim() === '' || chosen.length === 0}
          data-part="make-bill"
        >
          Make the page
        </Button>
      </div>
    </form>
  );
}

interface FilmsProps {
  readonly choices: readonly BillChoice[];
  readonly chosen: readonly string[];
  readonly onChange: (chosen: readonly string[]) => void;
}

/** Which screenings are on it: the chosen ones first, in their order. */
function Films({ choices, chosen, onChange }: FilmsProps) {
  const byId = new Map(choices.map((choice) => [choice.id, choice]));
  const shown = [...chosen.flatMap((id) => byId.get(id) ?? []), ...choices.filter(({ id }) => !chosen.includes(id))];
  const move = (id: string, by: -1 | 1) => {
    const at = chosen.indexOf(id);
    const next = chosen.filter((one) => one !== id);
    next.splice(at + by, 0, id);
    onChange(next);
  };
  return (
    <fieldset>
      <legend className="mb-1 text-soft">Films</legend>
      <ul className="max-h-56 overflow-y-auto border-y border-rule scroll-thin">
        {shown.map(({ id, title, show, open }) => {
          const at = chosen.indexOf(id);
          return (
            <li key={id} className="flex h-9 items-center gap-2 border-b border-rule last:border-b-0">
              <label className="flex min-w-0 flex-1 items-center gap-2">
                <input
                  type="checkbox"
                  checked={at >= 0}
                  onChange={({ target }) =>
                    onChange(target.checked ? [...chosen, id] : chosen.filter((one) => one !== id))
                  }
                />
                <span className="truncate">
                  {title}
                  {show !== title && <span className="text-soft"> · {show}</span>}
                  {!open && <span className="text-red-deep"> · not open</span>}
                </span>
              </label>
              {at >= 0 && (
                <span className="flex">
                  <Button
                    look="quiet"
                    square
                    className="size-7"
                    disabled={at === 0}
                    aria-label={`${title} earlier`}
                    onClick={() => move(id, -1)}
                  >
                    <ArrowUp size={14} />
                  </Button>
                  <Button
                    look="quiet"
                    square
                    className="size-7"
                    disabled={at === chosen.length - 1}
                    aria-label={`${title} later`}
                    onClick={() => move(id, 1)}
                  >
                    <ArrowDown size={14} />
                  </Button>
                </span>
              )}
            </li>
          );
        })}
      </ul>
    </fieldset>
  );
}

interface BillLineProps {
  readonly bill: BillRow;
  readonly choices: readonly BillChoice[];
  readonly onDone: () => Promise<void>;
}

function BillLine({ bill, choices, onDone }: BillLineProps) {
  const [editing, setEditing] = useState(false);
  const path = `/api/v1/bills/${bill.id}`;
  const link = new URL(`/b/${bill.token}`, location.href).href;
  const change = (next: BillChange) => void callServer('PATCH', path, next).catch(sayFault).then(onDone);
  const there = bill.screenings.filter((id) => choices.some((choice) => choice.id === id));
  return (
    <li className="border-b border-rule py-3" data-part="bill-line">
      <div className="flex items-center gap-2">
        <span className="min-w-0 flex-1">
          <b className="font-semibold">{bill.title}</b>{' '}
          <span className={bill.shut ? 'text-red-deep' : 'text-soft'}>
            {bill.shut ? 'shut: its link leads nowhere' : `${there.length} ${there.length === 1 ? 'film' : 'films'}`}
          </span>
        </span>
        <Button className="h-7" onClick={() => void copied(link, 'The link was copied. Whoever has it sees the page.')}>
          <Copy size={13} /> Copy the link
        </Button>
        <a
          href={link}
          target="_blank"
          rel="noreferrer"
          aria-label={`See the page ${bill.title}`}
          title="See it as your client does"
          className="inline-grid size-7 place-items-center rounded-md border border-rule bg-card hover:border-soft"
          data-part="bill-link"
        >
          <ExternalLink size={13} />
        </a>
        <Button className="h-7" aria-expanded={editing} onClick={() => setEditing(!editing)}>
          Films
        </Button>
        <Button className="h-7" onClick={() => change({ shut: !bill.shut })} data-part="shut-bill">
          {bill.shut ? 'Open it again' : 'Shut it'}
        </Button>
        <Button
          look="quiet"
          className="h-7"
          onClick={() => {
            if (confirm('Remove this page? Its screenings stay.'))
              void callServer('DELETE', path).catch(sayFault).then(onDone);
          }}
        >
          Remove
        </Button>
      </div>
      {editing && (
        <div className="mt-3">
          <Films
            choices={choices}
            chosen={there}
            onChange={(screenings) => {
              // A page shows one film at least; without any it is shut.
              if (screenings.length > 0) change({ screenings });
              else toast('A page has one film at least. Shut it, or remove it.');
            }}
          />
        </div>
      )}
    </li>
  );
}

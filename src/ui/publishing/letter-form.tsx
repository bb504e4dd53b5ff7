'use client';

import { useState, type FormEvent } from 'react';
import { addressesIn, MOST_LETTERS, strangeAddress, type NewPublication } from '../../core/publishing/publication';
import type { ScreeningRow } from '../../server/screenings/screening-service';
import { Button } from '../kit/button';
import { useKept } from '../kit/use-kept';
import { FIELD, isText, Labelled } from './form-parts';

interface LetterFormProps {
  readonly title: string;
  readonly screening: ScreeningRow;
  readonly onOrder: (wanted: NewPublication) => Promise<boolean>;
}

const WORDS = 'Hello,\n\nthe film is ready. Have a lovely evening with it.';

/** Letters with the poster and the link, one to each address. */
export function LetterForm({ title, screening, onOrder }: LetterFormProps) {
  const [to, setTo] = useKept(`tanager-letter-to-${screening.id}`, '', isText);
  const [subject, setSubject] = useKept(`tanager-letter-subject-${screening.id}`, title, isText);
  const [words, setWords] = useKept(`tanager-letter-words-${screening.id}`, WORDS, isText);
  const [busy, setBusy] = useState(false);
  const addresses = addressesIn(to);
  const strange = strangeAddress(addresses);
  const send = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    // Who got it is not written to once more by mistake.
    if (await onOrder({ kind: 'mail', screening: screening.id, to: addresses, subject, words })) setTo('');
    setBusy(false);
  };
  const problem =
    strange !== undefined
      ? `“${strange}” is no e-mail address.`
      : addresses.length > MOST_LETTERS
        ? `${MOST_LETTERS} letters at a time at most; these are ${addresses.length}.`
        : null;
  return (
    <form onSubmit={(event) => void send(event)} className="flex flex-col gap-3.5" data-part="letter-form">
      <Labelled
        label="To"
        says={
          problem ? (
            <span className="text-red-deep" role="alert">
              {problem}
            </span>
          ) : (
            'Several with commas between. Each gets a letter of their own; nobody sees who else got one.'
          )
        }
      >
        <textarea
          rows={2}
          value={to}
          onChange={({ target }) => setTo(target.value)}
          className={FIELD}
          aria-label="To"
        />
      </Labelled>
      <Labelled label="Subject">
        <input
          value={subject}
          onChange={({ target }) => setSubject(target.value)}
          maxLength={200}
          required
          className={FIELD}
        />
      </Labelled>
      <Labelled
        label="Words"
        says={
          screening.asksPassword
            ? 'Below them stand the title and the link. The password is not in the letter, nor is the picture: tell it another way.'
            : 'Below them stand the film’s picture, its title, the link and your studio’s name.'
        }
      >
        <textarea
          rows={7}
          value={words}
          maxLength={5000}
          onChange={({ target }) => setWords(target.value)}
          className={FIELD}
        />
      </Labelled>
      <div>
        <Button
          look="main"
          type="submit"
          className="h-9 px-5"
          disabled={busy || addresses.length === 0 || problem !== null || subject.trim() === ''}
          data-part="send-letters"
        >
          {addresses.length < 2 ? 'Send the letter' : `Send ${addresses.length} letters`}
        </Button>
        <span className="ml-3 text-soft">They rest ten seconds first, and can be stopped.</span>
      </div>
    </form>
  );
}

'use client';

import { Dialog } from 'radix-ui';
import { useState, type FormEvent } from 'react';
import { tallySentence, type ProofTally } from '../../core/proof/proof';

/** The last step: who sends it, and what it comes to. After that it stands. */
export function SendChoice({ tally, send }: { tally: ProofTally; send(name: string): Promise<void> }) {
  const [open, setOpen] = useState(false);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const name = String(new FormData(event.currentTarget).get('name'));
    setBusy(true);
    setProblem(null);
    try {
      await send(name);
    } catch (error) {
      setProblem(error instanceof Error ? error.message : 'It could not be sent. Try again.');
    }
    setBusy(false);
  };
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="ml-auto h-11 rounded-md bg-(--accent) px-5 text-base font-semibold text-(--on-accent) hover:opacity-90">
        Send my choice
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/60" />
        <Dialog.Content
          aria-describedby={undefined}
          data-part="send-choice"
          className="fixed inset-x-4 bottom-4 z-50 mx-auto max-w-md rounded-xl bg-card p-6 text-ink shadow-raised"
        >
          <Dialog.Title className="text-lg">Send your choice</Dialog.Title>
          <p className="mt-2 text-base">{tallySentence(tally)}.</p>
          <p className="mt-1 text-soft">After that nothing is changed any more, unless the studio opens it again.</p>
          <form onSubmit={(event) => void submit(event)} className="mt-4 flex flex-col gap-3">
            <label className="grid gap-1">
              Your name
              <input
                name="name"
                required
                maxLength={200}
                autoComplete="name"
                className="h-11 rounded-md border border-rule bg-field px-3 text-base"
              />
            </label>
            {problem && (
              <p role="alert" className="text-red-deep">
                {problem}
              </p>
            )}
            <div className="flex gap-2">
              <button
                type="submit"
                disabled={busy}
                className="h-11 rounded-md bg-ink px-5 text-base font-semibold text-paper"
              >
                Send it
              </button>
              <Dialog.Close className="h-11 rounded-md border border-rule px-4 text-base">Not yet</Dialog.Close>
            </div>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

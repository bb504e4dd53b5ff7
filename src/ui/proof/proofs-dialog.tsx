'use client';

import { format } from 'date-fns';
import { Copy, ExternalLink } from 'lucide-react';
import { useState, type FormEvent } from 'react';
import { toast } from 'sonner';
import { marksToTakeOver, PROOF_SIZES, tallySentence, USUAL_PROOF_PX, type ProofChange } from '../../core/proof/proof';
import { isKept, type Mark } from '../../core/show/mark';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import type { ProofRow } from '../../server/proofs/proof-service';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Pick } from '../kit/pick';
import { sayFault } from '../show/say-fault';
import { useStudio } from '../reuse/studio-store';
import { callServer } from '../show/call-server';
import { copied } from '../show/copied';
import { useShow } from '../show/show-provider';

type Which = 'all' | 'kept' | 'chosen';

interface ProofsDialogProps {
  /** The prints there are, in the order of the sheet. */
  readonly sheet: readonly SheetEntry[];
  readonly chosen: readonly SheetEntry[];
  readonly marks: Readonly<Record<string, Mark>>;
  readonly proofs: readonly ProofRow[];
  readonly onDone: () => Promise<void>;
  readonly onClose: () => void;
}

const FIELD = 'h-8 rounded-md border border-rule bg-field px-2';

/** Asks a client: a link under which pictures are marked, and what came back by those there are. */
export function ProofsDialog({ sheet, chosen, marks, proofs, onDone, onClose }: ProofsDialogProps) {
  const showId = useShow((state) => state.show.id);
  const path = `/api/v1/shows/${showId}/proofs`;
  return (
    <Dialog title="Ask a client" open onClose={onClose} className="w-[820px]">
      <div data-part="proofs">
        <NewProofForm path={path} sheet={sheet} chosen={chosen} marks={marks} onDone={onDone} />
        {proofs.length > 0 && (
          <ul className="mt-6 border-t border-rule">
            {proofs.map((proof) => (
              <ProofLine key={proof.id} path={`${path}/${proof.id}`} proof={proof} marks={marks} onDone={onDone} />
            ))}
          </ul>
        )}
      </div>
    </Dialog>
  );
}

type NewProofFormProps = Omit<ProofsDialogProps, 'proofs' | 'onClose'> & { readonly path: string };

function NewProofForm({ path, sheet, chosen, marks, onDone }: NewProofFormProps) {
  const { profile } = useStudio();
  const pictures = (entries: readonly SheetEntry[]) => entries.filter(({ facts }) => facts?.kind === 'picture');
  const of: Readonly<Record<Which, readonly SheetEntry[]>> = {
    all: pictures(sheet).filter(({ assetId }) => marks[assetId] !== 'leave-out'),
    kept: pictures(sheet).filter(({ assetId }) => isKept(marks[assetId])),
    chosen: pictures(chosen),
  };
  const [which, setWhich] = useState<Which>(of.chosen.length > 1 ? 'chosen' : 'all');
  const [longest, setLongest] = useState(String(USUAL_PROOF_PX));
  const [watermarked, setWatermarked] = useState(true);
  const [busy, setBusy] = useState(false);
  const words = profile.name.trim() || 'proof';
  const names: Readonly<Record<Which, string>> = {
    all: 'all but those I leave out',
    kept: 'those I keep',
    chosen: 'those chosen on the sheet',
  };
  const make = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = event.currentTarget;
    const said = new FormData(form);
    const until = String(said.get('until') ?? '');
    setBusy(true);
    try {
      await callServer('POST', path, {
        label: said.get('label'),
        pictures: of[which].map(({ assetId }) => assetId),
        longestPx: Number(longest),
        watermark: watermarked ? words.slice(0, 60) : null,
        endsAt: until === '' ? null : new Date(until).getTime(),
      });
      form.reset();
      await onDone();
    } catch (error) {
      sayFault(error);
    }
    setBusy(false);
  };
  return (
    <form onSubmit={(event) => void make(event)} className="grid grid-cols-[7rem_1fr] items-center gap-x-4 gap-y-3">
      <label htmlFor="proof-label" className="text-soft">
        for whom
      </label>
      <input id="proof-label" name="label" required maxLength={200} className={FIELD} placeholder="The harbour choir" />
      <span className="text-soft">pictures</span>
      <span className="flex items-center gap-3">
        <Pick
          label="Which pictures"
          value={which}
          onChange={(next) => setWhich(next as Which)}
          groups={[
            {
              name: null,
              options: (['all', 'kept', 'chosen'] as const)
                .filter((value) => of[value].length > 0)
                .map((value) => ({ value, label: `${names[value]}: ${of[value].length}` })),
            },
          ]}
        />
        <Pick
          label="No larger than"
          value={longest}
          onChange={setLongest}
          groups={[
            { name: null, options: PROOF_SIZES.map((px) => ({ value: String(px), label: `${px} pixels at most` })) },
          ]}
        />
      </span>
      <span className="text-soft">watermark</span>
      <label className="flex items-center gap-2">
        <input type="checkbox" checked={watermarked} onChange={(event) => setWatermarked(event.target.checked)} />“
        {words}” over every picture
      </label>
      <label htmlFor="proof-until" className="text-soft">
        open until
      </label>
      <input id="proof-until" name="until" type="datetime-local" className={`${FIELD} w-56`} />
      <span />
      <span>
        <Button look="main" type="submit" disabled={busy || of[which].length === 0} data-part="make-proof">
          Make the link
        </Button>
      </span>
    </form>
  );
}

interface ProofLineProps {
  readonly path: string;
  readonly proof: ProofRow;
  readonly marks: Readonly<Record<string, Mark>>;
  readonly onDone: () => Promise<void>;
}

function ProofLine({ path, proof, marks, onDone }: ProofLineProps) {
  const edit = useShow((state) => state.edit);
  const { label, token, tally, pictureCount, sentAt, sentBy, endsAt, shut, watermark, longestPx } = proof;
  const link = new URL(`/p/${token}`, location.href).href;
  const change = (next: ProofChange) => void callServer('PATCH', path, next).catch(sayFault).then(onDone);
  const wanted = marksToTakeOver(proof.marks, marks);
  const takeOver = () => {
    edit({ kind: 'set-marks', marks: wanted });
    toast(`${wanted.length} ${wanted.length === 1 ? 'mark is' : 'marks are'} yours now, as one step to undo.`);
  };
  return (
    <li className="flex flex-col gap-1.5 border-b border-rule py-3" data-part="proof-line" data-proof={proof.id}>
      <div className="flex items-baseline gap-3">
        <span className="font-semibold">{label}</span>
        <span className="text-soft">
          {pictureCount} pictures, {longestPx} pixels at most{watermark ? ', watermarked' : ''}
          {endsAt === null ? '' : `, until ${format(endsAt, 'd MMM, HH:mm')}`}
        </span>
        <span className="ml-auto" data-part="proof-state">
          {shut ? (
            <span className="text-red-deep">shut</span>
          ) : sentAt === null ? (
            'still choosing'
          ) : (
            <span className="text-moss">
              sent by {sentBy}, {format(sentAt, 'd MMM, HH:mm')}
            </span>
          )}
        </span>
      </div>
      <p>
        {tallySentence(tally)}
        {tally.notes > 0 && `; ${tally.notes} ${tally.notes === 1 ? 'note' : 'notes'}`}
      </p>
      <div className="flex flex-wrap items-center gap-2">
        <Button
          className="h-7"
          onClick={() => void copied(link, 'The link was copied. Whoever has it can mark the pictures.')}
        >
          <Copy size={13} /> Copy the link
        </Button>
        <a
          href={link}
          target="_blank"
          rel="noreferrer"
          className="inline-flex h-7 items-center gap-1.5 rounded-md border border-rule bg-card px-3 hover:border-soft"
          data-part="proof-link"
        >
          <ExternalLink size={13} /> Open
        </a>
        <Button className="h-7" disabled={wanted.length === 0} onClick={takeOver} data-part="take-over">
          Take the marks over
        </Button>
        {sentAt !== null && (
          <Button className="h-7" onClick={() => change({ sent: false })}>
            Let them change it
          </Button>
        )}
        <Button className="h-7" onClick={() => change({ shut: !shut })} data-part="shut-proof">
          {shut ? 'Open it again' : 'Shut it'}
        </Button>
        <Button
          className="ml-auto h-7"
          onClick={() => {
            if (confirm('Remove this link with all that was marked under it? Marks you took over stay.'))
              void callServer('DELETE', path).catch(sayFault).then(onDone);
          }}
        >
          Remove
        </Button>
      </div>
    </li>
  );
}

'use client';

import { clsx } from 'clsx';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { kindOf } from '../../core/snags/look-over';
import type { Snag, SnagFix } from '../../core/snags/snag';
import { Button } from '../kit/button';
import { useKeptMoment } from '../show/kept-moment';
import { useShow } from '../show/show-provider';
import { EvenedWays, useEvenedWays } from './evened-ways';
import { LicenceField } from './licence-field';
import { useFixForAll } from './use-fix-for-all';
import { useSnagsStore } from './snags-provider';

const PLACE_NAMES = { gather: 'Gather', arrange: 'Arrange', sound: 'Sound', send: 'Send' } as const;

interface SnagFixesProps {
  readonly snag: Snag;
  readonly isLeft: boolean;
  readonly open: readonly Snag[];
  readonly trial: SnagFix | null;
  readonly onTry: (fix: SnagFix | null) => void;
  readonly onClose: () => void;
}

/** The ways out of a snag: each is seen in the viewer before it is taken; or it is left as it is, with a reason. */
export function SnagFixes({ snag, isLeft, open, trial, onTry, onClose }: SnagFixesProps) {
  const store = useSnagsStore();
  const edit = useShow((state) => state.edit);
  const slides = useShow((state) => state.show.slides);
  const select = useShow((state) => state.select);
  const reasonKept = useShow((state) => state.show.letBe?.[snag.key]);
  const moment = useKeptMoment();
  const router = useRouter();
  const showId = useShow((state) => state.show.id);
  const [found, setFound] = useState<readonly SnagFix[] | null>(null);
  const [reason, setReason] = useState('');
  const { key, kind: kindName } = snag;
  const kind = kindOf(kindName);
  const alike = open.filter((other) => other.kind === kindName);
  const all = useFixForAll(alike);
  useEffect(() => {
    let gone = false;
    store?.fixesOf(key).then(
      (fixes) => {
        if (!gone) setFound(fixes);
      },
      (error: Error) => {
        if (gone) return;
        setFound([]);
        toast(error.message);
      },
    );
    return () => {
      gone = true;
    };
    // Asked anew when the show has changed under it.
  }, [store, key, slides]);

  const evened = useEvenedWays(snag);
  const fixes = found && [...found, ...evened.flatMap(({ fix }) => fix ?? [])];
  const take = (fix: SnagFix) => {
    if (edit({ kind: 'together', name: fix.name.charAt(0).toLowerCase() + fix.name.slice(1), edits: [fix.edit] }))
      onTry(null);
  };
  const leave = () => edit({ kind: 'let-be', snags: [{ key, reason: isLeft ? null : reason.trim() }] });
  const goThere = () => {
    if (snag.slideId) select([snag.slideId], snag.slideId);
    moment.setState({ momentMs: snag.fromMs });
    onClose();
    router.push(`/shows/${showId}/${kind.place}`);
  };

  return (
    <div data-part="snag-fixes" className="min-h-0 flex-1 overflow-y-auto px-6 py-4 scroll-thin">
      <p className="text-base font-medium text-balance">{snag.sentence}</p>
      {kindName === 'no-licence' && snag.assetId && <LicenceField assetId={snag.assetId} />}
      {fixes === null ? (
        <p role="status" className="mt-3 text-soft">
          Trying what would help …
        </p>
      ) : fixes.length === 0 ? (
        evened.length === 0 && (
          <p className="mt-2 text-soft" data-part="snag-advice">
            {kind.advice}
          </p>
        )
      ) : (
        <ul className="mt-3 flex flex-wrap gap-2" aria-label="Ways out">
          {fixes.map((fix) => {
            const tried = trial?.name === fix.name;
            return (
              <li key={fix.name} className={clsx('flex rounded-md', tried && 'shadow-print ring-2 ring-ink')}>
                <Button
                  data-part="try-fix"
                  aria-pressed={tried}
                  onClick={() => onTry(tried ? null : fix)}
                  title={tried ? 'See it as it is' : 'See it as it would be'}
                  className={tried ? 'rounded-r-none' : undefined}
                >
                  {fix.name}
                </Button>
                {tried && (
                  <Button look="main" data-part="take-fix" className="rounded-l-none" onClick={() => take(fix)}>
                    Take it
                  </Button>
                )}
              </li>
            );
          })}
        </ul>
      )}
      {fixes && <EvenedWays snag={snag} ways={evened} besides={fixes.length > 0} />}
      <div className="mt-5 flex flex-wrap items-center gap-2 border-t border-rule pt-4">
        {alike.length > 1 && (
          <Button onClick={all.run} disabled={all.running} data-part="fix-all">
            {all.running ? `Trying ${all.done} of ${alike.length} …` : `See to all ${alike.length} of these`}
          </Button>
        )}
        <Button onClick={goThere} data-part="go-there">
          Go to it in {PLACE_NAMES[kind.place]}
        </Button>
        <span className="ml-auto flex items-center gap-2">
          {!isLeft && (
            <input
              aria-label="Why it stays as it is"
              placeholder="why, if you like"
              maxLength={300}
              value={reason}
              onChange={(event) => setReason(event.target.value)}
              className="h-8 w-40 rounded-md border border-rule bg-card px-2"
            />
          )}
          <Button onClick={leave} data-part="let-be">
            {isLeft ? 'Count it again' : 'Leave it as it is'}
          </Button>
        </span>
      </div>
      {isLeft && (
        <p className="mt-2 text-soft" data-part="let-be-reason">
          Left as it is{reasonKept ? `: ${reasonKept}` : '.'}
        </p>
      )}
    </div>
  );
}

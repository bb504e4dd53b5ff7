'use client';

import { useState } from 'react';
import { auditSentence } from '../../core/studio/audit-sentences';
import type { AuditRow } from '../../server/studio/audit';
import { Button } from '../kit/button';
import { callServer } from '../show/call-server';
import { momentOf } from './day-of';
import { Head } from './studio-bar';
import { useAnswer } from '../show/use-answer';
import { sayFault } from '../show/say-fault';

const A_PAGE = 100;

/** Who did what, the latest first. */
export function AuditList() {
  const { answer } = useAnswer<{ done: readonly AuditRow[] }>('/api/v1/audit');
  const [older, setOlder] = useState<readonly AuditRow[]>([]);
  const [more, setMore] = useState(true);
  const rows = [...(answer?.done ?? []), ...older];
  const last = rows.at(-1);
  const goOn = async () => {
    try {
      const { done } = await callServer<{ done: readonly AuditRow[] }>('GET', `/api/v1/audit?before=${last!.id}`);
      setOlder([...older, ...done]);
      setMore(done.length === A_PAGE);
    } catch (error) {
      sayFault(error);
    }
  };
  return (
    <section data-part="audit">
      <Head title="Who did what" />
      <ol>
        {rows.map((row) => (
          <li key={row.id} className="grid grid-cols-[11rem_1fr] gap-3 border-b border-rule/60 py-1.5">
            <time dateTime={new Date(row.at).toISOString()} className="text-soft">
              {momentOf(row.at)}
            </time>
            <span>
              <span className="font-medium">{row.name}</span> {auditSentence(row)}
            </span>
          </li>
        ))}
      </ol>
      {more && (answer?.done.length ?? 0) === A_PAGE && (
        <Button className="mt-3" onClick={() => void goOn()}>
          Further back
        </Button>
      )}
    </section>
  );
}

'use client';

import { Download, FileUp } from 'lucide-react';
import { nanoid } from 'nanoid';
import { useMemo, useRef, useState } from 'react';
import { toast } from 'sonner';
import type { AssetId } from '../../core/show/ids';
import { orderTable } from '../../core/tables/order-table';
import { readOrderTable, type ReadOrderTable } from '../../core/tables/read-order-table';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { readTable } from '../kit/read-table';
import { saveText } from '../kit/save-text';
import { TimelinePart } from './timeline-part';
import { useShow } from '../show/show-provider';

const MOST_SHOWN = 200;

/** The running order as a table for a spreadsheet, and back: what it would change is seen before it is taken over. */
export function TableDialog({ onClose }: { onClose: () => void }) {
  const show = useShow((state) => state.show);
  const entries = useShow((state) => state.entries);
  const edit = useShow((state) => state.edit);
  const picker = useRef<HTMLInputElement>(null);
  const [given, setGiven] = useState<{ readonly name: string; readonly rows: readonly string[][] } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const read = useMemo(() => given && readOrderTable(show, given.rows, () => nanoid(10)), [show, given]);

  const save = () => {
    const names = new Map(entries.map(({ assetId, fileName }): [AssetId, string] => [assetId, fileName]));
    saveText(`${show.title || 'show'}.csv`, 'text/csv', orderTable(show, names));
  };
  const take = async (file: File) => {
    setGiven(null);
    const { rows, problem: fault } = await readTable(file);
    setProblem(fault);
    if (rows) setGiven({ name: file.name, rows });
  };
  const takeOver = () => {
    if (!read?.edit) return;
    edit(read.edit);
    toast('The table was taken over, as one step to undo.');
    onClose();
  };
  return (
    <Dialog title="The order as a table or a timeline" open onClose={onClose} className="w-[760px]">
      <div data-part="table-dialog">
        <p className="text-soft">
          A row for each slide: how long it lasts, its words, script and chapter. Work on it in a spreadsheet, in any
          order of rows and columns, and bring it back.
        </p>
        <div className="mt-4 flex gap-2">
          <Button onClick={save} data-part="save-table">
            <Download size={14} /> Save the table (CSV)
          </Button>
          <Button onClick={() => picker.current?.click()} data-part="bring-table">
            <FileUp size={14} /> Bring one back
          </Button>
          <input
            ref={picker}
            type="file"
            accept=".csv,.tsv,.txt,text/csv"
            hidden
            aria-label="A table to bring back"
            data-part="table-picker"
            onChange={({ target }) => {
              const [file] = target.files ?? [];
              if (file) void take(file);
              target.value = '';
            }}
          />
        </div>
        {problem && (
          <p role="alert" className="mt-4 text-red-deep">
            {problem}
          </p>
        )}
        {given && read && <Preview name={given.name} read={read} onTake={takeOver} />}
        <TimelinePart onDone={onClose} />
      </div>
    </Dialog>
  );
}

function Preview({ name, read, onTake }: { name: string; read: ReadOrderTable; onTake: () => void }) {
  const { changes, moved, left, faults, edit } = read;
  const parts = [
    changes.length > 0 ? `${changes.length} ${changes.length === 1 ? 'slide changes' : 'slides change'}` : '',
    moved > 0 ? `${moved} ${moved === 1 ? 'moves' : 'move'} elsewhere` : '',
    left > 0 ? `${left} of the show’s ${left === 1 ? 'is' : 'are'} not in it and ${left === 1 ? 'stays' : 'stay'}` : '',
  ].filter((part) => part !== '');
  return (
    <section aria-label={`What ${name} changes`} className="mt-5 border-t border-rule pt-4" data-part="table-preview">
      <p className="font-semibold" data-part="table-says">
        {edit === null ? `${name} changes nothing.` : `${name}: ${parts.join(', ')}.`}
      </p>
      {faults.length > 0 && (
        <ul className="mt-2 text-red-deep" data-part="table-faults">
          {faults.slice(0, MOST_SHOWN).map(({ row, says }) => (
            <li key={`${row} ${says}`}>{row === 0 ? says : `Row ${row}: ${says}`}</li>
          ))}
        </ul>
      )}
      {changes.length > 0 && (
        <ul
          className="mt-3 max-h-72 overflow-y-auto border-t border-rule scroll-thin"
          tabIndex={0}
          aria-label="Changes"
        >
          {changes.slice(0, MOST_SHOWN).map(({ slideId, number, says }) => (
            <li key={slideId} className="flex gap-3 border-b border-rule py-1.5">
              <span className="tabular w-10 shrink-0 text-right text-soft">{number}</span>
              <span>
                {says.map((one) => (
                  <span key={one} className="block whitespace-pre-line">
                    {one}
                  </span>
                ))}
              </span>
            </li>
          ))}
          {changes.length > MOST_SHOWN && <li className="py-1.5 text-soft">and {changes.length - MOST_SHOWN} more</li>}
        </ul>
      )}
      {edit && (
        <Button look="main" className="mt-4 h-9 px-5" onClick={onTake} data-part="take-table">
          {faults.length > 0 ? 'Take over what is understood' : 'Take it over'}
        </Button>
      )}
    </section>
  );
}

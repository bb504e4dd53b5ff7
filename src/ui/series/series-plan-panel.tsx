'use client';

import { FileUp, FolderUp, HardDrive } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { PURPOSES, PURPOSE_NAMES, type PurposeName } from '../../core/film/purposes/purposes';
import { kindByName } from '../../core/series/file-kinds';
import { tableOf, type SeriesChange } from '../../core/series/series';
import type { SeriesSeen } from '../../server/series/series-service';
import { droppedFiles } from '../gather/dropped-files';
import { ServerFolderDialog } from '../gather/server-folder-dialog';
import { createUploadQueue, type UploadProgress } from '../gather/upload-queue';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { Pick } from '../kit/pick';
import { readTable } from '../kit/read-table';
import { useFolderPicker } from '../kit/use-folder-picker';
import { SeriesMatching } from './series-matching';

interface SeriesPlanPanelProps {
  readonly seen: SeriesSeen;
  readonly isMaking: boolean;
  readonly hasFolders: boolean;
  readonly onChange: (change: SeriesChange) => Promise<void>;
  readonly onArrived: () => Promise<void>;
}

/** What a series is made of: its table, its files, what goes where, what its films are for. */
export function SeriesPlanPanel({ seen, isMaking, hasFolders, onChange, onArrived }: SeriesPlanPanelProps) {
  const { plan } = seen;
  const tablePicker = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const takeTable = async (file: File) => {
    const { rows, problem: fault } = await readTable(file);
    if (rows === null) return setProblem(fault);
    const table = tableOf(rows);
    setProblem(table.fault && `${file.name}: ${table.fault}`);
    if (table.fault === null) await onChange({ columns: table.columns, rows: table.rows });
  };
  const { upload, give, pickFolder, picker } = useFolder(seen.id, onArrived);
  const [serverOpen, setServerOpen] = useState(false);

  return (
    <section
      aria-label="What it is made of"
      className="flex w-[430px] shrink-0 flex-col gap-6 overflow-y-auto border-r border-rule bg-card px-5 py-4 scroll-more"
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        if (isMaking) return;
        void droppedFiles(event.dataTransfer).then((files) => {
          const table = files.find(({ name }) => /\.(csv|tsv|txt)$/i.test(name));
          if (table) void takeTable(table);
          give(files);
        });
      }}
      data-part="series-plan"
    >
      <div>
        <h2 className="text-base font-semibold">The table</h2>
        <p className="mt-1 text-soft">
          {plan.rows.length === 0
            ? 'A row for each film, the heads of its columns in the first: names, words, a folder of pictures, a song. Save it from your spreadsheet as CSV.'
            : `${plan.rows.length} ${plan.rows.length === 1 ? 'row' : 'rows'}: ${plan.columns.join(', ')}`}
        </p>
        <Button
          className="mt-2"
          disabled={isMaking}
          onClick={() => tablePicker.current?.click()}
          data-part="bring-series-table"
        >
          <FileUp size={14} /> {plan.rows.length === 0 ? 'Bring a table' : 'Bring another'}
        </Button>
        <input
          ref={tablePicker}
          type="file"
          accept=".csv,.tsv,.txt,text/csv"
          hidden
          aria-label="The table of this series"
          data-part="series-table-picker"
          onChange={({ target }) => {
            const [file] = target.files ?? [];
            if (file) void takeTable(file);
            target.value = '';
          }}
        />
        {problem && (
          <p role="alert" className="mt-2 text-red-deep">
            {problem}
          </p>
        )}
      </div>
      <div>
        <h2 className="text-base font-semibold">Its pictures and songs</h2>
        <p className="mt-1 text-soft" data-part="series-files-told">
          {seen.folder !== null
            ? `The folder “${seen.folder || 'that was opened'}” of the server: ${counted(seen.fileCount)}`
            : seen.fileCount > 0
              ? counted(seen.fileCount)
              : 'One folder with everything in it, a folder in it for each row.'}
        </p>
        <div className="mt-2 flex gap-2">
          <Button disabled={isMaking} onClick={pickFolder} data-part="bring-series-folder">
            <FolderUp size={14} /> {seen.fileCount > 0 && seen.folder === null ? 'Add a folder' : 'Bring a folder'}
          </Button>
          {hasFolders && (
            <Button disabled={isMaking} onClick={() => setServerOpen(true)} data-part="series-server-folder">
              <HardDrive size={14} /> One on the server
            </Button>
          )}
        </div>
        {picker}
        {upload && <Coming upload={upload} />}
      </div>
      {plan.columns.length > 0 && <SeriesMatching seen={seen} isMaking={isMaking} onChange={onChange} />}
      <div>
        <h2 className="text-base font-semibold">The films</h2>
        <div className="mt-2 flex items-center gap-3">
          <span className="w-28 text-soft">They are for</span>
          <Pick<PurposeName>
            label="What the films are for"
            value={seen.purpose}
            groups={[{ name: null, options: PURPOSE_NAMES.map((value) => ({ value, label: PURPOSES[value].name })) }]}
            onChange={(purpose) => void onChange({ purpose })}
          />
        </div>
        <div className="mt-2.5 flex items-center gap-3">
          <span className="w-28 text-soft">Each gets</span>
          <Choice
            label="What each film gets"
            value={seen.screened ? 'screening' : 'file'}
            options={[
              { value: 'file', label: 'a file' },
              { value: 'screening', label: 'a file and a screening' },
            ]}
            onChange={(value) => void onChange({ screened: value === 'screening' })}
          />
        </div>
        {seen.screened && <p className="mt-1.5 text-soft">One page has the links to all of them.</p>}
      </div>
      {serverOpen && (
        <ServerFolderDialog
          onTake={(folder) => onChange({ folder: folder || '.' })}
          onClose={() => setServerOpen(false)}
        />
      )}
    </section>
  );
}

const counted = (count: number) => (count === 1 ? 'one file' : `${count} files`);

/** Brings the files of a folder, with where in it they are. */
function useFolder(id: string, onArrived: () => Promise<void>) {
  const [upload, setUpload] = useState<UploadProgress | null>(null);
  const queue = useMemo(() => createUploadQueue({ series: id }, setUpload), [id]);
  const done = upload !== null && upload.filesDone === upload.fileCount;
  useEffect(() => {
    if (done) void onArrived();
  }, [done, onArrived]);
  const give = (files: readonly File[]) => queue.add(files.filter(({ name }) => kindByName(name) !== null));
  const { pick, picker } = useFolderPicker('The folder of this series', 'series-folder-picker', give);
  return { upload, give, pickFolder: pick, picker };
}

function Coming({ upload }: { upload: UploadProgress }) {
  const { filesDone, fileCount, bytes, bytesDone, failed } = upload;
  return (
    <div className="mt-2" data-part="series-upload">
      {filesDone < fileCount && (
        <>
          <p className="tabular text-soft">
            {filesDone} of {fileCount} have arrived
          </p>
          <progress
            max={1}
            value={bytesDone / Math.max(1, bytes)}
            aria-label="How much has arrived"
            className="h-1.5 w-full accent-red"
          />
        </>
      )}
      {failed.slice(0, 5).map(({ fileName, problem }) => (
        <p key={fileName} className="text-red-deep">
          {fileName}: {problem}
        </p>
      ))}
      {failed.length > 5 && <p className="text-red-deep">and {failed.length - 5} more</p>}
    </div>
  );
}

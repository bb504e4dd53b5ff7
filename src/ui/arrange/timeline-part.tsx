'use client';

import { Download, FileUp } from 'lucide-react';
import { useRef, useState } from 'react';
import { toast } from 'sonner';
import { filmChapters } from '../../core/film/chapters';
import { asFfmetadata } from '../../core/film/ffmetadata';
import type { ReadTimeline } from '../../core/interchange/otio-in';
import { showLengthMs } from '../../core/timing/slide-span';
import { Button } from '../kit/button';
import { clock } from '../kit/clock';
import { saveText } from '../kit/save-text';
import { callServer } from '../show/call-server';
import { faultSentence, sayFault } from '../show/say-fault';
import { usePrepared, useShow } from '../show/show-provider';

/** Larger ones the server would not read. */
const LARGEST_BYTES = 8_000_000;
const MOST_NAMED = 12;

/** The show as a timeline for other programs, and back: what it would become is said before it is taken over. */
export function TimelinePart({ onDone }: { onDone: () => void }) {
  const show = useShow((state) => state.show);
  const edit = useShow((state) => state.edit);
  const whenSaved = useShow((state) => state.whenSaved);
  const prepared = usePrepared();
  const picker = useRef<HTMLInputElement>(null);
  const [given, setGiven] = useState<{ readonly name: string; readonly read: ReadTimeline } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const path = `/api/v1/shows/${show.id}/timeline`;
  const name = show.title || 'show';

  const save = async () => {
    try {
      if (!(await whenSaved()))
        return void toast('The server cannot be reached: the timeline would lack what you did last.');
      saveText(`${name}.otio`, 'application/json', JSON.stringify(await callServer('GET', path), null, 2));
    } catch (error) {
      sayFault(error);
    }
  };
  const chapters = filmChapters(prepared, 0, showLengthMs(show));
  const bring = async (file: File) => {
    setGiven(null);
    setProblem(null);
    try {
      if (file.size > LARGEST_BYTES) return setProblem(`${file.name} is too large to be read here.`);
      const timeline = parsed(await file.text());
      if (timeline === undefined) return setProblem(`${file.name} is no timeline in OpenTimelineIO’s JSON.`);
      setGiven({ name: file.name, read: await callServer<ReadTimeline>('POST', path, { timeline }) });
    } catch (error) {
      setProblem(faultSentence(error));
    }
  };
  const takeOver = () => {
    if (!given) return;
    edit({ kind: 'set-content', content: given.read.content });
    toast('The timeline was taken over, as one step to undo.');
    onDone();
  };
  return (
    <section aria-label="As a timeline" className="mt-6 border-t border-rule pt-4">
      <p className="text-soft">
        For programs that edit films: slides as clips with their transitions, chapters and sounds, in OpenTimelineIO.
        What such a timeline has no place for comes along unseen and is here again when it is brought back.
      </p>
      <div className="mt-3 flex flex-wrap gap-2">
        <Button onClick={() => void save()} data-part="save-timeline">
          <Download size={14} /> Save the timeline (OTIO)
        </Button>
        <Button onClick={() => picker.current?.click()}>
          <FileUp size={14} /> Bring one back
        </Button>
        {chapters.length > 0 && (
          <Button
            onClick={() => saveText(`${name}.ffmetadata`, 'text/plain', asFfmetadata(show.title, chapters))}
            data-part="save-chapters"
          >
            <Download size={14} /> Save the chapters (FFmetadata)
          </Button>
        )}
        <input
          ref={picker}
          type="file"
          accept=".otio,application/json"
          hidden
          aria-label="A timeline to bring back"
          data-part="timeline-picker"
          onChange={({ target }) => {
            const [file] = target.files ?? [];
            if (file) void bring(file);
            target.value = '';
          }}
        />
      </div>
      {problem && (
        <p role="alert" className="mt-3 text-red-deep">
          {problem}
        </p>
      )}
      {given && <Preview name={given.name} read={given.read} was={show.slides.length} onTake={takeOver} />}
    </section>
  );
}

interface PreviewProps {
  readonly name: string;
  readonly read: ReadTimeline;
  /** How many slides there are now. */
  readonly was: number;
  readonly onTake: () => void;
}

function Preview({ name, read: { content, told, missing }, was, onTake }: PreviewProps) {
  const lengthMs = content.slides.reduce((sum, slide) => sum + slide.lengthMs, 0);
  const sounds = content.cues.length + content.slides.reduce((sum, slide) => sum + slide.sounds.length, 0);
  return (
    <div className="mt-4" data-part="timeline-preview">
      <p className="font-semibold">
        {name}: {counted(content.slides.length, 'slide')} of {clock(lengthMs)}, {counted(sounds, 'sound')}
        {was > 0 && (
          <span className="font-normal text-soft">, in the place of the {counted(was, 'slide')} there are</span>
        )}
      </p>
      {missing.length > 0 && (
        <p className="mt-2 text-red-deep">
          {missing.length === 1 ? 'A file is' : `${missing.length} files are`} not on the contact sheet:{' '}
          {missing.slice(0, MOST_NAMED).join(', ')}
          {missing.length > MOST_NAMED && ` and ${missing.length - MOST_NAMED} more`}. Their slides would be blank:
          bring them in first, then the timeline again.
        </p>
      )}
      {told.length > 0 && (
        <ul className="mt-2 text-soft">
          {told.slice(0, MOST_NAMED).map((says) => (
            <li key={says}>{says}</li>
          ))}
          {told.length > MOST_NAMED && <li>and {told.length - MOST_NAMED} more</li>}
        </ul>
      )}
      <Button look="main" className="mt-3 h-9 px-5" onClick={onTake} data-part="take-timeline">
        Take it over
      </Button>
    </div>
  );
}

const counted = (count: number, what: string) => `${count} ${what}${count === 1 ? '' : 's'}`;

function parsed(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}

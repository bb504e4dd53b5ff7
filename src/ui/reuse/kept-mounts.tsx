'use client';

import { Download, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { takesOf } from '../../core/mounts/mount';
import type { KeptMount } from '../../server/reuse/studio-service';
import { Button } from '../kit/button';
import { answerOf, callServer, ServerRefusal } from '../show/call-server';
import { studioStore, useStudio } from './studio-store';
import { sayFault } from '../show/say-fault';

/** The mounts of the studio's own: handed on as files, brought in, removed. */
export function KeptMounts() {
  const { kept } = useStudio();
  const [busy, setBusy] = useState(false);
  const shown = kept.filter(({ removed }) => !removed);
  const names = shown.map(({ document }) => document.name);
  const change = async (work: () => Promise<unknown>) => {
    try {
      await work();
      await studioStore.getState().load();
    } catch (error) {
      sayFault(error);
    }
  };
  const bringIn = async (file: File) => {
    setBusy(true);
    try {
      const response = await fetch('/api/v1/mounts/bytes', { method: 'POST', body: file });
      const answer = await answerOf<KeptMount>(response);
      await studioStore.getState().load();
      toast(
        `“${answer.document.name}” is among the mounts.${answer.missing?.length ? ` ${answer.missing.join(' ')}` : ''}`,
      );
    } catch (error) {
      toast(
        error instanceof ServerRefusal
          ? `“${file.name}” was not taken. ${error.message}`
          : 'The server cannot be reached.',
      );
    } finally {
      setBusy(false);
    }
  };
  return (
    <section className="flex flex-col gap-3" data-part="kept-mounts">
      <div className="flex items-baseline justify-between border-b border-rule pb-1">
        <h2 className="text-base font-semibold">Your own mounts and transitions</h2>
        <label
          className="inline-flex h-7 cursor-pointer items-center rounded-md border border-rule bg-card px-2.5 focus-within:outline-2 hover:border-soft aria-disabled:opacity-50"
          aria-disabled={busy}
        >
          {busy ? 'Bringing in …' : 'Bring one in'}
          <input
            type="file"
            accept=".zip"
            className="sr-only"
            data-part="mount-picker"
            onChange={(event) => {
              const [file] = [...(event.target.files ?? [])];
              event.target.value = '';
              if (file) void bringIn(file);
            }}
          />
        </label>
      </div>
      {shown.length === 0 && (
        <p className="text-soft">
          None yet. Make a slide as you like it, choose it in the order and keep it as a mount (Shift A); or bring in
          one that somebody gave you.
        </p>
      )}
      <ul>
        {shown.map(({ id, document, missing, createdAt }) => (
          <li key={id} className="flex items-start gap-3 border-t border-rule py-2 first:border-t-0">
            <div className="min-w-0 flex-1">
              <b className="font-medium">{document.name}</b>
              {names.filter((name) => name === document.name).length > 1 && (
                <span className="text-soft">
                  {' '}
                  of {new Date(createdAt).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })} ·{' '}
                  {id.slice(0, 6)}
                </span>
              )}
              <span className="block text-soft">
                {document.shelf}
                {document.author && ` · by ${document.author}`} · {document.fits.map((fit) => fit.name).join(', ')}
                {document.holds || document.fits.some((fit) => takesOf(fit) > 0) ? '' : ' · takes no picture'}
              </span>
              {document.description && <span className="block">{document.description}</span>}
              {missing.map((sentence) => (
                <span key={sentence} className="block text-saffron-deep">
                  {sentence}
                </span>
              ))}
            </div>
            <a
              href={`/api/v1/mounts/${id}/file`}
              download
              aria-label={`Hand “${document.name}” on as a file`}
              title="Hand it on as a file"
              className="grid size-8 place-items-center rounded-md hover:bg-rule/50"
            >
              <Download size={15} />
            </a>
            <Button
              look="quiet"
              square
              aria-label={`Remove “${document.name}”`}
              onClick={() =>
                void change(() => callServer('DELETE', `/api/v1/mounts/${id}`)).then(() =>
                  toast(`“${document.name}” is removed. Slides it was laid on stay as they are.`, {
                    action: {
                      label: 'Undo',
                      onClick: () => void change(() => callServer('DELETE', `/api/v1/mounts/${id}/removal`)),
                    },
                  }),
                )
              }
            >
              <Trash2 size={15} />
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

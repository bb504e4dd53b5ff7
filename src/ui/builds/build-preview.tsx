'use client';

import { useEffect, useMemo, useRef } from 'react';
import { aloneShow } from '../../core/frame/alone';
import { prepareShow, type PreparedShow } from '../../core/frame/plan-frame';
import { applyEdit } from '../../core/show/edit';
import type { Built } from '../../core/builds/make-builds';
import { useViewer } from '../viewer/use-viewer';

const AGAIN_AFTER_MS = 900;

/** What a build would look like, playing over and over. Nothing of the show is changed. */
export function BuildPreview({ prepared, built }: { prepared: PreparedShow; built: Extract<Built, { ok: true }> }) {
  const alone = useMemo(() => {
    const result = applyEdit(prepared.show, built.edit);
    if (!result.ok) return null;
    const made = prepareShow(result.show, prepared.facts);
    const index = made.show.slides.findIndex((slide) => slide.id === built.slideId);
    return index < 0 ? null : aloneShow(made, index);
  }, [prepared, built]);
  if (!alone) return <p role="alert">This cannot be shown.</p>;
  return <Playing show={alone} facts={prepared.facts} />;
}

export function Playing({ show, facts }: { show: PreparedShow['show']; facts: PreparedShow['facts'] }) {
  const place = useRef<HTMLDivElement>(null);
  const { playing, starting, preparing, play, pause } = useViewer(place, show, facts);
  useEffect(() => {
    if (starting || playing) return;
    if (matchMedia('(prefers-reduced-motion: reduce)').matches) return;
    const timer = setTimeout(() => play(0), AGAIN_AFTER_MS);
    return () => clearTimeout(timer);
  }, [starting, playing, play, show]);
  const aspect = show.frame.widthPx / show.frame.heightPx;
  return (
    <div
      className="relative mx-auto max-w-full bg-black"
      style={{ aspectRatio: aspect, width: `min(100%, ${46 * aspect}vh)` }}
      data-part="build-preview"
      data-playing={playing}
    >
      <div ref={place} className="absolute inset-0" />
      {(starting || preparing) && (
        <p role="status" className="pointer-events-none absolute inset-0 grid place-items-center text-lamp-soft">
          Preparing …
        </p>
      )}
      <button
        type="button"
        className="absolute right-2 bottom-2 h-7 rounded-md bg-black/70 px-2.5 text-lamp"
        onClick={() => (playing ? pause() : play(0))}
      >
        {playing ? 'stop' : 'play'}
      </button>
    </div>
  );
}

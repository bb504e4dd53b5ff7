'use client';

import { nanoid } from 'nanoid';
import { useState } from 'react';
import { narrationLaid, partsByPauses, partsByScript } from '../../core/narration/cut-narration';
import { cueId, type AssetId, type SlideId } from '../../core/show/ids';
import { USUAL_LANGUAGE } from '../../core/show/caption';
import { voiceOf } from '../../core/show/placed-sound';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { clock } from '../kit/clock';
import { Pick } from '../kit/pick';
import { useShow } from '../show/show-provider';

interface BringNarrationProps {
  readonly first: SlideId;
  readonly sounds: readonly { readonly id: AssetId; readonly name: string }[];
}

/** A narration that was recorded elsewhere, as one long file, cut over the slides from the chosen one on. */
export function BringNarration({ first, sounds }: BringNarrationProps) {
  const show = useShow((state) => state.show);
  const facts = useShow((state) => state.facts);
  const edit = useShow((state) => state.edit);
  const [file, setFile] = useState<AssetId | null>(null);
  const [how, setHow] = useState<'pauses' | 'script'>('pauses');
  const at = show.slides.findIndex((slide) => slide.id === first);
  const scripted = show.slides.slice(at).filter((slide) => slide.script !== undefined);
  const chosen = sounds.find((sound) => sound.id === file) ?? sounds[0];
  if (!chosen || at < 0) return null;
  const known = facts.get(chosen.id);
  const phrases = known?.kind === 'sound' ? known.listening?.phrases : undefined;
  // Up to the next slide that has a voice of its own.
  const next = show.slides.findIndex((slide, index) => index > at && voiceOf(slide) !== null);
  const free = show.slides.slice(at, next < 0 ? undefined : next);
  const slides = how === 'script' ? scripted : free;
  const parts =
    phrases &&
    (how === 'script'
      ? partsByScript(
          scripted.map((slide) => slide.script!),
          phrases,
          show.language ?? USUAL_LANGUAGE,
        )
      : partsByPauses(free.length, phrases));
  const lay = () => {
    if (!parts || parts.length === 0) return;
    const lengthMs = known?.kind === 'sound' ? known.lengthMs : 0;
    const voice = { assetId: chosen.id, name: chosen.name, lengthMs, fromMs: 0, toMs: lengthMs };
    edit(
      narrationLaid(
        show,
        slides.map((slide) => slide.id),
        voice,
        parts,
        () => cueId(nanoid(10)),
      ),
    );
  };
  return (
    <section aria-labelledby="bring-narration" data-part="bring-narration">
      <h2 id="bring-narration" className="text-base">
        A narration from a file
      </h2>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <Pick<AssetId>
          label="Which file"
          value={chosen.id}
          groups={[
            {
              name: null,
              options: sounds.map(({ id, name }) => {
                const of = facts.get(id);
                return { value: id, label: of?.kind === 'sound' ? `${name} · ${clock(of.lengthMs)}` : name };
              }),
            },
          ]}
          onChange={setFile}
        />
        <span className="text-soft">cut</span>
        <Choice
          label="Where it is cut"
          value={how}
          onChange={setHow}
          options={[
            { value: 'pauses', label: 'at its pauses' },
            { value: 'script', label: 'by the script' },
          ]}
        />
        <Button className="h-7" disabled={!parts || parts.length === 0} onClick={lay}>
          Lay it over {parts && parts.length > 0 ? `${parts.length} slides` : 'slides'} from {at + 1} on
        </Button>
      </div>
      <p className="mt-1 text-xs text-soft">
        {!phrases
          ? 'It is still being listened to.'
          : how === 'script' && scripted.length === 0
            ? 'No slide from here on has a script.'
            : how === 'pauses' && next >= 0
              ? `Up to slide ${next}: the one after it has a voice of its own.`
              : 'Each slide waits for its part. Voices that are there rest; one step to undo.'}
      </p>
    </section>
  );
}

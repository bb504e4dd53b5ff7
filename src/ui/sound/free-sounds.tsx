'use client';

import { Plus } from 'lucide-react';
import { nanoid } from 'nanoid';
import { useState, type RefObject } from 'react';
import { songAdded } from '../../core/show/edits/add-sounds';
import { cueId, type AssetId } from '../../core/show/ids';
import { songAfter, voiceHere } from '../../core/show/placed-sound';
import { DEFAULT_FADE_OUT_MS } from '../../core/show/show';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { Button } from '../kit/button';
import { clock } from '../kit/clock';
import { useShow } from '../show/show-provider';
import type { ViewerHands } from '../viewer/use-viewer';
import { ListenButtons, useListening } from './use-listening';

interface FreeSoundsProps {
  readonly sounds: readonly SheetEntry[];
  readonly nameOf: (id: AssetId) => string;
  readonly viewer: RefObject<ViewerHands | null>;
}

/** The sounds of the contact sheet that are no song of the show yet: listened to in place, put under the show, on a slide, or from a slide on. */
export function FreeSounds({ sounds, nameOf, viewer }: FreeSoundsProps) {
  const show = useShow((state) => state.show);
  const anchor = useShow((state) => state.anchor);
  const edit = useShow((state) => state.edit);
  const listening = useListening(viewer);
  const [sought, setSought] = useState('');
  const chosen = show.slides.findIndex((slide) => slide.id === anchor);
  const shown = sounds.filter((sound) => nameOf(sound.assetId).toLowerCase().includes(sought.toLowerCase()));
  return (
    <section aria-labelledby="more-sounds">
      <div className="flex items-center gap-3">
        <h2 id="more-sounds" className="text-base">
          Other sounds
        </h2>
        {sounds.length > 5 && (
          <input
            aria-label="Find a sound"
            placeholder="find"
            value={sought}
            onChange={(event) => setSought(event.target.value)}
            className="h-7 w-40 rounded-md border border-rule bg-field px-2"
          />
        )}
      </div>
      <ul className="mt-2 flex flex-col gap-1.5">
        {shown.map((sound) => {
          const name = nameOf(sound.assetId);
          const spokenOn = show.slides.findIndex((slide) =>
            slide.sounds.some((placed) => placed.assetId === sound.assetId),
          );
          const heard = sound.facts?.kind === 'sound' ? sound.facts : null;
          const beats = heard?.listening?.beats;
          return (
            <li key={sound.id} className="flex items-center gap-2 rounded-lg border border-rule p-2">
              <ListenButtons
                what={{ id: sound.assetId, url: `/api/v1/shows/${show.id}/sounds/${sound.assetId}`, name }}
                listening={listening}
              />
              <span className="min-w-0 flex-1">
                <span className="block truncate font-semibold">{name}</span>
                <span className="tabular block text-xs text-soft">
                  {clock(heard?.lengthMs ?? 0)}
                  {beats && ` · ${Math.round(beats.tempoBpm)} a minute`}
                </span>
              </span>
              {spokenOn >= 0 && <span className="text-moss">on slide {spokenOn + 1}</span>}
              <Button
                className="h-7 px-2"
                onClick={() =>
                  edit(songAdded(show.cues, songAfter(cueId(nanoid(10)), sound.assetId, DEFAULT_FADE_OUT_MS)))
                }
              >
                <Plus size={13} /> Music
              </Button>
              {(['voice', 'effect'] as const).map((kind) => (
                <Button
                  key={kind}
                  className="h-7 px-2"
                  disabled={chosen < 0}
                  title={chosen < 0 ? 'Choose a slide on the left first' : undefined}
                  onClick={() =>
                    edit({
                      kind: 'add-sounds',
                      slideId: show.slides[chosen]!.id,
                      runs: [
                        {
                          afterId: null,
                          sounds: [
                            { ...voiceHere(cueId(nanoid(10)), sound.assetId, kind === 'voice' ? 500 : 0), kind },
                          ],
                        },
                      ],
                    })
                  }
                >
                  {kind === 'voice' ? 'Speak' : 'Ring'} {chosen < 0 ? 'on a slide' : `on ${chosen + 1}`}
                </Button>
              ))}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

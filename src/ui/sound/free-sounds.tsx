'use client';

import { PencilLine, Plus } from 'lucide-react';
import { nanoid } from 'nanoid';
import { useState, type RefObject } from 'react';
import { songAdded } from '../../core/show/edits/add-sounds';
import { cueId, type AssetId } from '../../core/show/ids';
import type { SongAbout } from '../../core/show/song-tags';
import { songAfter, voiceHere } from '../../core/show/placed-sound';
import { DEFAULT_FADE_OUT_MS } from '../../core/show/show';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { Button } from '../kit/button';
import { clock } from '../kit/clock';
import { useShow } from '../show/show-provider';
import type { ViewerHands } from '../viewer/use-viewer';
import { Pick } from '../kit/pick';
import { SongAboutFields } from './song-about-fields';
import { ListenButtons, useListening } from './use-listening';

interface FreeSoundsProps {
  readonly sounds: readonly SheetEntry[];
  readonly about: (id: AssetId) => SongAbout & { readonly name: string };
  readonly viewer: RefObject<ViewerHands | null>;
}

/** The sounds of the contact sheet that are no song of the show yet: listened to in place, put under the show, on a slide, or from a slide on. */
type Order = 'as they came' | 'name' | 'style' | 'mood' | 'tempo' | 'length';
const ORDERS: readonly Order[] = ['as they came', 'name', 'style', 'mood', 'tempo', 'length'];

export function FreeSounds({ sounds, about, viewer }: FreeSoundsProps) {
  const show = useShow((state) => state.show);
  const anchor = useShow((state) => state.anchor);
  const edit = useShow((state) => state.edit);
  const listening = useListening(viewer);
  const [sought, setSought] = useState('');
  const chosen = show.slides.findIndex((slide) => slide.id === anchor);
  const [order, setOrder] = useState<Order>('as they came');
  const [mending, setMending] = useState<string | null>(null);
  const words = sought.toLowerCase().split(/\s+/u).filter(Boolean);
  const shown = sounds
    .map((sound) => ({ sound, is: about(sound.assetId), ...measuresOf(sound) }))
    .filter(({ is }) => {
      const all = [is.name, is.artist, is.style, is.mood].join(' ').toLowerCase();
      return words.every((word) => all.includes(word));
    });
  if (order !== 'as they came') shown.sort((one, other) => inOrder(order, one, other));
  return (
    <section aria-labelledby="more-sounds">
      <div className="flex items-center gap-3">
        <h2 id="more-sounds" className="text-base">
          Other sounds
        </h2>
        {sounds.length > 3 && (
          <>
            <input
              aria-label="Find a sound"
              placeholder="a title, a style, a mood"
              value={sought}
              onChange={(event) => setSought(event.target.value)}
              className="h-7 w-44 rounded-md border border-rule bg-field px-2"
            />
            <span className="ml-auto flex items-center gap-1.5 text-soft">
              by
              <Pick<Order>
                label="In which order sounds stand"
                value={order}
                groups={[{ name: null, options: ORDERS.map((value) => ({ value, label: value })) }]}
                onChange={setOrder}
              />
            </span>
          </>
        )}
      </div>
      <ul className="mt-2 flex flex-col gap-1.5">
        {shown.map(({ sound, is, lengthMs, bpm }) => {
          const { name } = is;
          const spokenOn = show.slides.findIndex((slide) =>
            slide.sounds.some((placed) => placed.assetId === sound.assetId),
          );
          return (
            <li key={sound.id} className="rounded-lg border border-rule p-2">
              <div className="flex items-center gap-2">
                <ListenButtons
                  what={{ id: sound.assetId, url: `/api/v1/shows/${show.id}/sounds/${sound.assetId}`, name }}
                  listening={listening}
                />
                <span className="min-w-0 flex-1">
                  <span className="block truncate font-semibold">{name}</span>
                  <span className="tabular block text-xs text-soft">
                    {[is.style, is.mood].filter(Boolean).join(', ')}
                    {(is.style ?? is.mood) && ' · '}
                    {clock(lengthMs)}
                    {bpm !== null && ` · ${Math.round(bpm)} a minute`}
                  </span>
                </span>
                <Button
                  look="quiet"
                  square
                  className="size-7"
                  aria-label={`Mend what is said of ${name}`}
                  title="Title, by whom, style, mood, licence"
                  aria-expanded={mending === sound.id}
                  onClick={() => setMending(mending === sound.id ? null : sound.id)}
                >
                  <PencilLine size={14} />
                </Button>
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
              </div>
              {mending === sound.id && <SongAboutFields assetId={sound.assetId} />}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

interface Measures {
  readonly lengthMs: number;
  /** Null where it has no beat, or was not listened to yet. */
  readonly bpm: number | null;
}

function measuresOf({ facts }: SheetEntry): Measures {
  if (facts?.kind !== 'sound') return { lengthMs: 0, bpm: null };
  return { lengthMs: facts.lengthMs, bpm: facts.listening?.beats?.tempoBpm ?? null };
}

interface Ordered extends Measures {
  readonly is: SongAbout & { readonly name: string };
}

/** What is not known comes last. */
function inOrder(order: Exclude<Order, 'as they came'>, one: Ordered, other: Ordered): number {
  if (order === 'length') return one.lengthMs - other.lengthMs;
  if (order === 'tempo') return (one.bpm ?? Infinity) - (other.bpm ?? Infinity) || 0;
  const text = ({ is }: Ordered) => is[order] ?? '\uffff';
  return text(one).localeCompare(text(other)) || one.is.name.localeCompare(other.is.name);
}

'use client';

import { Plus } from 'lucide-react';
import { nanoid } from 'nanoid';
import { useState, type RefObject } from 'react';
import { toast } from 'sonner';
import { songAdded } from '../../core/show/edits/add-sounds';
import { cueId, type CueId } from '../../core/show/ids';
import { songAfter } from '../../core/show/placed-sound';
import { DEFAULT_FADE_OUT_MS } from '../../core/show/show';
import { BAND_STYLE_NAMES } from '../../core/sound/band/band-wishes';
import { PIECE_LICENCE, PIECES, type ShippedPiece } from '../../core/sound/band/pieces';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { Button } from '../kit/button';
import { clock } from '../kit/clock';
import { Pick } from '../kit/pick';
import { callServer, ServerRefusal } from '../show/call-server';
import { useShowStore } from '../show/show-provider';
import type { ViewerHands } from '../viewer/use-viewer';
import { ListenButtons, useListening } from './use-listening';

type Order = 'title' | 'style' | 'mood' | 'tempo' | 'length';
const ORDERS: Readonly<Record<Order, (one: ShippedPiece, other: ShippedPiece) => number>> = {
  title: (one, other) => one.title.localeCompare(other.title),
  style: (one, other) => BAND_STYLE_NAMES[one.wishes.style].localeCompare(BAND_STYLE_NAMES[other.wishes.style]),
  mood: (one, other) => one.wishes.mood.localeCompare(other.wishes.mood),
  tempo: (one, other) => one.bpm - other.bpm,
  length: (one, other) => one.wishes.lengthMs - other.wishes.lengthMs,
};

interface PieceShelfProps {
  readonly viewer: RefObject<ViewerHands | null>;
  readonly onTaken: (cue: CueId) => void;
}

/** The music that ships with Tanager: sought, sorted, listened to, put under the show with its licence noted. */
export function PieceShelf({ viewer, onTaken }: PieceShelfProps) {
  const store = useShowStore();
  const listening = useListening(viewer);
  const [taking, setTaking] = useState<string | null>(null);
  const [sought, setSought] = useState('');
  const [order, setOrder] = useState<Order>('style');
  const take = async (piece: ShippedPiece) => {
    listening.stop();
    setTaking(piece.name);
    try {
      const { show, mergeEntries, edit } = store.getState();
      const entry = await callServer<SheetEntry>('POST', `/api/v1/shows/${show.id}/pieces/${piece.name}`);
      mergeEntries([entry]);
      const song = songAfter(cueId(nanoid(10)), entry.assetId, DEFAULT_FADE_OUT_MS);
      const done = edit({
        kind: 'together',
        name: `put “${piece.title}” under the show`,
        edits: [
          songAdded(show.cues, song),
          { kind: 'set-licences', licences: [{ assetId: entry.assetId, licence: PIECE_LICENCE }] },
        ],
      });
      if (done) onTaken(song.id);
    } catch (error) {
      toast(
        error instanceof ServerRefusal
          ? error.message
          : 'The server cannot be reached. Nothing was changed; try again.',
      );
    } finally {
      setTaking(null);
    }
  };
  const words = sought.toLowerCase().split(/\s+/u).filter(Boolean);
  const shown = PIECES.filter((piece) => {
    const all = `${piece.title} ${BAND_STYLE_NAMES[piece.wishes.style]} ${piece.wishes.mood}`.toLowerCase();
    return words.every((word) => all.includes(word));
  }).toSorted((one, other) => ORDERS[order](one, other) || ORDERS.title(one, other));
  return (
    <section aria-labelledby="pieces-heading" data-part="piece-shelf">
      <div className="flex flex-wrap items-center gap-3">
        <h2 id="pieces-heading" className="text-base">
          Pieces to take
        </h2>
        <input
          aria-label="Find a piece"
          placeholder="a style, a mood, a title"
          value={sought}
          onChange={(event) => setSought(event.target.value)}
          className="h-7 w-48 rounded-md border border-rule bg-field px-2"
        />
        <span className="ml-auto flex items-center gap-1.5 text-soft">
          by
          <Pick<Order>
            label="In which order"
            value={order}
            groups={[
              { name: null, options: (Object.keys(ORDERS) as Order[]).map((value) => ({ value, label: value })) },
            ]}
            onChange={setOrder}
          />
        </span>
      </div>
      <ul className="mt-2 flex flex-col gap-1.5">
        {shown.map((piece) => (
          <li
            key={piece.name}
            data-piece={piece.name}
            className="flex items-center gap-2 rounded-lg border border-rule p-2"
          >
            <ListenButtons
              what={{ id: piece.name, url: `/pieces/${piece.name}.ogg`, name: piece.title }}
              listening={listening}
            />
            <span className="min-w-0 flex-1">
              <span className="block truncate font-semibold">{piece.title}</span>
              <span className="tabular block truncate text-xs text-soft">
                {BAND_STYLE_NAMES[piece.wishes.style]}, {piece.wishes.mood} · {clock(piece.wishes.lengthMs)} ·{' '}
                {Math.round(piece.bpm)} a minute
              </span>
            </span>
            <Button className="h-7 px-2" disabled={taking !== null} onClick={() => void take(piece)}>
              <Plus size={13} /> Music
            </Button>
          </li>
        ))}
        {shown.length === 0 && (
          <li className="text-soft">None is like that. The house band plays what you describe.</li>
        )}
      </ul>
      <p className="mt-2 text-xs text-soft">{PIECE_LICENCE}. The credits say so by themselves.</p>
    </section>
  );
}

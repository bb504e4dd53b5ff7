'use client';

import { Download, Music4 } from 'lucide-react';
import type { FactsById } from '../../core/show/asset-facts';
import type { PlacedSound } from '../../core/show/placed-sound';
import type { SoundProperties } from '../../core/show/edits/set-sound';
import { Button } from '../kit/button';
import { clock } from '../kit/clock';
import { useShow } from '../show/show-provider';
import { pieceToPlayAnew } from '../show/use-band-follows';

interface BandLineProps {
  readonly cue: PlacedSound;
  readonly facts: FactsById;
  readonly onChange: (properties: SoundProperties) => void;
  /** Opens what the band is told. */
  readonly onOpen: () => void;
}

/** What is to be said of a song that the house band plays. */
export function BandLine({ cue, facts, onChange, onOpen }: BandLineProps) {
  const show = useShow((state) => state.show);
  const known = facts.get(cue.assetId);
  if (!cue.band || known?.kind !== 'sound') return null;
  const anew = pieceToPlayAnew({ show, facts })?.sound.id === cue.id;
  const score = (as: string) => `/api/v1/shows/${show.id}/sounds/${cue.assetId}/score?as=${as}`;
  return (
    <section aria-label="Played by the house band" data-part="band-line" className="mt-3 rounded-lg bg-field p-3">
      <p className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <b className="text-saffron-deep">
          <Music4 size={13} className="mr-1 inline" />
          {anew ? 'The band plays it anew' : `Made to measure: ${clock(known.lengthMs)}`}
        </b>
        <span className="flex-1 text-xs text-soft">
          {show.pace
            ? 'The pictures follow it, so it stays as long as it is.'
            : cue.ends.at === 'own-end'
              ? 'It stays as long as it is.'
              : anew
                ? 'The show has changed; until it is played anew, this one is tailored to it.'
                : 'It is played anew whenever the show becomes longer or shorter.'}
        </span>
      </p>
      <p className="mt-2 flex flex-wrap items-center gap-2">
        <Button className="h-7 px-2.5" data-part="change-band" onClick={onOpen}>
          Change what they play
        </Button>
        <a className="inline-flex h-7 items-center gap-1 px-2 text-red-deep underline" href={score('midi')} download>
          <Download size={13} /> MIDI
        </a>
        <a
          className="inline-flex h-7 items-center gap-1 px-2 text-red-deep underline"
          href={score('musicxml')}
          download
        >
          <Download size={13} /> MusicXML
        </a>
        <Button look="quiet" className="ml-auto h-7 px-2" onClick={() => onChange({ band: null })}>
          keep it as it is
        </Button>
      </p>
    </section>
  );
}

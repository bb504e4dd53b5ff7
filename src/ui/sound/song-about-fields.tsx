'use client';

import type { KeyboardEvent } from 'react';
import type { AssetId } from '../../core/show/ids';
import { LONGEST_NAME, LONGEST_REASON } from '../../core/show/limits';
import { aboutSong, SONG_TAG_NAMES, type SongTags } from '../../core/show/song-tags';
import { Button } from '../kit/button';
import { useShow } from '../show/show-provider';

const LABELS: Readonly<Record<(typeof SONG_TAG_NAMES)[number], string>> = {
  title: 'Title',
  artist: 'By',
  style: 'Style',
  mood: 'Mood',
};

/** What is said of a song, mended by hand: its tags and by what right it is used. The file stays as it is; what is cleared is as the file says again. */
export function SongAboutFields({ assetId }: { assetId: AssetId }) {
  const facts = useShow((state) => state.entries.find((entry) => entry.assetId === assetId)?.facts);
  const tags = useShow((state) => state.show.tags?.[assetId]);
  const licence = useShow((state) => state.show.licences?.[assetId]);
  const edit = useShow((state) => state.edit);
  const file = aboutSong(facts?.kind === 'sound' ? facts : undefined, undefined);
  const shown = aboutSong(facts?.kind === 'sound' ? facts : undefined, tags);
  const say = (name: keyof SongTags, text: string) => {
    const { [name]: _before, ...others } = tags ?? {};
    const said = text !== '' && text !== file[name];
    if ((said ? text : undefined) === tags?.[name]) return;
    const next: SongTags = said ? { ...others, [name]: text } : others;
    edit({ kind: 'set-tags', tags: [{ assetId, tags: Object.keys(next).length > 0 ? next : null }] });
  };
  return (
    <div
      role="group"
      aria-label="About this song"
      data-part="song-about"
      className="mt-2 grid grid-cols-[auto_1fr_auto_1fr] items-center gap-x-3 gap-y-2 rounded-lg bg-field p-3"
    >
      {SONG_TAG_NAMES.map((name) => (
        <Field
          key={name}
          label={LABELS[name]}
          value={shown[name] ?? ''}
          placeholder={file[name] ?? ''}
          longest={LONGEST_NAME}
          onSay={(text) => say(name, text)}
        />
      ))}
      <Field
        label="Licence"
        value={licence ?? ''}
        placeholder="whose it is, and which licence"
        longest={LONGEST_REASON}
        wide
        onSay={(text) => {
          if (text !== (licence ?? ''))
            edit({ kind: 'set-licences', licences: [{ assetId, licence: text === '' ? null : text }] });
        }}
      />
      <p className="col-span-4 flex items-center gap-2 text-xs text-soft">
        Credits say it so by themselves. The file stays as it is.
        {tags && (
          <Button
            look="quiet"
            className="ml-auto h-6 px-1.5 text-xs"
            onClick={() => edit({ kind: 'set-tags', tags: [{ assetId, tags: null }] })}
          >
            as the file says
          </Button>
        )}
      </p>
    </div>
  );
}

interface FieldProps {
  readonly label: string;
  readonly value: string;
  readonly placeholder: string;
  readonly longest: number;
  readonly wide?: boolean;
  readonly onSay: (text: string) => void;
}

/** Taken when it is left or Enter is pressed; Escape brings back what was there. */
function Field({ label, value, placeholder, longest, wide, onSay }: FieldProps) {
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'Escape') event.currentTarget.value = value;
    if (event.key === 'Enter' || event.key === 'Escape') {
      event.stopPropagation();
      event.currentTarget.blur();
    }
  };
  return (
    <>
      <span className="text-soft" aria-hidden="true">
        {label}
      </span>
      <input
        key={value}
        aria-label={label}
        defaultValue={value}
        placeholder={placeholder}
        maxLength={longest}
        onBlur={(event) => onSay(event.currentTarget.value.trim())}
        onKeyDown={onKeyDown}
        className={`h-7 min-w-0 rounded-md border border-rule bg-card px-2 ${wide ? 'col-span-3' : ''}`}
      />
    </>
  );
}

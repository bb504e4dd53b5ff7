'use client';

import { useState } from 'react';
import type { AssetId } from '../../core/show/ids';
import { Button } from '../kit/button';
import { useShow } from '../show/show-provider';

/** By what right a file is used, in a person's own words. */
export function LicenceField({ assetId }: { assetId: AssetId }) {
  const edit = useShow((state) => state.edit);
  const [text, setText] = useState('');
  const note = () => {
    const licence = text.trim();
    if (licence !== '') edit({ kind: 'set-licences', licences: [{ assetId, licence }] });
  };
  return (
    <form
      className="mt-3 flex items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        note();
      }}
    >
      <input
        aria-label="By what right it is used"
        placeholder="whose it is, and which licence"
        maxLength={300}
        value={text}
        onChange={(event) => setText(event.target.value)}
        className="h-8 w-72 rounded-md border border-rule bg-card px-2"
      />
      <Button type="submit" disabled={text.trim() === ''} data-part="note-licence">
        Note it
      </Button>
    </form>
  );
}

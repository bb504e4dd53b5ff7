'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import type { SlideId } from '../../core/show/ids';
import type { WordsLayer } from '../../core/show/layer';
import { Button } from '../kit/button';
import { useShow, useShowStore } from '../show/show-provider';
import { openSnags } from './room-store';
import { SnagSign } from './snag-sign';
import { useSnags, useSnagsStore } from './snags-provider';

/** Has words put where and coloured as they read best, by drawing all of it; and says what is the matter with them as they are. */
export function ReadsBest({ slideId, words }: { slideId: SlideId; words: WordsLayer }) {
  const snags = useSnagsStore();
  const store = useShowStore();
  const edit = useShow((state) => state.edit);
  const [trying, setTrying] = useState(false);
  const { open } = useSnags();
  const own = open.filter((snag) => snag.slideId === slideId && snag.layerId === words.id);
  const run = async () => {
    if (!snags) return;
    setTrying(true);
    const { slides } = store.getState().show;
    const best = await snags.whatReadsBest(slideId, words.id).catch((error: Error) => error);
    setTrying(false);
    if (best instanceof Error) return void toast(best.message);
    // Somebody went on meanwhile: what was tried is not what is there.
    if (store.getState().show.slides.find(({ id }) => id === slideId) !== slides.find(({ id }) => id === slideId))
      return void toast('The slide was changed meanwhile. Press again.');
    if (!best) toast('Nothing reads better here than what is there.');
    else if (edit({ kind: 'together', name: 'let the words read best', edits: [best.edit] })) toast(`${best.name}.`);
  };
  return (
    <div className="flex flex-wrap items-center gap-3">
      <Button onClick={() => void run()} disabled={trying || !snags} data-part="reads-best">
        {trying ? 'Trying every place …' : 'What reads best here'}
      </Button>
      {own.length > 0 && (
        <button
          type="button"
          data-part="words-snag"
          onClick={() => openSnags(slideId)}
          className="flex min-w-0 items-center gap-1.5 rounded-md px-1 text-left text-red-deep hover:bg-rule/50"
        >
          <SnagSign grave={own.some(({ grave }) => grave)} />
          <span className="min-w-0">{own[0]!.sentence}</span>
        </button>
      )}
    </div>
  );
}

'use client';

import { ChevronDown } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { toast } from 'sonner';
import { fitToMusic, lengthFollowsContent } from '../../core/timing/fit-to-music';
import { showLengthMs } from '../../core/timing/slide-span';
import { Button } from '../kit/button';
import { clock } from '../kit/clock';
import { useMusicLengthMs, useShow } from './show-provider';

/** Closer than this, show and music end together to the ear. */
const TOGETHER_MS = 500;

/** The show's length and the music's side by side, what the difference means, and the ways out. */
export function LengthsLine() {
  const show = useShow((state) => state.show);
  const edit = useShow((state) => state.edit);
  const musicMs = useMusicLengthMs();
  const lengthMs = showLengthMs(show);
  const apart = musicMs - lengthMs;

  const fit = () => {
    const fitted = fitToMusic(show.slides, musicMs, lengthFollowsContent);
    if (fitted.ok) return edit({ kind: 'set-lengths', lengths: fitted.lengths });
    toast(fitted.reason === 'no-slides' ? 'There are no pictures whose length could change.' : `The music is too short for so many pictures: they need at least ${clock(fitted.shortestMs)}.`);
  };
  const free = show.slides.filter((slide) => !lengthFollowsContent(slide));
  const fitSeconds = free.length > 0 ? (musicMs - (lengthMs - free.reduce((sum, slide) => sum + slide.lengthMs, 0))) / free.length / 1000 : 0;

  return (
    <div className="flex items-center gap-4" data-part="lengths">
      <span><b className="tabular">{show.slides.length}</b> {show.slides.length === 1 ? 'slide' : 'slides'}</span>
      <span>show <b className="tabular" data-part="show-length">{clock(lengthMs)}</b></span>
      {musicMs === 0 ? <span className="text-soft">no music yet</span> : (
        <span className="text-saffron-deep">
          music <b className="tabular">{clock(musicMs)}</b>{' '}
          {show.slides.length === 0 ? '' : Math.abs(apart) <= TOGETHER_MS ? 'ends together' : apart > 0 ? 'fades out with the last picture' : `ends ${clock(-apart)} before the last picture`}
        </span>
      )}
      {musicMs > 0 && free.length > 0 && Math.abs(apart) > TOGETHER_MS && (
        <DropdownMenu.Root>
          <DropdownMenu.Trigger asChild><Button className="h-7">Make them end together <ChevronDown size={13} /></Button></DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content align="start" sideOffset={4} className="z-30 min-w-72 rounded-lg border border-rule bg-card p-1.5 shadow-raised">
              <DropdownMenu.Item onSelect={fit} className="cursor-default rounded-md px-2.5 py-1.5 outline-none data-[highlighted]:bg-rule/60">
                {apart > 0 ? 'Relax' : 'Quicken'} the pace to <span className="tabular">{fitSeconds.toFixed(1)}</span> s a picture
              </DropdownMenu.Item>
              {apart > 0 ? null : <DropdownMenu.Label className="px-2.5 py-1.5 text-soft">or add a song in Sound, or take out {Math.max(1, Math.ceil(-apart / Math.max(1, lengthMs / show.slides.length)))} pictures</DropdownMenu.Label>}
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      )}
    </div>
  );
}

'use client';

import { ChevronDown } from 'lucide-react';
import { nanoid } from 'nanoid';
import Link from 'next/link';
import { DropdownMenu } from 'radix-ui';
import type { ReactNode } from 'react';
import { songAdded } from '../../core/show/edits/add-sounds';
import { songAfter } from '../../core/show/placed-sound';
import { cueId } from '../../core/show/ids';
import { DEFAULT_FADE_OUT_MS } from '../../core/show/show';
import { isHeld } from '../../core/show/chosen';
import { fitToMusic, keepsItsLength, lengthFollowsContent, shareOfTime } from '../../core/timing/fit-to-music';
import { leastLengthMs } from '../../core/timing/least-length';
import { showLengthMs } from '../../core/timing/slide-span';
import { picturesToDrop, repeatedCues } from '../../core/timing/ways-out';
import { Button } from '../kit/button';
import { clock } from '../kit/clock';
import { useMusicLengthMs, useShow } from './show-provider';
import { useSongAbout } from '../sound/use-song-about';

/** Closer than this, show and music end together to the ear. */
const TOGETHER_MS = 500;

/** The show's length and the music's side by side, and what the difference means with the ways out. */
export function LengthsLine() {
  const show = useShow((state) => state.show);
  const musicMs = useMusicLengthMs();
  const lengthMs = showLengthMs(show);
  const apart = musicMs - lengthMs;
  const together = Math.abs(apart) <= TOGETHER_MS;
  return (
    <div className="flex items-center gap-4 whitespace-nowrap" data-part="lengths">
      <span>
        <b className="tabular">{show.slides.length}</b> {show.slides.length === 1 ? 'slide' : 'slides'}
      </span>
      <span>
        show{' '}
        <b className="tabular" data-part="show-length">
          {clock(lengthMs)}
        </b>
      </span>
      {musicMs === 0 ? (
        <span className="text-soft">no music yet</span>
      ) : (
        <span className="text-saffron-deep">
          music <b className="tabular">{clock(musicMs)}</b>
          {show.slides.length > 0 && together && ' ends together'}
        </span>
      )}
      {musicMs > 0 && show.slides.length > 0 && !together && <WaysOut musicMs={musicMs} lengthMs={lengthMs} />}
    </div>
  );
}

/** What it means that show and music differ, and every way to make them meet as one choice. */
function WaysOut({ musicMs, lengthMs }: { musicMs: number; lengthMs: number }) {
  const show = useShow((state) => state.show);
  const facts = useShow((state) => state.facts);
  const entries = useShow((state) => state.entries);
  const edit = useShow((state) => state.edit);
  const about = useSongAbout();
  const longer = musicMs > lengthMs;
  const free = show.slides.filter((slide) => !keepsItsLength(slide));
  const held = show.slides.filter((slide) => isHeld(slide, 'length') && !lengthFollowsContent(slide));
  const before = new Map(show.slides.map((slide, index) => [slide.id, show.slides[index - 1]]));
  const fitted = fitToMusic(show.slides, musicMs, keepsItsLength, shareOfTime(show), (slide) =>
    leastLengthMs(slide, facts, before.get(slide.id), show),
  );
  const seconds = fitted.ok
    ? fitted.lengths.reduce((sum, entry) => sum + entry.lengthMs, 0) / fitted.lengths.length / 1000
    : 0;
  const dropped = longer ? null : picturesToDrop(show, musicMs);
  const songs = entries
    .filter(
      (entry) =>
        entry.facts?.kind === 'sound' &&
        entry.made === null &&
        entry.facts.lengthMs > 20_000 &&
        !show.cues.some((cue) => cue.assetId === entry.assetId),
    )
    .slice(0, 4);

  const repeat = () => {
    const cues = repeatedCues(show, facts, () => nanoid(10));
    if (cues) edit({ kind: 'set-cues', cues });
  };
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button className="h-7 -ml-2.5 px-2" data-part="ways-out">
          {longer ? (
            <>
              goes on <b className="tabular">{clock(musicMs - lengthMs)}</b>
            </>
          ) : (
            <>
              ends <b className="tabular">{clock(lengthMs - musicMs)}</b> early
            </>
          )}{' '}
          <ChevronDown size={13} />
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={4}
          className="z-30 w-80 rounded-lg border border-rule bg-card p-1.5 shadow-raised"
        >
          <DropdownMenu.Label className="px-2.5 py-1.5 text-soft">
            {longer
              ? 'The music fades out with the last picture, before its own end.'
              : `The last ${clock(lengthMs - musicMs)} of the show are silent.`}
          </DropdownMenu.Label>
          {fitted.ok && (
            <Way onSelect={() => edit({ kind: 'set-lengths', lengths: fitted.lengths })}>
              {longer ? 'Relax' : 'Quicken'} the pace to <span className="tabular">{seconds.toFixed(1)}</span> s a
              picture
            </Way>
          )}
          {!fitted.ok && fitted.reason === 'music-too-short' && free.length > 0 && (
            <DropdownMenu.Label className="px-2.5 py-1.5 text-soft">
              The pace cannot be quickened so far: these slides need at least{' '}
              <span className="tabular">{clock(fitted.shortestMs)}</span> for their words and voices.
            </DropdownMenu.Label>
          )}
          {held.length > 0 && (
            <Way
              onSelect={() =>
                edit({
                  kind: 'set-choosers',
                  choosers: held.map((slide) => ({ slideId: slide.id, value: 'length', by: null })),
                })
              }
            >
              Let go of <span className="tabular">{held.length}</span> {held.length === 1 ? 'length' : 'lengths'} set by
              hand, so that the pace may change {held.length === 1 ? 'it' : 'them'}
            </Way>
          )}
          {!longer && <Way onSelect={repeat}>Play the music again from its beginning</Way>}
          {!longer &&
            songs.map((song) => (
              <Way
                key={song.id}
                onSelect={() =>
                  edit(songAdded(show.cues, songAfter(cueId(nanoid(10)), song.assetId, DEFAULT_FADE_OUT_MS)))
                }
              >
                Add “{about(song.assetId).name}” after it
              </Way>
            ))}
          {dropped && (
            <Way
              onSelect={() =>
                edit({
                  kind: 'together',
                  name: `drop ${dropped.length} ${dropped.length === 1 ? 'picture' : 'pictures'}`,
                  edits: [{ kind: 'remove-slides', slideIds: dropped }],
                })
              }
            >
              Drop <span className="tabular">{dropped.length}</span> {dropped.length === 1 ? 'picture' : 'pictures'},
              evenly; marked ones last
            </Way>
          )}
          <DropdownMenu.Item asChild>
            <Link
              href={`/shows/${show.id}/sound`}
              className="block cursor-default rounded-md px-2.5 py-1.5 outline-none data-[highlighted]:bg-rule/60"
            >
              Go to Sound: other songs, trims and fades
            </Link>
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function Way({ onSelect, children }: { onSelect: () => void; children: ReactNode }) {
  return (
    <DropdownMenu.Item
      onSelect={onSelect}
      className="cursor-default rounded-md px-2.5 py-1.5 outline-none data-[highlighted]:bg-rule/60"
    >
      {children}
    </DropdownMenu.Item>
  );
}

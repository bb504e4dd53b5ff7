'use client';

import { useStore } from 'zustand';
import { useCommands } from '../commands/use-commands';
import { Button } from '../kit/button';
import { openSnags, closeSnags, snagsRoom } from './room-store';
import { SnagSign } from './snag-sign';
import { SnagsRoom } from './snags-room';
import { useMeasured, useSnags } from './snags-provider';

/** How many snags there are, in the header of every station; opens the room where they are seen to. */
export function SnagsButton() {
  const { open, isLooking } = useSnags();
  const measured = useMeasured();
  const room = useStore(snagsRoom);
  useCommands({ snags: () => openSnags() });
  const grave = open.filter((snag) => snag.grave).length;
  const name =
    measured === null
      ? 'Snags … not looked over yet'
      : open.length === 0
        ? isLooking
          ? '0 snags so far'
          : '0 snags'
        : `${open.length} ${open.length === 1 ? 'snag' : 'snags'}${grave > 0 ? `, ${grave} grave` : ''}`;
  return (
    <>
      <Button
        look="quiet"
        onClick={() => openSnags()}
        aria-label={name}
        title={name}
        data-part="snags"
        data-count={open.length}
        data-looking={isLooking}
        className={grave > 0 ? 'px-2 text-red-deep' : 'px-2 text-soft'}
      >
        <SnagSign grave={grave > 0} size={16} />
        <span className="tabular">{measured === null ? '…' : open.length}</span>
      </Button>
      {room.open && <SnagsRoom at={room.at} onClose={closeSnags} />}
    </>
  );
}

import type { ChannelRoom } from '../../core/publishing/publication';
import { megabytes } from '../kit/clock';
import { useAnswer } from '../show/use-answer';

/** Whether a film has room on a channel, before it is sent; nothing where the host does not tell. */
export function ChannelRoomNote({ channel, byteCount }: { readonly channel: string; readonly byteCount: number }) {
  const { answer } = useAnswer<{ room: ChannelRoom | null }>(`/api/v1/channels/${channel}/room`, {
    hears: 'focus',
    quiet: true,
  });
  if (!answer?.room) return null;
  const { usedBytes, mostBytes } = answer.room;
  const freeBytes = Math.max(0, mostBytes - usedBytes);
  const free = freeBytes === 0 ? 'nothing' : megabytes(freeBytes);
  return byteCount > freeBytes ? (
    <p role="alert" className="text-red-deep" data-part="channel-room">
      The film takes {megabytes(byteCount)}, and {free} of {megabytes(mostBytes)} is free there. Take something down
      there, or send a smaller film.
    </p>
  ) : (
    <p className="text-soft" data-part="channel-room">
      The film takes {megabytes(byteCount)}; {free} of {megabytes(mostBytes)} is free there.
    </p>
  );
}

import { stationTitle } from '@/server/shows/opened-show';
import { GatherStation } from '@/ui/gather/gather-station';
import { Live } from '@/ui/kit/live';

export const generateMetadata = stationTitle('/shows/[show]/gather', 'Gather');

export default function GatherPage() {
  return (
    <>
      <GatherStation />
      <Live station="gather" />
    </>
  );
}

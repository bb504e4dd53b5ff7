import { stationTitle } from '@/server/shows/opened-show';
import { GatherStation } from '@/ui/gather/gather-station';

export const generateMetadata = stationTitle('Gather');

export default function GatherPage() {
  return <GatherStation />;
}

import { stationTitle } from '@/server/shows/opened-show';
import { SoundStation } from '@/ui/sound/sound-station';

export const generateMetadata = stationTitle('/shows/[show]/sound', 'Sound');

export default function SoundPage() {
  return <SoundStation />;
}

import { stationTitle } from '@/server/shows/opened-show';
import { SoundStation } from '@/ui/sound/sound-station';
import { Live } from '@/ui/kit/live';

export const generateMetadata = stationTitle('/shows/[show]/sound', 'Sound');

export default function SoundPage() {
  return (
    <>
      <SoundStation />
      <Live station="sound" />
    </>
  );
}

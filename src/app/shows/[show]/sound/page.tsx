import { SoundStation } from '@/ui/sound/sound-station';

export default function SoundPage() {
  return <SoundStation />;
}

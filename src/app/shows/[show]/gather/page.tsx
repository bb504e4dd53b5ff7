import { GatherStation } from '@/ui/gather/gather-station';

export default function GatherPage() {
  return <GatherStation />;
}

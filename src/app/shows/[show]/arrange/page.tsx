import { ArrangeStation } from '@/ui/arrange/arrange-station';

export default function ArrangePage() {
  return <ArrangeStation />;
}

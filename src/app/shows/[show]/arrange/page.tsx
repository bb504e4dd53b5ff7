import { stationTitle } from '@/server/shows/opened-show';
import { ArrangeStation } from '@/ui/arrange/arrange-station';
import { Live } from '@/ui/kit/live';

export const generateMetadata = stationTitle('/shows/[show]/arrange', 'Arrange');

export default function ArrangePage() {
  return (
    <>
      <ArrangeStation />
      <Live station="arrange" />
    </>
  );
}

import { stationTitle } from '@/server/shows/opened-show';
import { SendStation } from '@/ui/send/send-station';

export const generateMetadata = stationTitle('/shows/[show]/send', 'Send');

export default function SendPage() {
  return <SendStation />;
}

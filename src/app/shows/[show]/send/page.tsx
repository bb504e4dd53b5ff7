import { notFound } from 'next/navigation';
import { openedShow, stationTitle } from '@/server/shows/opened-show';
import { SendStation } from '@/ui/send/send-station';
import { Live } from '@/ui/kit/live';

export const generateMetadata = stationTitle('/shows/[show]/send', 'Send');

/** What leaves the house is the studio’s own business: guests of a show are not shown it. */
export default async function SendPage({ params }: { params: Promise<{ show: string }> }) {
  if (!(await openedShow('/shows/[show]/send', (await params).show))) notFound();
  return (
    <>
      <SendStation />
      <Live station="send" />
    </>
  );
}

import { notFound } from 'next/navigation';
import { openedShow, stationTitle } from '@/server/shows/opened-show';
import { Presenter } from '@/ui/showing/presenter';

export const dynamic = 'force-dynamic';
export const generateMetadata = stationTitle('/showing/[show]', 'Showing');

export default async function PresenterPage({ params }: { params: Promise<{ show: string }> }) {
  const found = await openedShow('/showing/[show]', (await params).show);
  if (!found) notFound();
  const { opened, server } = found;
  const entries = await server.sheet.entries(opened.show.id, opened.show.methods);
  return (
    <Presenter
      show={opened.show}
      facts={entries.flatMap((entry) => (entry.facts ? [[entry.assetId, entry.facts] as const] : []))}
    />
  );
}

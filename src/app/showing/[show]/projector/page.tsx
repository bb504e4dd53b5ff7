import { notFound } from 'next/navigation';
import { openedShow, stationTitle } from '@/server/shows/opened-show';
import { Projector } from '@/ui/showing/projector';

export const dynamic = 'force-dynamic';
export const generateMetadata = stationTitle('/showing/[show]/projector', 'Projector');

export default async function ProjectorPage({ params }: { params: Promise<{ show: string }> }) {
  const found = await openedShow('/showing/[show]/projector', (await params).show);
  if (!found) notFound();
  const { opened, server } = found;
  const entries = await server.sheet.entries(opened.show.id, opened.show.methods);
  return (
    <Projector
      show={opened.show}
      facts={entries.flatMap((entry) => (entry.facts ? [[entry.assetId, entry.facts] as const] : []))}
    />
  );
}

import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { pageFor } from '@/server/http/page';
import { personOf } from '@/server/http/route';
import { MeProvider } from '@/ui/people/me';
import { SeriesPage } from '@/ui/series/series-page';

interface Context {
  params: Promise<{ series: string }>;
}

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Series' };

export default async function Page({ params }: Context) {
  const { series } = await params;
  const asked = await pageFor('/series/[series]', {});
  if (!asked) notFound();
  const { name, role, studioId } = personOf(asked.actor);
  const found = await asked.server.series.find(studioId, series);
  if (!found) notFound();
  return (
    <MeProvider me={{ name, role }}>
      <SeriesPage first={found} hasFolders={asked.server.folders.opened} />
    </MeProvider>
  );
}

import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { pageFor } from '@/server/http/page';
import { personOf } from '@/server/http/route';
import { DiscPage } from '@/ui/disc/disc-page';
import { MeProvider } from '@/ui/people/me';

interface Context {
  params: Promise<{ disc: string }>;
}

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Disc' };

export default async function Page({ params }: Context) {
  const { disc } = await params;
  const asked = await pageFor('/discs/[disc]', {});
  if (!asked) notFound();
  const { name, role, studioId } = personOf(asked.actor);
  const [first, far] = await Promise.all([
    asked.server.discs.find(studioId, disc),
    asked.server.discs.far(studioId, disc),
  ]);
  if (!first || !far) notFound();
  return (
    <MeProvider me={{ name, role }}>
      <DiscPage first={first} firstFar={far} />
    </MeProvider>
  );
}

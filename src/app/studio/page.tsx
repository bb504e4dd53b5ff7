import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { pageFor } from '@/server/http/page';
import { personOf } from '@/server/http/route';
import { MeProvider } from '@/ui/people/me';
import { StudioPage } from '@/ui/reuse/studio-page';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Studio' };

export default async function Page() {
  const asked = await pageFor('/studio', {});
  if (!asked) notFound();
  const { name, role } = personOf(asked.actor);
  return (
    <MeProvider me={{ name, role }}>
      <StudioPage />
    </MeProvider>
  );
}

import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { pageFor } from '@/server/http/page';
import { personOf } from '@/server/http/route';
import { MeProvider } from '@/ui/people/me';
import { PeoplePage } from '@/ui/people/people-page';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'People' };

export default async function Page() {
  const asked = await pageFor('/people', {});
  if (!asked) notFound();
  const { name, role } = personOf(asked.actor);
  return (
    <MeProvider me={{ name, role }}>
      <PeoplePage />
    </MeProvider>
  );
}

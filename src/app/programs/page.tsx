import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { openApi } from '@/server/http/openapi';
import { pageFor } from '@/server/http/page';
import { personOf } from '@/server/http/route';
import { MeProvider } from '@/ui/people/me';
import { ProgramsPage } from '@/ui/programs/programs-page';
import { RouteList } from '@/ui/programs/route-list';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'For programs' };

export default async function Page() {
  const asked = await pageFor('/programs', {});
  if (!asked) notFound();
  const { name, role } = personOf(asked.actor);
  return (
    <MeProvider me={{ name, role }}>
      <ProgramsPage>
        <RouteList api={openApi()} />
      </ProgramsPage>
    </MeProvider>
  );
}

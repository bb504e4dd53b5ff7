import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { pageFor } from '@/server/http/page';
import { personOf } from '@/server/http/route';
import { MeProvider } from '@/ui/people/me';
import { AccountPage } from '@/ui/people/account-page';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Your account' };

export default async function Page() {
  const asked = await pageFor('/account', {});
  if (!asked) notFound();
  const { name, role } = personOf(asked.actor);
  return (
    <MeProvider me={{ name, role }}>
      <AccountPage />
    </MeProvider>
  );
}

import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { pageFor } from '@/server/http/page';
import { BillPage } from '@/ui/screening/bill-page';
import { logoFactsOf } from '@/server/reuse/logo-facts';
import { ScreeningFrame } from '@/ui/screening/screening-frame';

interface Context {
  params: Promise<{ token: string }>;
}

export const dynamic = 'force-dynamic';

export async function generateMetadata({ params }: Context): Promise<Metadata> {
  const quiet = { robots: { index: false }, icons: { icon: 'data:,' } };
  const found = await behind((await params).token);
  return found
    ? { ...quiet, title: found.bill.title, description: found.profile.name }
    : { ...quiet, title: 'Not here' };
}

/** Several films for one client, each behind its own link. */
export default async function Page({ params }: Context) {
  const { token } = await params;
  const found = await behind(token);
  if (!found) notFound();
  const { bill, profile, server } = found;
  return (
    <ScreeningFrame
      logoAt={`/api/v1/bills/shown/${token}/logo`}
      logoFacts={await logoFactsOf(server.sheet, profile)}
      studio={profile}
    >
      <BillPage title={bill.title} words={bill.words} films={bill.films} />
    </ScreeningFrame>
  );
}

async function behind(token: string) {
  const asked = await pageFor('/b/[token]', { token });
  const bill = asked && (await asked.server.bills.find(token));
  if (!asked || !bill) return null;
  const { server } = asked;
  return { bill, profile: (await server.studio.open(bill.studioId)).profile, server };
}

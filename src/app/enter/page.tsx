import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { pageFor } from '@/server/http/page';
import { EnterPage } from '@/ui/people/enter-page';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Coming in' };

export default async function Page() {
  if (!(await pageFor('/enter', {}))) notFound();
  return <EnterPage />;
}

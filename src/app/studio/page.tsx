import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { pageFor } from '@/server/http/page';
import { StudioPage } from '@/ui/reuse/studio-page';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Studio' };

export default async function Page() {
  if (!(await pageFor('/studio', {}))) notFound();
  return <StudioPage />;
}

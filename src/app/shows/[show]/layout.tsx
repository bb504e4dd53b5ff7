import { notFound } from 'next/navigation';
import type { ReactNode } from 'react';
import { showId } from '@/core/show/ids';
import { runningServer } from '@/server/running-server';
import { ShowHeader } from '@/ui/show/show-header';
import { ShowProvider } from '@/ui/show/show-provider';

export const dynamic = 'force-dynamic';

export default async function ShowLayout({
  children,
  params,
}: {
  children: ReactNode;
  params: Promise<{ show: string }>;
}) {
  const id = showId((await params).show);
  const { shows, sheet } = await runningServer();
  const loaded = await shows.load(id);
  if (!loaded) notFound();
  return (
    <ShowProvider show={loaded.show} revision={loaded.revision} entries={await sheet.entries(id)}>
      <div className="flex h-dvh min-w-[1080px] flex-col overflow-hidden">
        <ShowHeader />
        <main className="flex min-h-0 flex-1">{children}</main>
      </div>
    </ShowProvider>
  );
}

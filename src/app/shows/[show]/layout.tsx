import { notFound } from 'next/navigation';
import type { ReactNode } from 'react';
import { FACT_KINDS } from '@/core/facts/fact-kinds';
import { showId } from '@/core/show/ids';
import { openedShow } from '@/server/shows/opened-show';
import { DamageNote } from '@/ui/show/damage-note';
import { GuestsProvider } from '@/ui/guests/guests-provider';
import { MeProvider } from '@/ui/people/me';
import { SignedOut } from '@/ui/people/signed-out';
import { ShowHeader } from '@/ui/show/show-header';
import { SnagsProvider } from '@/ui/snags/snags-provider';
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
  const found = await openedShow('/shows/[show]', id);
  if (!found) notFound();
  const { opened: loaded, server, me } = found;
  const { sheet } = server;
  const entries = await sheet.entries(id, loaded.show.methods);
  // A show that goes by today’s methods has its files looked at by them, whenever they came in.
  if (loaded.show.methods.basics === FACT_KINDS.basics.version)
    void sheet.lookAgain(entries.flatMap((entry) => (entry.state === 'ready' ? entry.assetId : []))).catch(() => {});
  return (
    <MeProvider me={me}>
      <ShowProvider show={loaded.show} revision={loaded.revision} damage={loaded.damage} entries={entries}>
        <GuestsProvider>
          <SnagsProvider>
            <div className="flex h-dvh min-w-[1080px] flex-col overflow-hidden">
              <SignedOut />
              <ShowHeader />
              <DamageNote />
              <main className="flex min-h-0 flex-1">{children}</main>
            </div>
          </SnagsProvider>
        </GuestsProvider>
      </ShowProvider>
    </MeProvider>
  );
}

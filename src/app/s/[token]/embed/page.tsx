import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { pageFor } from '@/server/http/page';
import { shownOf } from '@/server/screenings/shown';
import { EmbeddedFilm } from '@/ui/screening/embedded-film';
import { ScreeningFrame } from '@/ui/screening/screening-frame';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Film', robots: { index: false }, icons: { icon: 'data:,' } };

/** The one page that other sites may frame: the film alone. What asks for a password is not shown there. */
export default async function EmbedPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const asked = await pageFor('/s/[token]/embed', { token });
  const screening = asked && (await asked.server.screenings.find(token));
  if (!screening) notFound();
  const { palette, letters } = (await asked.server.studio.open(screening.studioId)).profile;
  return (
    <ScreeningFrame
      logoAt={`/api/v1/screenings/${token}/logo`}
      studio={{ name: '', contact: '', links: [], logo: null, palette, letters }}
    >
      <EmbeddedFilm shown={shownOf(token, screening, await asked.server.screenings.programme(screening))} />
    </ScreeningFrame>
  );
}

import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { notFound } from 'next/navigation';
import { originOf } from '@/server/http/own-address';
import { pageFor } from '@/server/http/page';
import { shownOf } from '@/server/screenings/shown';
import { Door } from '@/ui/screening/door';
import { logoFactsOf } from '@/server/reuse/logo-facts';
import { ScreeningFrame } from '@/ui/screening/screening-frame';
import { ScreeningPage } from '@/ui/screening/screening-page';

interface Context {
  params: Promise<{ token: string }>;
  searchParams: Promise<{ again?: string | string[] }>;
}

export const dynamic = 'force-dynamic';

export async function generateMetadata({ params }: Context): Promise<Metadata> {
  const { token } = await params;
  const found = await behind(token);
  if (!found) return { title: 'Not here', robots: { index: false }, icons: { icon: 'data:,' } };
  const { screening, locked, profile } = found;
  const names = await headers();
  const origin = originOf({ method: 'GET', header: (name) => names.get(name) });
  const quiet = { robots: { index: false }, icons: { icon: 'data:,' }, description: profile.name };
  // Who has no password learns nothing of the film, and neither does what makes previews of links.
  if (locked) return { ...quiet, title: 'A private screening' };
  const { widthPx, heightPx } = screening.films[0]!.spec;
  return {
    ...quiet,
    title: screening.title,
    alternates: {
      types: { 'application/json+oembed': `${origin}/api/v1/oembed?url=${encodeURIComponent(`${origin}/s/${token}`)}` },
    },
    openGraph: {
      type: 'video.other',
      title: screening.title,
      siteName: profile.name || undefined,
      url: `${origin}/s/${token}`,
      images: [{ url: `${origin}/api/v1/screenings/${token}/picture` }],
      videos: [{ url: `${origin}/api/v1/screenings/${token}/film`, width: widthPx, height: heightPx }],
    },
  };
}

/** Where a film is watched by whoever has the link. Nothing of ours is on it but the film. */
export default async function Page({ params, searchParams }: Context) {
  const { token } = await params;
  const found = await behind(token);
  if (!found) notFound();
  const { again } = await searchParams;
  return (
    <ScreeningFrame
      logoAt={`/api/v1/screenings/${token}/logo`}
      logoFacts={await logoFactsOf(found.server.sheet, found.profile)}
      studio={found.profile}
    >
      {found.locked ? (
        <Door token={token} again={again === 'wrong' || again === 'later' ? again : null} />
      ) : (
        <ScreeningPage
          shown={shownOf(token, found.screening, await found.server.screenings.programme(found.screening))}
        />
      )}
    </ScreeningFrame>
  );
}

/** What is behind a link, for whoever knocks; null when nothing is, or it is shut. */
async function behind(token: string) {
  const knocking = await pageFor('/s/[token]', { token });
  if (!knocking) return null;
  const { server, subject } = knocking;
  const door = await server.screenings.door(token, subject.pass ?? null);
  const screening = door === 'none' ? null : await server.screenings.find(token);
  if (!screening) return null;
  const { profile } = await server.studio.open(screening.studioId);
  return { screening, locked: door === 'locked', profile, server };
}

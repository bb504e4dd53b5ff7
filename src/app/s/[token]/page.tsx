import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { pageFor } from '@/server/http/page';

interface Context {
  params: Promise<{ token: string }>;
}

export const dynamic = 'force-dynamic';

export async function generateMetadata({ params }: Context): Promise<Metadata> {
  const film = await screened((await params).token);
  return {
    title: film?.state === 'ready' ? film.title : 'Not here',
    robots: { index: false },
    icons: { icon: 'data:,' },
  };
}

/** Where a film is watched by whoever has the link. Nothing of ours is on it but the film. */
export default async function ScreeningPage({ params }: Context) {
  const { token } = await params;
  const film = await screened(token);
  if (film?.state !== 'ready') notFound();
  return (
    <main className="flex min-h-dvh flex-col items-center justify-center bg-black p-4 text-lamp sm:p-8">
      <div className="w-full max-w-[min(1280px,calc((100dvh-120px)*16/9))]">
        <video
          controls
          playsInline
          preload="metadata"
          src={`/api/v1/screenings/${token}/film`}
          className="aspect-video w-full bg-black"
          data-part="screening"
        />
        <h1 className="mt-4 text-lg sm:text-xl">{film.title}</h1>
      </div>
    </main>
  );
}

async function screened(token: string) {
  const asked = await pageFor('/s/[token]', { token });
  return asked ? asked.server.films.findByToken(token) : null;
}

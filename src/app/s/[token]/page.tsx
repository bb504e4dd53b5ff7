import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { pageFor } from '@/server/http/page';

interface Context {
  params: Promise<{ token: string }>;
}

export const dynamic = 'force-dynamic';

export async function generateMetadata({ params }: Context): Promise<Metadata> {
  const screening = await screened((await params).token);
  return {
    title: screening?.title ?? 'Not here',
    robots: { index: false },
    icons: { icon: 'data:,' },
  };
}

/** Where a film is watched by whoever has the link. Nothing of ours is on it but the film. */
export default async function ScreeningPage({ params }: Context) {
  const { token } = await params;
  const screening = await screened(token);
  if (!screening) notFound();
  const { widthPx, heightPx } = screening.film.spec;
  return (
    <main className="flex min-h-dvh flex-col items-center justify-center bg-black p-4 text-lamp sm:p-8">
      <div
        className="w-full"
        style={{ maxWidth: `min(${Math.max(960, widthPx)}px, calc((100dvh - 120px) * ${widthPx / heightPx}))` }}
      >
        <video
          controls
          playsInline
          preload="metadata"
          src={`/api/v1/screenings/${token}/film`}
          poster={`/api/v1/screenings/${token}/picture`}
          className="w-full bg-black"
          style={{ aspectRatio: `${widthPx} / ${heightPx}` }}
          data-part="screening"
        >
          {screening.languages.map((language, index) => (
            <track
              key={language}
              kind="captions"
              src={`/api/v1/screenings/${token}/captions/${language}`}
              srcLang={language}
              label={languageName(language)}
              default={index === 0}
            />
          ))}
        </video>
        <h1 className="mt-4 text-lg sm:text-xl">{screening.title}</h1>
      </div>
    </main>
  );
}

/** As its own speakers call it. */
function languageName(tag: string): string {
  const name = new Intl.DisplayNames([tag], { type: 'language' }).of(tag) ?? tag;
  return name.charAt(0).toLocaleUpperCase(tag) + name.slice(1);
}

async function screened(token: string) {
  const asked = await pageFor('/s/[token]', { token });
  return asked ? asked.server.screenings.find(token) : null;
}

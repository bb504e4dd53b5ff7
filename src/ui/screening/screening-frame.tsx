import { clsx } from 'clsx';
import type { CSSProperties, ReactNode } from 'react';
import { readsBetterOn } from '../../core/mounts/logo-ground';
import type { Letters } from '../../core/plumage/plumage';
import { screeningLook } from '../../core/screening/screening-look';
import type { AssetFacts } from '../../core/show/asset-facts';
import type { StudioProfile } from '../../core/studio/studio-profile';
import { FONTS } from '../bench/words-fonts';

interface ScreeningFrameProps {
  /** Where its logo is. */
  readonly logoAt: string;
  /** What is known of it. */
  readonly logoFacts?: AssetFacts | undefined;
  readonly studio: Pick<StudioProfile, 'name' | 'contact' | 'links' | 'logo' | 'palette' | 'letters'>;
  readonly children: ReactNode;
}

/** The studio’s own room: its colours, letters and logo, and nothing of ours. Made on the server, so that it is whole without scripts. */
export function ScreeningFrame({ logoAt, logoFacts, studio, children }: ScreeningFrameProps) {
  const { name, contact, links, logo } = studio;
  const { ground, letters } = screeningLook(studio.palette);
  const plate = readsBetterOn(letters, ground, logoFacts) && 'rounded-md bg-(--letters) p-1.5';
  return (
    <div
      className="flex min-h-dvh flex-col bg-(--ground) text-(--letters) [color-scheme:dark]"
      style={lookOf(studio)}
      data-part="screening-page"
    >
      {(logo ?? name) && (
        <header className="flex items-center px-4 pt-4 sm:px-8 sm:pt-6">
          {logo ? (
            // Sized by the server.
            // eslint-disable-next-line @next/next/no-img-element
            <img
              src={logoAt}
              alt={name || 'The studio’s logo'}
              className={clsx('h-9 w-auto object-contain sm:h-11', plate)}
            />
          ) : (
            <p className="font-(family-name:--titles) text-base">{name}</p>
          )}
        </header>
      )}
      <main className="flex flex-1 flex-col">{children}</main>
      {(name || contact || links.length > 0) && (
        <footer className="flex flex-wrap items-baseline gap-x-6 gap-y-2 border-t border-(--rule) px-4 py-5 text-(--soft) sm:px-8">
          <span>{[name, contact].filter(Boolean).join(' · ')}</span>
          {links.map((link) => (
            <a
              key={link.name + link.to}
              href={link.to}
              rel="noreferrer"
              className="rounded-sm underline decoration-(--rule) underline-offset-4 hover:text-(--letters)"
            >
              {link.name}
            </a>
          ))}
        </footer>
      )}
    </div>
  );
}

function lookOf({ palette, letters }: { palette?: StudioProfile['palette']; letters?: Letters }): CSSProperties {
  const look = screeningLook(palette);
  const family = (name: keyof typeof FONTS) => `'${FONTS[name].family}', var(--font-scripts), sans-serif`;
  return {
    '--ground': look.ground,
    '--letters': look.letters,
    '--soft': look.soft,
    '--rule': look.rule,
    '--accent': look.accent,
    '--on-accent': look.onAccent,
    '--titles': letters ? family(letters.title) : 'var(--font-display)',
    '--titles-weight': letters?.weight ?? 640,
    '--titles-spacing': `${letters?.spacing ?? -0.01}em`,
    fontFamily: letters ? family(letters.text) : undefined,
    // Rings about what has the focus, in the studio’s own colour.
    '--color-red': look.accent,
  } as CSSProperties;
}

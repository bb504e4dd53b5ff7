'use client';

import { clsx } from 'clsx';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { Bird } from '../kit/bird';
import { RoomSwitch } from '../kit/room-switch';
import { useMe } from './me';
import { WhoMenu } from './who-menu';
import { Toasts } from '../kit/toasts';

const PAGES = [
  ['/studio', 'Studio'],
  ['/people', 'People'],
  ['/programs', 'For programs'],
  ['/account', 'Your account'],
] as const;

interface StudioFrameProps {
  readonly here: string;
  readonly part: string;
  /** Whether what it shows is there. */
  readonly loaded?: boolean;
  readonly children: ReactNode;
}

/** The frame of the pages beside the shelf: back to it, the others, who one is. */
export function StudioFrame({ here, part, loaded, children }: StudioFrameProps) {
  const { role } = useMe();
  const pages = PAGES.filter(([to]) => to === '/account' || role !== 'guest');
  return (
    <div className="flex min-h-dvh flex-col" data-part={part} data-loaded={loaded}>
      <header className="flex min-h-16 flex-wrap items-center gap-3 border-b border-rule bg-card px-6">
        <Link href="/" aria-label="Shelf" className="flex items-center gap-3 text-soft hover:text-ink">
          <Bird className="size-10" /> Shelf <span aria-hidden="true">╱</span>
        </Link>
        <h1 className="sr-only">{pages.find(([to]) => to === here)?.[1]}</h1>
        <nav aria-label="The studio" className="flex items-stretch gap-1 self-stretch">
          {pages.map(([to, name]) => (
            <Link
              key={to}
              href={to}
              aria-current={to === here ? 'page' : undefined}
              className={clsx(
                'relative flex items-center px-3 text-base font-medium',
                to === here
                  ? 'text-ink after:absolute after:inset-x-2 after:bottom-2.5 after:h-[3px] after:rounded-full after:bg-red'
                  : 'text-soft hover:text-ink',
              )}
            >
              {name}
            </Link>
          ))}
        </nav>
        <span className="ml-auto flex items-center gap-1">
          <RoomSwitch />
          <WhoMenu />
        </span>
      </header>
      {children}
      <Toasts />
    </div>
  );
}

/** A part of such a page, under its heading. */
export function Head({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="flex min-h-8 items-baseline justify-between border-b border-rule pb-1">
      <h2 className="text-base font-semibold">{title}</h2>
      {children}
    </div>
  );
}

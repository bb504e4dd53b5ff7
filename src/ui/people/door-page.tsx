import type { ReactNode } from 'react';
import { Bird } from '../kit/bird';

/** A page for who is not in yet: the bird, a heading, and what is asked. */
export function DoorPage({ title, words, children }: { title: string; words: string; children: ReactNode }) {
  return (
    <main className="grid min-h-dvh place-items-center px-5 py-10">
      <div className="w-full max-w-[400px] -rotate-[0.4deg] bg-card p-8 pb-9 shadow-raised" data-part="door-page">
        <Bird className="size-14" />
        <h1 className="mt-4 text-xl">{title}</h1>
        <p className="mt-1.5 mb-6 text-base text-soft">{words}</p>
        {children}
      </div>
    </main>
  );
}

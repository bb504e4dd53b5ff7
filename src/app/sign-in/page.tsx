import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { pageFor } from '@/server/http/page';
import { THE_STUDIO } from '@/server/studio/may-do';
import { SignInPage } from '@/ui/people/sign-in-page';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Sign in' };

export default async function Page({ searchParams }: { searchParams: Promise<{ to?: string }> }) {
  const to = ownPath((await searchParams).to);
  const asked = (await pageFor('/sign-in', {}))!;
  if (asked.actor.kind === 'person') redirect(to);
  const { profile } = await asked.server.studio.open(THE_STUDIO);
  return <SignInPage to={to} studio={profile.name} />;
}

/** A page of this site and nothing else: links that lead people away begin with two slashes. */
function ownPath(to: string | undefined): string {
  return to !== undefined && /^\/(?![/\\])/.test(to) ? to : '/';
}

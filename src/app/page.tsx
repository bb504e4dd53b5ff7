import { notFound } from 'next/navigation';
import { pageFor } from '@/server/http/page';
import { Shelf } from '@/ui/shelf/shelf';

export const dynamic = 'force-dynamic';

export default async function ShelfPage() {
  const { entries, now } = await shelfNow();
  return <Shelf entries={entries} now={now} />;
}

async function shelfNow() {
  const asked = await pageFor('/', {});
  if (!asked) notFound();
  return { entries: await asked.server.shows.shelf(asked.actor.studioId), now: Date.now() };
}

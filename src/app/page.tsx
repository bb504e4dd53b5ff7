import { notFound } from 'next/navigation';
import { pageFor } from '@/server/http/page';
import { personOf } from '@/server/http/route';
import { MeProvider } from '@/ui/people/me';
import { Shelf } from '@/ui/shelf/shelf';

export const dynamic = 'force-dynamic';

export default async function ShelfPage() {
  const { entries, now, me } = await shelfNow();
  return (
    <MeProvider me={me}>
      <Shelf entries={entries} now={now} />
    </MeProvider>
  );
}

async function shelfNow() {
  const asked = await pageFor('/', {});
  if (!asked) notFound();
  const person = personOf(asked.actor);
  const { name, role } = person;
  return { entries: await asked.server.shows.shelf(person), now: Date.now(), me: { name, role } };
}

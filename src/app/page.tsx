import { runningServer } from '@/server/running-server';
import { Shelf } from '@/ui/shelf/shelf';

export const dynamic = 'force-dynamic';

export default async function ShelfPage() {
  const { entries, now } = await shelfNow();
  return <Shelf entries={entries} now={now} />;
}

async function shelfNow() {
  const { shows } = await runningServer();
  return { entries: await shows.shelf(), now: Date.now() };
}

import { runningServer } from '@/server/running-server';
import { Shelf } from '@/ui/shelf/shelf';

export const dynamic = 'force-dynamic';

export default async function ShelfPage() {
  const { shows } = await runningServer();
  return <Shelf entries={await shows.shelf()} now={Date.now()} />;
}

import { redirect } from 'next/navigation';
import { showId } from '@/core/show/ids';
import { openedShow } from '@/server/shows/opened-show';

/** An empty show opens where pictures come in, any other where they are arranged. */
export default async function ShowPage({ params }: { params: Promise<{ show: string }> }) {
  const id = (await params).show;
  const loaded = await openedShow(showId(id));
  redirect(`/shows/${id}/${loaded && loaded.show.slides.length > 0 ? 'arrange' : 'gather'}`);
}

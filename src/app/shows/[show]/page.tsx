import { redirect } from 'next/navigation';
import { openedShow } from '@/server/shows/opened-show';

/** An empty show opens where pictures come in, any other where they are arranged. */
export default async function ShowPage({ params }: { params: Promise<{ show: string }> }) {
  const id = (await params).show;
  const found = await openedShow('/shows/[show]', id);
  redirect(`/shows/${id}/${found && found.opened.show.slides.length > 0 ? 'arrange' : 'gather'}`);
}

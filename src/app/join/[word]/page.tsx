import type { Metadata } from 'next';
import { pageFor } from '@/server/http/page';
import { DoorPage } from '@/ui/people/door-page';
import { JoinPage } from '@/ui/people/join-page';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'An invitation', robots: { index: false } };

export default async function Page({ params }: { params: Promise<{ word: string }> }) {
  const { word } = await params;
  const { actor, server } = (await pageFor('/join/[word]', {}))!;
  const invitation = await server.invitations.find(word);
  if (!invitation)
    return (
      <DoorPage
        title="This invitation does not open"
        words="It was used already, taken back, or is more than two weeks old. Ask for another one."
      >
        {null}
      </DoorPage>
    );
  const { studio, role, show } = invitation;
  const me = actor.kind === 'person' ? actor.name : null;
  return <JoinPage word={word} studio={studio} role={role} show={show?.title ?? null} me={me} />;
}

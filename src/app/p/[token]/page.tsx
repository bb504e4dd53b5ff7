import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { pageFor } from '@/server/http/page';
import { shownProof } from '@/server/proofs/shown-proof';
import { ProofPage } from '@/ui/proof/proof-page';
import { logoFactsOf } from '@/server/reuse/logo-facts';
import { ScreeningFrame } from '@/ui/screening/screening-frame';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = {
  title: 'Choose your pictures',
  robots: { index: false },
  icons: { icon: 'data:,' },
};

/** Where a client marks pictures, in the studio’s own colours. */
export default async function Page({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const asked = await pageFor('/p/[token]', { token });
  const proof = asked && (await asked.server.proofs.find(token));
  if (!asked || !proof) notFound();
  const { profile } = await asked.server.studio.open(proof.studioId);
  return (
    <ScreeningFrame
      logoAt={`/api/v1/proofs/${token}/logo`}
      logoFacts={await logoFactsOf(asked.server.sheet, profile)}
      studio={profile}
    >
      <ProofPage proof={await shownProof(token, proof, asked.server)} />
    </ScreeningFrame>
  );
}

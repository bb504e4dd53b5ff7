'use client';

import { useRouter } from 'next/navigation';
import { toast } from 'sonner';
import { Button } from '../kit/button';
import { callServer } from './call-server';
import { useShow } from './show-provider';

/** Says that what is stored of the show is damaged, and what can be done: save what is stored, or go on in a copy of what could be read. */
export function DamageNote() {
  const damage = useShow((state) => state.damage);
  const id = useShow((state) => state.show.id);
  const router = useRouter();
  if (damage === null) return null;
  const copy = () =>
    callServer<{ id: string }>('POST', `/api/v1/shows/${id}/copy`).then(
      (made) => router.push(`/shows/${made.id}`),
      (error: unknown) => void toast(error instanceof Error ? error.message : String(error)),
    );
  return (
    <div
      role="alert"
      data-part="damage"
      className="flex items-center gap-3 border-b border-rule bg-red-wash px-4 py-2 text-base"
    >
      <p className="flex-1">{damage}</p>
      <a className="underline" href={`/api/v1/shows/${id}/stored`} download={`${id}.json`}>
        Save what is stored
      </a>
      <Button onClick={() => void copy()}>Go on in a copy</Button>
    </div>
  );
}

import { useCallback, useEffect, useState } from 'react';
import { toast } from 'sonner';
import { callServer } from '../show/call-server';

/** What a route answers, asked for when the page opens and again on demand; null until then. */
export function useAnswer<Answer>(path: string): {
  readonly answer: Answer | null;
  setAnswer(answer: Answer): void;
  refresh(): Promise<void>;
} {
  const [answer, setAnswer] = useState<Answer | null>(null);
  const refresh = useCallback(() => callServer<Answer>('GET', path).then(setAnswer, sayFault), [path]);
  useEffect(() => void refresh(), [refresh]);
  return { answer, setAnswer, refresh };
}

export function sayFault(error: unknown): void {
  toast(error instanceof Error ? error.message : 'The server cannot be reached.');
}

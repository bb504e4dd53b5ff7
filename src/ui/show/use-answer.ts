import { useCallback, useEffect, useRef, useState } from 'react';
import { callServer } from './call-server';
import { sayFault } from './say-fault';

interface HowAsked {
  /** Events of the window upon which it is asked for anew, with spaces between. */
  readonly hears?: string;
  /** Says nothing when it cannot be had: something else on the page does. */
  readonly quiet?: boolean;
}

/**
 * What a route answers, asked for when the page opens and again on demand; null until then. An older answer never takes a newer one’s place.
 *
 * @param path null: it is not asked
 */
export function useAnswer<Answer>(
  path: string | null,
  { hears = '', quiet = false }: HowAsked = {},
): {
  readonly answer: Answer | null;
  setAnswer(answer: Answer): void;
  refresh(): Promise<void>;
} {
  const [answer, setAnswer] = useState<Answer | null>(null);
  const asked = useRef(0);
  const refresh = useCallback(async () => {
    if (path === null) return;
    const mine = (asked.current += 1);
    await callServer<Answer>('GET', path).then(
      (latest) => {
        if (mine === asked.current) setAnswer(latest);
      },
      quiet ? () => {} : sayFault,
    );
  }, [path, quiet]);
  useEffect(() => {
    const again = () => void refresh();
    again();
    const names = hears.split(' ').filter(Boolean);
    for (const name of names) window.addEventListener(name, again);
    return () => {
      for (const name of names) window.removeEventListener(name, again);
    };
  }, [refresh, hears]);
  return { answer, setAnswer, refresh };
}

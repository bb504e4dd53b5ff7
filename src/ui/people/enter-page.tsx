'use client';

import { useEffect, useRef, useState } from 'react';
import { Button } from '../kit/button';
import { callServer } from '../show/call-server';
import { DoorPage } from './door-page';
import { faultSentence } from '../show/say-fault';

/** Signs in by a one-time link, whose word stands where browsers send it to nobody. */
export function EnterPage() {
  const [problem, setProblem] = useState<string | null>(null);
  const begun = useRef(false);
  useEffect(() => {
    if (begun.current) return;
    begun.current = true;
    const word = location.hash.slice(1);
    // Neither in the history nor in a picture of the window.
    history.replaceState(null, '', location.pathname);
    const enter =
      word.length < 20
        ? Promise.reject(new Error('This link is not whole. Copy all of it, from http to the last letter.'))
        : callServer('POST', '/api/v1/session/entry', { word });
    enter.then(
      () => location.replace('/'),
      (error: unknown) => setProblem(faultSentence(error)),
    );
  }, []);
  return (
    <DoorPage title={problem ? 'This link does not open' : 'Coming in …'} words={problem ?? 'A moment.'}>
      {problem && (
        <Button className="h-10 px-5" onClick={() => location.assign('/sign-in')}>
          Sign in another way
        </Button>
      )}
    </DoorPage>
  );
}

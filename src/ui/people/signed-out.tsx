'use client';

import { useEffect, useState } from 'react';
import { KNOWN, SIGNED_IN, SIGNED_OUT } from '../show/call-server';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { TYPED_IN } from '../kit/typed-in';
import { SignInForm } from './sign-in-form';

/** Over a page whose browser was signed out meanwhile: what is done goes on here, and is saved once it is known again who one is. */
export function SignedOut() {
  const [out, setOut] = useState(false);
  const [asking, setAsking] = useState(false);
  useEffect(() => {
    let known = false;
    const goneOut = () => {
      if (known) return;
      known = true;
      setOut(true);
      // What is being typed must not go into another field in the middle of a word: the bar above the page asks then.
      setAsking(!document.activeElement?.matches(TYPED_IN));
    };
    const backIn = () => {
      known = false;
      setOut(false);
      setAsking(false);
    };
    window.addEventListener(SIGNED_OUT, goneOut);
    window.addEventListener(SIGNED_IN, backIn);
    window.addEventListener(KNOWN, backIn);
    return () => {
      window.removeEventListener(SIGNED_OUT, goneOut);
      window.removeEventListener(SIGNED_IN, backIn);
      window.removeEventListener(KNOWN, backIn);
    };
  }, []);
  if (!out) return null;
  return (
    <>
      <div
        role="status"
        data-part="signed-out"
        className="flex shrink-0 items-center justify-center gap-3 bg-black px-4 py-1.5 text-lamp"
      >
        You are signed out. What you do is kept in this browser until you sign in.
        <Button look="dark" className="h-7 border-white/30" onClick={() => setAsking(true)}>
          Sign in
        </Button>
      </div>
      <Dialog title="Sign in again" open={asking} onClose={() => setAsking(false)} className="w-[400px]">
        <p className="mb-4 text-soft">
          Your session is over, or was ended elsewhere. Nothing is lost: it is saved then.
        </p>
        <SignInForm done={() => window.dispatchEvent(new Event(SIGNED_IN))} />
      </Dialog>
    </>
  );
}

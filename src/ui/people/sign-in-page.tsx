'use client';

import { DoorPage } from './door-page';
import { SignInForm } from './sign-in-form';

/** @param to a page of this site, where one wanted to go */
export function SignInPage({ to, studio }: { to: string; studio: string }) {
  return (
    <DoorPage
      title={studio === '' ? 'Who is there?' : studio}
      words="Sign in to go on. Who has lost the way in is given a sign-in link by an owner of the studio."
    >
      {/* The whole page anew: what was drawn for a stranger is not kept. */}
      <SignInForm done={() => location.assign(to)} />
    </DoorPage>
  );
}

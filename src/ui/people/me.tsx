'use client';

import { createContext, useContext, type ReactNode } from 'react';
import type { Role } from '../../core/studio/account';

/** Whoever looks at the page. */
export interface Me {
  readonly name: string;
  readonly role: Role;
}

const MeContext = createContext<Me>({ name: '', role: 'guest' });

export function MeProvider({ me, children }: { me: Me; children: ReactNode }) {
  return <MeContext value={me}>{children}</MeContext>;
}

export const useMe = (): Me => useContext(MeContext);

/** Guests work on single shows; what is the studio’s own they neither see nor hand out. */
export const useIsGuest = (): boolean => useMe().role === 'guest';

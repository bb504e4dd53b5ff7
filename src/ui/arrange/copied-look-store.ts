'use client';

import { createStore } from 'zustand';
import type { CopiedLook } from '../../core/show/copied-look';

/** The look that was copied last, for as long as the page is open, also in another show. */
export const copiedLook = createStore<{ readonly look: CopiedLook | null }>(() => ({ look: null }));

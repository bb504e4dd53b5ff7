import { BAND_WISHES } from '../../core/sound/band/band-schema';
import { ENTRY } from './answers';
import type { Route } from './routes';

/** What can be asked of the house band. */
export const BAND_ROUTES = {
  /** Answers with lines of JSON: `{ share }` while it is played, then `{ entry }` or `{ problem }`. */
  'POST /api/v1/shows/[show]/band': { deed: 'change-show', takes: BAND_WISHES },
  /** `?as=midi|musicxml`. */
  'GET /api/v1/shows/[show]/sounds/[asset]/score': { deed: 'see-file' },
  'POST /api/v1/shows/[show]/pieces/[piece]': { deed: 'change-show', gives: ENTRY },
} satisfies Record<string, Route>;

import { outcomeOf } from '../http/outcome';
import { Refusal } from '../http/refusal';

const NO_DISC = 'There is no such disc.';

/** What came of asking something of a disc, as a route answers it. */
export const askedOf = (outcome: Promise<boolean | string>): Promise<object> => outcomeOf(outcome, NO_DISC);

/** Something of a disc that is there, or why not. */
export function thereOf<Found>(found: Found | string | null): Found {
  if (found === null) throw new Refusal(404, NO_DISC);
  if (typeof found === 'string') throw new Refusal(409, found);
  return found;
}

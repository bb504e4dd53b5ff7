import { Refusal } from '../http/refusal';

export const NO_SERIES = 'There is no such series.';

/** What came of asking something of a series, as a route answers it: a sentence is why it cannot be. */
export async function askedOf(outcome: Promise<boolean | string>): Promise<object> {
  const came = await outcome;
  if (came === false) throw new Refusal(404, NO_SERIES);
  if (typeof came === 'string') throw new Refusal(409, came);
  return {};
}

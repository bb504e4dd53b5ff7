import { outcomeOf } from '../http/outcome';

export const NO_SERIES = 'There is no such series.';

/** What came of asking something of a series, as a route answers it. */
export const askedOf = (outcome: Promise<boolean | string>): Promise<object> => outcomeOf(outcome, NO_SERIES);

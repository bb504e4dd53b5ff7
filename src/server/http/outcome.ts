import { Refusal } from './refusal';

/** What came of asking something, as a route answers it: false is that it is not there, a sentence why it cannot be. @param notThere what is said when it is not there */
export async function outcomeOf(outcome: Promise<boolean | string>, notThere: string): Promise<object> {
  const came = await outcome;
  if (came === false) throw new Refusal(404, notThere);
  if (typeof came === 'string') throw new Refusal(409, came);
  return {};
}

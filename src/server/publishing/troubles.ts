/** The place will not have it, now or later: a sentence for the person. */
export class NotTakenError extends Error {
  override readonly name = 'NotTakenError';
}

/** It has to be signed in to anew. */
export class SignedOutError extends Error {
  override readonly name = 'SignedOutError';
}

/** A picture of a proof, at most so many pixels long. */
export const proofPictureUrl = (token: string, id: string, longest: number): string =>
  `/api/v1/proofs/${token}/pictures/${id}?longest=${longest}`;

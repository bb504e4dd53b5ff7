import { toast } from 'sonner';

/** What went wrong, for the person: the server’s own words where it gave some. What browsers say of a broken line is not for people. */
export function faultSentence(error: unknown): string {
  return error instanceof Error && !(error instanceof TypeError) ? error.message : 'The server cannot be reached.';
}

export function sayFault(error: unknown): void {
  toast(faultSentence(error));
}

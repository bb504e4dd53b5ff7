/** A file that cannot be used; `message` is one line for the person, naming what is wrong and what to do. */
export class UnusableFileError extends Error {
  override readonly name = 'UnusableFileError';
}

/** The film could not be made; `message` is a sentence for the person. */
export class FilmFailedError extends Error {
  override readonly name = 'FilmFailedError';
  constructor(
    message: string,
    readonly details: string,
  ) {
    super(message);
  }
}

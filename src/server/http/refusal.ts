/** An expected refusal on its way out of a route: a status and a sentence. */
export class Refusal extends Error {
  override readonly name = 'Refusal';
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

/** Told by its name: what was bundled apart has another class of the same. */
export const isRefusal = (error: unknown): error is Refusal => error instanceof Error && error.name === 'Refusal';

/** The one sentence for a full disk, wherever it fills up. */
export const DISK_FULL =
  'There is no room left on the server’s disk. Nothing that was saved is lost; make room and try again.';

export function isDiskFull(error: unknown): boolean {
  for (let cause = error; cause instanceof Error; cause = cause.cause) {
    const { code, message } = cause as NodeJS.ErrnoException;
    if (code === 'ENOSPC' || code === 'SQLITE_FULL' || /SQLITE_FULL|database or disk is full|ENOSPC/.test(message))
      return true;
  }
  return false;
}

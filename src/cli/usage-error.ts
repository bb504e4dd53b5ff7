/** The command was used wrongly; `message` says how. */
export class UsageError extends Error {
  override readonly name = 'UsageError';
}

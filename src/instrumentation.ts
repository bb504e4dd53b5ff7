/** Runs once when the server starts: brings the database up to date and goes on with unfinished work; when it is told to end, it ends in good order. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { startServer } = await import('./server/start-server');
  await startServer();
}

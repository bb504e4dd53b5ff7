/** Runs once when the server starts: brings the database up to date and goes on with unfinished work. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { runningServer } = await import('./server/running-server');
  await runningServer();
}

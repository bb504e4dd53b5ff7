import { FolderInUseError } from './lock-folder';
import { logger } from './logger';
import { runningServer } from './running-server';

/** Starts the server's parts and sees to it that they end in good order. A data folder that another server has ends this one with a sentence. */
export async function startServer(): Promise<void> {
  // A fault nobody waited for is told and survived: what failed was one request or one piece of work.
  process.on('unhandledRejection', (error) => logger().error({ err: error }, 'a failure nobody waited for'));
  try {
    const server = await runningServer();
    let ending = false;
    for (const signal of ['SIGTERM', 'SIGINT'] as const)
      process.on(signal, () => {
        if (ending) return;
        ending = true;
        void server.close().finally(() => process.exit(0));
      });
  } catch (error) {
    if (!(error instanceof FolderInUseError)) throw error;
    process.stderr.write(`${error.message}\n`);
    process.exit(3);
  }
}

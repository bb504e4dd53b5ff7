import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { createServer } from 'node:net';
import { Redis } from 'ioredis';

/** Debian’s Redis on a port of its own, with nothing written to a disk. */
export interface RedisServer {
  readonly url: string;
  /** It is gone, with everything it knew. */
  kill(): Promise<void>;
  start(): Promise<void>;
}

export async function openRedisServer(): Promise<RedisServer> {
  const port = await freePort();
  const url = `redis://127.0.0.1:${port}`;
  let child: ChildProcess | null = null;
  const server: RedisServer = {
    url,
    async start() {
      child = spawn(
        'redis-server',
        ['--port', String(port), '--bind', '127.0.0.1', '--save', '', '--appendonly', 'no', '--loglevel', 'warning'],
        { stdio: 'ignore' },
      );
      const asking = new Redis(url, { maxRetriesPerRequest: null, retryStrategy: () => 50 });
      asking.on('error', () => {});
      await asking.ping();
      asking.disconnect();
    },
    async kill() {
      if (!child || child.exitCode !== null || child.signalCode !== null) return;
      const ended = once(child, 'exit');
      child.kill('SIGKILL');
      await ended;
    },
  };
  await server.start();
  return server;
}

async function freePort(): Promise<number> {
  const holder = createServer();
  await new Promise<void>((resolve) => {
    holder.listen(0, '127.0.0.1', resolve);
  });
  const { port } = holder.address() as { port: number };
  await new Promise((resolve) => {
    holder.close(resolve);
  });
  return port;
}

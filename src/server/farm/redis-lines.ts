import { Redis } from 'ioredis';
import { logger } from '../logger';

/** Lines to the queue, and those that are made of them, so that all can be let go at once: what is not let go is dialled for ever while the queue is away. */
export interface RedisLines {
  open(): Redis;
  close(): void;
}

/** A queue that is away is waited for, however long. */
export function createRedisLines(url: string): RedisLines {
  const lines: Redis[] = [];
  const kept = (line: Redis): Redis => {
    lines.push(line);
    line.on('error', (error) => logger().warn({ err: error }, 'Redis does not answer'));
    const duplicate = line.duplicate.bind(line);
    line.duplicate = (override) => kept(duplicate(override));
    return line;
  };
  return {
    open: () => kept(new Redis(url, { maxRetriesPerRequest: null })),
    close: () => {
      for (const line of lines) line.disconnect();
    },
  };
}

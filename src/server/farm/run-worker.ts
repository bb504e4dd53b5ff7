// `npm run worker`: draws segments of films for servers that use the same queue. The files come from the store they share, or from a data folder both can reach.
import path from 'node:path';
import { nanoid } from 'nanoid';
import { openStorage } from '../open-storage';
import { drawingVersion } from '../films/film-keys';
import { filmWorkers } from '../films/make-film';
import { dataFolder } from '../paths';
import { farmQueue } from './farm-jobs';
import { createRedisLines } from './redis-lines';
import { startSegmentWorker } from './segment-worker';

const url = process.env.TANAGER_REDIS_URL;
if (!url) {
  process.stderr.write('TANAGER_REDIS_URL must say where the queue is, such as redis://queue.example:6379.\n');
  process.exit(2);
}
const { blobs, kept, objects, close } = await openStorage(dataFolder());
const version = await drawingVersion();
const redis = createRedisLines(url).open();
const count = filmWorkers();
await redis.ping();
const worker = await startSegmentWorker({
  ...{ redis, version, blobs, kept, count },
  folder: path.join(dataFolder(), 'kept', `worker-${nanoid(8)}`),
});
process.stdout.write(
  `Drawing segments from ${farmQueue(version)}, ${count} at a time; files ${objects ? 'from the store' : `in ${dataFolder()}`}.\n`,
);

let ending = false;
for (const signal of ['SIGTERM', 'SIGINT'] as const)
  process.on(signal, () => {
    // Once: what is being drawn is finished. Twice: it is left to others.
    const how = ending ? 'leave' : 'finish';
    ending = true;
    void worker.close(how).finally(() => {
      close();
      process.exit(0);
    });
  });

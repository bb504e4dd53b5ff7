import { isStoreUnreachable } from '../blobs/object-store';
import { logger } from '../logger';
import { DISK_FULL, isDiskFull, isRefusal } from './refusal';

/** A refusal or a failure as an answer: a status and a sentence. What was not expected is logged, never shown. */
export function answerTo(error: unknown, what: string): Response {
  if (isRefusal(error)) return Response.json({ problem: error.message }, { status: error.status });
  if (isDiskFull(error)) {
    logger().error({ err: error, what }, 'the disk is full');
    return Response.json({ problem: DISK_FULL }, { status: 507 });
  }
  if (isStoreUnreachable(error)) {
    logger().error({ err: error, what }, 'the store of files does not answer');
    return Response.json({ problem: error.message }, { status: 503 });
  }
  logger().error({ err: error, what }, 'a request failed');
  return Response.json(
    { problem: 'Something went wrong on the server; nothing you made is lost. Try again.' },
    { status: 500 },
  );
}

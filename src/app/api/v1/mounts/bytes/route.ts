import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { isStrangeArchive } from '@/server/archive/strange-archive';
import { bytesOf } from '@/server/http/body';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

/** Larger ones are brought in on the command line. */
const MOST_BYTES = 256 * 1024 * 1024;

export const POST = route('POST /api/v1/mounts/bytes', async ({ request, person, server }) => {
  const folder = await mkdtemp(path.join(tmpdir(), 'tanager-mount-'));
  try {
    const file = path.join(folder, 'came.zip');
    await writeFile(file, await bytesOf(request, MOST_BYTES));
    return await server.studio.importFrom(person.studioId, file);
  } catch (error) {
    if (isStrangeArchive(error)) throw new Refusal(422, error.message);
    throw error;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
});

import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { UnusableFileError } from '@/server/assets/unusable-file-error';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const dynamic = 'force-dynamic';

/** A mount as one file. */
export const GET = route('GET /api/v1/mounts/[mount]/file', async ({ params, person, server }) => {
  const folder = await mkdtemp(path.join(tmpdir(), 'tanager-mount-'));
  try {
    const file = path.join(folder, 'mount.zip');
    const name = await server.studio.exportTo(person.studioId, params.mount!, file).catch((error: unknown) => {
      if (error instanceof UnusableFileError) throw new Refusal(422, error.message);
      throw error;
    });
    if (name === null) throw new Refusal(404, 'There is no such mount.');
    return new Response(await readFile(file), {
      headers: {
        'content-type': 'application/zip',
        'content-disposition': `attachment; filename="mount.zip"; filename*=UTF-8''${encodeURIComponent(name)}`,
      },
    });
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
});

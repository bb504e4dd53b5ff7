import sharp from 'sharp';
import type { RunningServer } from '../running-server';
import { Refusal } from './refusal';

/** A studio’s logo, no larger than pages show it and without what else its file says. @throws {Refusal} 404 when there is none */
export async function logoOf(
  studioId: string | undefined,
  { studio, blobs }: Pick<RunningServer, 'studio' | 'blobs'>,
): Promise<Response> {
  const logo = studioId === undefined ? null : (await studio.open(studioId)).profile.logo;
  if (!logo) throw new Refusal(404, 'There is no logo.');
  const png = await sharp(await blobs.localFile(logo))
    .rotate()
    .resize({ width: 480, height: 200, fit: 'inside', withoutEnlargement: true })
    .png()
    .toBuffer();
  return new Response(new Uint8Array(png), {
    headers: { 'content-type': 'image/png', 'cache-control': 'private, max-age=3600' },
  });
}

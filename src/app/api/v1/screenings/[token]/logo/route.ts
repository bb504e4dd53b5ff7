import sharp from 'sharp';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

/** The studio’s logo, no larger than the page shows it and without what else its file says. */
export const GET = route('GET /api/v1/screenings/[token]/logo', async ({ params, server }) => {
  const screening = await server.screenings.find(params.token!);
  const logo = screening && (await server.studio.open(screening.studioId)).profile.logo;
  if (!logo) throw new Refusal(404, 'There is no logo.');
  const png = await sharp(await server.blobs.localFile(logo))
    .rotate()
    .resize({ width: 480, height: 200, fit: 'inside', withoutEnlargement: true })
    .png()
    .toBuffer();
  return new Response(new Uint8Array(png), {
    headers: { 'content-type': 'image/png', 'cache-control': 'private, max-age=3600' },
  });
});

import sharp from 'sharp';
import { Refusal } from '@/server/http/refusal';
import { originOf } from '@/server/http/own-address';
import { route } from '@/server/http/route';
import { embedOf } from '@/core/screening/embed';

/** What other sites need to show a screening’s film in their pages (oEmbed 1.0). Only for screenings that ask for no password. */
export const GET = route('GET /api/v1/oembed', async ({ request, asked: by, server }) => {
  const asked = new URL(request.url).searchParams;
  if ((asked.get('format') ?? 'json') !== 'json') throw new Refusal(501, 'There is JSON only.');
  const url = asked.get('url') ?? '';
  const token = URL.canParse(url) ? /^\/s\/([\w-]{1,40})$/.exec(new URL(url).pathname)?.[1] : undefined;
  const open = token !== undefined && (await server.screenings.door(token, null)) === 'open';
  const screening = open ? await server.screenings.find(token) : null;
  if (!screening) throw new Refusal(404, 'There is no screening there.');
  const [film] = screening.films;
  const most = (name: string) => Number(asked.get(name)) || Infinity;
  const origin = originOf(by);
  const embed = embedOf(`${origin}/s/${token}/embed`, screening.title, film!.spec, most('maxwidth'), most('maxheight'));
  const poster = await server.films.pictureOf(film!.id);
  const { width, height } = poster ? await sharp(poster).metadata() : {};
  return Response.json({
    version: '1.0',
    type: 'video',
    title: screening.title,
    ...embed,
    ...(poster && {
      thumbnail_url: `${origin}/api/v1/screenings/${token}/picture`,
      thumbnail_width: width,
      thumbnail_height: height,
    }),
  });
});

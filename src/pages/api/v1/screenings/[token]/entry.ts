import { isRefusal, Refusal } from '@/server/http/refusal';
import { cookieFor } from '@/server/http/own-address';
import { pagesRoute } from '@/server/http/pages-route';
import { countOne, uncountOne } from '@/server/http/limits';
import { PASS_MS, passCookie } from '@/server/screenings/passes';

export const config = { api: { bodyParser: { sizeLimit: '4kb' } } };

export default pagesRoute<{ password: string }>(
  'POST /api/v1/screenings/[token]/entry',
  async ({ request, response, params, body, asked, server, address }) => {
    const token = params.token!;
    // The page’s own form works without scripts: it is answered with the page again.
    const form = String(request.headers['content-type'] ?? '').startsWith('application/x-www-form-urlencoded');
    const back = (how: string) => {
      response.redirect(303, `/s/${encodeURIComponent(token)}${how}`);
      return null;
    };
    try {
      await countOne('password-from', address);
      await countOne('password-for', token);
    } catch (error) {
      if (!form || !isRefusal(error)) throw error;
      return back('?again=later');
    }
    const pass = await server.screenings.enter(token, body.password);
    if (pass === null) {
      if (form) return back('?again=wrong');
      throw new Refusal(403, 'That is not the password.');
    }
    await uncountOne('password-from', address);
    await uncountOne('password-for', token);
    response.setHeader('set-cookie', cookieFor(asked, passCookie(token), pass, PASS_MS));
    if (form) return back('');
    return {};
  },
);

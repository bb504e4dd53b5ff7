import { Refusal } from '@/server/http/refusal';
import { originOf } from '@/server/http/own-address';
import { headerOf, pagesRoute } from '@/server/http/pages-route';
import { countOne, uncountOne } from '@/server/screenings/limits';
import { PASS_MS, passCookie } from '@/server/screenings/passes';

export const config = { api: { bodyParser: { sizeLimit: '4kb' } } };

export default pagesRoute<{ password: string }>(
  'POST /api/v1/screenings/[token]/entry',
  async ({ request, response, params, body, server, address }) => {
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
      if (!form || !(error instanceof Refusal)) throw error;
      return back('?again=later');
    }
    const pass = await server.screenings.enter(token, body.password);
    if (pass === null) {
      if (form) return back('?again=wrong');
      throw new Refusal(403, 'That is not the password.');
    }
    await uncountOne('password-from', address);
    await uncountOne('password-for', token);
    const secure = originOf({ method: 'POST', header: headerOf(request) }).startsWith('https:') ? '; Secure' : '';
    response.setHeader(
      'set-cookie',
      `${passCookie(token)}=${pass}; Path=/; Max-Age=${PASS_MS / 1000}; HttpOnly; SameSite=Lax${secure}`,
    );
    if (form) return back('');
    return {};
  },
);

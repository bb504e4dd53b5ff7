const LOOK = `
  :root { color-scheme: dark; --lamp: #f4f0e8; --soft: #b9b0a3; --red: #d8371f; }
  * { box-sizing: border-box; }
  body { margin: 0; min-height: 100dvh; display: flex; flex-direction: column; background: #171513; color: var(--lamp); font: 16px/1.5 system-ui, sans-serif; }
  main { flex: 1; display: flex; flex-direction: column; gap: 14px; padding: 18px; max-width: 520px; width: 100%; margin: 0 auto; }
  h1 { margin: 0; font-size: 20px; }
  p { margin: 0; }
  .soft { color: var(--soft); }
  button, input { font: inherit; color: inherit; border-radius: 12px; border: 1px solid #55504a; background: #262422; min-height: 56px; padding: 0 18px; }
  button:focus-visible, input:focus-visible { outline: 3px solid var(--lamp); outline-offset: 2px; }
  button[aria-pressed=true] { background: var(--lamp); color: #171513; }
  .main { background: var(--red); border-color: var(--red); font-weight: 600; font-size: 28px; flex: 1; min-height: 180px; }
  .row { display: grid; grid-template-columns: 1fr 1fr; gap: 12px; }
  .big { font-size: 34px; font-variant-numeric: tabular-nums; }
  .code { font-size: 34px; letter-spacing: 0.25em; text-align: center; width: 100%; min-height: 76px; font-variant-numeric: tabular-nums; }
  [role=alert] { color: #ffb4a4; }
`;

function whole(nonce: string, title: string, body: string): string {
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>${title}</title><style nonce="${nonce}">${LOOK}</style></head><body>${body}</body></html>`;
}

/** Where a phone says the code that stands on the presenter's screen. @param fault a sentence of ours */
export function codePage(nonce: string, fault: string | null): string {
  return whole(
    nonce,
    'Remote',
    `<main><h1>Remote for a showing</h1><p class="soft">Type the six digits that stand on the presenter’s screen.</p>
    <form method="post" action="/pair"><label for="code" class="soft">Code</label>
    <input id="code" name="code" class="code" inputmode="numeric" autocomplete="one-time-code" maxlength="7" required autofocus>
    ${fault ? `<p role="alert">${fault}</p>` : ''}
    <p>&nbsp;</p><button class="main" type="submit">Let me in</button></form></main>`,
  );
}

/** The remote itself: next, back, black, hold; and where the showing is. */
export function remotePage(nonce: string): string {
  return whole(
    nonce,
    'Remote',
    `<main><h1>Remote</h1>
    <p><span class="big" id="slide">…</span> <span class="soft" id="phase" role="status">waiting for the projector</span></p>
    <p class="soft"><span id="left"></span></p>
    <button class="main" data-do="next">Next</button>
    <div class="row"><button data-do="back">Back</button><button data-do="hold" aria-pressed="false">Hold</button>
    <button data-do="black" aria-pressed="false">Black</button><button data-do="start">From the start</button></div></main>
    <script nonce="${nonce}">
      const $ = (id) => document.getElementById(id);
      const clock = (ms) => Math.floor(ms / 60000) + ':' + String(Math.floor(ms % 60000 / 1000)).padStart(2, '0');
      const PHASES = { before: 'not begun', running: 'on', waiting: 'waits for you', held: 'held', ended: 'over' };
      for (const button of document.querySelectorAll('[data-do]'))
        button.addEventListener('click', async () => {
          const answer = await fetch('/do', { method: 'POST', body: JSON.stringify({ do: button.dataset.do }) }).catch(() => null);
          if (!answer) $('phase').textContent = 'cannot be reached';
          else if (answer.status === 404) location.href = '/';
        });
      const events = new EventSource('/events');
      events.onmessage = ({ data }) => {
        const news = JSON.parse(data);
        if (news === null) { events.close(); location.href = '/'; return; }
        $('slide').textContent = news.slide + ' of ' + news.slideCount;
        $('phase').textContent = PHASES[news.phase] + (news.black ? ', black' : '');
        $('left').textContent = clock(news.goneMs) + ' gone, ' + clock(news.leftMs) + ' left';
        document.querySelector('[data-do=black]').setAttribute('aria-pressed', String(news.black));
        document.querySelector('[data-do=hold]').setAttribute('aria-pressed', String(news.phase === 'held'));
      };
      events.onerror = () => { $('phase').textContent = 'cannot be reached; it tries again'; };
    </script>`,
  );
}

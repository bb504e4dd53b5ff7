// Ten thousand guessed links and ten thousand guessed passwords, and what they cost somebody at work: npm run bench:guesses
import { ask, filmMade, openApp, screened, sending } from '../e2e/app';

const GUESSES = 10_000;
const app = await openApp({ seed: true });
const show = `${app.address}/api/v1/shows/lantern-regatta`;
const answer = async <Answer>(url: string, init?: RequestInit) => (await (await ask(url, init)).json()) as Answer;
const film = await filmMade(app, 'lantern-regatta');
const token = await screened(app, 'lantern-regatta', film);
const { screenings } = await answer<{ screenings: { id: string }[] }>(`${show}/screenings`);
await ask(`${show}/screenings/${screenings[0]!.id}`, sending('PATCH', { password: 'lanterns on the water' }));

/** What somebody at work waits for: the middle of how long an answer takes, in milliseconds, while other work goes on. */
async function atWork(until: () => boolean): Promise<number> {
  const took: number[] = [];
  while (!until() || took.length < 200) {
    const from = performance.now();
    await (await ask(show)).arrayBuffer();
    took.push(performance.now() - from);
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
  return took.sort((a, b) => a - b)[took.length >> 1]!;
}

/** A guesser tries again as soon as they are answered. @returns how often each status came */
async function guessing(guess: (index: number) => Promise<Response>): Promise<Record<number, number>> {
  const statuses: Record<number, number> = {};
  for (let index = 0; index < GUESSES; index += 1) {
    const response = await guess(index);
    await response.arrayBuffer();
    statuses[response.status] = (statuses[response.status] ?? 0) + 1;
  }
  return statuses;
}

await atWork(() => true);
for (const [name, guess] of [
  ['links', (index: number) => fetch(`${app.address}/api/v1/screenings/${String(index).padStart(24, 'x')}/notes`)],
  [
    'passwords of a screening',
    (index: number) =>
      fetch(`${app.address}/api/v1/screenings/${token}/entry`, sending('POST', { password: `guess ${index}` })),
  ],
  [
    'passwords of a person',
    (index: number) =>
      fetch(
        `${app.address}/api/v1/session/password`,
        sending('POST', { email: 'owner@example.org', password: `guess ${index}` }),
      ),
  ],
] as const) {
  const alone = await atWork(() => true);
  let over = false;
  const from = performance.now();
  const guessed = guessing(guess).finally(() => {
    over = true;
  });
  const meanwhile = await atWork(() => over);
  const statuses = await guessed;
  const seconds = (performance.now() - from) / 1000;
  process.stdout.write(
    `${GUESSES} ${name} in ${seconds.toFixed(0)} s: ${JSON.stringify(statuses)}; an answer for somebody at work ${alone.toFixed(1)} ms alone, ${meanwhile.toFixed(1)} ms meanwhile: ${(meanwhile / alone).toFixed(2)}\n`,
  );
}
await app.close();

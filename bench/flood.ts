// A person's edits while somebody else floods the server with wrong requests: npm run bench:flood
import { setTimeout as sleep } from 'node:timers/promises';
import { ask, openApp } from '../e2e/app';

const app = await openApp({ seed: true });
const show = `${app.address}/api/v1/shows/lantern-regatta`;
let { revision } = (await (await ask(show)).json()) as { revision: number };
let counted = 0;

const send = async (body: string) => (await ask(`${show}/edits`, { method: 'POST', body })).text();
async function edit(): Promise<number> {
  const startedMs = performance.now();
  counted += 1;
  const edits = [{ editId: `flood-edit-${counted}`, edit: { kind: 'rename-show', title: `Evening ${counted}` } }];
  ({ revision } = JSON.parse(await send(JSON.stringify({ knownRevision: revision, edits }))) as { revision: number });
  return performance.now() - startedMs;
}
async function echoes(count: number): Promise<{ median: number; longest: number }> {
  const times: number[] = [];
  for (let round = 0; round < count; round += 1) {
    times.push(await edit());
    await sleep(30);
  }
  times.sort((a, b) => a - b);
  return { median: times[times.length >> 1]!, longest: times.at(-1)! };
}

const wrongEdits = Array.from({ length: 60_000 }, (_, index) => ({
  editId: `wrong-edit-${index}`,
  edit: { kind: 'set-lengths', lengths: [{}] },
}));
const slides = Array.from({ length: 3000 }, (_, index) => ({
  id: `x${index}`,
  lengthMs: index === 2999 ? -1 : 3000,
  transition: { kind: 'cut' },
  backing: { kind: 'automatic' },
  sounds: [],
  layers: [{ kind: 'picture', id: 'p', assetId: 'a'.repeat(64), move: { kind: 'automatic' } }],
}));
const lastWrong = { editId: 'large-edit', edit: { kind: 'add-slides', runs: [{ afterId: null, slides }] } };
const floods: Record<string, string> = {
  '60,000 wrong edits': JSON.stringify({ knownRevision: 0, edits: wrongEdits }),
  'a million lists in each other': '['.repeat(1e6) + ']'.repeat(1e6),
  '3,000 slides of which the last is wrong': JSON.stringify({ knownRevision: 0, edits: [lastWrong] }),
};

await echoes(20);
const quiet = await echoes(80);
const say = (what: string, { median, longest }: { median: number; longest: number }) =>
  process.stdout.write(
    `${what.padEnd(44)} median ${median.toFixed(1)} ms, longest ${longest.toFixed(0)} ms, ${(median / quiet.median).toFixed(2)} × quiet\n`,
  );
say('an edit’s echo, quiet', quiet);
for (const [name, body] of Object.entries(floods)) {
  let over = false;
  const flood = (async () => {
    while (!over) await send(body);
  })();
  say(`under ${name}`, await echoes(40));
  over = true;
  await flood;
}
await app.close();

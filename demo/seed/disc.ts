// A video disc for the demo: the regatta and its crew, to be looked at and made.
import { showId } from '../../src/core/show/ids';
import type { RunningServer } from '../../src/server/running-server';
import { THE_STUDIO } from '../../src/server/studio/may-do';
import { CREWS } from './crews';

export async function seedDisc(server: RunningServer): Promise<void> {
  const id = (await server.discs.create(THE_STUDIO, showId('lantern-regatta')))!;
  await server.discs.change(THE_STUDIO, id, {
    title: 'Lantern Regatta',
    words: 'Port Ellery, 14 June 2025',
    films: [
      { showId: 'lantern-regatta', title: 'The evening' },
      { showId: CREWS, title: 'A crew' },
    ],
    menu: { lengthMs: 12_000 },
  });
}

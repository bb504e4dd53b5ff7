import { clockOf } from './clock-of';
import type { FilmProgress } from '../server/films/film-telling';

const WORDS = { sound: 'sound', pictures: 'pictures', joining: 'putting together' } as const;

/** How far a film is: one line that rewrites itself on a terminal, a line every tenth part elsewhere. */
export function progressLine(tell: (text: string) => void): (progress: FilmProgress) => void {
  let toldTenth = '';
  return ({ stage, framesDone, frameCount, share, leftMs }) => {
    const tenth = `${stage} ${Math.floor(share * 10)}`;
    const counts = stage === 'pictures' ? `${framesDone}/${frameCount} frames` : `${Math.floor(share * 100)} %`;
    const left = leftMs === null || stage === 'sound' ? '' : `  about ${clockOf(leftMs)} left`;
    if (process.stderr.isTTY) tell(`\r${WORDS[stage]}  ${counts}${left}      `);
    else if (tenth !== toldTenth) tell(`${WORDS[stage]}  ${counts}${left}\n`);
    toldTenth = tenth;
  };
}

import { clockOf } from './clock-of';
import type { FilmProgress } from '../server/films/film-telling';

const WORDS = { sound: 'sound', pictures: 'pictures', joining: 'putting together' } as const;

/** Fewer are looked at before one would wonder. */
const MANY_FILES = 10;

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

/** How many files were looked at, in the same manner; the time left by the pace so far. */
export function lookingLine(tell: (text: string) => void, count: number): (done: number) => void {
  const began = performance.now();
  let toldTenth = 0;
  return (done) => {
    const leftMs = ((performance.now() - began) / done) * (count - done);
    const left = leftMs < 1000 ? '' : `  about ${clockOf(leftMs)} left`;
    if (process.stderr.isTTY) return tell(`\rlooking at files  ${done}/${count}${left}      `);
    const tenth = Math.floor((10 * done) / count);
    if (count >= MANY_FILES && tenth !== toldTenth) tell(`looking at files  ${done}/${count}${left}\n`);
    toldTenth = tenth;
  };
}

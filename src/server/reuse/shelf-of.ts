import { showId, type ShowId } from '../../core/show/ids';

/** The show that stands for a studio's own shelf: its sheet holds the logo and the files of mounts. It is not among the studio's shows. */
export const shelfOf = (studioId: string): ShowId => showId(`${studioId}-shelf`.slice(-40));

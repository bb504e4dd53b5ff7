/** Pixels for a second of the show, from a whole evening at a glance to single beats. */
export const ZOOMS = [1, 2, 4, 7, 12, 20, 34, 60, 110] as const;
export const USUAL_ZOOM = 4;
export const TOP_PX = 14;
export const BOTTOM_PX = 80;

export const pxOf = (momentMs: number, pxPerSecond: number) => TOP_PX + (momentMs * pxPerSecond) / 1000;
export const momentOf = (px: number, pxPerSecond: number) => Math.max(0, ((px - TOP_PX) * 1000) / pxPerSecond);

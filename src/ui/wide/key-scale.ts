/** Width of a column of keys. */
export const COLUMN_PX = 54;

/** Side of the grid whose neighbours are compared. */
const SIDE = 16;
/** Of 256 signs, at most so many differ between two savings of one photograph; neighbours of a burst differ in more. */
const MOST_DIFFERENT = 10;

/**
 * A difference hash: whether each cell of a 16 × 16 grid is brighter than the one to its right (wrapping), as 64 hexadecimal digits. Size, format, compression and small
 * changes of light leave it alone. Null when the picture is so even that nothing tells it from another.
 *
 * @param grey mean brightness of cells, `side` × `side` in rows, 0…255; `side` a multiple of 16
 */
export function likenessOf(grey: ArrayLike<number>, side: number): string | null {
  const step = side / SIDE;
  const cells = Array.from({ length: SIDE * SIDE }, (_, cell) => {
    let sum = 0;
    for (let y = 0; y < step; y += 1)
      for (let x = 0; x < step; x += 1)
        sum += grey[(Math.floor(cell / SIDE) * step + y) * side + (cell % SIDE) * step + x]!;
    return sum / (step * step);
  });
  if (Math.max(...cells) - Math.min(...cells) < 12) return null;
  let text = '';
  for (let at = 0; at < cells.length; at += 4) {
    let digit = 0;
    for (let bit = 0; bit < 4; bit += 1) {
      const cell = at + bit;
      const right = cell % SIDE === SIDE - 1 ? cell - SIDE + 1 : cell + 1;
      digit = digit * 2 + (cells[cell]! > cells[right]! + 0.5 ? 1 : 0);
    }
    text += digit.toString(16);
  }
  return text;
}

/** Ones among the four bits of a hexadecimal digit. */
const ONES = [0, 1, 1, 2, 1, 2, 2, 3, 1, 2, 2, 3, 2, 3, 3, 4] as const;
const digitAt = (text: string, at: number) => {
  const code = text.charCodeAt(at);
  return code < 58 ? code - 48 : code - 87;
};

/** In how many of their 256 signs two likenesses differ. */
export function differenceOf(one: string, other: string): number {
  let different = 0;
  for (let at = 0; at < one.length; at += 1) different += ONES[(digitAt(one, at) ^ digitAt(other, at)) & 15]!;
  return different;
}

/** Whether two pictures are the same one saved twice. */
export function isAlike(one: string, other: string): boolean {
  return differenceOf(one, other) <= MOST_DIFFERENT;
}

/**
 * For each picture that is one before it saved again, the first of its kind.
 *
 * @param pictures in the order they are shown; those without a likeness are like nothing
 */
export function firstAlike<Id>(
  pictures: readonly { readonly id: Id; readonly likeness: string | undefined }[],
): ReadonlyMap<Id, Id> {
  const found = new Map<Id, Id>();
  // Two that differ in at most 10 of 256 signs agree wholly in at least 6 of 16 pieces: only those that share a piece are compared.
  const byPiece = new Map<string, { id: Id; likeness: string }[]>();
  for (const { id, likeness } of pictures) {
    if (likeness === undefined) continue;
    const pieces = Array.from(
      { length: 16 },
      (_, index) => `${index} ${likeness.slice(index * 4, index * 4 + 4)}`,
    ).filter((piece) => !/ (0000|ffff)$/.test(piece));
    const first = pieces
      .flatMap((piece) => byPiece.get(piece) ?? [])
      .find((other) => isAlike(other.likeness, likeness));
    if (first) {
      found.set(id, first.id);
      continue;
    }
    for (const piece of pieces) byPiece.set(piece, [...(byPiece.get(piece) ?? []), { id, likeness }]);
  }
  return found;
}

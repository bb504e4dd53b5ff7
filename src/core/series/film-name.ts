/** What the film of a row is called as a file, on any system: its number first, so that they stand in order. */
export function filmNameOf(number: number, title: string, extension: string): string {
  const plain = title
    .replace(/[\u0000-\u001f\\/:*?"<>|]+/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, LONGEST);
  return `${String(number).padStart(3, '0')} ${plain || 'film'}.${extension}`;
}

const LONGEST = 120;

/** A repeatable number in 0…1 for a text and a salt (FNV-1a, finished with the mixer of MurmurHash3). */
export function seedOf(text: string, salt: number): number {
  let hash = 0x811c9dc5 ^ salt;
  for (let index = 0; index < text.length; index += 1) hash = Math.imul(hash ^ text.charCodeAt(index), 0x01000193);
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35);
  return ((hash ^ (hash >>> 16)) >>> 0) / 0x1_0000_0000;
}

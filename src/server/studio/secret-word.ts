import { createHash, randomBytes } from 'node:crypto';

/** A word that cannot be guessed (256 bits), for links and cookies. */
export const newWord = (): string => randomBytes(32).toString('base64url');

/** What is kept of such a word: whoever reads the database cannot use it. */
export const hashOfWord = (word: string): string => createHash('sha256').update(word).digest('hex');

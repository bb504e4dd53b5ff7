/**
 * Usual limits of broadcast subtitling: two lines of 42 letters, read at no more than 17 letters a second, for a second at least and seven at most, with two
 * frames of film between two of them.
 */
export const CAPTION_LIMITS = {
  lettersALine: 42,
  lines: 2,
  lettersASecond: 17,
  leastMs: 1000,
  mostMs: 7000,
  gapMs: 84,
} as const;

/** Where a line is broken rather: after what ends a thought, before what begins one. */
const AFTER = /[,;:.!?…–—]["”’)]?$/u;
const BEFORE =
  /^(?:and|but|or|who|which|that|when|while|because|where|as|und|aber|oder|der|die|das|weil|wenn|als|et|mais|ou|qui|que|y|pero|o|e|ma)$/iu;

/** A text in lines of about one length, each of no more letters than a line has; a longer word stands alone. */
export function inLines(text: string, most: number = CAPTION_LIMITS.lettersALine): string[] {
  const words = text.split(/\s+/).filter((word) => word !== '');
  if (words.join(' ').length <= most) return words.length > 0 ? [words.join(' ')] : [];
  const count = Math.ceil(words.join(' ').length / most);
  for (let lines = count; ; lines += 1) {
    const broken = bestBreak(words, lines, most);
    if (broken) return broken;
    if (lines >= words.length) return words;
  }
}

/** The way to break words into so many lines that is most even; null when there is none. */
function bestBreak(words: readonly string[], lines: number, most: number): string[] | null {
  const even = words.join(' ').length / lines;
  const known = new Map<string, { cost: number; lines: string[] } | null>();
  const from = (start: number, left: number): { cost: number; lines: string[] } | null => {
    if (left === 0) return start === words.length ? { cost: 0, lines: [] } : null;
    const key = `${start} ${left}`;
    if (known.has(key)) return known.get(key)!;
    let best: { cost: number; lines: string[] } | null = null;
    for (let end = start + 1; end <= words.length; end += 1) {
      const line = words.slice(start, end).join(' ');
      if (line.length > most && end > start + 1) break;
      const rest = from(end, left - 1);
      if (!rest) continue;
      const cost = rest.cost + ((line.length - even) / most) ** 2 - (end < words.length ? breakWorth(words, end) : 0);
      if (!best || cost < best.cost) best = { cost, lines: [line, ...rest.lines] };
    }
    known.set(key, best);
    return best;
  };
  return from(0, lines)?.lines ?? null;
}

function breakWorth(words: readonly string[], at: number): number {
  if (AFTER.test(words[at - 1]!)) return 0.08;
  return BEFORE.test(words[at]!) ? 0.03 : 0;
}

/** A sentence as captions of no more lines than one has. @param least so many at least, where it is said slowly */
export function inCaptions(sentence: string, least = 1): string[] {
  const lines = inLines(sentence);
  if (lines.length <= CAPTION_LIMITS.lines && least <= 1) return lines.length > 0 ? [lines.join('\n')] : [];
  // Into pieces of about one length first, so that no word is left over alone.
  const words = sentence.split(/\s+/).filter((word) => word !== '');
  const most = Math.min(
    CAPTION_LIMITS.lettersALine * CAPTION_LIMITS.lines - 6,
    Math.ceil(words.join(' ').length / least) + 6,
  );
  return inLines(words.join(' '), most).flatMap((piece) => {
    const own = inLines(piece);
    return own.length <= CAPTION_LIMITS.lines
      ? [own.join('\n')]
      : [own.slice(0, CAPTION_LIMITS.lines).join('\n'), own.slice(CAPTION_LIMITS.lines).join('\n')];
  });
}

/** How long captions must stand to be read. */
export function timeToRead(text: string): number {
  const letters = text.replace(/\s+/g, ' ').trim().length;
  return Math.max(CAPTION_LIMITS.leastMs, Math.ceil((letters * 1000) / CAPTION_LIMITS.lettersASecond));
}

/** What is against the limits, as a sentence; null when nothing is. */
export function faultOfCaption(text: string, lengthMs: number): string | null {
  const lines = text.split('\n');
  const longest = Math.max(...lines.map((line) => line.length));
  if (lines.length > CAPTION_LIMITS.lines) return `${lines.length} lines; two are read easily`;
  if (longest > CAPTION_LIMITS.lettersALine)
    return `a line of ${longest} letters; ${CAPTION_LIMITS.lettersALine} are usual`;
  if (lengthMs > CAPTION_LIMITS.mostMs + 500) return `it stands for ${Math.round(lengthMs / 1000)} s; seven are usual`;
  const letters = text.replace(/\s+/g, ' ').trim().length;
  const speed = (letters * 1000) / Math.max(1, lengthMs);
  return speed > CAPTION_LIMITS.lettersASecond + 0.5
    ? `${Math.round(speed)} letters a second; ${CAPTION_LIMITS.lettersASecond} can be read`
    : null;
}

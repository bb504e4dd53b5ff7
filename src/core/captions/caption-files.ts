import { LONGEST_CAPTION } from '../show/limits';

/** A caption as files have it. */
export interface FileCaption {
  readonly startMs: number;
  readonly endMs: number;
  readonly text: string;
}

/** WebVTT, https://www.w3.org/TR/webvtt1/. */
export function asVtt(captions: readonly FileCaption[], language?: string): string {
  const head = language ? `WEBVTT\nKind: captions\nLanguage: ${language}\n` : 'WEBVTT\n';
  return [head, ...captions.map((one) => `${range(one, '.')}\n${escaped(one.text)}\n`)].join('\n');
}

/** SubRip, as players read it: numbered, with commas in the times. */
export function asSrt(captions: readonly FileCaption[]): string {
  return captions.map((one, index) => `${index + 1}\n${range(one, ',')}\n${one.text}\n`).join('\n');
}

function range({ startMs, endMs }: FileCaption, point: string): string {
  return `${clockOf(startMs, point)} --> ${clockOf(endMs, point)}`;
}

function clockOf(ms: number, point: string): string {
  const whole = Math.max(0, Math.round(ms));
  const two = (value: number) => String(value).padStart(2, '0');
  const [hours, minutes, seconds] = [3_600_000, 60_000, 1000].map((unit) => Math.floor(whole / unit)) as [
    number,
    number,
    number,
  ];
  return `${two(hours)}:${two(minutes % 60)}:${two(seconds % 60)}${point}${String(whole % 1000).padStart(3, '0')}`;
}

const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

export interface ReadCaptions {
  /** In order; none overlaps the next. */
  readonly captions: readonly FileCaption[];
  /** As the file says; null when it does not. */
  readonly language: string | null;
  /** What could not be read or had to be changed, as sentences. */
  readonly problems: readonly string[];
}

const TIMES =
  /^(?:(\d{1,3}):)?(\d{1,2}):(\d{1,2})[.,](\d{1,3})\s*-->\s*(?:(\d{1,3}):)?(\d{1,2}):(\d{1,2})[.,](\d{1,3})(?:\s.*)?$/;

/** What is read of a WebVTT or SubRip file; what is wrong with one caption leaves the others. */
export function readCaptions(file: string): ReadCaptions {
  const lines = file.replace(/^\uFEFF/, '').split(/\r\n|\r|\n/);
  const problems: string[] = [];
  const found: FileCaption[] = [];
  const language = lines.map((line) => /^Language:\s*([A-Za-z-]+)\s*$/.exec(line)?.[1] ?? null).find(Boolean) ?? null;
  for (let at = 0; at < lines.length; at += 1) {
    if (!lines[at]!.includes('-->')) continue;
    const times = TIMES.exec(lines[at]!.trim());
    const first = at + 2;
    const said: string[] = [];
    while (at + 1 < lines.length && lines[at + 1]!.trim() !== '' && !lines[at + 1]!.includes('-->'))
      said.push(lines[(at += 1)]!);
    // The number of the next caption, where no empty line lies between.
    if (lines[at + 1]?.includes('-->') && /^\d+$/.test(said.at(-1)?.trim() ?? '')) said.pop();
    if (!times) {
      problems.push(`Line ${first - 1}: the times cannot be read, so this caption was left out.`);
      continue;
    }
    const [startMs, endMs] = [msOf(times.slice(1, 5)), msOf(times.slice(5, 9))];
    const text = plain(said.join('\n'));
    if (text === '') continue;
    if (endMs <= startMs) {
      problems.push(`Line ${first - 1}: it ends before it begins, so this caption was left out.`);
      continue;
    }
    if (text.length > LONGEST_CAPTION)
      problems.push(`Line ${first}: longer than a caption can be; its end was left out.`);
    found.push({ startMs, endMs, text: text.slice(0, LONGEST_CAPTION) });
  }
  return { captions: withoutOverlaps(found, problems), language, problems };
}

function msOf([hours, minutes, seconds, parts]: readonly (string | undefined)[]): number {
  const fraction = Number((parts ?? '0').padEnd(3, '0'));
  return ((Number(hours ?? 0) * 60 + Number(minutes)) * 60 + Number(seconds)) * 1000 + fraction;
}

const ENTITIES: Readonly<Record<string, string>> = {
  amp: '&',
  lt: '<',
  gt: '>',
  nbsp: ' ',
  lrm: '',
  rlm: '',
  quot: '"',
};

const TAGS = /<\/?(?:b|i|u|c|v|lang|ruby|rt|font)(?:[.\s][^>]*)?>|<\d[\d:.]*>/gi;

/** Without tags, settings of place and entities. */
function plain(text: string): string {
  return text
    .replace(TAGS, '')
    .replace(/\{\\[^}]*\}/g, '')
    .replace(/&(\w+);/g, (whole, name: string) => ENTITIES[name] ?? whole)
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')
    .join('\n');
}

/** Two that stand together are read one after the other: the first ends where the second begins; those that begin together become one. */
function withoutOverlaps(found: readonly FileCaption[], problems: string[]): FileCaption[] {
  const sorted = found.toSorted((a, b) => a.startMs - b.startMs || a.endMs - b.endMs);
  const kept: FileCaption[] = [];
  let overlaps = 0;
  for (const caption of sorted) {
    const last = kept.at(-1);
    if (!last || caption.startMs >= last.endMs) {
      kept.push(caption);
      continue;
    }
    overlaps += 1;
    if (caption.startMs === last.startMs)
      kept[kept.length - 1] = {
        ...last,
        endMs: Math.max(last.endMs, caption.endMs),
        text: `${last.text}\n${caption.text}`.slice(0, LONGEST_CAPTION),
      };
    else {
      kept[kept.length - 1] = { ...last, endMs: caption.startMs };
      kept.push(caption);
    }
  }
  if (overlaps > 0) problems.push(`${overlaps} captions stood over others; each now ends where the next begins.`);
  return kept;
}

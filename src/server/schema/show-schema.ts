import { HASH, object, record, text, type Schema } from '../../core/schema/schema';
import { faultOfShow } from '../../core/show/faults';
import { CONTENT_PARTS, SHOW_PARTS } from '../../core/show/schemas/slide-schema';
import { NewerFormatError, raiseContent, raiseShow } from '../../core/show/format/raise';
import { emptyShow, type Show, type ShowContent } from '../../core/show/show';
import { showId } from '../../core/show/ids';
import { parse, type Parsed } from './parse';

const SHOW: Schema = object<Show>(SHOW_PARTS);
const CONTENT: Schema = object<ShowContent>(CONTENT_PARTS);

/** A show saved as a file: the document and where its files lie, relative to it. */
export interface ShowFile extends Show {
  readonly files: Readonly<Record<string, string>>;
}

const SHOW_FILE: Schema = object<ShowFile>({ ...SHOW_PARTS, files: record(HASH, text(4096, 1), 20_000) });

/** A whole show, sound in all its parts. */
export function parseShow(input: unknown): Parsed<Show> {
  return parse<Show>(SHOW, input, faultOfShow);
}

/** A stored show of this format or an earlier one. What a newer one wrote is a problem to be told, not a failure. */
export function parseStoredShow(document: unknown): Parsed<Show> {
  return raised(() => raiseShow(document), parseShow);
}

/** The same for what a version keeps. */
export function parseStoredContent(content: unknown, formatVersion: number): Parsed<ShowContent> {
  return raised(() => raiseContent(content, formatVersion), parseContent);
}

function raised<Value>(raise: () => unknown, read: (input: unknown) => Parsed<Value>): Parsed<Value> {
  try {
    return read(raise());
  } catch (error) {
    if (error instanceof NewerFormatError) return { ok: false, problem: error.message };
    throw error;
  }
}

/** What a show says, apart from who it is, as versions keep it. */
export function parseContent(input: unknown): Parsed<ShowContent> {
  return parse<ShowContent>(CONTENT, input, (content) => faultOfShow({ ...emptyShow(showId('x'), ''), ...content }));
}

export function parseShowFile(input: unknown): Parsed<ShowFile> {
  return parse<ShowFile>(SHOW_FILE, input, faultOfShow);
}

import { HASH, object, record, text, type Schema } from '../../core/schema/schema';
import { faultOfShow } from '../../core/show/faults';
import { CONTENT_PARTS, SHOW_PARTS } from '../../core/show/schemas/slide-schema';
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

/** What a show says, apart from who it is, as versions keep it. */
export function parseContent(input: unknown): Parsed<ShowContent> {
  return parse<ShowContent>(CONTENT, input, (content) => faultOfShow({ ...emptyShow(showId('x'), ''), ...content }));
}

export function parseShowFile(input: unknown): Parsed<ShowFile> {
  return parse<ShowFile>(SHOW_FILE, input, faultOfShow);
}

import { nanoid } from 'nanoid';
import { NoTimelineError, readTimeline, type ReadTimeline } from '../../core/interchange/otio-in';
import { timelineOf } from '../../core/interchange/otio-out';
import type { OtioThing } from '../../core/interchange/otio';
import type { AssetId } from '../../core/show/ids';
import type { Show } from '../../core/show/show';
import type { ContactSheet } from '../assets/contact-sheet';
import { Refusal } from '../http/refusal';
import { parseContent, parseStoredContent } from '../schema/show-schema';

/** A show as a timeline in OpenTimelineIO, its files by the names they came by. */
export async function timelineFor(show: Show, sheet: ContactSheet): Promise<OtioThing> {
  const entries = await sheet.entries(show.id, show.methods);
  const urls = new Map(
    entries.map(({ assetId, fileName }): [AssetId, string] => [assetId, encodeURIComponent(fileName)]),
  );
  const facts = new Map(entries.flatMap(({ assetId, facts: known }) => (known ? [[assetId, known] as const] : [])));
  return timelineOf(show, facts, urls);
}

/** What a show would be like after a timeline, with what is to be said of it. Nothing changes yet. @throws {Refusal} */
export async function timelineRead(document: unknown, show: Show, sheet: ContactSheet): Promise<ReadTimeline> {
  const entries = (await sheet.entries(show.id, show.methods)).filter(({ state }) => state === 'ready');
  const files = new Map(entries.map(({ assetId, fileName }): [AssetId, string] => [assetId, fileName]));
  const facts = new Map(entries.flatMap(({ assetId, facts: known }) => (known ? [[assetId, known] as const] : [])));
  return readSafely(() =>
    readTimeline(document, { show, files, facts, parse: parsedContent, newId: () => nanoid(10) }),
  );
}

/** Content of any version, sound in all its parts; null otherwise. */
export function parsedContent(content: unknown, formatVersion: number) {
  const parsed = parseStoredContent(content, formatVersion);
  return parsed.ok ? parsed.value : null;
}

function readSafely(read: () => ReadTimeline): ReadTimeline {
  try {
    const outcome = read();
    const sound = parseContent(outcome.content);
    if (sound.ok) return outcome;
    throw new Refusal(422, `This timeline cannot become a show: ${sound.problem}.`);
  } catch (error) {
    if (error instanceof NoTimelineError) throw new Refusal(422, error.message);
    throw error;
  }
}

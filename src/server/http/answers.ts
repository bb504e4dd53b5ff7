import {
  anything,
  HASH,
  ID,
  list,
  maybe,
  number,
  object,
  oneOf,
  orNull,
  text,
  truth,
  whole,
  type Schema,
} from '../../core/schema/schema';
import { CONTENT_PARTS, SHOW_PARTS } from '../../core/show/schemas/slide-schema';
import type { Show, ShowContent } from '../../core/show/show';
import type { SheetEntry } from '../assets/contact-sheet';
import type { FolderListing, FolderProgress } from '../assets/folder-intake';
import { FILM_SPEC } from '../../core/film/film-spec';
import type { FilmRow } from '../films/film-row';
import type { FilmTrial } from '../films/try-film';
import type { CleanedFile, KeptTake, UnkeptTake } from '../recording/recording-service';
import type { Phrase } from '../../core/sound/voice/phrases';
import { MOUNT_DOCUMENT } from '../../core/mounts/mount-document';
import { STUDIO_PROFILE } from '../../core/studio/studio-profile';
import type { KeptMount, OpenedStudio } from '../reuse/studio-service';
import { CALL } from '../../core/screening/screening-settings';
import type { GuestNote, KeptNote } from '../../core/screening/guest-note';
import type { Watched } from '../../core/screening/watched';
import type { ScreeningRow } from '../screenings/screening-service';
import type { Unused } from '../shows/clearing';
import { MARKS } from '../../core/show/mark';
import type { ClientMark, ProofTally } from '../../core/proof/proof';
import {
  PLACES as PLACE_NAMES,
  PUBLICATION_STATES,
  STEPS,
  type ChannelRoom,
  type ChannelRow,
  type PublicationProgress,
  type PublicationRow,
} from '../../core/publishing/publication';
import type { BillChoice, BillRow } from '../../core/screening/bill';
import type { BadFile, BundleIntake } from '../../core/bundles/bundle';
import type { ProofRow } from '../proofs/proof-service';
import type { ShownProof } from '../proofs/shown-proof';
import { ROLES } from '../../core/studio/account';
import { COUNT, FACTS, LENGTH, NAME } from './facts-answer';
import type { AuditRow } from '../studio/audit';
import type { OwnAccount, PersonRow } from '../studio/accounts';
import type { InvitationRow } from '../studio/invitations';
import type { SessionRow } from '../studio/sessions';
import type { AppliedEdits, SentEdit, ShelfEntry } from '../shows/show-service';
import type { VersionEntry } from '../shows/versions';
import type { FileUses, MissingFile } from '../../core/show/file-uses';
import type { MissingSearch } from '../assets/missing-files';
import type { ReadTimeline } from '../../core/interchange/otio-in';
import type { PartsOf } from '../../core/schema/schema';
import { HOOK_EVENTS, SCOPES, type HookRow, type TokenRow } from '../../core/studio/api-token';
import { PURPOSE_NAMES } from '../../core/film/purposes/purposes';
import type { RowFault } from '../../core/series/row';
import { ROW_STATES, SERIES_STATES, type SeriesRow } from '../../core/series/series';
import type { SeriesFar, SeriesLine, SeriesSeen } from '../series/series-service';

/** What the JSON routes answer, for those who call them from outside. Checked where the server is tested. */

const TIME = whole(0, 1e15);
const BYTES = whole(0, 1e15);
const LONG = Number.MAX_SAFE_INTEGER;

export const NOTHING: Schema = object<object>({});
export const MADE: Schema = object<{ id: unknown }>({ id: ID });
export const COPIED: Schema = object<{ id: unknown; title: unknown }>({ id: ID, title: NAME });

export const OPENED_SHOW: Schema = object<{ show: Show; revision: number; damage: string | null }>({
  show: object<Show>(SHOW_PARTS),
  revision: COUNT,
  damage: orNull(text(2000)),
});

export const STUDIO: Schema = object<OpenedStudio>({ profile: STUDIO_PROFILE, revision: COUNT, shelf: ID });

export const MOUNT: Schema = object<KeptMount>({
  id: ID,
  document: MOUNT_DOCUMENT,
  missing: list(text(1000), 10_000),
  createdAt: TIME,
  removed: truth,
});
export const MOUNTS: Schema = object<{ mounts: unknown }>({ mounts: list(MOUNT, LONG) });

export const UNUSED: Schema = object<Unused>({
  showCount: COUNT,
  filmCount: COUNT,
  fileCount: COUNT,
  byteCount: COUNT,
});

export const SHELF: Schema = object<{ shows: unknown }>({
  shows: list(
    object<ShelfEntry>({
      id: ID,
      title: NAME,
      slideCount: COUNT,
      lengthMs: LENGTH,
      posterAssetId: orNull(HASH),
      posterAtMs: orNull(COUNT),
      changedAt: TIME,
      createdAt: TIME,
      place: oneOf(['shelf', 'archive', 'removed']),
      film: oneOf(['none', 'making', 'ready']),
      byteCount: COUNT,
      visiting: truth,
      series: orNull(ID),
    }),
    LONG,
  ),
});

/** Who may hold a remote in the hall: where phones go and what they type; neither when the hall's door is shut. */
export interface HallInvitation {
  readonly addresses: readonly string[];
  readonly code: string | null;
}
export const INVITED: Schema = object<HallInvitation>({ addresses: list(text(100), 50), code: orNull(text(20)) });

export const APPLIED: Schema = object<AppliedEdits>({
  revision: COUNT,
  since: list(object<SentEdit>({ editId: text(40), edit: anything }), LONG),
  refused: list(
    object<AppliedEdits['refused'][number]>({ editId: text(40), reason: text(40), sentence: text(2000) }),
    LONG,
  ),
  collided: truth,
});

export const ENTRY: Schema = object<SheetEntry>({
  id: ID,
  assetId: HASH,
  fileName: NAME,
  byteCount: BYTES,
  addedAt: TIME,
  state: oneOf(['arrived', 'ready', 'refused']),
  problem: orNull(NAME),
  facts: orNull(FACTS),
  rating: maybe(number(-1, 5)),
  made: orNull(oneOf(['take', 'cleaned', 'studio', 'band'])),
});
const ENTRIES = list(ENTRY, LONG);

const FOLDER_PROGRESS: Schema = object<FolderProgress>({
  folder: NAME,
  filesDone: COUNT,
  fileCount: COUNT,
  already: COUNT,
});

export const SHEET: Schema = object<{ entries: unknown; folder: unknown }>({
  entries: ENTRIES,
  folder: orNull(FOLDER_PROGRESS),
});
export const LENT: Schema = object<{ added: unknown; entries: unknown }>({ added: COUNT, entries: ENTRIES });
export const LISTING: Schema = object<FolderListing>({ folder: NAME, folders: list(NAME, LONG), fileCount: COUNT });

const VERSION_PARTS = {
  id: ID,
  name: text(200),
  why: oneOf(['kept', 'safety']),
  slideCount: COUNT,
  lengthMs: LENGTH,
  createdAt: TIME,
};
export const VERSION: Schema = object<VersionEntry>(VERSION_PARTS);
export const VERSIONS: Schema = object<{ versions: unknown }>({ versions: list(VERSION, LONG) });
export const OPENED_VERSION: Schema = object<VersionEntry & { content: unknown }>({
  ...VERSION_PARTS,
  content: anything,
});

const FILM: Schema = object<FilmRow>({
  id: ID,
  title: NAME,
  spec: FILM_SPEC,
  lengthMs: LENGTH,
  state: oneOf(['waiting', 'making', 'ready', 'failed', 'cancelled']),
  stage: orNull(oneOf(['sound', 'pictures', 'joining'])),
  framesDone: COUNT,
  frameCount: COUNT,
  framesKept: COUNT,
  leftMs: orNull(number(0, 1e12)),
  pieces: text(100),
  problem: orNull(NAME),
  byteCount: orNull(BYTES),
  likeness: orNull(number(0, 1)),
  orderedAt: TIME,
  startedAt: orNull(TIME),
  finishedAt: orNull(TIME),
});
export const FILMS: Schema = object<{ films: unknown }>({ films: list(FILM, LONG) });

export const ORDERED: Schema = object<{ ids: unknown }>({ ids: list(ID, 100) });
export const TRIAL: Schema = object<FilmTrial>({ byteCount: BYTES, tookMs: LENGTH });

export const HEALTH: Schema = object<{ ok: unknown; parts: unknown }>({
  ok: truth,
  parts: list(
    object<{ name: unknown; ok: unknown; says: unknown }>({ name: text(40), ok: truth, says: text(400) }),
    20,
  ),
});

export const TAKES: Schema = object<{ takes: unknown }>({
  takes: list(object<UnkeptTake>({ id: ID, slideId: orNull(ID), name: NAME, startedAt: TIME, lengthMs: LENGTH }), LONG),
});
export const TAKEN_SAMPLES: Schema = object<{ sampleCount: unknown }>({ sampleCount: COUNT });
const PHRASE = object<Phrase>({ fromMs: LENGTH, toMs: LENGTH });
export const CLEANED: Schema = object<CleanedFile>({ entry: ENTRY, trim: orNull(PHRASE) });
export const STILL_TAKEN: Schema = object<{ entry: unknown }>({ entry: ENTRY });
export const KEPT_TAKE: Schema = object<KeptTake>({ entry: ENTRY, cleaned: orNull(CLEANED) });

const SCREENING: Schema = object<ScreeningRow>({
  id: ID,
  token: text(100),
  films: list(ID, LONG),
  title: orNull(NAME),
  asksPassword: truth,
  endsAt: orNull(TIME),
  shut: truth,
  mayTake: truth,
  guestBook: truth,
  counts: truth,
  call: orNull(CALL),
  createdAt: TIME,
  viewings: COUNT,
});
export const SCREENINGS: Schema = object<{ screenings: unknown }>({ screenings: list(SCREENING, LONG) });
export const WATCHED: Schema = object<Watched>({
  viewings: COUNT,
  curve: list(number(0, 1.000_001), LONG),
  seen: number(0, 1.000_001),
  toTheEnd: number(0, 1),
});

const NOTE_PARTS = {
  id: ID,
  replyTo: orNull(ID),
  atMs: LENGTH,
  kind: oneOf(['note', 'wish']),
  by: oneOf(['guest', 'studio']),
  name: NAME,
  words: text(2000),
  createdAt: TIME,
};
const NOTE: Schema = object<GuestNote>(NOTE_PARTS);
export const GUEST_BOOK: Schema = object<{ notes: unknown }>({ notes: list(NOTE, LONG) });
export const LEFT_NOTE: Schema = object<{ note: unknown; held: unknown }>({ note: NOTE, held: truth });
const KEPT_NOTE: Schema = object<KeptNote>({
  ...NOTE_PARTS,
  screeningId: ID,
  state: oneOf(['open', 'done', 'hidden', 'held']),
  slideId: orNull(ID),
  before: list(ID, 100),
});
export const ANSWERED: Schema = KEPT_NOTE;
export const NOTES: Schema = object<{ notes: unknown }>({ notes: list(KEPT_NOTE, LONG) });

const ROLE = oneOf(ROLES);
const KEY_ID = text(2000, 1);
const NAMED_SHOW = object<PersonRow['shows'][number]>({ id: ID, title: NAME });

export const OWN_ACCOUNT: Schema = object<OwnAccount>({
  id: ID,
  name: NAME,
  email: orNull(NAME),
  role: ROLE,
  hasPassword: truth,
  passkeys: list(object<OwnAccount['passkeys'][number]>({ id: KEY_ID, name: NAME, createdAt: TIME }), 1000),
});

export const SESSIONS: Schema = object<{ sessions: unknown }>({
  sessions: list(object<SessionRow>({ id: ID, browser: NAME, createdAt: TIME, seenAt: TIME, here: truth }), LONG),
});

export const PEOPLE: Schema = object<{ people: unknown }>({
  people: list(
    object<PersonRow>({
      id: ID,
      name: NAME,
      email: orNull(NAME),
      role: ROLE,
      createdAt: TIME,
      seenAt: orNull(TIME),
      shows: list(NAMED_SHOW, LONG),
    }),
    LONG,
  ),
});

export const INVITATIONS: Schema = object<{ invitations: unknown }>({
  invitations: list(
    object<InvitationRow>({
      id: ID,
      role: ROLE,
      show: orNull(NAMED_SHOW),
      label: NAME,
      createdAt: TIME,
      until: TIME,
    }),
    LONG,
  ),
});

/** The unguessable part of a link, told once. */
export const A_WORD: Schema = object<{ word: unknown }>({ word: text(100, 20) });

export const AUDIT: Schema = object<{ done: unknown }>({
  done: list(object<AuditRow>({ id: COUNT, name: NAME, did: NAME, what: NAME, count: COUNT, at: TIME }), LONG),
});

const CLIENT_MARKS = list(object<ClientMark>({ assetId: HASH, mark: orNull(oneOf(MARKS)), note: NAME }), LONG);

export const PROOFS: Schema = object<{ proofs: unknown }>({
  proofs: list(
    object<ProofRow>({
      id: ID,
      token: text(100, 20),
      label: NAME,
      pictureCount: COUNT,
      longestPx: COUNT,
      watermark: orNull(NAME),
      endsAt: orNull(TIME),
      shut: truth,
      sentAt: orNull(TIME),
      sentBy: orNull(NAME),
      createdAt: TIME,
      tally: object<ProofTally>({ keep: COUNT, linger: COUNT, leaveOut: COUNT, unmarked: COUNT, notes: COUNT }),
      marks: CLIENT_MARKS,
    }),
    LONG,
  ),
});

export const PROOF: Schema = object<ShownProof>({
  token: text(100, 20),
  label: NAME,
  title: NAME,
  endsAt: orNull(TIME),
  sentAt: orNull(TIME),
  longestPx: COUNT,
  pictures: list(object<ShownProof['pictures'][number]>({ id: HASH, widthPx: COUNT, heightPx: COUNT }), LONG),
  marks: CLIENT_MARKS,
});

export const PUBLICATIONS: Schema = object<{ publications: unknown }>({
  publications: list(
    object<PublicationRow>({
      id: ID,
      kind: oneOf(PLACE_NAMES),
      to: NAME,
      title: NAME,
      state: oneOf(PUBLICATION_STATES),
      progress: orNull(object<PublicationProgress>({ step: oneOf(STEPS), share: orNull(number(0, 1)) })),
      problem: orNull(NAME),
      tries: COUNT,
      nextTryAt: orNull(TIME),
      address: orNull(NAME),
      orderedAt: TIME,
      endedAt: orNull(TIME),
    }),
    LONG,
  ),
});

/** Which places there are, the pages of stand-ins, and where the studio is signed in. */
export interface ToldPlaces {
  /** `door`: the page of a stand-in, for a browser on the server’s own machine. */
  readonly places: readonly { readonly place: (typeof PLACE_NAMES)[number]; readonly door: string | null }[];
  readonly channels: readonly ChannelRow[];
}

export const PLACES: Schema = object<ToldPlaces>({
  places: list(object<ToldPlaces['places'][number]>({ place: oneOf(PLACE_NAMES), door: orNull(NAME) }), 10),
  channels: list(object<ChannelRow>({ id: ID, place: oneOf(PLACE_NAMES), name: NAME, signedIn: truth }), LONG),
});

export const CHANNEL_ROOM: Schema = object<{ room: unknown }>({
  room: orNull(object<ChannelRoom>({ usedBytes: BYTES, mostBytes: BYTES })),
});

export const WAY: Schema = object<{ address: unknown }>({ address: text(10_000) });

export const BUNDLES: Schema = object<{ bundles: unknown }>({
  bundles: list(
    object<BundleIntake>({
      id: ID,
      fileName: NAME,
      state: oneOf(['taking', 'done', 'failed']),
      problem: orNull(NAME),
      showId: orNull(ID),
      title: orNull(NAME),
      filesDone: COUNT,
      fileCount: orNull(COUNT),
      bad: list(object<BadFile>({ name: NAME, problem: NAME }), LONG),
    }),
    LONG,
  ),
});

export const BILLS: Schema = object<{ bills: unknown; choices: unknown }>({
  bills: list(
    object<BillRow>({
      id: ID,
      token: text(100, 20),
      title: NAME,
      words: NAME,
      screenings: list(ID, LONG),
      shut: truth,
      createdAt: TIME,
    }),
    LONG,
  ),
  choices: list(object<BillChoice>({ id: ID, title: NAME, show: NAME, open: truth }), LONG),
});

export const SERIES_LIST: Schema = object<{ series: unknown }>({
  series: list(
    object<SeriesLine>({
      ...{ id: ID, title: NAME, showId: ID, state: oneOf(SERIES_STATES) },
      ...{ rowCount: COUNT, doneCount: COUNT, failedCount: COUNT },
    }),
    LONG,
  ),
});

const FAR: PartsOf<SeriesFar> = {
  state: oneOf(SERIES_STATES),
  billToken: orNull(NAME),
  leftMs: orNull(LENGTH),
  rows: list(
    object<SeriesRow>({
      ...{ number: COUNT, title: NAME, state: oneOf(ROW_STATES), share: number(0, 1), problem: orNull(NAME) },
      ...{ told: list(NAME, LONG), showId: orNull(ID), filmId: orNull(ID), byHand: truth },
    }),
    LONG,
  ),
};
export const SERIES_FAR: Schema = object<SeriesFar>(FAR);
export const SERIES: Schema = object<SeriesSeen>({
  ...FAR,
  ...{ id: ID, title: NAME, plan: anything, purpose: oneOf(PURPOSE_NAMES), folder: orNull(NAME), screened: truth },
  show: object<SeriesSeen['show']>({ id: ID, title: NAME }),
  places: list(anything, LONG),
  faults: list(object<RowFault>({ row: COUNT, grave: truth, says: NAME }), LONG),
  fileCount: COUNT,
});

/** OpenTimelineIO’s own schema is not repeated here. */
export const TIMELINE: Schema = anything;
export const TIMELINE_READ: Schema = object<ReadTimeline>({
  content: object<ShowContent>(CONTENT_PARTS),
  told: list(text(2000), LONG),
  missing: list(NAME, LONG),
});

export const TOKENS: Schema = object<{ tokens: unknown }>({
  tokens: list(
    object<TokenRow>({
      ...{ id: ID, name: NAME, scopes: list(oneOf(SCOPES), SCOPES.length) },
      ...{ createdAt: TIME, usedAt: orNull(TIME), until: orNull(TIME) },
    }),
    LONG,
  ),
});
export const TOKEN_WORD: Schema = object<{ word: unknown }>({ word: text(200, 20) });

export const HOOKS: Schema = object<{ hooks: unknown }>({
  hooks: list(
    object<HookRow>({
      ...{
        id: ID,
        url: NAME,
        events: list(oneOf(HOOK_EVENTS), HOOK_EVENTS.length),
        createdAt: TIME,
        last: orNull(NAME),
      },
    }),
    LONG,
  ),
});
export const HOOK_MADE: Schema = object<{ id: unknown; secret: unknown }>({ id: ID, secret: text(200, 20) });

export const MISSING: Schema = object<{ missing: unknown; search: unknown }>({
  missing: list(
    object<MissingFile>({
      ...{ assetId: HASH, fileName: orNull(NAME), byteCount: orNull(BYTES) },
      uses: object<FileUses>({ slides: list(COUNT, LONG), music: truth, watermark: truth }),
    }),
    LONG,
  ),
  search: orNull(object<MissingSearch>({ looked: COUNT, fileCount: COUNT, found: COUNT, ended: truth })),
});

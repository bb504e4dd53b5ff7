import {
  anything,
  checked,
  HASH,
  ID,
  list,
  maybe,
  number,
  object,
  orNull,
  record,
  text,
  truth,
  whole,
  type PartsOf,
  type Schema,
  written,
} from '../../core/schema/schema';
import { FILM_SPEC, faultOfSpec, type FilmSpec } from '../../core/film/film-spec';
import { LONGEST_NAME, LONGEST_SHOW_TITLE, LONGEST_SLIDE_MS, MOST_SLIDES } from '../../core/show/limits';
import { EVENED_WISH } from '../../core/timing/evened-clip';
import type { LeftOut } from '../../core/sound/voice/leave-out';
import { MOUNT_DOCUMENT, type MountDocument } from '../../core/mounts/mount-document';
import {
  ANSWER,
  NEW_NOTE,
  NEW_SCREENING,
  NOTE_CHANGE,
  PASSWORD_SAID,
  SCREENING_CHANGE,
  TOLD_VIEWING,
} from '../../core/screening/screening-settings';
import {
  ACCOUNT_CHANGE,
  NEW_ACCOUNT,
  NEW_INVITATION,
  NEW_PASSKEY,
  NEW_ROLE,
  SIGN_IN,
  WORD,
} from '../../core/studio/account';
import { NEW_HOOK, NEW_TOKEN } from '../../core/studio/api-token';
import { BILL_CHANGE, NEW_BILL } from '../../core/screening/bill';
import { DISC, DISC_FAR, DISC_LIST } from './disc-answers';
import { MOST_COPIES } from '../../core/disc/disc-making';
import { DISC_CHANGE } from '../../core/disc/disc-plan';
import { ROW_WANTED, ROWS_WANTED, SERIES_CHANGE } from '../../core/series/series';
import { NEW_CHANNEL, NEW_PUBLICATION } from '../../core/publishing/publication';
import { STUDIO_PROFILE, type StudioProfile } from '../../core/studio/studio-profile';
import { CHOICE_SENT, CLIENT_MARK, NEW_PROOF, PROOF_CHANGE } from '../../core/proof/proof';
import { REMOTE_NEWS } from '../../core/showing/showing-schema';
import { CLEANING } from '../../core/sound/voice/cleaning';
import { CONTENT_PARTS, SLIDE } from '../../core/show/schemas/slide-schema';
import type { ShowContent, Slide } from '../../core/show/show';
import type { NewTake, WantedTake } from '../recording/recording-service';
import { sortedEdits, type SortedEdits } from '../shows/sorted-edits';
import type { Deed } from '../studio/may-do';
import {
  ANSWERED,
  APPLIED,
  CLEANED,
  STILL_TAKEN,
  COPIED,
  FILMS,
  GUEST_BOOK,
  HEALTH,
  HOOK_MADE,
  HOOKS,
  INVITED,
  KEPT_TAKE,
  LEFT_NOTE,
  LENT,
  LISTING,
  MADE,
  MISSING,
  MOUNT,
  MOUNTS,
  NOTES,
  NOTHING,
  ORDERED,
  OPENED_SHOW,
  OPENED_VERSION,
  SCREENINGS,
  SERIES,
  SERIES_FAR,
  SERIES_LIST,
  SHEET,
  SHELF,
  STUDIO,
  TAKEN_SAMPLES,
  TAKES,
  TIMELINE,
  TIMELINE_READ,
  TOKEN_WORD,
  TOKENS,
  TRIAL,
  UNUSED,
  VERSION,
  VERSIONS,
  A_WORD,
  BILLS,
  BUNDLES,
  AUDIT,
  INVITATIONS,
  OWN_ACCOUNT,
  PEOPLE,
  PROOF,
  PROOFS,
  PLACES,
  PUBLICATIONS,
  CHANNEL_ROOM,
  WAY,
  SESSIONS,
  WATCHED,
} from './answers';
import { BAND_ROUTES } from './band-routes';

/** One thing that can be asked of the server. */
export interface Route {
  /** What has to be allowed. */
  readonly deed: Deed;
  /** What the JSON body must be; routes without one read none. */
  readonly takes?: Schema;
  /** What is made of a body that was taken, where it is read. */
  readonly reads?: (body: never) => unknown;
  /** What the JSON answer is; routes without one answer with bytes. */
  readonly gives?: Schema;
}

const TITLE = text(LONGEST_SHOW_TITLE, 1);
const REVISION = whole(0, 1e12);
const VERSION_NAME = written(LONGEST_NAME, 'as shown');

export interface SentEdits {
  readonly knownRevision: number;
  readonly basedOn?: number;
  /** Each edit is looked at by itself, so that a wrong one does not take the others along. */
  readonly edits: readonly { readonly editId: string; readonly edit: unknown }[];
}
/** With each edit looked at. */
export type ReadEdits = Omit<SentEdits, 'edits'> & { readonly edits: SortedEdits };

export interface Loan {
  readonly from: string;
  readonly slides: readonly Slide[];
  /** Files apart from those on the slides. */
  readonly files?: readonly string[];
}

export interface NewProfile {
  readonly profile: StudioProfile;
  readonly knownRevision: number;
}

export interface NewMount {
  readonly from: string;
  readonly mount: MountDocument;
}
/** Without `content` the show is kept as it stands on the server; with it, as a window had it whose edits could not be joined. */
export interface NewVersion {
  readonly name: string;
  readonly content?: ShowContent;
}

const EDIT_ID: Schema = {
  is: 'text',
  least: 8,
  most: 40,
  like: { pattern: /^[\w-]{8,40}$/, says: 'must be an id of 8 to 40 letters, digits, _ and -', samples: ['edit-0001'] },
};
const SENT_EDITS: PartsOf<SentEdits> = {
  knownRevision: REVISION,
  basedOn: maybe(REVISION),
  edits: list(object<SentEdits['edits'][number]>({ editId: EDIT_ID, edit: anything }), 1000),
};

const SPEC = checked<FilmSpec>(FILM_SPEC, faultOfSpec);
const MOST_FILMS_AT_ONCE = 20;

const LONGEST_TAKE_MS = 24 * 60 * 60 * 1000;
const LEFT_OUT = object<LeftOut>({ fromMs: number(0, LONGEST_TAKE_MS), toMs: number(0, LONGEST_TAKE_MS) });

/** Every route of the server by its method and path. A route that is not in here does not start; see `route.ts`. */
export const ROUTES = {
  'GET /api/health': { deed: 'see-health', gives: HEALTH },
  'GET /api/v1/unused': { deed: 'clear-away', gives: UNUSED },
  'DELETE /api/v1/unused': { deed: 'clear-away', gives: UNUSED },
  'GET /api/v1/shows': { deed: 'see-shelf', gives: SHELF },
  'POST /api/v1/shows': { deed: 'make-show', takes: object<{ title: unknown }>({ title: TITLE }), gives: MADE },
  'GET /api/v1/shows/[show]': { deed: 'see-show', gives: OPENED_SHOW },
  'PATCH /api/v1/shows/[show]': {
    deed: 'send-show',
    takes: object<{ title?: unknown; archived?: unknown }>({ title: maybe(TITLE), archived: maybe(truth) }),
    gives: NOTHING,
  },
  'DELETE /api/v1/shows/[show]': { deed: 'send-show', gives: NOTHING },
  'DELETE /api/v1/shows/[show]/removal': { deed: 'bring-back-show', gives: NOTHING },
  'POST /api/v1/shows/[show]/copy': { deed: 'send-show', gives: COPIED },
  'POST /api/v1/shows/[show]/edits': {
    deed: 'change-show',
    takes: object<SentEdits>(SENT_EDITS),
    reads: ({ edits, ...rest }: SentEdits): ReadEdits => ({ ...rest, edits: sortedEdits(edits) }),
    gives: APPLIED,
  },
  'GET /api/v1/shows/[show]/events': { deed: 'see-show' },
  /** A code that lets a phone be a remote of the showing; or all of them are let go. */
  'POST /api/v1/shows/[show]/hall': {
    deed: 'change-show',
    takes: object<{ end?: unknown }>({ end: maybe(truth) }),
    gives: INVITED,
  },
  /** What remotes show of the showing. */
  'PATCH /api/v1/shows/[show]/hall': { deed: 'change-show', takes: REMOTE_NEWS, gives: NOTHING },
  /** What remotes ask for, for the projector. */
  'GET /api/v1/shows/[show]/hall/events': { deed: 'change-show' },
  'GET /api/v1/shows/[show]/stored': { deed: 'see-show' },
  'GET /api/v1/shows/[show]/sheet': { deed: 'see-show', gives: SHEET },
  'DELETE /api/v1/shows/[show]/sheet/[entry]': { deed: 'change-show', gives: NOTHING },
  'POST /api/v1/shows/[show]/loans': {
    deed: 'change-show',
    takes: object<Loan>({ from: ID, slides: list(SLIDE, MOST_SLIDES), files: maybe(list(HASH, MOST_SLIDES)) }),
    gives: LENT,
  },
  'POST /api/v1/shows/[show]/folder': {
    deed: 'bring-folder',
    takes: object<{ folder: unknown }>({ folder: text(4000) }),
    gives: NOTHING,
  },
  /** Ratings of files beside pictures, by the names of those files. */
  'POST /api/v1/shows/[show]/ratings': {
    deed: 'change-show',
    takes: object<{ ratings: unknown }>({ ratings: record(text(255, 1), whole(-1, 5), 20_000) }),
    gives: object<{ rated: unknown }>({ rated: whole(0, 1e9) }),
  },
  /** Its marks as XMP files, in a ZIP. */
  'GET /api/v1/shows/[show]/marks': { deed: 'see-show' },
  /** Files that are not there any more, and the search for them. */
  'GET /api/v1/shows/[show]/missing': { deed: 'see-show', gives: MISSING },
  'POST /api/v1/shows/[show]/missing': {
    deed: 'bring-folder',
    takes: object<{ folder: unknown }>({ folder: text(4000) }),
    gives: NOTHING,
  },
  'DELETE /api/v1/shows/[show]/folder': { deed: 'change-show', gives: NOTHING },
  /** The show, its files and its versions as one file. */
  'GET /api/v1/shows/[show]/bundle': { deed: 'send-show' },
  /** As a timeline in OpenTimelineIO; and what it would be like after one. */
  'GET /api/v1/shows/[show]/timeline': { deed: 'see-show', gives: TIMELINE },
  'POST /api/v1/shows/[show]/timeline': {
    deed: 'change-show',
    takes: object<{ timeline: unknown }>({ timeline: anything }),
    gives: TIMELINE_READ,
  },
  /** The show as a pattern of many. */
  'POST /api/v1/shows/[show]/series': { deed: 'send-show', gives: MADE },
  'GET /api/v1/series': { deed: 'see-studio', gives: SERIES_LIST },
  'GET /api/v1/series/[series]': { deed: 'make-show', gives: SERIES },
  'PATCH /api/v1/series/[series]': { deed: 'make-show', takes: SERIES_CHANGE, gives: NOTHING },
  'DELETE /api/v1/series/[series]': { deed: 'make-show', gives: NOTHING },
  'GET /api/v1/series/[series]/rows': { deed: 'make-show', gives: SERIES_FAR },
  /** The show of one row, to be looked at. */
  'POST /api/v1/series/[series]/rows': { deed: 'make-show', takes: ROW_WANTED, gives: NOTHING },
  'POST /api/v1/series/[series]/making': { deed: 'make-show', takes: ROWS_WANTED, gives: NOTHING },
  'DELETE /api/v1/series/[series]/making': { deed: 'make-show', gives: NOTHING },
  /** Those that are made, as one ZIP. */
  'GET /api/v1/series/[series]/films': { deed: 'make-show' },
  /** A video disc with the show on it. */
  'POST /api/v1/shows/[show]/discs': { deed: 'send-show', gives: MADE },
  'GET /api/v1/discs': { deed: 'see-studio', gives: DISC_LIST },
  'GET /api/v1/discs/[disc]': { deed: 'make-show', gives: DISC },
  'PATCH /api/v1/discs/[disc]': { deed: 'make-show', takes: DISC_CHANGE, gives: NOTHING },
  'DELETE /api/v1/discs/[disc]': { deed: 'make-show', gives: NOTHING },
  'GET /api/v1/discs/[disc]/far': { deed: 'make-show', gives: DISC_FAR },
  'POST /api/v1/discs/[disc]/making': { deed: 'make-show', gives: NOTHING },
  'DELETE /api/v1/discs/[disc]/making': { deed: 'make-show', gives: NOTHING },
  /** Its image. */
  'GET /api/v1/discs/[disc]/image': { deed: 'make-show' },
  /** What is printed on it, as PDF. */
  'GET /api/v1/discs/[disc]/label': { deed: 'make-show' },
  /** A page of its menu, from 1: as PNG, and moving as MP4. */
  'GET /api/v1/discs/[disc]/pages/[page]': { deed: 'make-show' },
  'GET /api/v1/discs/[disc]/pages/[page]/moving': { deed: 'make-show' },
  'POST /api/v1/discs/[disc]/burns': {
    deed: 'make-show',
    takes: object<{ copies: unknown }>({ copies: whole(1, MOST_COPIES) }),
    gives: NOTHING,
  },
  'DELETE /api/v1/discs/[disc]/burns/[burn]': { deed: 'make-show', gives: NOTHING },
  /** Shows that come as one file: on their way in, or not long here. */
  'GET /api/v1/bundles': { deed: 'see-studio', gives: BUNDLES },
  'DELETE /api/v1/bundles/[bundle]': { deed: 'make-show', gives: NOTHING },
  'GET /api/v1/shows/[show]/versions': { deed: 'see-show', gives: VERSIONS },
  'POST /api/v1/shows/[show]/versions': {
    deed: 'change-show',
    takes: object<NewVersion>({ name: VERSION_NAME, content: maybe(object<ShowContent>(CONTENT_PARTS)) }),
    gives: VERSION,
  },
  'GET /api/v1/shows/[show]/versions/[version]': { deed: 'see-show', gives: OPENED_VERSION },
  'PATCH /api/v1/shows/[show]/versions/[version]': {
    deed: 'change-show',
    takes: object<{ name?: unknown; removed?: unknown }>({ name: maybe(VERSION_NAME), removed: maybe(truth) }),
    gives: NOTHING,
  },
  'GET /api/v1/shows/[show]/films': { deed: 'send-show', gives: FILMS },
  'POST /api/v1/shows/[show]/films': {
    deed: 'send-show',
    takes: object<{ specs: unknown }>({ specs: list(SPEC, MOST_FILMS_AT_ONCE, 1) }),
    gives: ORDERED,
  },
  /** What a film would come to, from three half-seconds of it that are really made. */
  'POST /api/v1/shows/[show]/trials': {
    deed: 'send-show',
    takes: object<{ spec: unknown }>({ spec: SPEC }),
    gives: TRIAL,
  },
  'GET /api/v1/shows/[show]/still': { deed: 'see-show' },
  'GET /api/v1/shows/[show]/pictures/[asset]': { deed: 'see-file' },
  'GET /api/v1/shows/[show]/clips/[asset]/[second]': { deed: 'see-file' },
  /** The frame that is seen at `atMs` of a clip, as a picture of its own on the sheet. */
  'POST /api/v1/shows/[show]/clips/[asset]/still': {
    deed: 'change-show',
    takes: object<{ atMs: unknown }>({ atMs: number(0, LONGEST_SLIDE_MS) }),
    gives: STILL_TAKEN,
  },
  /** Answers with lines of JSON: `{ share }` while it is made, then `{ entry }` or `{ problem }`. */
  'POST /api/v1/shows/[show]/clips/[asset]/evened': { deed: 'change-show', takes: EVENED_WISH },
  'GET /api/v1/shows/[show]/sounds/[asset]': { deed: 'see-file' },
  'GET /api/v1/shows/[show]/sounds/[asset]/peaks': { deed: 'see-file' },
  'POST /api/v1/shows/[show]/sounds/[asset]/cleaned': {
    deed: 'change-show',
    takes: object<{ how: unknown }>({ how: CLEANING }),
    gives: CLEANED,
  },
  ...BAND_ROUTES,
  'GET /api/v1/shows/[show]/takes': { deed: 'see-show', gives: TAKES },
  'POST /api/v1/shows/[show]/takes': {
    deed: 'change-show',
    takes: object<NewTake>({ slideId: orNull(ID), name: text(LONGEST_NAME, 1), rate: whole(8000, 192_000) }),
    gives: MADE,
  },
  /** `?from=`: which sample the first one sent is. The body is 32-bit floats, little end first. */
  'POST /api/v1/shows/[show]/takes/[take]/samples': { deed: 'change-show', gives: TAKEN_SAMPLES },
  'POST /api/v1/shows/[show]/takes/[take]': {
    deed: 'change-show',
    takes: object<WantedTake>({ how: orNull(CLEANING), leftOut: maybe(list(LEFT_OUT, 1000)) }),
    gives: KEPT_TAKE,
  },
  'DELETE /api/v1/shows/[show]/takes/[take]': { deed: 'change-show', gives: NOTHING },
  'POST /api/v1/films/[film]/cancel': { deed: 'change-film', gives: NOTHING },
  'POST /api/v1/films/[film]/again': { deed: 'change-film', gives: NOTHING },
  'POST /api/v1/films/[film]/next': { deed: 'change-film', gives: NOTHING },
  'GET /api/v1/films/[film]/picture': { deed: 'see-film' },
  'DELETE /api/v1/films/[film]': { deed: 'change-film', gives: NOTHING },
  'GET /api/v1/films/[film]/file': { deed: 'see-film' },
  'GET /api/v1/shows/[show]/screenings': { deed: 'send-show', gives: SCREENINGS },
  'POST /api/v1/shows/[show]/screenings': { deed: 'send-show', takes: NEW_SCREENING, gives: MADE },
  'PATCH /api/v1/shows/[show]/screenings/[screening]': { deed: 'send-show', takes: SCREENING_CHANGE, gives: NOTHING },
  'DELETE /api/v1/shows/[show]/screenings/[screening]': { deed: 'send-show', gives: NOTHING },
  'POST /api/v1/shows/[show]/screenings/[screening]/link': { deed: 'send-show', gives: NOTHING },
  'GET /api/v1/shows/[show]/screenings/[screening]/watched': { deed: 'send-show', gives: WATCHED },
  'DELETE /api/v1/shows/[show]/screenings/[screening]/watched': { deed: 'send-show', gives: NOTHING },
  /** Pages of several screenings, and what can be put on them. */
  'GET /api/v1/bills': { deed: 'see-studio', gives: BILLS },
  'POST /api/v1/bills': { deed: 'change-studio', takes: NEW_BILL, gives: MADE },
  'PATCH /api/v1/bills/[bill]': { deed: 'change-studio', takes: BILL_CHANGE, gives: NOTHING },
  'DELETE /api/v1/bills/[bill]': { deed: 'change-studio', gives: NOTHING },
  'GET /api/v1/bills/shown/[token]/logo': { deed: 'knock' },
  'GET /api/v1/shows/[show]/notes': { deed: 'send-show', gives: NOTES },
  'GET /api/v1/shows/[show]/notes/table': { deed: 'send-show' },
  'PATCH /api/v1/shows/[show]/notes/[note]': { deed: 'send-show', takes: NOTE_CHANGE, gives: NOTHING },
  'DELETE /api/v1/shows/[show]/notes/[note]': { deed: 'send-show', gives: NOTHING },
  'POST /api/v1/shows/[show]/notes/[note]/answers': { deed: 'send-show', takes: ANSWER, gives: ANSWERED },
  'POST /api/v1/screenings/[token]/entry': { deed: 'knock', takes: PASSWORD_SAID, gives: NOTHING },
  'GET /api/v1/screenings/[token]/film': { deed: 'watch-screening' },
  'GET /api/v1/screenings/[token]/logo': { deed: 'knock' },
  'GET /api/v1/screenings/[token]/notes': { deed: 'watch-screening', gives: GUEST_BOOK },
  'POST /api/v1/screenings/[token]/note': { deed: 'watch-screening', takes: NEW_NOTE, gives: LEFT_NOTE },
  'POST /api/v1/screenings/[token]/watched': { deed: 'watch-screening', takes: TOLD_VIEWING, gives: NOTHING },
  'GET /api/v1/oembed': { deed: 'look-up-screening' },
  'GET /api/v1/screenings/[token]/picture': { deed: 'watch-screening' },
  'GET /api/v1/screenings/[token]/captions/[language]': { deed: 'watch-screening' },
  /** What was handed over: letters, films at a host, posts. */
  'GET /api/v1/shows/[show]/publications': { deed: 'send-show', gives: PUBLICATIONS },
  'POST /api/v1/shows/[show]/publications': { deed: 'send-show', takes: NEW_PUBLICATION, gives: ORDERED },
  'POST /api/v1/shows/[show]/publications/[publication]/cancel': { deed: 'send-show', gives: NOTHING },
  'POST /api/v1/shows/[show]/publications/[publication]/again': { deed: 'send-show', gives: NOTHING },
  'DELETE /api/v1/shows/[show]/publications/[publication]': { deed: 'send-show', gives: NOTHING },
  /** Where the studio is signed in elsewhere. */
  'GET /api/v1/channels': { deed: 'see-studio', gives: PLACES },
  /** Where to go to sign in. */
  'POST /api/v1/channels': { deed: 'change-studio', takes: NEW_CHANNEL, gives: WAY },
  /** Back from there; leads on to the show. */
  'GET /api/v1/channels/arrival': { deed: 'see-studio' },
  'GET /api/v1/channels/[channel]/room': { deed: 'see-studio', gives: CHANNEL_ROOM },
  'DELETE /api/v1/channels/[channel]': { deed: 'change-studio', gives: NOTHING },
  'GET /api/v1/shows/[show]/proofs': { deed: 'send-show', gives: PROOFS },
  'POST /api/v1/shows/[show]/proofs': { deed: 'send-show', takes: NEW_PROOF, gives: MADE },
  'PATCH /api/v1/shows/[show]/proofs/[proof]': { deed: 'send-show', takes: PROOF_CHANGE, gives: NOTHING },
  'DELETE /api/v1/shows/[show]/proofs/[proof]': { deed: 'send-show', gives: NOTHING },
  'GET /api/v1/proofs/[token]': { deed: 'mark-proof', gives: PROOF },
  'GET /api/v1/proofs/[token]/logo': { deed: 'mark-proof' },
  'GET /api/v1/proofs/[token]/pictures/[asset]': { deed: 'mark-proof' },
  'PATCH /api/v1/proofs/[token]/marks/[asset]': { deed: 'mark-proof', takes: CLIENT_MARK, gives: NOTHING },
  'POST /api/v1/proofs/[token]/choice': { deed: 'mark-proof', takes: CHOICE_SENT, gives: NOTHING },
  'GET /api/v1/studio': { deed: 'see-studio', gives: STUDIO },
  'PATCH /api/v1/studio': {
    deed: 'change-studio',
    takes: object<NewProfile>({ profile: STUDIO_PROFILE, knownRevision: REVISION }),
    gives: STUDIO,
  },
  'GET /api/v1/mounts': { deed: 'see-studio', gives: MOUNTS },
  'POST /api/v1/mounts': {
    deed: 'change-studio',
    takes: object<NewMount>({ from: ID, mount: MOUNT_DOCUMENT }),
    gives: MOUNT,
  },
  /** The body is a mount file. */
  'POST /api/v1/mounts/bytes': { deed: 'change-studio', gives: MOUNT },
  'GET /api/v1/mounts/[mount]/file': { deed: 'see-studio' },
  'DELETE /api/v1/mounts/[mount]': { deed: 'change-studio', gives: NOTHING },
  'DELETE /api/v1/mounts/[mount]/removal': { deed: 'change-studio', gives: NOTHING },
  'GET /api/v1/folders': { deed: 'see-folders', gives: LISTING },
  'POST /api/v1/session/password': { deed: 'sign-in', takes: SIGN_IN, gives: NOTHING },
  /** By a one-time link. */
  'POST /api/v1/session/entry': { deed: 'sign-in', takes: WORD, gives: NOTHING },
  'POST /api/v1/session/passkey/asked': { deed: 'sign-in' },
  'POST /api/v1/session/passkey': { deed: 'sign-in', takes: anything, gives: NOTHING },
  'DELETE /api/v1/session': { deed: 'sign-in', gives: NOTHING },
  /** By an invitation: somebody new … */
  'POST /api/v1/joining/[word]/account': { deed: 'sign-in', takes: NEW_ACCOUNT, gives: NOTHING },
  /** … or somebody who is signed in and is let into a show. */
  'POST /api/v1/joining/[word]/visit': { deed: 'own-account', gives: MADE },
  'GET /api/v1/account': { deed: 'own-account', gives: OWN_ACCOUNT },
  'PATCH /api/v1/account': { deed: 'own-account', takes: ACCOUNT_CHANGE, gives: OWN_ACCOUNT },
  'GET /api/v1/account/sessions': { deed: 'own-account', gives: SESSIONS },
  'DELETE /api/v1/account/sessions': { deed: 'own-account', gives: NOTHING },
  'DELETE /api/v1/account/sessions/[session]': { deed: 'own-account', gives: NOTHING },
  'POST /api/v1/account/passkeys/asked': { deed: 'own-account' },
  'POST /api/v1/account/passkeys': { deed: 'own-account', takes: NEW_PASSKEY, gives: OWN_ACCOUNT },
  'DELETE /api/v1/account/passkeys/[passkey]': { deed: 'own-account', gives: OWN_ACCOUNT },
  /** Everything that can be asked, as OpenAPI 3.1. */
  'GET /api/v1/openapi': { deed: 'see-health', gives: anything },
  'GET /api/v1/tokens': { deed: 'own-tokens', gives: TOKENS },
  'POST /api/v1/tokens': { deed: 'own-tokens', takes: NEW_TOKEN, gives: TOKEN_WORD },
  'DELETE /api/v1/tokens/[id]': { deed: 'own-tokens', gives: NOTHING },
  'GET /api/v1/hooks': { deed: 'own-tokens', gives: HOOKS },
  'POST /api/v1/hooks': { deed: 'own-tokens', takes: NEW_HOOK, gives: HOOK_MADE },
  'DELETE /api/v1/hooks/[hook]': { deed: 'own-tokens', gives: NOTHING },
  /** Tells it something now, to try it. */
  'POST /api/v1/hooks/[hook]/trial': { deed: 'own-tokens', takes: object<object>({}), gives: NOTHING },
  'GET /api/v1/people': { deed: 'see-people', gives: PEOPLE },
  'PATCH /api/v1/people/[account]': { deed: 'change-people', takes: NEW_ROLE, gives: NOTHING },
  'DELETE /api/v1/people/[account]': { deed: 'change-people', gives: NOTHING },
  /** A one-time link for somebody who cannot sign in. */
  'POST /api/v1/people/[account]/entry': { deed: 'change-people', gives: A_WORD },
  'GET /api/v1/invitations': { deed: 'change-people', gives: INVITATIONS },
  'POST /api/v1/invitations': { deed: 'change-people', takes: NEW_INVITATION, gives: A_WORD },
  'DELETE /api/v1/invitations/[invitation]': { deed: 'change-people', gives: NOTHING },
  /** `?before=` an id goes further back. */
  'GET /api/v1/audit': { deed: 'see-audit', gives: AUDIT },
  /** All of the tus protocol’s methods; which show an upload is for is asked when it begins. */
  'POST /api/v1/uploads': { deed: 'bring-files' },
} as const satisfies Readonly<Record<string, Route>>;

export type RouteName = keyof typeof ROUTES;

/** Every page, and what it takes to be shown it. */
export const PAGES = {
  '/': 'see-shelf',
  '/sign-in': 'sign-in',
  '/enter': 'sign-in',
  '/join/[word]': 'sign-in',
  '/account': 'own-account',
  '/people': 'see-people',
  '/studio': 'see-studio',
  '/programs': 'own-tokens',
  '/series/[series]': 'make-show',
  '/discs/[disc]': 'make-show',
  '/shows/[show]': 'see-show',
  '/shows/[show]/gather': 'see-show',
  '/shows/[show]/arrange': 'see-show',
  '/shows/[show]/sound': 'see-show',
  '/shows/[show]/send': 'send-show',
  '/showing/[show]': 'see-show',
  '/showing/[show]/projector': 'see-show',
  '/p/[token]': 'mark-proof',
  '/b/[token]': 'knock',
  '/s/[token]': 'knock',
  '/s/[token]/embed': 'watch-screening',
} as const satisfies Readonly<Record<string, Deed>>;

export type PageName = keyof typeof PAGES;

/** What is done in a studio and worth knowing later, as a sentence that begins with who did it; `{}` stands for what it was done to. */
export const AUDIT_SENTENCES = {
  'signed-in': 'signed in',
  'wrong-password': 'could not sign in: the password was another one',
  joined: 'joined by an invitation',
  'signed-out': 'signed out',
  'POST /api/v1/shows': 'began a show',
  'PATCH /api/v1/shows/[show]': 'renamed {}, or put it into the archive or back',
  'DELETE /api/v1/shows/[show]': 'took {} off the shelf',
  'DELETE /api/v1/shows/[show]/removal': 'brought {} back',
  'POST /api/v1/shows/[show]/copy': 'made a copy of {}',
  'POST /api/v1/shows/[show]/edits': 'worked on {}',
  'DELETE /api/v1/shows/[show]/sheet/[entry]': 'took a file off the contact sheet of {}',
  'POST /api/v1/shows/[show]/folder': 'brought a folder into {}',
  'POST /api/v1/shows/[show]/versions': 'kept a version of {}',
  'PATCH /api/v1/shows/[show]/versions/[version]': 'changed a version of {}',
  'POST /api/v1/shows/[show]/films': 'had a film made of {}',
  'DELETE /api/v1/films/[film]': 'deleted a film',
  'POST /api/v1/shows/[show]/screenings': 'opened a screening of {}',
  'PATCH /api/v1/shows/[show]/screenings/[screening]': 'changed a screening of {}',
  'DELETE /api/v1/shows/[show]/screenings/[screening]': 'removed a screening of {}',
  'POST /api/v1/shows/[show]/screenings/[screening]/link': 'gave a screening of {} another link',
  'DELETE /api/v1/shows/[show]/screenings/[screening]/watched': 'forgot how often {} was watched',
  'PATCH /api/v1/shows/[show]/notes/[note]': 'changed a note in the guest book of {}',
  'DELETE /api/v1/shows/[show]/notes/[note]': 'deleted a note in the guest book of {}',
  'POST /api/v1/shows/[show]/notes/[note]/answers': 'answered in the guest book of {}',
  'POST /api/v1/shows/[show]/proofs': 'asked a client about pictures of {}',
  'PATCH /api/v1/shows/[show]/proofs/[proof]': 'changed a proof of {}',
  'DELETE /api/v1/shows/[show]/proofs/[proof]': 'removed a proof of {}',
  'POST /api/v1/shows/[show]/publications': 'sent {} on: a letter, a film or a post',
  'DELETE /api/v1/shows/[show]/publications/[publication]': 'took something off the list of what went out of {}',
  'DELETE /api/v1/bundles/[bundle]': 'stopped a show that came as one file, or took it off the list',
  'POST /api/v1/shows/[show]/series': 'began a series after {}',
  'PATCH /api/v1/series/[series]': 'changed a series',
  'DELETE /api/v1/series/[series]': 'took a series away, its shows off the shelf',
  'POST /api/v1/series/[series]/making': 'had the films of a series made',
  'DELETE /api/v1/series/[series]/making': 'stopped the films of a series',
  'POST /api/v1/bills': 'made a page of several films',
  'PATCH /api/v1/bills/[bill]': 'changed a page of several films',
  'DELETE /api/v1/bills/[bill]': 'removed a page of several films',
  'POST /api/v1/channels': 'went to sign the studio in elsewhere',
  'DELETE /api/v1/channels/[channel]': 'signed the studio out elsewhere',
  'POST /api/v1/shows/[show]/takes/[take]': 'recorded for {}',
  'PATCH /api/v1/studio': 'changed the studio',
  'POST /api/v1/mounts': 'kept a mount',
  'POST /api/v1/mounts/bytes': 'took a mount in',
  'DELETE /api/v1/mounts/[mount]': 'removed a mount',
  'DELETE /api/v1/mounts/[mount]/removal': 'brought a mount back',
  'DELETE /api/v1/unused': 'cleared away what nothing uses',
  'PATCH /api/v1/account': 'changed their account',
  'DELETE /api/v1/account/sessions': 'signed out everywhere else',
  'DELETE /api/v1/account/sessions/[session]': 'signed another browser out',
  'POST /api/v1/account/passkeys': 'added a passkey',
  'DELETE /api/v1/account/passkeys/[passkey]': 'removed a passkey',
  'POST /api/v1/invitations': 'invited somebody',
  'DELETE /api/v1/invitations/[invitation]': 'took an invitation back',
  'PATCH /api/v1/people/[account]': 'changed a role: {}',
  'DELETE /api/v1/people/[account]': 'took {} out of the studio',
  'POST /api/v1/people/[account]/entry': 'made a sign-in link for {}',
} as const satisfies Readonly<Record<string, string>>;

export type AuditedDeed = keyof typeof AUDIT_SENTENCES;

export const isAudited = (did: string): did is AuditedDeed => Object.hasOwn(AUDIT_SENTENCES, did);

/** “took “Lantern Regatta” off the shelf, 3 times” */
export function auditSentence({ did, what, count }: { did: string; what: string; count: number }): string {
  const said = isAudited(did) ? AUDIT_SENTENCES[did] : did;
  const named = said.replace('{}', what === '' ? 'a show' : `“${what}”`);
  return count > 1 ? `${named}, ${count} times` : named;
}

import {
  anything,
  maybe,
  object,
  oneOf,
  orNull,
  text,
  ID,
  type Schema,
  type TextSchema,
  written,
} from '../schema/schema';
import { LONGEST_NAME } from '../show/limits';

/** What somebody may do in a studio: owners also say who is in it, guests work on single shows only. */
export const ROLES = ['owner', 'member', 'guest'] as const;
export type Role = (typeof ROLES)[number];

/** Shorter passwords are guessed. */
export const SHORTEST_ACCOUNT_PASSWORD = 10;

export interface SignIn {
  readonly email: string;
  readonly password: string;
}

/** Somebody who comes by an invitation. */
export interface NewAccount extends SignIn {
  readonly name: string;
}

/** What people change about themselves; a password is changed with the one before, where there is one. */
export interface AccountChange {
  readonly name?: string;
  readonly email?: string;
  readonly password?: string;
  readonly oldPassword?: string | null;
}

export interface NewInvitation {
  readonly role: Role;
  /** Of guests: the one show they are let into. */
  readonly show: string | null;
  /** For whom, so that the list of invitations can be read. */
  readonly label: string;
}

const NAME = written(LONGEST_NAME, 'Ilka');
export const EMAIL = {
  is: 'text',
  least: 3,
  most: 254,
  like: {
    pattern: /^\s*[^\s@<>"]+@[^\s@<>"]+\s*$/,
    says: 'must be an e-mail address',
    samples: ['ilka@example.org'],
  },
} as const satisfies TextSchema;
const ANY_PASSWORD = text(200, 1);
const PASSWORD = text(200, SHORTEST_ACCOUNT_PASSWORD);

export const SIGN_IN: Schema = object<SignIn>({ email: text(254), password: ANY_PASSWORD });
export const NEW_ACCOUNT: Schema = object<NewAccount>({ name: NAME, email: EMAIL, password: PASSWORD });
export const ACCOUNT_CHANGE: Schema = object<AccountChange>({
  name: maybe(NAME),
  email: maybe(EMAIL),
  password: maybe(PASSWORD),
  oldPassword: maybe(orNull(ANY_PASSWORD)),
});
export const NEW_INVITATION: Schema = object<NewInvitation>({
  role: oneOf(ROLES),
  show: orNull(ID),
  label: text(LONGEST_NAME),
});
export const NEW_ROLE: Schema = object<{ role: unknown }>({ role: oneOf(['owner', 'member']) });
/** The unguessable part of a link. */
export const WORD: Schema = object<{ word: unknown }>({ word: text(100, 20) });

export interface NewPasskey {
  /** For the list of them: “this computer”. */
  readonly name: string;
  /** As the browser has it from the device. */
  readonly answer: unknown;
}
export const NEW_PASSKEY: Schema = object<NewPasskey>({ name: text(LONGEST_NAME, 1), answer: anything });

/** As addresses are compared. */
export const plainEmail = (email: string): string => email.trim().toLowerCase();

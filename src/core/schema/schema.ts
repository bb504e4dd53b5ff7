/**
 * What a part of a document may look like, as plain data. The server checks what comes from outside with it (`server/schema/yup-of.ts`), tests deal
 * random values from it (`arbitrary.testing.ts`). It says what each value is by itself; how values must go together is the business of `show/faults.ts`.
 */
export type Schema =
  | TextSchema
  | { readonly is: 'number'; readonly least: number; readonly most: number; readonly whole: boolean }
  | { readonly is: 'truth' }
  | { readonly is: 'one-of'; readonly values: readonly string[] }
  | { readonly is: 'object'; readonly parts: Parts }
  | { readonly is: 'list'; readonly of: Schema; readonly least: number; readonly most: number }
  /** Objects told apart by the value of one of their parts. */
  | { readonly is: 'kinds'; readonly by: string; readonly kinds: Readonly<Record<string, Parts>> }
  /** Chosen by what sort of value is there. */
  | { readonly is: 'either'; readonly choices: readonly EitherChoice[] }
  /** Names to values. */
  | {
      readonly is: 'record';
      readonly keys: TextSchema;
      readonly values: Schema;
      readonly least: number;
      readonly most: number;
    }
  /** Looked at elsewhere. */
  | { readonly is: 'anything' }
  /** May be left out. */
  | { readonly is: 'maybe'; readonly of: Schema }
  | { readonly is: 'or-null'; readonly of: Schema }
  /** For what holds itself. */
  | { readonly is: 'later'; readonly of: () => Schema }
  /** What must hold beyond that, as a sentence about what is wrong, or null. */
  | { readonly is: 'checked'; readonly of: Schema; readonly fault: (value: never) => string | null };

export interface TextSchema {
  readonly is: 'text';
  readonly least: number;
  readonly most: number;
  readonly like?: {
    readonly pattern: RegExp;
    /** “must be an id” */ readonly says: string;
    readonly samples: readonly string[];
  };
}

/** `typeof` of the value. */
interface EitherChoice {
  readonly when: 'string' | 'number' | 'object';
  /** And it has a part of that name. The first that fits is chosen. */
  readonly has?: string;
  readonly then: Schema;
}

export type Parts = Readonly<Record<string, Schema>>;

/** The parts of an object of a type: none forgotten, none too many. */
export type PartsOf<Type> = { readonly [Name in keyof Required<Type>]: Schema };

export const text = (most: number, least = 0): TextSchema => ({ is: 'text', least, most });
/** Something that is written: not spaces alone. @param sample as a person would write it */
export const written = (most: number, sample: string): TextSchema => ({
  is: 'text',
  least: 1,
  most,
  like: { pattern: /\S/, says: 'must not be blank', samples: [sample] },
});
export const number = (least: number, most: number): Schema => ({ is: 'number', least, most, whole: false });
export const whole = (least: number, most: number): Schema => ({ is: 'number', least, most, whole: true });
export const truth: Schema = { is: 'truth' };
export const anything: Schema = { is: 'anything' };
export const oneOf = (values: readonly string[]): Schema => ({ is: 'one-of', values });
export const object = <Type>(parts: PartsOf<Type>): Schema => ({ is: 'object', parts });
export const list = (of: Schema, most: number, least = 0): Schema => ({ is: 'list', of, least, most });
export const maybe = (of: Schema): Schema => ({ is: 'maybe', of });
export const orNull = (of: Schema): Schema => ({ is: 'or-null', of });
export const later = (of: () => Schema): Schema => ({ is: 'later', of });
export const checked = <Value>(of: Schema, fault: (value: Value) => string | null): Schema => ({
  is: 'checked',
  of,
  fault,
});
export const either = (...choices: readonly EitherChoice[]): Schema => ({ is: 'either', choices });
export const record = (keys: TextSchema, values: Schema, most: number, least = 0): Schema => ({
  is: 'record',
  keys,
  values,
  least,
  most,
});

/** The parts that each kind of a union has beside its `kind`. */
export type KindsOf<Union extends { readonly kind: string }> = {
  readonly [Kind in Union['kind']]: PartsOf<Omit<Extract<Union, { readonly kind: Kind }>, 'kind'>>;
};

/** A union told apart by `kind`. */
export const kinds = <Union extends { readonly kind: string }>(of: KindsOf<Union>): Schema => ({
  is: 'kinds',
  by: 'kind',
  kinds: of as unknown as Record<string, Parts>,
});

export const ID = {
  is: 'text',
  least: 1,
  most: 40,
  like: { pattern: /^[\w-]{1,40}$/, says: 'must be an id', samples: ['a', 'b', 'c'] },
} as const satisfies TextSchema;

export const HASH = {
  is: 'text',
  least: 64,
  most: 64,
  like: {
    pattern: /^[0-9a-f]{64}$/,
    says: 'must be a hash of 64 hexadecimal digits',
    samples: ['a'.repeat(64), 'b'.repeat(64), '7'.repeat(64)],
  },
} as const satisfies TextSchema;

export const COLOUR = {
  is: 'text',
  least: 7,
  most: 7,
  like: { pattern: /^#[0-9a-f]{6}$/i, says: 'must read #rrggbb', samples: ['#102030', '#FFFFFF'] },
} as const satisfies TextSchema;

/** SVG path data; anything else in it is refused. */
export const SVG_PATH = {
  is: 'text',
  least: 1,
  most: 20_000,
  like: {
    pattern: /^[MmLlHhVvCcSsQqTtAaZz0-9eE\s,.+-]*$/,
    says: 'must be SVG path data',
    samples: ['M0 0L100 0L50 100Z'],
  },
} as const satisfies TextSchema;

/** −60 and below is silence. */
export const DECIBELS = number(-100, 24);

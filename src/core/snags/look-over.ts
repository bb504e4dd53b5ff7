import { prepareShow } from '../frame/plan-frame';
import { applyEdit, type ShowEdit } from '../show/edit';
import { LONGEST_NAME } from '../show/limits';
import { withItsLengths } from '../timing/follow-music';
import type { Snag, SnagFix, SnagKind, SnagLook } from './snag';
import { SNAG_KIND_NAMES, SNAG_KINDS, type SnagKindName } from './snag-kinds';

export const kindOf = (name: SnagKindName): SnagKind => SNAG_KINDS[name];

/** Everything that will embarrass: grave things first, then in the order of the show. What a person left as it is is among it (`isLeft`). */
export function lookOver(look: SnagLook, kinds: readonly SnagKindName[] = SNAG_KIND_NAMES): Snag[] {
  const found = kinds.flatMap((kind): Snag[] =>
    [...kindOf(kind).find(look)].map((snag) => ({
      ...snag,
      kind,
      key: [kind, snag.slideId, snag.of]
        .filter((part) => part !== undefined && part !== null)
        .join(' ')
        .slice(0, LONGEST_NAME),
    })),
  );
  return found.sort((a, b) => Number(b.grave) - Number(a.grave) || a.fromMs - b.fromMs);
}

/** Whether a person said that it stays as it is. */
export function isLeft({ prepared }: Pick<SnagLook, 'prepared'>, { key }: Pick<Snag, 'key'>): boolean {
  const { letBe } = prepared.show;
  return letBe !== undefined && Object.hasOwn(letBe, key);
}

/** The show after a fix with all that it entails, as when a hand takes it, looked at as before; null when the fix is refused. */
export function lookAfter(look: SnagLook, edit: ShowEdit): SnagLook | null {
  const { show, facts } = look.prepared;
  const result = applyEdit(show, withItsLengths(show, facts, edit).edit);
  return result.ok ? { ...look, prepared: prepareShow(result.show, facts) } : null;
}

/**
 * The ways out of a snag that lead out of it without leading into one as grave: each is tried on the show. Of measured kinds all are given, to be tried by
 * drawing (`drawing/checking`).
 */
export function fixesOf(look: SnagLook, snag: Snag): SnagFix[] {
  const kind = kindOf(snag.kind);
  const fixes = kind.fixes?.(look, snag) ?? [];
  if (kind.measured) return [...fixes];
  return fixes.filter((fix) => helps(look, snag, fix));
}

/** Kinds that a fix of a picture, a length or a sound may bring about. */
const TOLD_OFF: readonly SnagKindName[] = ['cut-face', 'soft-picture', 'black-edge', 'hasty-words', 'voice-cut'];

function helps(look: SnagLook, snag: Snag, { edit }: SnagFix): boolean {
  const after = lookAfter(look, edit);
  if (!after) return false;
  if (lookOver(after, [snag.kind]).some(({ key }) => key === snag.key)) return false;
  const before = new Set(lookOver(look, TOLD_OFF).map(({ key }) => key));
  return lookOver(after, TOLD_OFF).every(({ key, grave }) => !grave || before.has(key));
}

import { groundOf, layEdit, type LayMount } from '../mounts/lay-mount';
import { shippedMount } from '../mounts/shipped/shipped-mounts';
import { takeOffEdit } from '../mounts/take-off';
import type { ShowEdit } from '../show/edit';
import type { Show } from '../show/show';

const MOUNTS = { first: 'logo-in', last: 'logo-out' } as const;
export type LogoPlace = keyof typeof MOUNTS;

/** Whether the studio's logo stands at an end of the show. */
export function hasLogo({ slides }: Pick<Show, 'slides'>, place: LogoPlace): boolean {
  const slide = place === 'first' ? slides[0] : slides.at(-1);
  return slide?.mounted?.mount.id === MOUNTS[place];
}

/** The logo put at an end of the show or taken away there, as one step; a sentence where that cannot be done. */
export function logoEdit(
  show: Show,
  place: LogoPlace,
  on: boolean,
  given: Omit<LayMount, 'mount'>,
): { readonly ok: true; readonly edit: ShowEdit | null } | { readonly ok: false; readonly sentence: string } {
  if (on === hasLogo(show, place)) return { ok: true, edit: null };
  const at = place === 'first' ? show.slides[0] : show.slides.at(-1);
  if (!on) return { ok: true, edit: takeOffEdit(show, at ? [at.id] : [], given.newId) };
  const laid = layEdit(show, groundOf(show, at ? [at.id] : [], given.newId), {
    ...given,
    mount: shippedMount(MOUNTS[place])!,
  });
  return laid.ok ? { ok: true, edit: laid.edit } : laid;
}

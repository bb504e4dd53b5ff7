import type { Loose } from './loose';
import type { RaiseStep } from './raise';

/**
 * Version 11 can say where a clip’s part ends, that it runs backwards or again, which frames stand, how it moves and is cropped; and clips at another speed are
 * heard. Those that were silent because of their speed stay silent.
 */
export const fromTenToEleven: RaiseStep = {
  content: (content) => silenced(content) as Loose,
  edit: (edit) => silenced(edit) as Loose,
};

const SILENT_DB = -60;

function silenced(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(silenced);
  if (typeof value !== 'object' || value === null) return value;
  const raised: Loose = Object.fromEntries(Object.entries(value).map(([name, inner]) => [name, silenced(inner)]));
  const isSped = raised.kind === 'clip' && typeof raised.speed === 'number' && raised.speed !== 1;
  return isSped ? { ...raised, soundGainDb: SILENT_DB } : raised;
}

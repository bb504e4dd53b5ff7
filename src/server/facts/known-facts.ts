import type { MethodPins } from '../../core/facts/fact-kinds';
import type { FocusFacts } from '../../core/focus/focus-facts';
import type { ListeningFacts } from '../../core/sound/listening/listening-facts';
import type { AssetFacts } from '../../core/show/asset-facts';
import type { AssetId } from '../../core/show/ids';
import { THE_STUDIO } from '../studio/may-do';
import type { FactStore } from './fact-store';

/** All that is known about files, put together: what was found by looking at them, and later what they are about. */
export async function knownFacts(
  facts: FactStore,
  ids: readonly AssetId[],
  methods: MethodPins = {},
): Promise<Map<AssetId, AssetFacts>> {
  const known = await facts.of<AssetFacts>('basics', ids, methods.basics ?? null, THE_STUDIO);
  const pictures = [...known].filter(([, one]) => one.kind === 'picture').map(([id]) => id);
  for (const [id, focus] of await facts.of<FocusFacts>('focus', pictures, methods.focus ?? null, THE_STUDIO)) {
    const one = known.get(id);
    if (one?.kind === 'picture') known.set(id, { ...one, focus });
  }
  const sounding = [...known].filter(([, one]) => one.kind !== 'picture').map(([id]) => id);
  const heard = await facts.of<ListeningFacts>('listening', sounding, methods.listening ?? null, THE_STUDIO);
  for (const [id, listening] of heard) {
    const one = known.get(id);
    if (one && one.kind !== 'picture') known.set(id, { ...one, listening });
  }
  return known;
}

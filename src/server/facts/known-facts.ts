import type { MethodPins } from '../../core/facts/fact-kinds';
import type { FocusFacts } from '../../core/focus/focus-facts';
import type { ListeningFacts } from '../../core/sound/listening/listening-facts';
import type { AssetFacts } from '../../core/show/asset-facts';
import type { AssetId } from '../../core/show/ids';
import { THE_STUDIO } from '../studio/may-do';
import type { FactStore } from './fact-store';

/** The version of the method that looks at clips, too: shows made with an earlier one go on without. */
const CLIPS_SINCE = 4;

/** All that is known about files, put together: what was found by looking at them, and later what they are about. */
export async function knownFacts(
  facts: FactStore,
  ids: readonly AssetId[],
  methods: MethodPins = {},
): Promise<Map<AssetId, AssetFacts>> {
  const known = await facts.of<AssetFacts>('basics', ids, methods.basics ?? null, THE_STUDIO);
  const looksAtClips = (methods.focus ?? CLIPS_SINCE) >= CLIPS_SINCE;
  const seen = [...known]
    .filter(([, { kind }]) => kind === 'picture' || (kind === 'clip' && looksAtClips))
    .map(([id]) => id);
  for (const [id, focus] of await facts.of<FocusFacts>('focus', seen, methods.focus ?? null, THE_STUDIO)) {
    const one = known.get(id);
    if (one && one.kind !== 'sound') known.set(id, { ...one, focus });
  }
  const sounding = [...known].filter(([, one]) => one.kind !== 'picture').map(([id]) => id);
  const heard = await facts.of<ListeningFacts>('listening', sounding, methods.listening ?? null, THE_STUDIO);
  for (const [id, listening] of heard) {
    const one = known.get(id);
    if (one && one.kind !== 'picture') known.set(id, { ...one, listening });
  }
  return known;
}

import { soundSpans } from '../../sound/sound-spans';
import type { AssetId } from '../../show/ids';
import { called } from '../helpers';
import type { SnagKind } from '../snag';

/** What a person can answer with one press. */
const OWN_WORK = 'Our own work';

export const noLicence: SnagKind = {
  title: 'Songs without a licence',
  advice: 'Note whose it is and by what right it is used.',
  place: 'sound',
  *find(look) {
    const { show, facts } = look.prepared;
    const told = new Set<AssetId>();
    for (const { sound, startMs, endMs } of soundSpans(show, facts)) {
      const { assetId } = sound;
      if (sound.kind === 'voice' || look.files.get(assetId)?.madeHere || show.licences?.[assetId] || told.has(assetId))
        continue;
      told.add(assetId);
      yield {
        grave: false,
        slideId: null,
        soundId: sound.id,
        assetId,
        of: assetId.slice(0, 20),
        fromMs: startMs,
        toMs: Math.min(endMs, startMs + 6000),
        sentence: `Nobody has noted by what right ${called(look, assetId)} is used.`,
      };
    }
  },
  fixes(_look, { assetId }) {
    return assetId
      ? [{ name: 'It is our own', edit: { kind: 'set-licences', licences: [{ assetId, licence: OWN_WORK }] } }]
      : [];
  },
};

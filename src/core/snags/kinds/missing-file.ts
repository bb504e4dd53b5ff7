import { assetIdsOfSlides, assetIdsOf } from '../../show/show';
import { allOf, slidesOf } from '../helpers';
import type { SnagKind } from '../snag';

export const missingFile: SnagKind = {
  title: 'Missing files',
  advice: 'Bring the file again, or swap in another.',
  place: 'gather',
  *find(look) {
    const { prepared, files } = look;
    const isMissing = (id: (typeof ids)[number]) => {
      const file = files.get(id);
      return file ? file.state === 'missing' : !prepared.facts.has(id);
    };
    const ids = assetIdsOf(prepared.show);
    const missing = new Set(ids.filter(isMissing));
    if (missing.size === 0) return;
    const told = new Set<string>();
    for (const place of slidesOf(prepared))
      for (const id of assetIdsOfSlides([place.slide])) {
        if (!missing.has(id)) continue;
        told.add(id);
        yield {
          grave: true,
          slideId: place.slide.id,
          assetId: id,
          of: id.slice(0, 20),
          ...allOf(place),
          sentence: `${files.get(id) ? `“${files.get(id)!.name}”` : 'A file'} of slide ${place.index + 1} is not there or cannot be read.`,
        };
      }
    for (const id of missing)
      if (!told.has(id))
        yield {
          grave: true,
          slideId: null,
          assetId: id,
          of: id.slice(0, 20),
          fromMs: 0,
          toMs: prepared.lengthMs,
          sentence: `${files.get(id) ? `“${files.get(id)!.name}”` : 'A song'} is not there or cannot be read.`,
        };
  },
};

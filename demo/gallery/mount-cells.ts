import type { FactsById } from '../../src/core/show/asset-facts';
import { groundOf, withMount } from '../../src/core/mounts/lay-mount';
import { takesOf } from '../../src/core/mounts/mount';
import { SHIPPED_MOUNTS } from '../../src/core/mounts/shipped/shipped-mounts';
import { SHIPPED_PLUMAGE } from '../../src/core/plumage/shipped-plumage';
import { layerId, showId, type AssetId } from '../../src/core/show/ids';
import { slideFromAsset } from '../../src/core/show/new-slide';
import { emptyShow, type Show } from '../../src/core/show/show';
import { frameOfShape } from '../../src/core/show/shape';

/** A mount as it lies, at the moment that stands for it. */
export interface MountCell {
  readonly label: string;
  readonly show: Show;
  readonly momentMs: number;
}

/** Every shipped mount in a shape of the frame, on pictures of the demo, each shelf in a plumage of its own. */
export function mountCells(shape: string, pictures: readonly AssetId[], logo: AssetId, facts: FactsById): MountCell[] {
  const shelves = [...new Set(SHIPPED_MOUNTS.map(({ shelf }) => shelf))];
  let count = 0;
  const newId = () => `m${(count += 1)}`;
  return SHIPPED_MOUNTS.map((mount, index) => {
    const look = SHIPPED_PLUMAGE[shelves.indexOf(mount.shelf) % SHIPPED_PLUMAGE.length]!;
    const empty = emptyShow(showId('gallery'), 'Lantern Regatta');
    const frame = frameOfShape(shape, empty.frame);
    const counts = [...new Set(mount.fits(frame, look).map(takesOf))];
    const taken = Math.max(1, counts[Math.floor(counts.length / 2)]!);
    const slides = Array.from({ length: taken }, (_, at) => {
      const id = pictures[(index + at) % pictures.length]!;
      const slide = slideFromAsset(id, facts.get(id)!, 5000, newId);
      const words = {
        kind: 'words' as const,
        id: layerId('w'),
        title: 'Port Ellery',
        subtitle: 'Forty boats, on one rope.',
        place: 'bottom' as const,
      };
      return at === 0 && mount.shelf !== 'Openers' ? { ...slide, layers: [...slide.layers, words] } : slide;
    });
    const show = { ...empty, frame, slides };
    const studio = { name: 'Harrow Lane Pictures', contact: 'hello@harrowlane.example', logo };
    const ids = slides.map(({ id }) => id);
    const laid = withMount(groundOf(show, ids, newId), { mount, look, facts, studio, newId });
    if (!laid.ok) throw new Error(`${mount.id}: ${laid.sentence}`);
    const made = laid.show.slides.find(({ mounted }) => mounted)!;
    return {
      label: mount.name,
      show: { ...laid.show, cues: [], slides: [{ ...made, transition: { kind: 'cut' } }] },
      momentMs: Math.min(mount.posterMs, made.lengthMs - 50),
    };
  });
}

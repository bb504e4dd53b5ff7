import { barredPictures } from '../../light/barred-pictures';
import { cropOfSides, liesInside } from '../../motion/crop';
import { cropEdit } from '../../motion/crop-edit';
import type { Framing } from '../../motion/framing';
import { keptOnPicture, pictureAt } from '../calmed-move';
import { allOf, called, picturesOf } from '../helpers';
import type { SnagKind } from '../snag';

/** A picture that is all within its framing is shown whole on purpose. */
function showsWhole({ x, y, width, height }: Framing): boolean {
  const slack = 1e-3;
  return Math.abs(x - 0.5) + 0.5 <= width / 2 + slack && Math.abs(y - 0.5) + 0.5 <= height / 2 + slack;
}

/** Or as wide, or as high, as the frame, with its backing on both sides. */
function isBetween({ x, y, width, height }: Framing): boolean {
  const slack = 1e-3;
  const evenly = (at: number, size: number) => size >= 1 - slack && Math.abs(at - 0.5) + 0.5 <= size / 2 + slack;
  const inside = (at: number, size: number) => Math.abs(at - 0.5) + size / 2 <= 0.5 + slack;
  return (evenly(x, width) && inside(y, height)) || (evenly(y, height) && inside(x, width));
}

export const blackEdge: SnagKind = {
  title: 'Edges that show',
  advice: 'Frame it so that it fills the frame, or show it whole.',
  place: 'arrange',
  *find(look) {
    const { prepared } = look;
    for (const place of picturesOf(prepared)) {
      const { slide, layer } = place;
      const move = prepared.moves.get(slide.id)?.get(layer.id);
      const at = pictureAt(prepared, slide.id, layer.id);
      if (!move || !at || layer.move.kind !== 'set') continue;
      const framings = [move.first, move.last, ...(move.pace?.middle ? [move.pace.middle.framing] : [])];
      if (framings.every((framing) => liesInside(framing, at.size) || showsWhole(framing) || isBetween(framing)))
        continue;
      yield {
        grave: true,
        slideId: slide.id,
        layerId: layer.id,
        assetId: layer.assetId,
        of: layer.id,
        ...allOf(place),
        sentence: `The framing of ${called(look, layer.assetId)} leaves the picture: an edge shows.`,
      };
    }
    for (const { slideId, slideIndex, layer } of barredPictures(prepared.show.slides, prepared.facts))
      yield {
        grave: false,
        slideId,
        layerId: layer.id,
        assetId: layer.assetId,
        of: `${layer.id} bars`,
        ...allOf({ span: prepared.spans[slideIndex]! }),
        sentence: `${called(look, layer.assetId)} has dark bars baked into it.`,
      };
  },
  fixes({ prepared }, { slideId, layerId, of = '' }) {
    const at = slideId && layerId && pictureAt(prepared, slideId, layerId);
    if (!at) return [];
    const facts = prepared.facts.get(at.layer.assetId);
    if (of.endsWith(' bars')) {
      const bars = facts?.kind === 'picture' ? facts.bars : undefined;
      const trimmed =
        bars &&
        cropEdit([{ slideId, layer: at.layer }], prepared.facts, (_layer, picture) => cropOfSides(bars, 0, picture));
      return trimmed ? [{ name: 'Trim the bars', edit: trimmed }] : [];
    }
    const kept = keptOnPicture(prepared, slideId, layerId);
    return [
      ...(kept
        ? [{ name: 'Keep it on the picture', edit: { kind: 'set-move' as const, slideId, layerId, move: kept } }]
        : []),
      { name: 'Let it move by itself', edit: { kind: 'set-move', slideId, layerId, move: { kind: 'automatic' } } },
    ];
  },
};

import { seenInShape } from '../../builds/in-shape';
import { shareWithin, type Box } from '../../focus/box';
import { windowOf } from '../../focus/reframe';
import { lostInShape } from '../../film/lost-in-shape';
import { cropOn, placeOnCrop } from '../../motion/crop';
import { cropEdit } from '../../motion/crop-edit';
import { framingAt } from '../../motion/move-pace';
import { prepareShow } from '../../frame/plan-frame';
import type { PictureFacts } from '../../show/asset-facts';
import type { PictureLayer } from '../../show/layer';
import { shapeName } from '../../show/shape';
import { pictureAt } from '../calmed-move';
import { about, allOf, called, picturesOf } from '../helpers';
import type { SnagKind, SnagLook } from '../snag';

/** Of a face: what is cut by less is its hair, what is cut by more was left out on purpose. */
const CUT = { least: 0.12, most: 0.93 };
/** Passers-by are smaller than this share of the largest face. */
const LEAST_OF_LARGEST = 0.35;
/** Looked at along a move. */
const LOOKS = 6;

/** The faces a picture is of, on what its crop leaves; those that the crop cuts reach beyond 0…1. */
function mainFacesOf(facts: PictureFacts, layer: Pick<PictureLayer, 'crop'>): Box[] {
  const faces = facts.focus?.faces ?? [];
  const largest = Math.max(0, ...faces.map((face) => face.height));
  const main = faces.filter((face) => face.height >= LEAST_OF_LARGEST * largest);
  if (!layer.crop) return main;
  const crop = cropOn(facts, layer.crop);
  return main.map((face) => {
    const corners = [
      [face.left, face.top],
      [face.left + face.width, face.top],
      [face.left, face.top + face.height],
      [face.left + face.width, face.top + face.height],
    ].map(([x, y]) => placeOnCrop(crop, { x: x!, y: y! }, facts));
    const [left, top] = [Math.min(...corners.map(({ x }) => x)), Math.min(...corners.map(({ y }) => y))];
    return {
      left,
      top,
      width: Math.max(...corners.map(({ x }) => x)) - left,
      height: Math.max(...corners.map(({ y }) => y)) - top,
    };
  });
}

const isCut = (share: number) => share > CUT.least && share < CUT.most;

export const cutFace: SnagKind = {
  title: 'Cut faces',
  advice: 'Set its framings so that each face is all in or all out.',
  place: 'arrange',
  *find(look) {
    const { prepared } = look;
    for (const place of picturesOf(prepared)) {
      const { layer, slide, span } = place;
      const facts = prepared.facts.get(layer.assetId);
      const move = prepared.moves.get(slide.id)?.get(layer.id);
      if (facts?.kind !== 'picture' || !facts.focus || !move) continue;
      const base = { slideId: slide.id, layerId: layer.id, assetId: layer.assetId };
      const faces = mainFacesOf(facts, layer);
      const byCrop = layer.crop ? faces.filter((face) => isCut(shareWithin(face, WHOLE))) : [];
      if (byCrop.length > 0) {
        yield {
          ...base,
          ...allOf(place),
          grave: true,
          of: `${layer.id} crop`,
          sentence: `The crop of ${called(look, layer.assetId)} cuts ${byCrop.length === 1 ? 'a face' : `${byCrop.length} faces`}.`,
        };
        continue;
      }
      const seenMs = span.leavesMs - span.startMs;
      let worst: { offsetMs: number; cut: number; least: number } | null = null;
      for (let at = 0; at <= LOOKS; at += 1) {
        const offsetMs = (seenMs * at) / LOOKS;
        const window = windowOf(framingAt(move, offsetMs, seenMs));
        const shares = faces.map((face) => shareWithin(face, window)).filter(isCut);
        if (shares.length > 0 && shares.length > (worst?.cut ?? 0))
          worst = { offsetMs, cut: shares.length, least: Math.min(...shares) };
      }
      if (worst)
        yield {
          ...base,
          ...about(place, worst.offsetMs),
          grave: true,
          of: layer.id,
          sentence: `${called(look, layer.assetId)} is framed so that ${worst.cut === 1 ? 'a face is cut' : `${worst.cut} faces are cut`}.`,
        };
    }
    yield* inOtherShapes(look);
  },
  fixes(look, { slideId, layerId, of = '' }) {
    if (!slideId || !layerId) return [];
    if (/ \d+:\d+$/.test(of)) return [];
    const at = pictureAt(look.prepared, slideId, layerId);
    const uncropped = at?.layer.crop && cropEdit([{ slideId, layer: at.layer }], look.prepared.facts, () => null);
    return [
      ...(uncropped ? [{ name: 'Without the crop', edit: uncropped }] : []),
      {
        name: 'Frame it for its faces',
        edit: { kind: 'set-move', slideId, layerId, move: { kind: 'automatic' } },
      },
      { name: 'Let it stand still', edit: { kind: 'set-move', slideId, layerId, move: { kind: 'still' } } },
    ];
  },
};

const WHOLE: Box = { left: 0, top: 0, width: 1, height: 1 };

/** Films that are asked for in other shapes. */
function* inOtherShapes({ prepared, films, files }: SnagLook) {
  const own = shapeName(prepared.show.frame);
  for (const shape of new Set(films.map((film) => film.shape))) {
    if (shape === own) continue;
    const shaped = prepareShow(seenInShape(prepared.show, prepared.facts, shape), prepared.facts);
    for (const lost of lostInShape(prepared, shaped)) {
      const facts = prepared.facts.get(lost.assetId);
      if (!lost.cutsFocus || lost.corrected || !facts || facts.kind === 'sound') continue;
      if (!facts.focus?.faces.length) continue;
      yield {
        slideId: lost.slideId,
        layerId: lost.layerId,
        assetId: lost.assetId,
        ...allOf({ span: prepared.spans[lost.slideIndex]! }),
        grave: false,
        of: `${lost.layerId} ${shape}`,
        sentence: `In the film of ${shape} ${called({ files }, lost.assetId)} loses a part of who is in it.`,
      };
    }
  }
}
